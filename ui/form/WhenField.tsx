"use client";

import { useId, useState } from "react";
import { readWhen } from "@/core/clock/when";
import { useUnits } from "../kit/units";
import { momentIn, weekdayIn } from "../kit/zone";

/** When something was done, as people say it. Empty is just now; what was understood stands under it. */
export function WhenField({ label, onChange }: { label: string; onChange: (at: number | null, ok: boolean) => void }) {
  const { zone, wall } = useUnits();
  const id = useId();
  const [text, setText] = useState("");
  const [said, setSaid] = useState<{ fault: string | null; understood: string | null }>({ fault: null, understood: null });
  const type = (t: string) => {
    setText(t);
    const now = Date.now();
    const r = readWhen(t, now, weekdayIn(now, zone), (days, minutes) => momentIn(now, zone, days, minutes));
    const empty = t.trim() === "";
    setSaid({ fault: r.ok ? null : r.message, understood: r.ok && !empty ? wall(r.at, now) : null });
    onChange(r.ok && !empty ? r.at : null, r.ok);
  };
  return (
    <div className="w-56 min-w-0">
      <label htmlFor={id} className="label">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={text}
        maxLength={40}
        placeholder="just now"
        autoComplete="off"
        aria-invalid={said.fault !== null}
        aria-describedby={`${id}-said`}
        onChange={(e) => type(e.target.value)}
      />
      <p id={`${id}-said`} role="status" className={said.fault ? "fault text-sm" : "hint"}>
        {said.fault ?? (said.understood ? `Understood: ${said.understood}` : "16:00, yesterday 16:00, 2 h ago")}
      </p>
    </div>
  );
}
