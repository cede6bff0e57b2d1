import { kept } from "../body";
import { airPressure, DISCHARGE, flowMlS, frozenS, headToEnter, SHARED, thickened, type Freezing, type Liquid } from "../gating";
import { entered, levelIn, type Network, type Shut } from "./network";

/** What is cut, and what is poured. Lengths mm. */
export interface Setup {
  liquid: Liquid;
  /** Surface tension of a melt that does not wet, N/m; null for what wets and enters anywhere. */
  skinNM: number | null;
  chokeMm: number;
  channelMm: number;
  funnelMl: number;
  funnelHighMm: number;
  vents: { count: number; diameterMm: number };
  freezing: Freezing | null;
  /** Seconds until a mix thickens to nothing that runs; null for what freezes. */
  workingS: number | null;
  /** What the hand pours while it pours, mL/s. */
  handMlS: number;
  /** What is in the pot, mL. */
  potMl: number;
  /** Poured into an open box, with no funnel to keep full and no choke to pass. */
  open?: boolean;
}

/** The mould held otherwise from a tick on: the network it is then. */
export interface Turn {
  tick: number;
  network: Network;
}

/** When the hand began to pour and when it stopped, in ticks. */
export type Hand = readonly { tick: number; pouring: boolean }[];

/** Ticks in a second: steps of the reckoning, the same on every machine. */
export const TICKS = 100;
/** Nothing is rehearsed for longer, s. */
export const LONGEST_S = 900;

export interface State {
  /** What it fills, as it is held now. */
  network: Network;
  tick: number;
  /** In the funnel, in the cavity, run over the funnel's rim, and left in the pot, mL. */
  funnelMl: number;
  filledMl: number;
  spiltMl: number;
  potMl: number;
  /** When each basin was first wetted, in ticks; −1 for not yet. */
  wetted: Int32Array;
  /** When the level came over each vent that has its place, and when what stood in it froze, in ticks; −1 for not yet. */
  drowned: Int32Array;
  shutAt: Int32Array;
  /** What ran into the cavity in the last tick, mL/s: as much air leaves it. */
  inMlS: number;
  /** Something ran over the funnel's rim in the last tick. */
  spilling: boolean;
  /** Ticks at which the funnel ran dry with the cavity not full. */
  gulps: number[];
  wasWet: boolean;
  /** Why nothing runs any more. */
  ended: "full" | "frozen" | "thick" | "skin" | "out" | null;
  endedTick: number | null;
}

export function begin(n: Network, s: Setup): State {
  return {
    network: n,
    tick: 0,
    funnelMl: 0,
    filledMl: 0,
    spiltMl: 0,
    potMl: s.potMl,
    wetted: new Int32Array(n.basins.length).fill(-1),
    drowned: new Int32Array(n.vents.length).fill(-1),
    shutAt: new Int32Array(n.vents.length).fill(-1),
    inMlS: 0,
    spilling: false,
    gulps: [],
    wasWet: false,
    ended: null,
    endedTick: null,
  };
}

/** Room in all that can be filled, mL. */
export const roomOf = kept((n: Network): number => n.heldMl + n.order.reduce((sum, b) => sum + n.basins[b]!.capacityMl, 0));

/** The basin that is filling, what it holds, and the level in it. */
export function fillingAt(n: Network, filledMl: number): { index: number; basin: number; heldMl: number; levelMm: number } | null {
  let left = filledMl - n.heldMl;
  for (const [index, basin] of n.order.entries()) {
    const b = n.basins[basin]!;
    if (left < b.capacityMl || index === n.order.length - 1) return { index, basin, heldMl: Math.min(left, b.capacityMl), levelMm: levelIn(b, left) };
    left -= b.capacityMl;
  }
  return null;
}

/** Whether a pocket has been shut off by what is in: its basin is full, or has risen to where it spills. */
export function isShut(n: Network, p: Pick<Shut, "basin" | "spillMm">, filledMl: number): boolean {
  const at = fillingAt(n, filledMl);
  const order = n.order.indexOf(p.basin);
  return at !== null && (at.index > order || (at.index === order && at.levelMm >= p.spillMm));
}

/** How open a wetted basin still is, 1 to 0: its crust grows with the root of time [Chvorinov]. */
export function openness(n: Network, s: Setup, st: State, basin: number): number {
  const since = st.wetted[basin]!;
  if (!s.freezing || since < 0) return 1;
  const lasts = frozenS(s.freezing, s.liquid.densityKgM3, n.basins[basin]!.modulusMm);
  return lasts === null ? 1 : 1 - Math.sqrt(Math.min(1, (st.tick - since) / TICKS / lasts));
}

/** Vents that have a place of their own; any others are taken to stand at the highest place, where nothing drowns them. */
const placed = (n: Network, s: Setup): number => Math.min(s.vents.count, n.vents.length);

/** How many vents still let air out. */
export function ventsOpen(s: Setup, st: State): number {
  let open = s.vents.count - placed(st.network, s);
  for (let i = 0; i < placed(st.network, s); i++) if (st.drowned[i]! < 0 && st.shutAt[i]! < 0) open++;
  return open;
}

/** Places in the list of vents that are frozen shut. */
export const frozenVents = (st: State): number[] => Array.from(st.shutAt.keys()).filter((i) => st.shutAt[i]! >= 0);

/** Vents the level has come over, and those of them in which it froze: what enters a vent freezes as a rod of its width, what only covers it with its basin. */
function drown(s: Setup, st: State, at: { index: number; basin: number; levelMm: number }): void {
  const n = st.network;
  for (let i = 0; i < placed(n, s); i++) {
    const v = n.vents[i]!;
    if (st.shutAt[i]! >= 0) continue;
    const order = n.order.indexOf(v.basin);
    const overMm = at.index > order ? n.basins[v.basin]!.toMm - v.zMm : at.levelMm - v.zMm;
    if (order < 0 || at.index < order || (at.index === order && overMm < 0)) continue;
    if (st.drowned[i]! < 0) st.drowned[i] = st.tick;
    if (!s.freezing) continue;
    const enters = s.skinNM === null || Math.max(0, overMm) >= headToEnter(s.vents.diameterMm, s.liquid.densityKgM3 / 1000, s.skinNM);
    const lasts = frozenS(s.freezing, s.liquid.densityKgM3, enters ? s.vents.diameterMm / 4 : n.basins[v.basin]!.modulusMm);
    if (lasts !== null && (st.tick - st.drowned[i]!) / TICKS >= lasts) st.shutAt[i] = st.tick;
  }
}

/** Flow into the cavity at a moment, mL/s: the choke under the funnel's head, less what the air holds back; with no vent it has to come out the same way. */
export function inflow(s: Setup, funnelMl: number, thickness = 1, leanDeg = 0): number {
  if (funnelMl <= 0) return 0;
  // Leaning, its funnel stands less high over the choke.
  const headMm = Math.cos((leanDeg * Math.PI) / 180) * (s.channelMm + s.funnelHighMm * Math.cbrt(Math.min(1, funnelMl / s.funnelMl)));
  // A melt that does not wet stands at a narrow place until its head pushes it through its own skin.
  if (s.skinNM !== null && headMm < headToEnter(s.chokeMm, s.liquid.densityKgM3 / 1000, s.skinNM)) return 0;
  const liquid = { ...s.liquid, viscosityPaS: s.liquid.viscosityPaS * thickness };
  const channel = { diameterMm: s.chokeMm, lengthMm: s.channelMm, headMm, discharge: DISCHARGE };
  // Air and melt in one hole: less than half of it is left for either.
  if (s.vents.count === 0) return SHARED * flowMlS(liquid, channel);
  const perMm = (s.liquid.densityKgM3 * 9.80665) / 1000;
  let [low, high] = [0, flowMlS(liquid, channel)];
  for (let i = 0; i < 30; i++) {
    const mid = (low + high) / 2;
    const backMm = airPressure(mid, { ...s.vents, lengthMm: s.channelMm }).bothPa / perMm;
    const runs = backMm >= headMm ? 0 : flowMlS(liquid, { ...channel, headMm: headMm - backMm });
    if (runs > mid) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

/** A mix thickens twofold in each quarter of its working time, and runs no more at the end of it. */
const thickening = (s: Setup, seconds: number): number => (s.workingS === null ? 1 : thickened(seconds / s.workingS));

/** One tick further: the hand into the funnel, the funnel into the cavity, the cavity from basin to basin. Changes the state it is given. */
export function step(s: Setup, st: State, pouring: boolean): void {
  if (st.ended) return;
  const n = st.network;
  const dt = 1 / TICKS;
  const seconds = st.tick * dt;
  st.inMlS = 0;
  st.spilling = false;
  if (pouring && st.potMl > 0) {
    const got = Math.min(s.handMlS * dt, st.potMl);
    st.potMl -= got;
    st.funnelMl += got;
    if (st.funnelMl > s.funnelMl) {
      st.spiltMl += st.funnelMl - s.funnelMl;
      st.funnelMl = s.funnelMl;
      st.spilling = true;
    }
    st.wasWet = true;
  }
  const room = roomOf(n);
  const at = fillingAt(n, st.filledMl);
  // A box that leans is not done when it is full: it is set down level first, and what goes on being poured runs over its low wall.
  const slants = leansOpen(n);
  if (!at || (st.filledMl >= room - 1e-9 && !slants)) return end(st, "full");
  if (s.workingS !== null && seconds >= s.workingS) return end(st, "thick");
  if (st.filledMl > 0) {
    if (st.wetted[at.basin]! < 0) st.wetted[at.basin] = st.tick;
    const way = n.order.slice(0, at.index + 1).filter((b) => b === at.basin || leadsTo(n, b, at.basin));
    if (way.some((b) => openness(n, s, st, b) <= 0)) return end(st, "frozen");
    drown(s, st, at);
  }
  const vented = { ...s, vents: { ...s.vents, count: ventsOpen(s, st) } };
  const run = Math.min(st.funnelMl, s.open ? Infinity : inflow(vented, st.funnelMl, thickening(s, seconds), n.leanDeg) * dt, room - st.filledMl);
  st.inMlS = run / dt;
  if (run <= 0 && s.skinNM !== null && st.funnelMl >= s.funnelMl * (1 - 1e-9)) return end(st, "skin");
  st.funnelMl -= run;
  st.filledMl += run;
  if (slants && st.funnelMl > 1e-9) {
    st.spiltMl += st.funnelMl;
    st.spilling = true;
    st.funnelMl = 0;
  }
  if (s.open && st.potMl <= 0 && st.filledMl < room - 1e-6) return end(st, "out");
  if (!s.open && st.wasWet && st.funnelMl <= 1e-9 && st.filledMl < room - 1e-6) {
    if (st.gulps.at(-1) !== st.tick - 1) st.gulps.push(st.tick);
    else st.gulps[st.gulps.length - 1] = st.tick;
    if (st.potMl <= 0) return end(st, "out");
  }
  st.tick++;
  if (st.tick > LONGEST_S * TICKS) end(st, "out");
}

/** An open box that does not stand level. */
export const leansOpen = (n: Network): boolean => n.open && Math.abs(n.leanDeg) > LEVEL_DEG;
/** Nobody sees less, degrees. */
const LEVEL_DEG = 0.5;

function end(st: State, why: NonNullable<State["ended"]>): void {
  st.ended = why;
  st.endedTick = st.tick;
}

/** Whether what is poured into one basin comes from another: it was full before and lies beside or under it. */
function leadsTo(n: Network, from: number, to: number): boolean {
  for (let b = from; b >= 0; b = n.basins[b]!.into) if (b === to) return true;
  return n.basins[from]!.into === n.basins[to]!.into;
}

/**
 * Holds the mould otherwise: what is in it runs into the lowest places of what it is now, what has no room there runs out, and what was wet first counts
 * for all that is wet now. Changes the state it is given.
 */
export function turn(st: State, to: Network): void {
  const first = st.wetted.reduce((m, t) => (t >= 0 && (m < 0 || t < m) ? t : m), -1);
  st.network = entered(to, st.filledMl);
  const over = st.filledMl - roomOf(st.network);
  if (over > 0) {
    st.filledMl -= over;
    st.spiltMl += over;
  }
  st.wetted = new Int32Array(to.basins.length).fill(-1);
  // What is frozen in a vent stays there; what only stood in one runs out of it.
  st.drowned = new Int32Array(to.vents.length).fill(-1);
  const at = st.filledMl > st.network.heldMl ? fillingAt(st.network, st.filledMl) : null;
  if (at) for (const b of st.network.order.slice(0, at.index + 1)) st.wetted[b] = first;
}

/** A whole pour by a hand that is known beforehand; or as it stood at a tick of it, or as soon as something is so. */
export function poured(
  n: Network,
  s: Setup,
  hand: Hand,
  { turns = [], until = () => false }: { turns?: readonly Turn[]; until?: (st: State) => boolean } = {},
): State {
  const st = begin(n, s);
  let [i, k, pouring] = [0, 0, false];
  while (!st.ended && !until(st)) {
    while (k < turns.length && turns[k]!.tick <= st.tick) turn(st, turns[k++]!.network);
    while (i < hand.length && hand[i]!.tick <= st.tick) pouring = hand[i++]!.pouring;
    // A hand that has put the pot down for good: what is in the funnel runs, then nothing more comes.
    if (!pouring && i >= hand.length && k >= turns.length && st.funnelMl <= 1e-9) {
      end(st, st.filledMl >= roomOf(st.network) - 1e-6 ? "full" : "out");
      break;
    }
    step(s, st, pouring);
  }
  return st;
}
