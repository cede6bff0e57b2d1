import { RATIO_GOOD_PCT, type Part, type PartRole } from "../batch";
import { castKind } from "../cast";
import type { Cast, RubberMix } from "../material";

/** One thing to weigh, with how far off it may be and why it comes at this place. */
export interface PartToWeigh {
  name: string;
  role: PartRole;
  targetG: number;
  /** As it comes out of its tub, mL; null where it is not measured by volume. */
  volumeMl: number | null;
  /** How far below and above the target the ratio bears, % of the target. */
  underPct: number;
  overPct: number;
  why: string;
}

const asTarget = (c: Part) => ({ name: c.name, role: c.role, targetG: c.massG, volumeMl: c.volumeMl });

/** Parts err against each other, so each gets half of what the ratio bears. */
const HALF_RATIO_PCT = RATIO_GOOD_PCT / 2;

/** How far the catalyst may be off before the mix leaves the data sheet's range: room on each side, at most a tenth, % of itself. */
function catalystRoom(mix: Extract<RubberMix, { kind: "catalyst" }>, pct: number): { underPct: number; overPct: number } {
  const room = (to: number) => Math.min(10, Math.max(HALF_RATIO_PCT, (Math.abs(to - pct) / pct) * 100));
  return { underPct: room(mix.pct.low), overPct: room(mix.pct.high) };
}

/**
 * The parts of a rubber in weighing order, with tolerances from how sensitive the ratio is: each of two parts may be off by
 * half of the 2 % that data sheets bear; a catalyst by its room inside the stated range, at most a tenth.
 * @param catalystPct what the job chose; null takes the typical figure
 */
export function rubberParts(parts: readonly Part[], mix: RubberMix, catalystPct: number | null): PartToWeigh[] {
  return parts.map((c, i) => {
    const base = asTarget(c);
    if (mix.kind === "catalyst")
      return i === 0
        ? { ...base, underPct: 1, overPct: 1, why: "The base first: too much of it is mended with a few drops more catalyst." }
        : { ...base, ...catalystRoom(mix, catalystPct ?? mix.pct.typical), why: "The catalyst last: from the first stir the pot life runs." };
    return i === 0
      ? {
          ...base,
          underPct: HALF_RATIO_PCT,
          overPct: HALF_RATIO_PCT,
          why: "This part first, stirred in its own tub: an over-pour is mended with the other.",
        }
      : {
          ...base,
          underPct: HALF_RATIO_PCT,
          overPct: HALF_RATIO_PCT,
          why:
            parts.length === 2
              ? "This part last, slowly: from the first stir the pot life runs."
              : i === parts.length - 1
                ? "The third part last, slowly; all three stirred until no streak is left."
                : "Then this part: from the first stir of the two the pot life runs.",
        };
  });
}

/** Plaster and water bear more than two parts that react. */
const PLASTER_BEARS_PCT = 5;

/** What a part of a jacket is mixed from, in the order of mixing: two parts that react hold their ratio, plaster less so. */
export const jacketToWeigh = (parts: readonly Part[]): PartToWeigh[] =>
  parts.map((c, i) => {
    const reacts = c.role === "partA" || c.role === "partB";
    const bears = reacts ? HALF_RATIO_PCT : PLASTER_BEARS_PCT;
    return {
      ...asTarget(c),
      underPct: bears,
      overPct: bears,
      why: reacts
        ? i === 0
          ? "This part first; the other starts the clock."
          : "The second part last: from now on the working time runs."
        : c.role === "powder"
          ? "Powder into water, never the other way: it wets without lumps."
          : "Goes into the bowl before the powder.",
    };
  });

/** Colour and fibre are not part of the reaction. */
const EXTRA_BEARS_PCT = 5;
const EXTRAS: readonly PartRole[] = ["pigment", "fibre", "fragrance"];

/** The parts of a casting mix in pouring order, with how far off each may be. */
export const castParts = (parts: readonly Part[], cast: Cast): PartToWeigh[] =>
  parts.map((c, i) => {
    const bears = EXTRAS.includes(c.role) ? EXTRA_BEARS_PCT : castKind(cast.mix).bearsPct;
    return {
      ...asTarget(c),
      underPct: bears,
      overPct: bears,
      why: c.note || castKind(cast.mix).why(c.role, i),
    };
  });

/**
 * Whether a scale shows steps fine enough for a part: its step has to be no wider than the whole band it may lie in. Null is
 * fine; otherwise the least target, g, that this scale can weigh to that tolerance.
 * @param stepG what the scale's last figure counts in, g
 */
export function leastWeighable(part: Pick<PartToWeigh, "targetG" | "underPct" | "overPct">, stepG: number): number | null {
  const band = (part.targetG * (part.underPct + part.overPct)) / 100;
  return stepG <= band ? null : (stepG * 100) / (part.underPct + part.overPct);
}
