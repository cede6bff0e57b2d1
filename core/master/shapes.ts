import type { Dimension } from "../quantity";

export const SHAPE_KINDS = ["box", "cylinder", "frustum", "dome", "ovalDish", "plaque", "vessel", "turned", "displaced", "weighed"] as const;
export type ShapeKind = (typeof SHAPE_KINDS)[number];

/** Every size any shape may ask for; a job keeps all it was given, so changing shape loses nothing. */
export const SIZE_KEYS = [
  "lengthMm",
  "widthMm",
  "heightMm",
  "diameterMm",
  "bottomMm",
  "topMm",
  "footLengthMm",
  "footWidthMm",
  "wallMm",
  "floorMm",
  "reliefMm",
  "coveragePct",
  "volumeMl",
  "readingMl",
  "massG",
  "densityGMl",
] as const;
export type SizeKey = (typeof SIZE_KEYS)[number];
export type Sizes = Partial<Record<SizeKey, number>>;

export interface SizeField {
  key: SizeKey;
  label: string;
  dimension: Dimension;
  /** Least and largest acceptable value, in the dimension's stored unit. */
  min: number;
  max: number;
  help?: string;
}

/** Nothing this application sizes is larger than this, mm: above it, a unit was mistyped. */
export const LARGEST_MM = 3000;

/** Nothing this application sizes is smaller than this, mm. */
export const SMALLEST_MM = 0.1;

const len = (key: SizeKey, label: string, help?: string): SizeField => ({
  key,
  label,
  dimension: "length",
  min: SMALLEST_MM,
  max: LARGEST_MM,
  ...(help ? { help } : {}),
});

export interface ShapeInfo {
  label: string;
  /** One sentence: when to choose it. */
  when: string;
  fields: readonly SizeField[];
}

const outer = [len("lengthMm", "Length over all"), len("widthMm", "Width over all"), len("heightMm", "Height over all")];

/** What each shape is called and which sizes it needs, in the order a person measures them. */
export const SHAPES: Record<ShapeKind, ShapeInfo> = {
  box: {
    label: "Block",
    when: "Straight sides, flat back.",
    fields: [len("lengthMm", "Length"), len("widthMm", "Width"), len("heightMm", "Height")],
  },
  cylinder: {
    label: "Cylinder",
    when: "Round, straight sides.",
    fields: [len("diameterMm", "Diameter"), len("heightMm", "Height")],
  },
  frustum: {
    label: "Tapered round",
    when: "Round, wider at one end.",
    fields: [len("bottomMm", "Diameter at the back"), len("topMm", "Diameter at the top"), len("heightMm", "Height")],
  },
  dome: {
    label: "Dome",
    when: "Rounded top on a flat back; round or oval.",
    fields: [len("lengthMm", "Length"), len("widthMm", "Width"), len("heightMm", "Height")],
  },
  ovalDish: {
    label: "Oval dish",
    when: "An oval bowl or soap dish, hollow on top.",
    fields: [
      len("lengthMm", "Rim length"),
      len("widthMm", "Rim width"),
      len("footLengthMm", "Foot length"),
      len("footWidthMm", "Foot width"),
      len("heightMm", "Height"),
      len("wallMm", "Wall of the dish"),
      len("floorMm", "Floor thickness"),
    ],
  },
  plaque: {
    label: "Plaque with relief",
    when: "A flat slab with raised detail.",
    fields: [
      len("lengthMm", "Length"),
      len("widthMm", "Width"),
      len("heightMm", "Slab thickness"),
      len("reliefMm", "Tallest relief"),
      {
        key: "coveragePct",
        label: "How much the relief fills",
        dimension: "percent",
        min: 0,
        max: 100,
        help: "Relief volume as a share of slab area × tallest relief. Low letters about 20 %, full figures about 50 %.",
      },
    ],
  },
  vessel: {
    label: "Hollow vessel",
    when: "A cup or pot, open on top.",
    fields: [
      len("bottomMm", "Diameter at the foot"),
      len("topMm", "Diameter at the rim"),
      len("heightMm", "Height"),
      len("wallMm", "Wall of the vessel"),
      len("floorMm", "Floor thickness"),
    ],
  },
  turned: { label: "Turned profile", when: "Round, any outline: radius against height.", fields: [] },
  displaced: {
    label: "By water displacement",
    when: "Any shape: sink it, read the rise.",
    fields: [
      { key: "volumeMl", label: "Water displaced", dimension: "volume", min: 0.01, max: 500_000 },
      {
        key: "readingMl",
        label: "Read to within ±",
        dimension: "volume",
        min: 0,
        max: 5_000,
        help: "Half the step between marks, or what you trust.",
      },
      ...outer,
    ],
  },
  weighed: {
    label: "By weight",
    when: "Any solid shape of one known material.",
    fields: [
      { key: "massG", label: "Weight", dimension: "mass", min: 0.01, max: 2_000_000 },
      { key: "densityGMl", label: "Density of its material", dimension: "density", min: 0.02, max: 22 },
      ...outer,
    ],
  },
};
