"use client";

import { Progress as Radix } from "radix-ui";
import type { Going } from "../data/useErrand";

/** How far something long has come, and the way to stop it. */
export function Progress({ going, stop }: { going: Going; stop: () => void }) {
  const percent = Math.round(Math.min(1, Math.max(0, going.share)) * 100);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <div className="min-w-0 flex-1 basis-48 space-y-1">
        <p role="status" className="font-semibold">
          {going.doing}
          {percent > 0 ? `, ${percent} %` : "…"}
        </p>
        <Radix.Root value={percent} aria-label={going.doing} className="h-3 overflow-hidden rounded-full border border-ink bg-paper">
          <Radix.Indicator className="h-full bg-citrus" style={{ width: `${percent}%` }} />
        </Radix.Root>
      </div>
      <button type="button" className="btn" onClick={stop}>
        Stop
      </button>
    </div>
  );
}

/** The same for work that may not be under way: stopping it ends the work, and its telling. */
export function Running({ doing, stop, end }: { doing: Going | null; stop: () => void; end: () => void }) {
  return (
    doing && (
      <Progress
        going={doing}
        stop={() => {
          stop();
          end();
        }}
      />
    )
  );
}
