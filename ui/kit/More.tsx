"use client";

import type { ReactNode } from "react";
import { useDevice } from "./device";
import { Fold } from "./Fold";

/**
 * The rest of a step, behind a line that says what it is and how it stands. Open by itself where `open` is true, or on a device
 * that shows everything.
 */
export function More({ title, now, open = false, children }: { title: string; now?: ReactNode; open?: boolean; children: ReactNode }) {
  const [everything] = useDevice("everything");
  return (
    <Fold
      open={open || everything}
      className="more border-t border-line"
      titleClass="min-h-11"
      title={
        <span className="flex min-w-0 grow items-baseline justify-between gap-3">
          <span className="font-semibold">{title}</span>
          {now !== undefined && <span className="min-w-0 truncate text-right text-soft">{now}</span>}
        </span>
      }
    >
      <div className="space-y-3 pb-3 pt-1">{children}</div>
    </Fold>
  );
}
