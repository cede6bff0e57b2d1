import type { GateQuestion, GateSizes } from "./sizes";

/** A round former that keeps a way open while the rubber is poured: a rod, or a cone from `acrossMm` at its foot to `topMm`. */
export interface Former {
  name: "Sprue" | "Vent" | "Funnel";
  count: number;
  acrossMm: number;
  /** Width of its top, mm; as wide as its foot for a rod. */
  topMm: number;
  lengthMm: number;
}

/** Formers for a mould's gates: the sprue as long as the rubber over the casting, the funnel on it, and vents that end at the funnel's top. */
export const formersOf = (q: Pick<GateQuestion, "channelMm" | "headMm">, g: Pick<GateSizes, "choke" | "vents" | "funnel">): Former[] => [
  { name: "Funnel", count: 1, acrossMm: g.choke.startMm, topMm: g.funnel.topMm, lengthMm: g.funnel.highMm },
  { name: "Sprue", count: 1, acrossMm: g.choke.startMm, topMm: g.choke.startMm, lengthMm: q.channelMm },
  ...(g.vents.count > 0 ? [{ name: "Vent" as const, count: g.vents.count, acrossMm: g.vents.startMm, topMm: g.vents.startMm, lengthMm: q.headMm }] : []),
];
