"use client";

import Link from "next/link";
import { CLOCK_KINDS, dueAt, isDeadline } from "@/core/clock/kinds";
import { isNight, lastWaking, nextWaking, riverAdvice, stretchOf, temperatureToEndAt } from "@/core/clock/river";
import type { Equipment } from "@/core/clock/kinds";
import { hoursIn } from "../../kit/zone";
import type { BenchView } from "@/contract/bench";
import { useUnits } from "../../kit/units";

const HOUR = 3_600_000;
const BACK_H = 3;
const AHEAD_H = 48;
/** Shops are not heated or cooled past these for a mould's sake, °C. */
const WARMEST_C = 28;
const COLDEST_C = 12;

export interface PlannedStretch {
  id: string;
  label: string;
  fromAt: number;
  toAt: number;
  href: string;
  equipment: Equipment | null;
}

const HUES: Record<string, string> = {
  "pot-life": "bg-citrus",
  working: "bg-citrus",
  degas: "bg-box",
  pressure: "bg-box",
  tack: "bg-rubber",
  cure: "bg-rubber",
  "second-half": "bg-rubber",
  demould: "bg-cast",
  "top-up": "bg-cast",
  "post-cure": "bg-jacket",
  drying: "bg-clay",
  other: "bg-master",
};

/** The next two days: what runs, when it wants hands, what falls into the night, and what is planned. */
export function River({ bench, now, planned }: { bench: BenchView; now: number; planned: readonly PlannedStretch[] }) {
  const { say, fmt, wall } = useUnits();
  const from = now - BACK_H * HOUR;
  const to = now + AHEAD_H * HOUR;
  const at = (t: number) => ((Math.min(to, Math.max(from, t)) - from) / (to - from)) * 100;
  const { zone } = bench.forecast;
  const nights: [number, number][] = [];
  for (let t = from; t < to;) {
    if (isNight(t, bench.waking, zone)) {
      const end = Math.min(to, nextWaking(t, bench.waking, zone));
      nights.push([t, end]);
      t = end + 1;
    } else t += HOUR / 4;
  }
  const ticks = hoursIn(from, to, 12, zone);
  const rows = bench.clocks.filter((c) => c.clock.endedAt === null && dueAt(c) < to + 24 * HOUR).sort((a, b) => dueAt(a) - dueAt(b));
  const advice = riverAdvice(
    [
      ...rows.map(stretchOf),
      ...planned.map((p) => ({
        id: p.id,
        label: p.label,
        fromAt: p.fromAt,
        handsAt: p.toAt,
        toAt: p.toAt,
        deadline: false,
        equipment: p.equipment,
        planned: true,
      })),
    ],
    bench.waking,
    zone,
    now,
  );
  /** Temperature that brings a wait which would end at night to the evening before; null where none in reason does. */
  const warmer = (id: string): string | null => {
    const c = rows.find((r) => r.clock.id === id);
    if (!c || c.clock.rule.kind === "fixed") return null;
    const evening = lastWaking(dueAt(c), bench.waking, zone);
    const t = temperatureToEndAt(c, evening, now, bench.forecast);
    return t === null || t > WARMEST_C || t < COLDEST_C
      ? null
      : `Kept at ${fmt(t, "temperature")}, where its data sheet allows, it would be ready by ${wall(evening, now)}.`;
  };
  const coming = planned.filter((p) => p.toAt > now && p.fromAt < to);
  if (rows.length + coming.length === 0) return <p className="card p-4 text-soft">Nothing runs in the next two days.</p>;
  return (
    <div className="card overflow-hidden p-3" role="group" aria-label="The next two days">
      <div className="relative">
        <div className="pointer-events-none absolute inset-0 sm:left-56" aria-hidden="true">
          {nights.map(([a, b]) => (
            <div key={a} className="absolute inset-y-0 bg-ink/10" style={{ left: `${at(a)}%`, width: `${at(b) - at(a)}%` }} />
          ))}
          {ticks.map((t) => (
            <div key={t} className="absolute inset-y-0 border-l border-line" style={{ left: `${at(t)}%` }} />
          ))}
          <div className="absolute inset-y-0 w-0.5 bg-no" style={{ left: `${at(now)}%` }} />
        </div>
        <div className="relative h-6 sm:ml-56" aria-hidden="true">
          {ticks.map((t) => (
            <span key={t} className="absolute -translate-x-1/2 whitespace-nowrap text-xs text-soft" style={{ left: `${Math.min(95, Math.max(6, at(t)))}%` }}>
              {wall(t, now).replace("today ", "")}
            </span>
          ))}
        </div>
        <ul className="space-y-1.5">
          {rows.map((c) => {
            const hands = dueAt(c);
            const end = c.closesAt ?? (isDeadline(c.clock.kind) ? c.finish.highAt : c.finish.highAt);
            return (
              <li key={c.clock.id} className="relative sm:flex sm:items-center">
                <span className="block min-w-0 pr-3 leading-tight sm:w-56 sm:shrink-0">
                  {c.clock.pourId ? (
                    <Link href={`/log/${c.clock.pourId}`} className="block truncate font-semibold underline decoration-line">
                      {c.clock.label}
                    </Link>
                  ) : (
                    <span className="block truncate font-semibold">{c.clock.label}</span>
                  )}
                  <span className="block truncate text-sm text-soft">
                    {CLOCK_KINDS[c.clock.kind].label}, {wall(hands, now)}
                  </span>
                </span>
                <span className="relative block h-8 sm:flex-1">
                  <span
                    className={`absolute top-2 h-4 rounded-l-full opacity-80 ${HUES[c.clock.kind] ?? "bg-master"}`}
                    style={{ left: `${at(c.clock.startedAt)}%`, width: `${Math.max(0.6, at(hands) - at(c.clock.startedAt))}%` }}
                  />
                  <span
                    className={`absolute top-2 h-4 rounded-r-full opacity-30 ${HUES[c.clock.kind] ?? "bg-master"}`}
                    style={{ left: `${at(hands)}%`, width: `${Math.max(0, at(end) - at(hands))}%` }}
                  />
                  {hands < to && (
                    <span className="absolute top-0 size-8 -translate-x-1/2 rotate-45 scale-50 border-4 border-ink bg-card" style={{ left: `${at(hands)}%` }} />
                  )}
                </span>
              </li>
            );
          })}
          {coming.map((p) => (
            <li key={p.id} className="relative sm:flex sm:items-center">
              <span className="block min-w-0 pr-3 leading-tight sm:w-56 sm:shrink-0">
                <Link href={p.href} className="block truncate font-semibold underline decoration-line">
                  {p.label}
                </Link>
                <span className="block text-sm text-soft">planned, {wall(p.fromAt, now)}</span>
              </span>
              <span className="relative block h-8 sm:flex-1">
                <span
                  className="absolute top-2 h-4 rounded-md border-2 border-dashed border-ink bg-peel"
                  style={{ left: `${at(p.fromAt)}%`, width: `${Math.max(0.8, at(p.toAt) - at(p.fromAt))}%` }}
                />
              </span>
            </li>
          ))}
        </ul>
      </div>
      <p className="hint mt-2">Bars end where hands are wanted (the diamond); paler is the span it may take, or its window. Grey is when nobody is up.</p>
      {advice.length > 0 && (
        <ul className="mt-2 space-y-1.5">
          {advice.slice(0, 6).map((a) => (
            <li key={a.about.join() + a.kind} className="rounded-lg border-l-4 border-untested bg-hold px-3 py-2 text-[0.95rem]">
              <b>{say(a.message)}</b> {say(a.suggestion)} {a.kind === "night" && a.shiftMs === null && warmer(a.about[0] ?? "")}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
