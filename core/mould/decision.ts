import { z } from "zod";
import { BOX_SHAPES, HOLLOW_KINDS, INSERT_KINDS, OVERLAPS, SIDES, THICKEST_MM } from "./choices";
import { OPENINGS } from "./openings";

const mm = z.number().finite();
/** A length above 0, mm, with what to call it when it is not. */
const size = (what: string, most: number) => mm.gt(0, `${what} has to be more than 0 mm`).max(most, `${what} can be at most ${most} mm`);

/** A loose plug: a round core of rubber, cast first, that fills one hole or recess of the master. */
export const Plug = z.object({
  name: z.string().trim().min(1, "give the plug a name").max(40),
  diameterMm: size("a plug", 1000),
  lengthMm: size("a plug", 1000),
  count: z.number().int().min(1).max(50),
  from: z.enum(SIDES),
});
export type Plug = z.infer<typeof Plug>;

/** An undercut the person saw on the master: the side a jacket part over it has to be pulled to. */
export const Undercut = z.object({ side: z.enum(SIDES), depthMm: size("an undercut", 1000) });
export type Undercut = z.infer<typeof Undercut>;

/** How a skin is built up. */
export const Skin = z.object({
  /** The first, thin coat that takes the detail, and each coat after it, mm. */
  firstMm: size("the first coat", 10),
  coatMm: size("a coat", 40),
  /** Coats in all, the first included. */
  coats: z.number().int().min(1, "a skin has at least 1 coat").max(20, "a skin can have at most 20 coats"),
  /** Extra rubber on high points and edges, mm, because brushed rubber runs off them. */
  padMm: mm.min(0, "extra rubber cannot be negative").max(50, "extra rubber can be at most 50 mm"),
  /** Share of a plain coat that runs off walls and is lost, %. Thickened rubber loses a third of it. */
  runOffPct: mm.min(0, "run-off cannot be negative").max(60, "run-off can be at most 60 %"),
  thickened: z.boolean(),
  /** Flange along every parting, mm wide. */
  flangeMm: size("a flange", 200),
  sections: z.number().int().min(1).max(8),
});
export type Skin = z.infer<typeof Skin>;

/** Four brushed coats, 5.6 mm in all, in two sections. */
export const skinDefault: Skin = { firstMm: 0.8, coatMm: 1.6, coats: 4, padMm: 3, runOffPct: 15, thickened: true, flangeMm: 30, sections: 2 };

/** What a person decides about the mould. Limits that depend on the master are judged by {@link layOutMould}. */
export const MouldDecision = z.object({
  opening: z.enum(OPENINGS),
  box: z.enum(BOX_SHAPES),
  /** Least rubber between master and box, mm. */
  wallMm: size("the wall", THICKEST_MM),
  /** Rubber under the master where a block goes all round it, mm. Other masters stand on the board. */
  baseMm: size("the base", THICKEST_MM),
  /** Rubber over the top of the master, mm. */
  coverMm: size("the cover", THICKEST_MM),
  /** Box wall above the last fill line, mm. */
  freeboardMm: mm.min(0, "spare height cannot be negative").max(200, "spare height can be at most 200 mm"),
  /** Height of the parting above the master's back, mm; null follows the widest level. */
  partingMm: mm.min(0).max(3000).nullable(),
  /** Inside of a box the person already has, mm; null sizes it from the walls. For round boxes length is the diameter. */
  ownBox: z
    .object({
      lengthMm: mm.gt(0, "the box has to have a size").max(3000),
      widthMm: mm.gt(0, "the box has to have a size").max(3000),
    })
    .nullable(),
  overlap: z.enum(OVERLAPS),
  /** Width of what the saw or knife takes away, mm. */
  kerfMm: mm.min(0, "a kerf cannot be negative").max(10, "a kerf can be at most 10 mm").default(0),
  plugs: z.array(Plug).max(12).default([]),
  skin: Skin.default(skinDefault),
  /** Jacket wall, mm; null takes what is usual for its kind. Boards: the thickness of the sheet. */
  jacketMm: size("a jacket", 200).nullable().default(null),
  /** What a kilogram of the jacket's stuff cost, in the workshop's own money; null until somebody says. */
  jacketPricePerKg: z.number().gt(0, "a price has to be more than 0").max(100_000).nullable().default(null),
  boltEveryMm: mm.min(20, "bolts closer than 20 mm leave no flange").max(500).default(120),
  undercuts: z.array(Undercut).max(12).default([]),
});
export type MouldDecision = z.infer<typeof MouldDecision>;

/** What the mould has to hold, on what, and where it has to go. */
export const StrengthDecision = z.object({
  /** Most a wall may bulge: a share of the casting's width, and never more than so much. */
  tolerancePct: mm.gt(0, "the tolerance has to be more than 0 %").max(20),
  toleranceMm: size("the tolerance", 20),
  /** Width of a gap the mould's base bridges while it is filled, mm; null stands on a flat board. */
  bridgeMm: size("the gap", 2000).nullable(),
  /** Sheet the boards behind the rubber are cut from; null takes the box's own. */
  boardId: z.string().min(1).max(80).nullable(),
  /** Pull that one strap or band may carry, N. */
  strapN: z.number().gt(0, "a strap has to carry something").max(20_000),
  /** A shelf for the filled mould, and a vacuum or pressure pot for the cup, inside sizes in mm and load in g. */
  stand: z
    .object({ lengthMm: size("the shelf", 5000), widthMm: size("the shelf", 5000), heightMm: size("the shelf", 5000), loadG: z.number().gt(0).max(2_000_000) })
    .nullable(),
  chamber: z.object({ diameterMm: size("the pot", 2000), heightMm: size("the pot", 2000) }).nullable(),
});
export type StrengthDecision = z.infer<typeof StrengthDecision>;
export const strengthDefault: StrengthDecision = { tolerancePct: 1, toleranceMm: 1, bridgeMm: null, boardId: null, strapN: 150, stand: null, chamber: null };

/** Sheets and printers the workshop makes its boxes and jackets with. */
export const Make = z.object({
  sheetLengthMm: size("the sheet", 10_000),
  sheetWidthMm: size("the sheet", 10_000),
  bedXMm: mm.min(50, "a print bed smaller than 50 mm prints no box").max(2000),
  bedYMm: mm.min(50, "a print bed smaller than 50 mm prints no box").max(2000),
  bedZMm: mm.min(50, "a printer lower than 50 mm prints no box").max(2000),
  /** Wall of a printed box, its flanges, and the bolts through them, mm. */
  printWallMm: mm.min(0.8, "a printed wall has to be 0.8 mm or more").max(20),
  printFlangeMm: mm.min(8, "a flange narrower than 8 mm holds no bolt").max(60),
  boltMm: mm.min(2, "bolts are 2 mm or more").max(12),
});
export type Make = z.infer<typeof Make>;
export const makeDefault: Make = {
  sheetLengthMm: 1000,
  sheetWidthMm: 700,
  bedXMm: 220,
  bedYMm: 220,
  bedZMm: 220,
  printWallMm: 2.4,
  printFlangeMm: 16,
  boltMm: 4,
};

/** Something that goes into the casting. It stands upright from `fromMm` above the back, or lies level at that height. */
export const Insert = z.object({
  kind: z.enum(INSERT_KINDS),
  diameterMm: size("an insert", 500),
  lengthMm: size("an insert", 3000),
  count: z.number().int().min(1).max(100),
  upright: z.boolean(),
  /** Height of its lower end, or of its middle line when it lies level, above the casting's back, mm. */
  fromMm: mm.min(0).max(3000),
  /** Distance of its middle from the casting's middle, along the length, mm. */
  asideMm: mm.min(-1500).max(1500),
});
export type Insert = z.infer<typeof Insert>;

/** What goes inside the casting, or is left out of it. */
export const Inside = z.object({
  inserts: z.array(Insert).max(20),
  /** A hollow casting: wall in mm, in so many coats, through a mouth so wide (null: the open back). */
  hollow: z
    .object({ way: z.enum(HOLLOW_KINDS), shellMm: size("the shell", 200), coats: z.number().int().min(1).max(12), mouthMm: size("the mouth", 3000).nullable() })
    .nullable(),
  /** Heights above the back at which the piece is cut and cast in sections, mm. */
  cutsMm: z.array(mm.gt(0).max(3000)).max(6),
  /** Times a casting becomes the next master, and a second cast that follows in its place (a wax, then metal). */
  generations: z.number().int().min(1).max(20),
  thenCastId: z.string().min(1).max(80).nullable(),
});
export type Inside = z.infer<typeof Inside>;
export const insideDefault: Inside = { inserts: [], hollow: null, cutsMm: [], generations: 1, thenCastId: null };
