import { caughtOf, type Caught } from "./caught";
import { dot, unit, type Mesh, type Vec } from "./mesh";
import { pullOf, type Pull } from "./pull";
import { directions, NOTHING, pullsOf, trapping, type Way } from "./pulls";
import type { Told } from "./repair";
import { joined, seamOf, type Mark, type Seam } from "./seam";

/** Which pull frees most of a piece, and what halves that part level catch of it, in plain numbers. */
export interface Opens {
  direction: [number, number, number];
  trappedShare: number;
  deepestMm: number;
  parts: number;
  levelMm: number;
}

/** Most parts anybody builds a mould of. */
const MOST_PARTS = 12;

export function opensOf(mesh: Mesh, tell: Told = () => {}): Opens {
  const { best, parts } = pullsOf(mesh, 120, tell);
  const [x, y, z] = best.direction;
  const level = pullOf(mesh, [0, 0, 1], 30_000);
  return {
    direction: [x, y, z],
    trappedShare: Math.min(1, best.trappedShare),
    deepestMm: best.deepestMm,
    parts: Math.min(MOST_PARTS, parts.length),
    levelMm: level.trappedMm2 > NOTHING * level.areaMm2 ? level.deepestMm : 0,
  };
}

/** How a piece leaves two halves that part along one direction. */
export interface Leaving extends Pull {
  seam: Seam;
  caught: Caught[];
  /** The nearest direction whose seam keeps off the marked places; null where the one asked does, or none does. */
  instead: (Way & { turnedDeg: number; seamMm: number }) | null;
  /** Directions whose seam was looked at for that. */
  looked: number;
}

/** Directions tried over half the sphere, nearest first. */
const LOOKED = 400;
/** A seam that crosses marked places by less than this share of its length keeps off them. */
export const TOUCH = 0.005;
/** A direction may catch this share of the surface more and still be offered. */
const WORSE = 0.02;

/**
 * Pulls a piece along a direction and says where its seam lies, what is caught and by which way out each of those places could be freed;
 * and where the seam crosses marks, the nearest direction that keeps off them and catches not much more.
 */
export function leavingOf(loose: Mesh, direction: Vec, levelMm: number | null, marks: readonly Mark[] = [], tell: Told = () => {}): Leaving {
  const mesh = joined(loose);
  tell(0.05, "Pulling it");
  const pull = pullOf(mesh, direction, 40_000);
  tell(0.25, "Following the seam");
  const seam = seamOf(mesh, direction, levelMm, marks);
  tell(0.35, "Looking for ways out");
  const caught = caughtOf(mesh, pull);
  const { direction: d, areaMm2, freePlusMm2, freeMinusMm2, freeBothMm2, trappedMm2, deepestMm } = pull;
  const asked = { direction: d, areaMm2, freePlusMm2, freeMinusMm2, freeBothMm2, trappedMm2, deepestMm, seam, caught };
  if (seam.crossesMm <= TOUCH * seam.lengthMm) return { ...asked, instead: null, looked: 0 };
  const own = unit(direction);
  const turnedDeg = (d: Vec) => (Math.acos(Math.min(1, Math.abs(dot(d, own)))) * 180) / Math.PI;
  const all = directions(LOOKED).sort((a, b) => turnedDeg(a) - turnedDeg(b));
  const worst = trappedMm2 / areaMm2 + WORSE;
  const ask = trapping(mesh);
  for (const [looked, d2] of all.entries()) {
    tell(0.5 + (0.5 * looked) / all.length, "Turning the seam off the marks");
    const s = seamOf(mesh, d2, null, marks);
    if (s.lines.length === 0 || s.crossesMm > TOUCH * s.lengthMm) continue;
    const way = ask(d2);
    if (way.trappedShare <= worst) return { ...asked, instead: { ...way, turnedDeg: turnedDeg(d2), seamMm: s.lengthMm }, looked: looked + 1 };
  }
  return { ...asked, instead: null, looked: all.length };
}
