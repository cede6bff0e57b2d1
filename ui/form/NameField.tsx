"use client";

import { useState } from "react";

/** A name that may stand empty while it is typed anew; the last good one stays in force. */
export function NameField({ what, value, onChange }: { what: string; value: string; onChange: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && typed.trim() === "";
  return (
    <label className="block min-w-0 space-y-1">
      <span className="label block">Name</span>
      <input
        className="field"
        value={typed ?? value}
        maxLength={40}
        aria-invalid={wrong ? true : undefined}
        onChange={(e) => {
          setTyped(e.target.value);
          if (e.target.value.trim() !== "") onChange(e.target.value);
        }}
        onBlur={() => setTyped(null)}
      />
      {wrong && (
        <span role="alert" className="fault block">
          Nothing typed yet: give the {what} a name. Still using “{value}”.
        </span>
      )}
    </label>
  );
}
