"use client";

import type { Plan } from "@/core/plan";
import type { Pour } from "@/core/log";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { fromNow, useNow } from "../../kit/When";

/** Always in sight: verdict, grams of rubber, grams of casting, filled weight, and when to act next. */
export function Tally({ plan, pours }: { plan: Plan; pours: readonly Pour[] }) {
  const { fmt, wall } = useUnits();
  const now = useNow();
  const t = plan.tally;
  const next = pours.filter((p) => p.openedAt === null).sort((a, b) => a.readyAt - b.readyAt)[0];
  const moulded = plan.pours.length > 0 && plan.pours.every((_, i) => pours.some((p) => p.kind === "rubber" && p.pourIndex === i));
  return (
    <aside aria-label="Tally" className="sticky bottom-0 z-20 -mx-3 shrink-0 border-t-4 border-citrus bg-bar px-3 py-1 text-onbar sm:-mx-5 sm:px-5">
      <dl className="mx-auto grid max-w-[1760px] grid-cols-3 items-end gap-x-4 lg:grid-cols-5">
        <Item name="Rubber to mix" value={fmt(t.rubberG, "mass")} testId="tally-rubber" />
        <Item name="Casting to mix" value={fmt(t.castG, "mass")} testId="tally-cast" />
        <Item name="Filled mould" value={fmt(t.filledG, "mass")} testId="tally-filled" />
        <div className="min-w-0 max-lg:hidden">
          <dt className="truncate text-xs text-onbarsoft">{next ? `${next.snapshot.what} ready` : "Next to act"}</dt>
          <dd className="figure truncate text-xl" data-testid="tally-next">
            {next && now !== null ? (
              <span>
                {next.readyAt <= now ? "ready to open" : fromNow(next.readyAt, now)}{" "}
                <span className="font-sans text-sm font-normal text-onbarsoft">{wall(next.readyAt, now)}</span>
              </span>
            ) : t.rubberOutH !== null ? (
              <span className="font-sans text-base font-normal">{moulded ? "pour the casting" : "pour the rubber"}</span>
            ) : (
              "–"
            )}
          </dd>
        </div>
        <div className="min-w-0 max-lg:hidden">
          <dt className="text-xs text-onbarsoft">How it all gets on</dt>
          <dd data-testid="tally-verdict">
            {plan.rubber ? (
              <VerdictMark verdict={t.verdict} size={20} className="whitespace-nowrap rounded-md bg-card px-1.5 py-0.5 text-sm sm:text-base" />
            ) : (
              <span className="figure text-lg">–</span>
            )}
          </dd>
        </div>
      </dl>
    </aside>
  );
}

function Item({ name, value, testId }: { name: string; value: string; testId: string }) {
  return (
    <div className="min-w-0">
      <dt className="truncate text-xs text-onbarsoft">{name}</dt>
      <dd className="figure truncate text-2xl leading-tight text-citrus lg:text-3xl lg:leading-tight" data-testid={testId}>
        {value}
      </dd>
    </div>
  );
}
