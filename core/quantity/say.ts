import { formatQuantity } from "./format";
import type { Dimension, UnitSystem } from "./units";

/**
 * Puts a quantity into a sentence without deciding its units yet: {@link say} writes it in the reader's system. Every
 * sentence the engine makes about sizes, weights or temperatures is written this way, so switching units switches words too.
 */
export const quote = (value: number, dimension: Dimension): string => `{{${dimension}|${Number.isFinite(value) ? Number(value.toPrecision(9)) : value}}}`;

/** Writes out the quantities {@link quote}d in a sentence. */
export const say = (sentence: string, system: UnitSystem): string =>
  sentence.replace(/\{\{(\w+)\|([^}]*)\}\}/g, (_, dimension: string, value: string) =>
    value === "NaN" ? "not a number" : formatQuantity(Number(value), dimension as Dimension, system),
  );
