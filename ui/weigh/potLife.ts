"use client";

import { useBenchClocks } from "../clocks/BenchClocks";

/** The clock of each cup of a batch: when its pot life is over at the short end, and at the long one. */
export function useCupClocks(weighId: string): Record<number, { low: number; high: number }> {
  const { bench } = useBenchClocks();
  const out: Record<number, { low: number; high: number }> = {};
  for (const c of bench?.clocks ?? []) {
    const [id, cup] = (c.clock.weighId ?? "").split(":");
    if (id === weighId && (c.clock.kind === "pot-life" || c.clock.kind === "working") && c.clock.endedAt === null)
      out[Number(cup)] = { low: c.finish.lowAt, high: c.finish.highAt };
  }
  return out;
}

/** A span as a clock face reads it: 12:05, or 1:02:09 from an hour on; never below zero. */
export function countdown(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  const two = (n: number) => String(n).padStart(2, "0");
  const h = Math.floor(s / 3600);
  return h > 0 ? `${h}:${two(Math.floor((s % 3600) / 60))}:${two(s % 60)}` : `${Math.floor(s / 60)}:${two(s % 60)}`;
}
