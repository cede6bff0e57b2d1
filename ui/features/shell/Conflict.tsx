"use client";

import { TriangleAlert } from "lucide-react";
import type { SavedDocument, SaveState } from "../../data/savedDocument";

/** Asks which of two stays where somebody else has saved meanwhile; nothing where nobody has. */
export function Conflict<V, P extends object>({ save, document, what }: { save: SaveState<V>; document: SavedDocument<V, P>; what: string }) {
  if (save.kind !== "conflict") return null;
  return (
    <div role="alert" className="card space-y-2 !border-2 !border-no p-3">
      <p className="flex gap-2 font-semibold">
        <TriangleAlert className="shrink-0 text-no" aria-hidden="true" />
        {what} was changed somewhere else since this page read it. Nothing was overwritten. Which one stays?
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" onClick={() => document.resolve("mine")}>
          Keep what is on this page
        </button>
        <button type="button" className="btn" onClick={() => document.resolve("theirs")}>
          Take the other one
        </button>
      </div>
    </div>
  );
}
