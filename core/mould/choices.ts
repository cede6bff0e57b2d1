export const BOX_SHAPES = ["rectangular", "cylindrical", "oval", "outline"] as const;
export type BoxShape = (typeof BOX_SHAPES)[number];

export const BOX_SHAPE_LABEL: Record<BoxShape, string> = {
  rectangular: "Rectangular box",
  cylindrical: "Cylinder wrap",
  oval: "Oval wrap",
  outline: "Wrap along the outline",
};

export const OVERLAPS = ["long-covers-short", "short-covers-long", "pinwheel"] as const;
export type Overlap = (typeof OVERLAPS)[number];

export const OVERLAP_LABEL: Record<Overlap, string> = {
  "long-covers-short": "Long sides cover the short ends",
  "short-covers-long": "Short ends cover the long sides",
  pinwheel: "Each side covers one neighbour",
};

/** Most a wall, base or cover may be, mm: above it, a unit was mistyped. */
export const THICKEST_MM = 500;

/** How a mould opens. Blocks are poured in a box; skins are laid on the master by brush or hand. */
export const OPENINGS = ["open", "slit", "twoPart", "pourAndCut", "plugs", "glove", "skin", "putty", "panel"] as const;
export type Opening = (typeof OPENINGS)[number];

interface OpeningKind {
  label: string;
  made: "block" | "skin";
  /** In a sentence, for whom and at what price. */
  suits: string;
  /** Halves poured against a clay bed. */
  halves: boolean;
  /** Rubber under the master as well. */
  base: boolean;
  jacket: "needed" | "optional";
}

export const OPENING: Record<Opening, OpeningKind> = {
  open: {
    label: "Open-faced block",
    made: "block",
    suits: "A flat back and sides that lean inwards: the least work, and the casting lifts straight out.",
    halves: false,
    base: false,
    jacket: "optional",
  },
  slit: {
    label: "One-piece block, slit afterwards",
    made: "block",
    suits: "Undercuts a stretched block cannot pass: one pour, then a knife. The seam is where the knife went.",
    halves: false,
    base: false,
    jacket: "optional",
  },
  twoPart: {
    label: "Two parts, clay parting",
    made: "block",
    suits: "Detail all round: an exact seam where you lay it, for two pours and a day between them.",
    halves: true,
    base: true,
    jacket: "optional",
  },
  pourAndCut: {
    label: "Two parts, poured whole and cut",
    made: "block",
    suits: "Detail all round in one pour; the seam is as straight as your knife.",
    halves: false,
    base: true,
    jacket: "optional",
  },
  plugs: {
    label: "More parts, with loose plugs",
    made: "block",
    suits: "Holes and deep recesses: a plug of rubber fills each, and comes out on its own.",
    halves: true,
    base: true,
    jacket: "optional",
  },
  glove: {
    label: "Glove, peeled off",
    made: "skin",
    suits: "Slender pieces in the round: a brushed skin, turned inside out like a sock. Little rubber, and a soft mould.",
    halves: false,
    base: false,
    jacket: "optional",
  },
  skin: {
    label: "Brushed skin in sections, with a jacket",
    made: "skin",
    suits: "Large pieces: a thin skin saves rubber, a rigid jacket keeps its shape.",
    halves: false,
    base: false,
    jacket: "needed",
  },
  putty: {
    label: "Putty skin pressed by hand, with a jacket",
    made: "skin",
    suits: "Quick, on walls and uprights: pressed on from the bottom up with wet hands.",
    halves: false,
    base: false,
    jacket: "needed",
  },
  panel: {
    label: "Face panel on a timber back",
    made: "skin",
    suits: "Reliefs and facings: a thin shell of rubber on a framed board.",
    halves: false,
    base: false,
    jacket: "needed",
  },
};

/** From which side a loose plug, or a part of a jacket, comes away. */
export const SIDES = ["front", "back", "left", "right", "top"] as const;
export type Side = (typeof SIDES)[number];

/** Things that go into a casting, with what they usually weigh, g/mL, and when they go in. */
export const INSERTS = {
  rod: { label: "Armature rod", densityGMl: 7.85, when: "Wired in place before the pour, nowhere nearer a face than its own thickness." },
  hanger: { label: "Hanger", densityGMl: 7.85, when: "Pushed in once the mix holds it up, before it stiffens." },
  tube: { label: "Drain or cable tube", densityGMl: 1.35, when: "Set upright and stopped at both ends before the pour; oil it so that it can be drawn." },
  wick: { label: "Wick", densityGMl: 0.8, when: "Held straight on a bar before the pour." },
  nut: { label: "Threaded insert", densityGMl: 8.4, when: "On its screw through the board before the pour." },
  filler: { label: "Foam or other filler", densityGMl: 0.03, when: "Tied down before the pour: it floats." },
} as const;
export type InsertKind = keyof typeof INSERTS;
export const INSERT_KINDS = Object.keys(INSERTS) as [InsertKind, ...InsertKind[]];

/** Ways of making a hollow casting, with the narrowest mouth each needs, mm: workshop rules of thumb, stated as such. */
export const HOLLOW_WAYS = {
  roll: { label: "Rolled round by hand, coat on coat", mouthMm: 40, shareOfMould: 0 },
  tip: { label: "Filled, then tipped out", mouthMm: 15, shareOfMould: 1 },
  layup: { label: "Laid up by hand with cloth or fibre", mouthMm: 100, shareOfMould: 0 },
} as const;
export type HollowWay = keyof typeof HOLLOW_WAYS;
export const HOLLOW_KINDS = Object.keys(HOLLOW_WAYS) as [HollowWay, ...HollowWay[]];
