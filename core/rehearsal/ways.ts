import type { Mesh, Told } from "../mesh";
import { entered, networkRound, type Network, type RoundAsked } from "./network";
import { roomOf } from "./pour";

/** One way to hold a box while rubber rises in it, and the air that leaves. */
export interface RubberWay {
  onHead: boolean;
  leanDeg: number;
  towardsDeg: number;
  /** Share of the pour that is in when it is set down level, %. */
  backPct: number;
  airMl: number;
}

/** As anybody wedges a box up: by the side that lies low, and how far, degrees. */
const [SIDES, LEANS] = [8, [10, 20, 30]];
/** Set down after so many percent, at the earliest that serves. */
const SHARES = [20, 30, 40, 50, 60, 70, 80];
const SHOWN = 3;
/** Less is none, mL. */
const NO_AIR_ML = 1e-3;
/** Leaning is worth it where it saves this share of the air. */
const WORTH = 0.1;

/** As fine as they are looked through, cells along the master. */
const COARSE = 40;

const airOf = (n: Network): number => n.shut.reduce((sum, p) => sum + p.volumeMl, 0);

/**
 * Ways to hold the box of one pour: level, and leant first and set down level after, least air first, then the smaller lean. What is under when it is set down
 * stays full, as a cup filled under water does. Of those that lean only what saves a tenth of the air or more.
 */
export function rubberWays(master: Mesh, asked: RoundAsked, tell: Told = () => {}): RubberWay[] {
  const onHead = asked.onHead ?? false;
  const round = { ...asked, cells: Math.min(COARSE, asked.cells ?? COARSE), skin: false, atMm: null };
  const levelMl = airOf(networkRound(master, round));
  const level: RubberWay = { onHead, leanDeg: 0, towardsDeg: 0, backPct: 50, airMl: levelMl };
  if (levelMl < NO_AIR_ML) return [level];
  const found: RubberWay[] = [];
  for (let i = 0; i < SIDES; i++)
    for (const [k, leanDeg] of LEANS.entries()) {
      tell((i * LEANS.length + k) / (SIDES * LEANS.length), "Wedging it up on every side");
      const towardsDeg = (360 / SIDES) * i;
      const leaning = networkRound(master, { ...round, leanDeg, towardsDeg });
      const setDown = networkRound(master, { ...round, towardsDeg, before: [{ leanDeg, filledMl: 1 }] });
      const ways = SHARES.map((pct) => ({ pct, ml: (pct / 100) * leaning.cavityMl }))
        .filter(({ ml }) => ml <= roomOf(leaning))
        .map(({ pct, ml }): RubberWay => ({ onHead, leanDeg, towardsDeg, backPct: pct, airMl: airOf(entered(setDown, ml)) }));
      if (ways.length > 0) found.push(ways.reduce((p, q) => (q.airMl < p.airMl - NO_AIR_ML ? q : p)));
    }
  const better = found
    .filter((w) => w.airMl <= (1 - WORTH) * levelMl)
    .sort((a, b) => (Math.abs(a.airMl - b.airMl) > 0.02 * levelMl ? a.airMl - b.airMl : a.leanDeg - b.leanDeg));
  // One of each side is enough.
  const apart = better.filter((w, i) => better.findIndex((o) => o.towardsDeg === w.towardsDeg) === i).slice(0, SHOWN);
  return [...apart, level].sort((a, b) => a.airMl - b.airMl || a.leanDeg - b.leanDeg);
}

/** What speaks for and against a way of holding a box, beside the others there are: air, and how it has to be held. */
export function wayReasons(w: RubberWay, all: readonly RubberWay[]): string[] {
  const least = Math.min(...all.map((o) => o.airMl));
  return [
    w.airMl < NO_AIR_ML
      ? "It shuts in no air."
      : w.airMl <= least + NO_AIR_ML
        ? "Nothing else shuts in less air: paint a first coat where it stays, or draw it out under vacuum."
        : "Others shut in less air.",
    w.leanDeg === 0
      ? "It stands by itself, and its fill line is level from the first drop to the last."
      : "It wants wedges that do not slip, and somebody to set it down level in time.",
    ...(all.some((o) => o.onHead !== w.onHead)
      ? [
          w.onHead
            ? "On its head its face looks down: bubbles rise to its back and not to the face."
            : "Upright its face looks up: what bubbles rise leave the face and end in the rubber over it.",
        ]
      : []),
  ];
}
