"use client";

import type { BuildStep } from "@/core/mould";
import { useUnits } from "../../kit/units";

/** What is done in which order, what waits, and where release goes first. */
export function OrderOfWork({ order }: { order: readonly BuildStep[] }) {
  const { say } = useUnits();
  return (
    <ol className="space-y-1.5">
      {order.map((s, i) => (
        <li key={s.id} className="flex gap-3">
          <span className="figure w-7 shrink-0 text-right text-lg leading-snug text-soft" aria-hidden="true">
            {i + 1}
          </span>
          <div className="min-w-0">
            <p>{say(s.what)}</p>
            {s.waits && <p className="text-sm text-soft">Waits {s.waits}.</p>}
            {s.release.length > 0 && (
              <p className="text-sm">
                <b>Release first:</b> {s.release.join("; ")}.
              </p>
            )}
          </div>
        </li>
      ))}
    </ol>
  );
}
