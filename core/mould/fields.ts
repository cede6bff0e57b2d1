import { sizeField as size, type NumberField } from "../quantity";
import { THICKEST_MM } from "./choices";

type Fields = Record<string, NumberField>;

/** A loose plug: a round core of rubber. */
export const PLUG_FIELDS = {
  diameterMm: size("Diameter", "a plug", 1000, { min: 0.5 }),
  lengthMm: size("Length", "a plug", 1000, { min: 0.5 }),
  count: { label: "How many", dimension: "count", min: 1, max: 50, whole: true },
} as const satisfies Fields;

/** An undercut the person saw on the master. */
export const UNDERCUT_FIELDS = { depthMm: size("Depth", "an undercut", 1000) } as const satisfies Fields;

/** How a skin is built up. */
export const SKIN_FIELDS = {
  /** The first, thin coat that takes the detail, and each coat after it. */
  firstMm: size("Detail coat", "the first coat", 10),
  coatMm: size("Each coat after", "a coat", 40),
  /** Coats in all, the first included. */
  coats: {
    label: "Coats in all",
    dimension: "count",
    min: 1,
    max: 20,
    whole: true,
    tooLow: "a skin has at least 1 coat",
    tooHigh: "a skin can have at most 20 coats",
  },
  /** Extra rubber on high points and edges, because brushed rubber runs off them. */
  padMm: { label: "Extra on high points", what: "extra rubber", dimension: "length", min: 0, max: 50 },
  /** Share of a plain coat that runs off walls and is lost. Thickened rubber loses a third of it. */
  runOffPct: {
    label: "Runs off walls, plain",
    what: "run-off",
    dimension: "percent",
    min: 0,
    max: 60,
    help: "of a coat; thickened coats lose a third of it",
  },
  /** Flange along every parting, wide. */
  flangeMm: size("Flange and skirt wide", "a flange", 200),
  sections: { label: "Sections", dimension: "count", min: 1, max: 8, whole: true },
} as const satisfies Fields;

/** How a putty skin is pressed on. */
export const PUTTY_FIELDS = {
  layerMm: size("Each layer", "a layer of putty", 40, { min: 1 }),
  layers: { label: "Layers in all", what: "layers", dimension: "count", min: 1, max: 8, whole: true },
  padMm: { label: "Extra on high points", what: "extra rubber", dimension: "length", min: 0, max: 50 },
  /** What two hands press in a minute: a workshop figure, to be replaced by the own. */
  pressGMin: { label: "Two hands press in a minute", what: "what hands press", dimension: "mass", min: 5, max: 2000 },
  hands: { label: "Pairs of hands", dimension: "count", min: 1, max: 20, whole: true },
} as const satisfies Fields;

/** What is decided about the mould. */
export const MOULD_FIELDS = {
  /** Least rubber between master and box. */
  wallMm: size("Wall, at least", "the wall", THICKEST_MM),
  /** Rubber under the master where a block goes all round it. Other masters stand on the board. */
  baseMm: size("Base", "the base", THICKEST_MM),
  /** Rubber over the top of the master. */
  coverMm: size("Cover", "the cover", THICKEST_MM),
  /** Box wall above the last fill line. */
  freeboardMm: { label: "Box above the fill line", what: "spare height", dimension: "length", min: 0, max: 200 },
  /** Height of the parting above the master's back; open follows the widest level. */
  partingMm: { label: "Parting above the back", what: "the parting", dimension: "length", min: 0, max: 3000, open: true, empty: "at the widest" },
  /** What the saw or knife takes away. */
  kerfMm: { label: "Saw takes (kerf)", what: "a kerf", dimension: "length", min: 0, max: 10 },
  /** Rubber between this casting and another in the same mould, filled at the same time. */
  besideMm: size("Rubber to another casting beside it", "the rubber between", THICKEST_MM, { min: 1, open: true, empty: "it is alone" }),
  /** Jacket wall; open takes what is usual for its kind. Boards: the thickness of the sheet. */
  jacketMm: size("Thick", "a jacket", 200, { open: true }),
  /** What a kilogram of the jacket's stuff cost, in the workshop's own money. */
  jacketPricePerKg: {
    label: "A kilogram of it costs",
    what: "a price",
    dimension: "count",
    min: 0.01,
    above: 0,
    max: 100_000,
    open: true,
    empty: "not known",
  },
  boltEveryMm: { label: "Bolts every", what: "bolts", dimension: "length", min: 20, max: 500, tooLow: "bolts closer than 20 mm leave no flange" },
} as const satisfies Fields;

/** Inside of a box the person already has. For round boxes length is the diameter. */
export const OWN_BOX_FIELDS = {
  lengthMm: size("Inside length", "the box", 3000, { min: 1, tooLow: "the box has to have a size" }),
  widthMm: size("Inside width", "the box", 3000, { min: 1, tooLow: "the box has to have a size" }),
} as const satisfies Fields;

/** What the mould has to bear. */
export const STRENGTH_FIELDS = {
  /** Most a wall may bulge: a share of the casting's width, and never more than so much. */
  tolerancePct: { label: "and of the width", what: "the tolerance", dimension: "percent", min: 0.1, above: 0, max: 20 },
  toleranceMm: size("Allowed at most", "the tolerance", 20),
  /** Width of a gap the mould's base bridges while it is filled; open stands on a flat board. */
  bridgeMm: size("Its floor spans a gap of", "the gap", 2000, { min: 1, open: true, empty: "flat on a board" }),
  /** Pull that one strap or band may carry. */
  strapN: { label: "A strap carries", what: "what a strap carries", dimension: "force", min: 1, above: 0, max: 20_000 },
} as const satisfies Fields;

/** A shelf for the filled mould, inside sizes and load. */
export const STAND_FIELDS = {
  lengthMm: size("Shelf long", "the shelf", 5000, { min: 1 }),
  widthMm: size("deep", "the shelf", 5000, { min: 1 }),
  heightMm: size("high", "the shelf", 5000, { min: 1 }),
  loadG: { label: "carries", what: "the shelf's load", dimension: "mass", min: 1, above: 0, max: 2_000_000 },
} as const satisfies Fields;

/** A vacuum or pressure pot for the cup, inside sizes. */
export const CHAMBER_FIELDS = {
  diameterMm: size("Pot across", "the pot", 2000, { min: 1 }),
  heightMm: size("Pot deep", "the pot", 2000, { min: 1 }),
} as const satisfies Fields;

const bed = (label: string, tooLow: string) => ({ label, what: "a print bed", dimension: "length", min: 50, max: 2000, tooLow }) as const;

/** Sheets and printers the workshop makes its boxes and jackets with. */
export const MAKE_FIELDS = {
  sheetLengthMm: size("Stock sheet long", "the sheet", 10_000, { min: 10 }),
  sheetWidthMm: size("Stock sheet wide", "the sheet", 10_000, { min: 10 }),
  bedXMm: bed("Print bed wide", "a print bed smaller than 50 mm prints no box"),
  bedYMm: bed("deep", "a print bed smaller than 50 mm prints no box"),
  bedZMm: bed("high", "a printer lower than 50 mm prints no box"),
  /** Wall of a printed box, its flanges, and the bolts through them. */
  printWallMm: { label: "Printed wall", what: "a printed wall", dimension: "length", min: 0.8, max: 20 },
  printFlangeMm: { label: "Flange", what: "a flange", dimension: "length", min: 8, max: 60, tooLow: "a flange narrower than 8 mm holds no bolt" },
  boltMm: { label: "Bolts", what: "bolts", dimension: "length", min: 2, max: 12, tooLow: "bolts are 2 mm or more" },
} as const satisfies Fields;

/** Something that goes into the casting. */
export const INSERT_FIELDS = {
  diameterMm: size("Diameter", "an insert", 500),
  lengthMm: size("Length", "an insert", 3000),
  count: { label: "How many", dimension: "count", min: 1, max: 100, whole: true },
  /** Height of its lower end, or of its middle line when it lies level, above the casting's back. */
  fromMm: { label: "Above the back", dimension: "length", min: 0, max: 3000 },
  /** Distance of its middle from the casting's middle, along the length. */
  asideMm: { label: "Off the middle", dimension: "length", min: -1500, max: 1500 },
  /** Goes in when so many coats are in, counted over all layers; open goes in before the casting is filled. */
  afterCoat: { label: "After coat", what: "the coat it follows", dimension: "count", min: 1, max: 40, whole: true, open: true, empty: "before filling" },
} as const satisfies Fields;

/** One layer of a casting. Thickness and volume both open: it fills what is left. */
export const LAYER_FIELDS = {
  thicknessMm: size("Thick", "a layer", 200, { open: true, empty: "what is left" }),
  /** Used where no thickness is said, mL. */
  volumeMl: { label: "or so much", what: "a layer", dimension: "volume", min: 0.1, above: 0, max: 1_000_000, open: true },
  coats: { label: "Coats of it", what: "coats", dimension: "count", min: 1, max: 12, whole: true },
  areaPct: { label: "Covers, of the face", what: "what a layer covers", dimension: "percent", min: 1, max: 100 },
  waterPer100: { label: "Water per 100", what: "water per 100", dimension: "count", min: 0.1, above: 0, max: 400, open: true },
  pigmentPct: { label: "Pigment", dimension: "percent", min: 0, max: 20 },
  fibrePct: { label: "Fibre, of the mix", what: "fibre", dimension: "percent", min: 0, max: 8, open: true, empty: "as its bag says" },
  /** Stored in minutes. */
  waitMin: { label: "Then wait", what: "a wait", dimension: "duration", times: 60, min: 0, max: 20_160, open: true, empty: "until it no longer runs" },
} as const satisfies Fields;

/** What goes inside, as far as it is one number. */
export const INSIDE_FIELDS = {
  mouthMm: size("Mouth", "the mouth", 3000, { min: 0.5, open: true, empty: "the open back" }),
  /** Times a casting becomes the next master. */
  generations: { label: "Cast from a casting, how often", dimension: "count", min: 1, max: 20, whole: true, help: "1: cast straight from this master's mould" },
} as const satisfies Fields;

/** A cut through the piece, above its back. */
export const CUT_FIELDS = { z: size("Above the back", "a cut", 3000) } as const satisfies Fields;
