import type { Network } from "./network";
import { frozenVents, isShut, leansOpen, poured, roomOf, TICKS, type Hand, type Setup, type State, type Turn } from "./pour";

/** What went wrong with a rehearsed pour, in the order of what it spoils. */
export type Flaw =
  | { kind: "short"; missingMl: number; why: "frozen" | "thick" | "skin" | "out"; tick: number; vent: string | null }
  | { kind: "void"; volumeMl: number; topMm: number; spillMm: number; basin: number; vent: string | null }
  | { kind: "gulp"; tick: number }
  | { kind: "spilt"; ml: number }
  | { kind: "slant"; leanDeg: number; tick: number };

export interface Judged {
  good: boolean;
  /** 0 to 100: the share that is sound casting, less for what was gulped and spilt. */
  score: number;
  seconds: number;
  flaws: Flaw[];
}

/** Air under this share of the cavity is nothing anybody sees. */
const SEEN = 2e-3;

/** What a vent is called on the section: left, middle and right, or by its number from the left; null for none. */
export function ventName(n: Network, i: number): string | null {
  if (i < 0) return null;
  const rank = n.vents.filter((v) => v.xMm < n.vents[i]!.xMm).length;
  const of = n.vents.length;
  if (of === 1) return "the vent";
  const names = of === 2 ? ["left", "right"] : of === 3 ? ["left", "middle", "right"] : null;
  return names ? `the ${names[rank]!} vent` : `vent ${rank + 1} from the left`;
}

/** The vent that froze shut before any other; −1 where none did. */
const firstShut = (st: State): number => frozenVents(st).reduce((best, i) => (best < 0 || st.shutAt[i]! < st.shutAt[best]! ? i : best), -1);

/** A pour judged as a casting would be. */
export function judged(st: State): Judged {
  const flaws: Flaw[] = [];
  const n = st.network;
  const room = roomOf(n);
  const missing = room - st.filledMl;
  if (st.ended && st.ended !== "full" && missing > SEEN * n.cavityMl)
    flaws.push({ kind: "short", missingMl: missing, why: st.ended, tick: st.endedTick ?? st.tick, vent: ventName(n, firstShut(st)) });
  for (const p of n.shut)
    if (p.volumeMl > SEEN * n.cavityMl)
      flaws.push({ kind: "void", volumeMl: p.volumeMl, topMm: p.topMm, spillMm: p.spillMm, basin: p.basin, vent: ventName(n, p.vent) });
  if (st.gulps.length > 0) flaws.push({ kind: "gulp", tick: st.gulps[0]! });
  if (st.ended && leansOpen(n)) flaws.push({ kind: "slant", leanDeg: n.leanDeg, tick: st.endedTick ?? st.tick });
  if (st.spiltMl > 0.02 * n.cavityMl) flaws.push({ kind: "spilt", ml: st.spiltMl });
  const sound = Math.max(0, Math.min(1, st.filledMl / n.cavityMl));
  const score = Math.max(0, Math.round(100 * sound - 5 * st.gulps.length - Math.min(10, (20 * st.spiltMl) / n.cavityMl)));
  return { good: st.ended === "full" && flaws.every((f) => f.kind === "spilt"), score, seconds: (st.endedTick ?? st.tick) / TICKS, flaws };
}

/** The tick of a pour at which a flaw came about: when nothing ran any more, when the rising level shut the air in, when the funnel ran dry; null where it has none. */
export function tickOf(n: Network, s: Setup, hand: Hand, f: Flaw, turns: readonly Turn[] = []): number | null {
  switch (f.kind) {
    case "short":
    case "gulp":
    case "slant":
      return f.tick;
    case "spilt":
      return poured(n, s, hand, { turns, until: (st) => st.spiltMl > 0 }).tick;
    case "void": {
      const last = turns.at(-1);
      const shut = (now: State): boolean => !(last && now.tick < last.tick) && isShut(now.network, f, now.filledMl);
      const st = poured(n, s, hand, { turns, until: shut });
      return st.ended ? null : st.tick;
    }
  }
}

/** One change, and what the same hand would have got with it. */
export interface OneChange {
  change: "choke" | "vent" | "warmer" | "hand";
  to: number;
  filledMl: number;
  good: boolean;
}

/** Of a pour that fell short: the single change that gets furthest with the same hand; null where none helps. */
export function oneChange(n: Network, s: Setup, hand: Hand, most: { chokeMm: number; pourC: number }, turns: readonly Turn[] = []): OneChange | null {
  const tries: { change: OneChange["change"]; to: number; setup: Setup; hand: Hand }[] = [
    { change: "choke", to: most.chokeMm, setup: { ...s, chokeMm: most.chokeMm }, hand },
    { change: "vent", to: s.vents.count + 1, setup: { ...s, vents: { count: s.vents.count + 1, diameterMm: s.vents.diameterMm || 2 } }, hand },
    ...(s.freezing && most.pourC > s.freezing.pourC
      ? [{ change: "warmer" as const, to: most.pourC, setup: { ...s, freezing: { ...s.freezing, pourC: most.pourC } }, hand }]
      : []),
    { change: "hand", to: 0, setup: s, hand: [{ tick: 0, pouring: true }] },
  ];
  const before = poured(n, s, hand, { turns }).filledMl;
  const got = tries.map((t): OneChange => {
    const st = poured(n, t.setup, t.hand, { turns });
    return { change: t.change, to: t.to, filledMl: st.filledMl, good: judged(st).good };
  });
  const best = got.reduce((p, q) => (q.filledMl > p.filledMl + 1e-6 ? q : p));
  return best.filledMl > before + 0.005 * n.cavityMl ? best : null;
}
