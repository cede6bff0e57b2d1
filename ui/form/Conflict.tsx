"use client";

import { TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";

/** Says that somebody else has saved meanwhile, and asks which of two stays. */
export function Conflict({ children, more, resolve }: { children: ReactNode; more?: string; resolve: (keep: "mine" | "theirs") => void }) {
  return (
    <div role="alert" className="card space-y-2 !border-2 !border-no p-3">
      <p className="flex gap-2 font-semibold">
        <TriangleAlert className="shrink-0 text-no" aria-hidden="true" />
        <span>{children} Nothing was overwritten. Which one stays?</span>
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" onClick={() => resolve("mine")}>
          Keep what is on this page
        </button>
        <button type="button" className="btn" onClick={() => resolve("theirs")}>
          Take the other one
        </button>
        {more && <span className="hint self-center">{more}</span>}
      </div>
    </div>
  );
}
