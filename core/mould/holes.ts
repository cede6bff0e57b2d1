import { quote } from "../quantity";

/** A hole, a gap or a fold of the piece, as a pull finds it. Lengths mm. */
export interface Hole {
  /** Width across, and length along its own way out. */
  acrossMm: number;
  lengthMm: number;
  /** Runs along the way the halves part: they meet inside it. */
  alongPull: boolean;
  /** What frees it straight: one plug, two that leave opposite ways, or nothing. */
  by: "plug" | "pair" | "bending";
  /** How far the rubber has to give way sideways if nothing is done. */
  giveMm: number;
}

/** What can be done about one. */
export const HOLE_WAYS = {
  leave: "Leave it to the rubber",
  web: "Let the halves meet in it, and cut the web",
  plug: "A loose plug",
  pair: "Two plugs that meet inside",
  drill: "Fill it, and drill the casting",
  vacuum: "Draw the air out of it",
  parts: "One part more, or a cut",
} as const;
export type HoleWay = keyof typeof HOLE_WAYS;

export interface HoleAnswer {
  way: HoleWay;
  /** Why it is, or is not, the one to take; quantities are marked for {@link say}. */
  why: string;
}

/** Below this a finger of rubber tears before its time, and air does not leave it, mm: workshop practice. */
const FINE_MM = 3;
/** A finger longer than this many of its widths bends in the pour and tears when drawn. */
const SLENDER = 4;
/** A hole deeper than this many of its widths keeps its air under poured rubber. */
const KEEPS_AIR = 2;

/**
 * What to do about one hole, best first, each with its reason. `spanMm` is the piece's smaller width, which a lip that gives way shares its
 * stretch over; `safeStrain` what the rubber is asked for at most.
 */
export function freeHole(h: Hole, spanMm: number, safeStrain: number): HoleAnswer[] {
  const mm = (v: number) => quote(v, "length");
  const [slender, fine] = [h.lengthMm > SLENDER * h.acrossMm, h.acrossMm < FINE_MM];
  const answers: HoleAnswer[] = [];
  const drill: HoleAnswer = {
    way: "drill",
    why: `${mm(h.acrossMm)} wide and ${mm(h.lengthMm)} long, a finger of rubber in it ${fine ? "tears" : "bends and tears"}: fill it with wax or clay, leave a centre mark, and drill each casting.`,
  };
  const strain = h.giveMm / spanMm;
  if (h.alongPull) {
    if (fine || slender) answers.push(drill);
    answers.push({ way: "web", why: `It runs the way the halves part: they meet in a web at the seam, ${mm(h.acrossMm)} across, which a knife takes out.` });
  } else {
    if (strain <= safeStrain && !slender)
      answers.push({
        way: "leave",
        why: `The rubber has to give ${mm(h.giveMm)}, ${Math.round(strain * 100)} % of the piece's width: it is good for ${Math.round(safeStrain * 100)} %.`,
      });
    if (h.by === "plug" && (fine || slender)) answers.push(drill);
    if (h.by === "plug")
      answers.push({
        way: "plug",
        why: `One plug, ${mm(h.acrossMm)} by ${mm(h.lengthMm)}, comes out straight. It goes in first and stands against the piece.`,
      });
    if (h.by === "pair")
      answers.push({ way: "pair", why: "Each half of it is free from one side only: two plugs, or two side parts, that meet in a web inside." });
    if (h.by === "bending")
      answers.push({
        way: "parts",
        why: `No straight way out frees it: the rubber bends by ${mm(h.giveMm)}, or the piece is cut apart there and cast in sections.`,
      });
  }
  if (h.lengthMm > KEEPS_AIR * h.acrossMm)
    answers.push({ way: "vacuum", why: `Deeper than twice its width, it keeps its air under poured rubber: paint it in first, or pour under vacuum.` });
  return answers;
}
