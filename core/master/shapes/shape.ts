import type { Formed } from "../../body";
import type { Girth } from "../girth";
import type { Scanned } from "../scanned";
import type { Dimension } from "../../quantity";

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
/** All sizes; those a shape does not ask for are 0. */
export type AllSizes = Record<SizeKey, number>;

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

export const len = (key: SizeKey, label: string, help?: string): SizeField => ({
  key,
  label,
  dimension: "length",
  min: SMALLEST_MM,
  max: LARGEST_MM,
  ...(help ? { help } : {}),
});

/** Outer sizes, for shapes of which no more is known. */
export const OVER_ALL = [len("lengthMm", "Length over all"), len("widthMm", "Width over all"), len("heightMm", "Height over all")];

/** Radius of a turned master at one height, mm. */
export interface ProfilePoint {
  zMm: number;
  radiusMm: number;
}

/** What a person told about a master's form, with every size of its shape there. */
export interface Told {
  sizes: AllSizes;
  profile: readonly ProfilePoint[];
  girths: readonly Girth[];
  /** How well the ruler was read, ± mm. */
  readingMm: number;
  /** What was read from a file, and from pictures. */
  model: Scanned | null;
  photographs: Scanned | null;
}

/** Something wrong with, or doubtful about, what a person told. */
export interface FormProblem {
  /** What it is, whatever words say it. */
  code: string;
  /** What it is about, dotted into the job. */
  path: string;
  message: string;
}

/** One shape a master can have: what it asks for, what cannot be, and the form that follows. */
export interface Shape {
  label: string;
  /** One sentence: when to choose it. */
  when: string;
  /** Sizes it needs, in the order a person measures them. */
  fields: readonly SizeField[];
  /** What cannot be, beyond each field's own limits. */
  problems?: (t: Told) => FormProblem[];
  form: (t: Told) => Formed;
  /**
   * How far the volume may be off, ± mL, where it is not each reading's own uncertainty added in quadrature.
   * `volumeMl` gives the volume of the same master told otherwise.
   */
  errorMl?: (t: Told, volumeMl: (t: Told) => number) => number;
}
