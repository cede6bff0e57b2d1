import { SHOP_C } from "../cure";
import { CHAMBER_FIELDS, INSIDE_FIELDS, MAKE_FIELDS, MOULD_FIELDS, OWN_BOX_FIELDS, PUTTY_FIELDS, SKIN_FIELDS, STAND_FIELDS, STRENGTH_FIELDS } from "../mould";
import type { NumberField } from "../quantity";

type Fields = Record<string, NumberField>;

/** What is known of the master beside its sizes, which each shape asks for itself. */
export const MASTER_FIELDS = {
  readingMm: { label: "Ruler read to within ±", what: "what the ruler is read to", dimension: "length", min: 0, max: 10 },
  /** Weighed mass of the master; open takes volume × density of its material. */
  massG: { label: "Weight, if you can weigh it", what: "the master's weight", dimension: "mass", min: 0.01, above: 0, max: 2_000_000, open: true },
} as const satisfies Fields;

/** How many of it stand in one box, in rows, and how far apart. */
export const COPY_FIELDS = {
  along: { label: "Along the box", what: "how many along the box", dimension: "count", min: 1, max: 12, whole: true },
  across: { label: "Across it", what: "how many across the box", dimension: "count", min: 1, max: 12, whole: true },
  gapMm: { label: "Rubber between them", what: "the rubber between them", dimension: "length", min: 3, max: 300 },
} as const satisfies Fields;

/** How the rubber is mixed. */
export const RUBBER_FIELDS = {
  marginPct: { label: "Margin", what: "a margin", dimension: "percent", min: 0, max: 100 },
  catalystPct: { label: "Catalyst, % of base", what: "the catalyst", dimension: "percent", min: 0.01, above: 0, max: 50, open: true },
  /** Of the walls along seams, which are to stand soon. */
  wallCatalystPct: { label: "Catalyst of the seam walls", what: "the catalyst", dimension: "percent", min: 0.01, above: 0, max: 50, open: true },
  cupLossK: {
    label: "What stays in the cups",
    dimension: "count",
    min: 0,
    max: 5,
    help: "grams left = factor × grams mixed^⅔; 0.2 leaves about 20 g of 1 kg",
  },
  cupLossFloorG: { label: "But at least", what: "what stays in the cups", dimension: "mass", min: 0, max: 500 },
} as const satisfies Fields;

/** How the casting is mixed. Open water takes what is usual for the powder. */
export const CAST_FIELDS = {
  waterPer100: { label: "Water per 100", what: "water per 100", dimension: "count", min: 0.1, above: 0, max: 400, open: true },
  pigmentPct: { label: "Pigment", dimension: "percent", min: 0, max: 20 },
  fragrancePct: { label: "Fragrance", dimension: "percent", min: 0, max: 20 },
  marginPct: { label: "Margin", what: "a margin", dimension: "percent", min: 0, max: 200 },
  count: { label: "Castings at once", dimension: "count", min: 1, max: 1000, whole: true },
} as const satisfies Fields;

/** A line of a person's own in a casting mix. What is a weight or a volume is typed as one, in grams and mL. */
const added = { label: "How much", what: "what is added", min: 0.01, above: 0, max: 100_000 } as const;
export const ADDED_FIELDS = {
  grams: { amount: { ...added, dimension: "mass" } },
  volume: { amount: { ...added, dimension: "volume" } },
} as const satisfies Record<string, Fields>;
export const ADDITION_FIELDS = {
  amount: { ...added, dimension: "count" },
  densityGMl: { label: "Density, if you know it", what: "its density", dimension: "density", min: 0.1, above: 0, max: 20, open: true, empty: "as water" },
} as const satisfies Fields;

/** Castings poured one after another, for the heat of a session. */
export const SESSION_FIELDS = {
  pours: { label: "Castings in a row", dimension: "count", min: 1, max: 30, whole: true },
  /** Stored in minutes. */
  everyMin: { label: "From pour to pour", dimension: "duration", times: 60, min: 1, max: 720 },
} as const satisfies Fields;

export const SHOP_FIELD = { label: "Shop temperature", what: "the shop", dimension: "temperature", ...SHOP_C } as const satisfies NumberField;

const under = <P extends string, F extends Fields>(path: P, fields: F) =>
  Object.fromEntries(Object.entries(fields).map(([k, f]) => [`${path}.${k}`, f])) as { [K in keyof F & string as `${P}.${K}`]: F[K] };

/** Every number of a job that stands at one place, by its dotted path. */
export const JOB_FIELDS = {
  ...under("master", MASTER_FIELDS),
  ...under("master.copies", COPY_FIELDS),
  ...under("mould", MOULD_FIELDS),
  ...under("mould.ownBox", OWN_BOX_FIELDS),
  ...under("mould.skin", SKIN_FIELDS),
  ...under("mould.putty", PUTTY_FIELDS),
  ...under("rubber", RUBBER_FIELDS),
  ...under("cast", CAST_FIELDS),
  ...under("session", SESSION_FIELDS),
  ...under("strength", STRENGTH_FIELDS),
  ...under("strength.stand", STAND_FIELDS),
  ...under("strength.chamber", CHAMBER_FIELDS),
  ...under("inside", INSIDE_FIELDS),
  ...under("make", MAKE_FIELDS),
  shopC: SHOP_FIELD,
} satisfies Fields;
export type JobNumber = keyof typeof JOB_FIELDS;

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null && !Array.isArray(v);
const isList = (v: unknown): v is unknown[] => Array.isArray(v);

/** The number of a job at a path, entries of a list by their place; null where it is not answered, or where nothing stands that could hold it. */
export function numberAt(job: object, path: string): number | null {
  let at: unknown = job;
  for (const key of path.split(".")) at = isList(at) ? at[Number(key)] : isRecord(at) && Object.hasOwn(at, key) ? at[key] : null;
  return typeof at === "number" ? at : null;
}

const put = (at: unknown, [key, ...rest]: string[], value: number | null): unknown => {
  if (key === undefined) return value;
  if (isList(at)) return at.map((v, i) => (i === Number(key) ? put(v, rest, value) : v));
  if (!isRecord(at) || (rest.length > 0 && !Object.hasOwn(at, key))) return at;
  return { ...at, [key]: put(at[key], rest, value) };
};

/** The job with another number at a path; where nothing stands that could hold it, the job as it was. */
export const withNumberAt = <T extends object>(job: T, path: string, value: number | null): T => put(job, path.split("."), value) as T;
