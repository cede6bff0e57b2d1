import * as z from "zod";
import { figure, figures } from "../quantity";
import { BOX_SHAPES, INSERT_KINDS, LAYER_KEYS, MOUTHS, OVERLAPS, SIDES } from "./choices";
import {
  CHAMBER_FIELDS,
  CUT_FIELDS,
  INSERT_FIELDS,
  INSIDE_FIELDS,
  LAYER_FIELDS,
  MAKE_FIELDS,
  MOULD_FIELDS,
  OWN_BOX_FIELDS,
  PLUG_FIELDS,
  PUTTY_FIELDS,
  SKIN_FIELDS,
  STAND_FIELDS,
  STRENGTH_FIELDS,
  UNDERCUT_FIELDS,
} from "./fields";
import { OPENINGS } from "./openings";

/** A loose plug: a round core of rubber, cast first, that fills one hole or recess of the master. */
export const Plug = z.object({
  name: z.string().trim().min(1, "give the plug a name").max(40),
  ...figures(PLUG_FIELDS),
  from: z.enum(SIDES),
});
export type Plug = z.infer<typeof Plug>;

/** An undercut the person saw on the master: the side a jacket part over it has to be pulled to. */
export const Undercut = z.object({ side: z.enum(SIDES), ...figures(UNDERCUT_FIELDS) });
export type Undercut = z.infer<typeof Undercut>;

const along = z.number().min(-3000).max(3000);
/** A place of the piece, mm from the middle of its back: to the right, to the back, up. */
const Spot = z.tuple([along, along, along]);

/** A place on the piece that no seam may cross: a ball about a point of it. */
export const OffSeam = z.object({ atMm: Spot, radiusMm: z.number().gt(0).max(1000) });
export type OffSeam = z.infer<typeof OffSeam>;

/** How the casting stands while it is filled: which of the piece's directions is up, where it is filled (null: at its highest place), and its vents. */
export const Filling = z.object({
  up: z.tuple([z.number().min(-1).max(1), z.number().min(-1).max(1), z.number().min(-1).max(1)]),
  sprueMm: Spot.nullable(),
  ventsMm: z.array(Spot).max(24),
});
export type Filling = z.infer<typeof Filling>;

/** The pours of a block, by what they make. */
export const POUR_PARTS = ["whole", "first", "second", "third"] as const;
/** As far as anybody leans a box that is open at its top, degrees. */
export const MOST_LEANT_DEG = 45;

/**
 * How a box is held while rubber rises round its master: leant so far, with that side of the piece low (degrees from its right towards its back), until
 * so much of the pour is in, then set down level; and where it is poured in, from the middle (null: in the lowest place).
 */
export const RubberStand = z.object({
  part: z.enum(POUR_PARTS),
  leanDeg: z.number().min(0).max(MOST_LEANT_DEG),
  towardsDeg: z.number().min(0).lt(360),
  backPct: z.number().min(1).max(100),
  atMm: z.tuple([along, along]).nullable(),
});
export type RubberStand = z.infer<typeof RubberStand>;

/** How a skin is built up: {@link SKIN_FIELDS}, mm and %. */
export const Skin = z.object({
  ...figures(SKIN_FIELDS),
  thickened: z.boolean(),
  /** The seams are raised in rubber that sets fast, not in clay, and stay as flanges. */
  seamWall: z.boolean().default(false),
});
export type Skin = z.infer<typeof Skin>;

/** Four brushed coats, 5.6 mm in all, in two sections. */
export const skinDefault: Skin = { firstMm: 0.8, coatMm: 1.6, coats: 4, padMm: 3, runOffPct: 15, thickened: true, flangeMm: 30, sections: 2, seamWall: false };

/** How a putty skin is pressed on: {@link PUTTY_FIELDS}, mm and g. */
export const Putty = z.object(figures(PUTTY_FIELDS));
export type Putty = z.infer<typeof Putty>;
/** Two layers of 5 mm by one pair of hands, some 60 g in a minute. */
export const puttyDefault: Putty = { layerMm: 5, layers: 2, padMm: 3, pressGMin: 60, hands: 1 };

/** What a person decides about the mould: {@link MOULD_FIELDS}, mm. Limits that depend on the master are judged by {@link layOutMould}. */
export const MouldDecision = z.object({
  opening: z.enum(OPENINGS),
  box: z.enum(BOX_SHAPES),
  ...figures(MOULD_FIELDS),
  kerfMm: figure(MOULD_FIELDS.kerfMm).default(0),
  besideMm: figure(MOULD_FIELDS.besideMm).default(null),
  jacketMm: figure(MOULD_FIELDS.jacketMm).default(null),
  jacketPricePerKg: figure(MOULD_FIELDS.jacketPricePerKg).default(null),
  boltEveryMm: figure(MOULD_FIELDS.boltEveryMm).default(120),
  /** Inside of a box the person already has, mm; null sizes it from the walls. */
  ownBox: z.object(figures(OWN_BOX_FIELDS)).nullable(),
  overlap: z.enum(OVERLAPS),
  plugs: z.array(Plug).max(12).default([]),
  /** Of two parts the one below the parting is poured first; loose plugs are cast last, against the parts. */
  lowerFirst: z.boolean().default(false),
  plugsLast: z.boolean().default(false),
  /** A timber frame behind a jacket of another stuff. */
  framed: z.boolean().default(false),
  skin: Skin.default(skinDefault),
  putty: Putty.default(puttyDefault),
  undercuts: z.array(Undercut).max(12).default([]),
  offSeam: z.array(OffSeam).max(60).default([]),
  /** It was there before this application knew of it: bought, or made elsewhere. Nothing of it is to be poured. */
  existed: z.boolean().default(false),
  /** Null until somebody looks which way up it is best filled. */
  filling: Filling.nullable().default(null),
  /** A block that is poured whole: its master stands on its head for it. */
  onHead: z.boolean().default(false),
  /** Pours whose box is held otherwise than level, or that are poured in elsewhere than in their lowest corner. */
  stands: z.array(RubberStand).max(4).default([]),
});
export type MouldDecision = z.infer<typeof MouldDecision>;

/** What the mould has to bear ({@link STRENGTH_FIELDS}: mm, %, N), on what, and where it has to go. */
export const StrengthDecision = z.object({
  ...figures(STRENGTH_FIELDS),
  /** Sheet the boards behind the rubber are cut from; null takes the box's own. */
  boardId: z.string().min(1).max(80).nullable(),
  stand: z.object(figures(STAND_FIELDS)).nullable(),
  chamber: z.object(figures(CHAMBER_FIELDS)).nullable(),
});
export type StrengthDecision = z.infer<typeof StrengthDecision>;
export const strengthDefault: StrengthDecision = { tolerancePct: 1, toleranceMm: 1, bridgeMm: null, boardId: null, strapN: 150, stand: null, chamber: null };

/** Sheets and printers the workshop makes its boxes and jackets with: {@link MAKE_FIELDS}, mm. */
export const Make = z.object(figures(MAKE_FIELDS));
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
  upright: z.boolean(),
  ...figures(INSERT_FIELDS),
  afterCoat: figure(INSERT_FIELDS.afterCoat).default(null),
});
export type Insert = z.infer<typeof Insert>;

/** One layer of a casting, from the face of the mould inwards. */
export const Layer = z.object({
  /** Null is of the casting's own material. */
  castId: z.string().min(1).max(80).nullable(),
  way: z.enum(LAYER_KEYS),
  ...figures(LAYER_FIELDS),
});
export type Layer = z.infer<typeof Layer>;
export const layerDefault: Layer = {
  castId: null,
  way: "rolled",
  thicknessMm: null,
  volumeMl: null,
  coats: 1,
  areaPct: 100,
  waterPer100: null,
  pigmentPct: 0,
  fibrePct: null,
  waitMin: null,
};

/** What the casting is made of, and what goes inside it or is left out. */
export const Inside = z.object({
  inserts: z.array(Insert).max(20),
  /** From the face inwards; none is one lump of the casting's own material. */
  layers: z.array(Layer).max(12),
  /** Where a hollow casting is open; null follows the mould: closed where rubber goes all round. */
  mouth: z.enum(MOUTHS).nullable(),
  /** Heights above the back at which the piece is cut and cast in sections, mm. */
  cutsMm: z.array(figure(CUT_FIELDS.z)).max(6),
  /** Sections that are cast solid although the rest is layers, from 0 at the back. */
  solidSections: z.array(z.number().int().min(0).max(6)).max(7),
  ...figures(INSIDE_FIELDS),
  /** A second cast that follows in the place of the last copy (a wax, then metal). */
  thenCastId: z.string().min(1).max(80).nullable(),
});
export type Inside = z.infer<typeof Inside>;
export const insideDefault: Inside = { inserts: [], layers: [], mouth: null, mouthMm: null, cutsMm: [], solidSections: [], generations: 1, thenCastId: null };
