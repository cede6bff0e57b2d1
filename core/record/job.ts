import * as z from "zod";
import { HELD, USES } from "../fit";
import { FINISH_KEYS, JACKET_KEYS, SEALING_KEYS } from "../material";
import { Girth, MOST_PARTS, Part, Scanned, SHAPE_KINDS, SIZE_KEYS } from "../master";
import { StrengthDecision, strengthDefault, Inside, insideDefault, layerDefault, Make, makeDefault, MouldDecision, puttyDefault, skinDefault } from "../mould";
import { figure, figures, stored } from "../quantity";
import { ADDED_BY, PIGMENT_OF } from "../cast";
import { ADDITION_FIELDS, CAST_FIELDS, COPY_FIELDS, MASTER_FIELDS, RUBBER_FIELDS, SESSION_FIELDS, SHOP_FIELD } from "./fields";
import { versioned, type Upgrade } from "./versioned";

/** The current shape of a stored job. A reader meeting a larger number is older than the writer. */
export const JOB_FORMAT = 3;

const id = z.string().min(1).max(80).nullable();
const sizes = z.partialRecord(z.enum(SIZE_KEYS), stored.mm);

/** Where a step of a person's own may stand. */
export const OWN_STEP_AT = ["prepare", "box", "rubber", "cast", "out"] as const;

/** A step of a person's own: where, in which order, and for a casting whether it is done in the mould or once it is out. */
export const OwnStep = z.object({
  id: z.string().regex(/^own-[\w-]{1,60}$/),
  step: z.enum(OWN_STEP_AT),
  when: z.enum(["poured", "opened"]).nullable().default(null),
  text: z.string().trim().min(1, "say what is done").max(300, "a step can be at most 300 letters long"),
  /** The step it follows; null puts it at the end. */
  after: z.string().max(80).nullable().default(null),
});
export type OwnStep = z.infer<typeof OwnStep>;

/** One piece alone in its box; the gap counts once there are more. */
const oneOfIt = { along: 1, across: 1, gapMm: 20 };

/**
 * A job: only what a person decided or measured. Nothing in it is derived. Units are in the names: mm, g, mL, °C, %.
 * Null means not answered yet.
 */
export const Job = z.object({
  format: z.literal(JOB_FORMAT),
  name: z.string().trim().min(1, "give the job a name").max(80, "a job's name can be at most 80 letters long"),
  note: z.string().max(2000, "a note can be at most 2000 letters long"),
  master: z.object({
    shape: z.enum(SHAPE_KINDS),
    sizes,
    profile: z.array(z.object({ zMm: z.number().min(0).max(3000), radiusMm: z.number().min(0).max(1500) })).max(60),
    /** What was read from the file of a model, and from photographs; kept when another shape is chosen. */
    model: Scanned.nullable().default(null),
    photographs: Scanned.nullable().default(null),
    /** A tape laid round at a few heights. */
    girths: z.array(Girth).max(60).default([]),
    /** Joined on and taken away, one after another. */
    parts: z.array(Part).max(MOST_PARTS).default([]),
    /** Several of it in one box, in rows. */
    copies: z.object(figures(COPY_FIELDS)).default(oneOfIt),
    surfaceId: id,
    ...figures(MASTER_FIELDS),
  }),
  castId: id,
  use: z.enum(USES),
  rubberId: id,
  /** Rubber of the second half; null means the same as the first. */
  secondRubberId: id,
  /** Rubber of loose plugs, made before the mould is poured round them; null for none. */
  plugRubberId: id.default(null),
  /** Rubber of the walls along the seams of a skin; null means the skin's own. */
  seamRubberId: id.default(null),
  sealerId: id,
  releaseId: id,
  clayId: id,
  boxId: id,
  mould: MouldDecision,
  rubber: z.object({
    ...figures(RUBBER_FIELDS),
    wallCatalystPct: figure(RUBBER_FIELDS.wallCatalystPct).default(null),
    /** Catalyst of each coat of a skin, from the first; what is null, or missing, takes the one above. */
    coatCatalystPct: z.array(figure(RUBBER_FIELDS.catalystPct)).max(20).default([]),
  }),
  cast: z.object({
    ...figures(CAST_FIELDS),
    pigmentOf: z.enum(PIGMENT_OF).default("binder"),
    /** Lines of a person's own in the mix. */
    additions: z
      .array(
        z.object({
          name: z.string().trim().min(1, "say what is added").max(40),
          by: z.enum(ADDED_BY),
          instead: z.boolean().default(false),
          ...figures(ADDITION_FIELDS),
        }),
      )
      .max(12)
      .default([]),
  }),
  session: z.object(figures(SESSION_FIELDS)).default({ pours: 6, everyMin: 20 }),
  held: z.enum(HELD),
  washedToday: z.boolean(),
  /** What seals the box, what stands behind the rubber, how the casting is finished. */
  sealing: z.enum(SEALING_KEYS).default("none"),
  jacket: z.enum(JACKET_KEYS).default("none"),
  finish: z.enum(FINISH_KEYS).default("none"),
  /** What the mould has to bear, and what goes into the casting. */
  strength: StrengthDecision.default(strengthDefault),
  inside: Inside.default(insideDefault),
  /** What the workshop cuts and prints with. */
  make: Make.default(makeDefault),
  /** Paths of decisions nobody made: assumed for the kind of piece, until they are changed or agreed to. */
  assumed: z.array(z.string().max(60)).max(40).default([]),
  ownSteps: z.array(OwnStep).max(40, "a job holds at most 40 steps of your own").default([]),
  shopC: figure(SHOP_FIELD),
  /** When somebody typed how warm the shop is, ms; null where it is only what new jobs start at. */
  shopTypedAt: stored.moment.nullable().default(null),
});
export type Job = z.infer<typeof Job>;

/** Format 1 called what the mould has to bear `hold`, and the board it stands on `hold.shelf`. */
const strengthNamed: Upgrade = ({ hold, ...job }) => {
  if (typeof hold !== "object" || hold === null || !("shelf" in hold)) return hold === undefined ? job : { ...job, strength: hold };
  const { shelf: stand, ...rest } = hold;
  return { ...job, strength: { ...rest, stand } };
};

/** Format 2 pressed putty in the coats of a brush. */
const puttyOwn = (mould: unknown): unknown => {
  const was = PuttyBefore.safeParse(mould);
  return was.success
    ? { ...(mould as object), putty: { ...puttyDefault, layerMm: Math.max(1, was.data.skin.coatMm), layers: Math.min(8, was.data.skin.coats) } }
    : mould;
};
const PuttyBefore = z.object({ opening: z.literal("putty"), skin: z.object({ coatMm: z.number(), coats: z.number() }) });

/** Format 2 knew a hollow casting as one wall in equal coats, all of one mix. */
const layersNamed: Upgrade = ({ inside, ...before }) => {
  const job = before.mould === undefined ? before : { ...before, mould: puttyOwn(before.mould) };
  if (typeof inside !== "object" || inside === null || !("hollow" in inside)) return inside === undefined ? job : { ...job, inside };
  const { hollow, ...rest } = inside;
  const was = HollowBefore.nullable().catch(null).parse(hollow);
  const cast = MixBefore.catch({ waterPer100: null, pigmentPct: 0 }).parse(job.cast);
  const layer = was && { ...layerDefault, ...cast, way: was.way, thicknessMm: was.shellMm / was.coats, coats: was.coats };
  return { ...job, inside: { ...rest, layers: layer ? [layer] : [], mouth: null, mouthMm: was?.mouthMm ?? null, solidSections: [] } };
};
const MixBefore = z.object({ waterPer100: z.number().nullable(), pigmentPct: z.number() });
const HollowBefore = z.object({
  way: z.enum(["roll", "tip", "layup"]).transform((w) => ({ roll: "rolled" as const, tip: "back" as const, layup: "laid" as const })[w]),
  shellMm: z.number(),
  coats: z.number(),
  mouthMm: z.number().nullable(),
});

/** A job as it is stored, sent and kept in a draft: brought up to date from whatever format it was written in. */
export const jobDocument = versioned("job", Job, [strengthNamed, layersNamed]);

/** A fresh job with the defaults we argue for: 12 mm walls, 10 mm over the top, 5 % margin, clay without sulphur. */
export function newJob(name: string, shopC = 21): Job {
  return {
    format: JOB_FORMAT,
    name,
    note: "",
    master: {
      shape: "box",
      sizes: {},
      profile: [],
      model: null,
      photographs: null,
      girths: [],
      parts: [],
      copies: oneOfIt,
      readingMm: 0.5,
      surfaceId: null,
      massG: null,
    },
    castId: null,
    use: "display",
    rubberId: null,
    secondRubberId: null,
    plugRubberId: null,
    seamRubberId: null,
    sealerId: null,
    releaseId: null,
    clayId: "surface-oil-clay-free",
    boxId: "box-foam-board-5",
    mould: {
      opening: "open",
      box: "rectangular",
      wallMm: 12,
      baseMm: 12,
      coverMm: 10,
      freeboardMm: 10,
      partingMm: null,
      ownBox: null,
      overlap: "long-covers-short",
      kerfMm: 0,
      plugs: [],
      skin: skinDefault,
      putty: puttyDefault,
      besideMm: null,
      existed: false,
      jacketMm: null,
      jacketPricePerKg: null,
      boltEveryMm: 120,
      undercuts: [],
      lowerFirst: false,
      plugsLast: false,
      framed: false,
      offSeam: [],
      filling: null,
      onHead: false,
      stands: [],
    },
    rubber: { marginPct: 5, catalystPct: null, wallCatalystPct: null, coatCatalystPct: [], cupLossK: 0.2, cupLossFloorG: 3 },
    cast: { waterPer100: null, pigmentPct: 0, pigmentOf: "binder", fragrancePct: 0, marginPct: 5, count: 1, additions: [] },
    session: { pours: 6, everyMin: 20 },
    held: "new",
    washedToday: false,
    sealing: "none",
    jacket: "none",
    finish: "none",
    strength: strengthDefault,
    inside: insideDefault,
    make: makeDefault,
    shopC,
    assumed: [],
    ownSteps: [],
    shopTypedAt: null,
  };
}
