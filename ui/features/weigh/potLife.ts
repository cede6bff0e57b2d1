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
