import * as z from "zod";
import type { Habit } from "../habit";
import { figures, quote } from "../quantity";
import { CUP_FIELDS, CUP_POINT_FIELDS } from "./fields";

/**
 * The inside of a cup or tub: straight or tapering from its bottom to its rim, or measured once by weighing water in (1 g is
 * 1 mL) and reading the height. Lengths mm, volumes mL.
 */
export const CupProfile = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("tapered"), ...figures(CUP_FIELDS) }),
  z.object({
    kind: z.literal("measured"),
    points: z
      .array(z.object(figures(CUP_POINT_FIELDS)))
      .min(1, "measure at least one height")
      .max(30)
      .refine((ps) => ps.every((p, i) => i === 0 || (p.mm > ps[i - 1]!.mm && p.ml > ps[i - 1]!.ml)), {
        message: "each height has to hold more than the one below: check the order and the readings",
      }),
  }),
]);
export type CupProfile = z.infer<typeof CupProfile>;

export const Cup = z.object({ id: z.string().min(1).max(60), name: z.string().trim().min(1, "give the cup a name").max(60), profile: CupProfile });
export type Cup = z.infer<typeof Cup>;

/** Volume up to a height, mL: frustum of a cone, V = π·h·(r₀² + r₀·r + r²)/3, or straight lines between the measured points. */
export function cupMlAt(c: CupProfile, mm: number): number {
  if (mm <= 0) return 0;
  if (c.kind === "tapered") {
    const h = Math.min(mm, c.heightMm);
    const r0 = c.bottomMm / 2;
    const r = r0 + ((c.topMm / 2 - r0) * h) / c.heightMm;
    return (Math.PI * h * (r0 * r0 + r0 * r + r * r)) / 3 / 1000;
  }
  let from = { mm: 0, ml: 0 };
  for (const p of c.points) {
    if (mm <= p.mm) return from.ml + ((p.ml - from.ml) * (mm - from.mm)) / (p.mm - from.mm);
    from = p;
  }
  return from.ml;
}

const cupHeightMm = (c: CupProfile): number => (c.kind === "tapered" ? c.heightMm : (c.points.at(-1)?.mm ?? 0));
/** To the rim, mL. */
export const cupBrimMl = (c: CupProfile): number => cupMlAt(c, cupHeightMm(c));

/** Height at which a cup holds a volume, mm, by bisection to 0.001 mm; null where it does not hold that much. */
export function cupMarkMm(c: CupProfile, ml: number): number | null {
  if (!(ml >= 0) || ml > cupBrimMl(c) * (1 + 1e-9)) return null;
  let low = 0;
  let high = cupHeightMm(c);
  for (let i = 0; i < 60 && high - low > 1e-4; i++) {
    const mid = (low + high) / 2;
    if (cupMlAt(c, mid) < ml) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

/** Marks on one cup for parts poured one on top of the other, mm from its bottom; null from where it is full or a part has no volume. */
export function marksFor(c: CupProfile, partsMl: readonly (number | null)[]): (number | null)[] {
  let sum: number | null = 0;
  return partsMl.map((ml): number | null => {
    sum = sum === null || ml === null ? null : sum + ml;
    return sum === null ? null : cupMarkMm(c, sum);
  });
}

/** Room a cup needs, as a multiple of what is in it: rubber under vacuum rises to three or four times; stirring wants a third. */
export const HEADROOM = { stirred: 1.3, degassed: 4 } as const;
/** Share of the pot life that stirring, degassing and pouring may use: the rest is for the unforeseen. */
export const POT_LIFE_SHARE = 0.8;

export interface SplitQuestion {
  mixG: number;
  /** Density of the mix, g/mL. */
  gMl: number;
  /** Brim of the cup it is mixed in, mL. */
  cupMl: number;
  degas: boolean;
  /** Shortest pot or working life, min; null where nothing runs out. */
  potLifeMin: number | null;
  stirMin: number;
  degasMin: number;
  /** What a person pours, spreads, presses or places in a minute, g. */
  pourGMin: number;
  /** How its kind is split, and in which share of its life it has to be out; cups and four fifths unless said. */
  split?: Habit["split"];
  lifeShare?: number;
}

export type Split =
  | {
      ok: true;
      cups: number;
      perCupG: number;
      perCupMl: number;
      minutes: number;
      because: "one" | "cup" | "pot life";
      /** Pairs of hands it takes to have it out in time; more than one only where it is not split. */
      hands: number;
    }
  | { ok: false; message: string };

/** However short its life, so much of it is left for the hands. */
const LEAST_SHARE = 0.2;

/** Most cups one batch is split into: past it a larger cup is the answer. */
const MOST_CUPS = 40;

/**
 * Into how many equal cups a batch goes, each mixed and poured before the next: the fewest for which each fits its cup with
 * head-room and is out of it within its share of the shortest pot life. What is spread or pressed is split by time alone; what is
 * mixed in one bucket, pot or bowl is not split, and says how many hands it takes instead. All figures > 0.
 */
export function splitCups(q: SplitQuestion): Split {
  const room = q.cupMl / (q.degas ? HEADROOM.degassed : HEADROOM.stirred);
  const handling = q.stirMin + (q.degas ? q.degasMin : 0);
  const share = q.lifeShare ?? POT_LIFE_SHARE;
  const how = q.split ?? "cups";
  const time = q.potLifeMin === null ? Infinity : q.potLifeMin * share - handling;
  const atLeast = Math.max(time, (q.potLifeMin ?? 0) * LEAST_SHARE);
  if (how === "one") {
    const perCupMl = q.mixG / q.gMl;
    const hands = Number.isFinite(atLeast) ? Math.max(1, Math.ceil(q.mixG / (atLeast * q.pourGMin) - 1e-9)) : 1;
    return { ok: true, cups: 1, perCupG: q.mixG, perCupMl, minutes: handling + q.mixG / q.pourGMin / hands, because: "one", hands };
  }
  if (how !== "cups") {
    const cups = Number.isFinite(atLeast) ? Math.max(1, Math.ceil(q.mixG / (atLeast * q.pourGMin) - 1e-9)) : 1;
    const each = q.mixG / Math.min(cups, MOST_CUPS);
    if (cups > MOST_CUPS)
      return {
        ok: false,
        message: `That would be ${cups} batches of what one pair of hands spreads in time: take ${Math.ceil(cups / MOST_CUPS)} more pairs of hands, or more and thinner coats.`,
      };
    return { ok: true, cups, perCupG: each, perCupMl: each / q.gMl, minutes: handling + each / q.pourGMin, because: cups === 1 ? "one" : "pot life", hands: 1 };
  }
  if (!(time > 0))
    return {
      ok: false,
      message: `Stirring${q.degas ? " and degassing" : ""} alone take ${quote(handling / 60, "duration")}, and only ${quote(((q.potLifeMin ?? 0) * share) / 60, "duration")} of the pot life can be spent: ${q.degas ? "leave the vacuum out and pour high and thin, or choose" : "choose"} a slower mix.`,
    };
  const byCup = Math.ceil(q.mixG / q.gMl / room - 1e-9);
  const byTime = Number.isFinite(time) ? Math.ceil(q.mixG / (time * q.pourGMin) - 1e-9) : 1;
  const cups = Math.max(1, byCup, byTime);
  if (cups > MOST_CUPS)
    return {
      ok: false,
      message: `That would be ${cups} cups: use a larger cup than ${quote(q.cupMl, "volume")}${byTime > byCup ? ", or pour faster" : ""}.`,
    };
  const perCupG = q.mixG / cups;
  return {
    ok: true,
    cups,
    perCupG,
    perCupMl: perCupG / q.gMl,
    minutes: handling + perCupG / q.pourGMin,
    because: cups === 1 ? "one" : byCup >= byTime ? "cup" : "pot life",
    hands: 1,
  };
}
