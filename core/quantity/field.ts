import type { Dimension } from "./units";

/**
 * A number that somebody decides or measures: what it is called, in what unit it is stored, and what it may be. The schema
 * that keeps it and the field that asks for it are both made from this, so that neither takes what the other refuses.
 */
export interface NumberField {
  label: string;
  dimension: Dimension;
  /** Ends of what is asked for, both allowed, in the unit it is stored in. */
  min: number;
  max: number;
  /** What is stored has to lie above this by {@link LEAST} at least, though no smaller than `min` is asked for. */
  above?: number;
  whole?: true;
  /** May be left unanswered: then null is stored. */
  open?: true;
  /** Stored number = quantity in the dimension's unit × this; 60 stores a duration in minutes. 1 unless said. */
  times?: number;
  help?: string;
  /** What stands in the field while it is unanswered. */
  empty?: string;
  /** What a refusal calls it; the label in small letters unless said. */
  what?: string;
  /** The refusal itself, where the bound alone does not say why. */
  tooLow?: string;
  tooHigh?: string;
}

/** A length that has to be more than nothing, up to `most` mm. */
export const sizeField = <const M extends Partial<NumberField> = Record<never, never>>(label: string, what: string, most: number, more: M = {} as M) => ({
  label,
  what,
  dimension: "length" as const,
  min: 0.1,
  above: 0,
  max: most,
  ...more,
});
