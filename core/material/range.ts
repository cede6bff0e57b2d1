import type { Range } from "./schema";

/** Shorthand for built-in data. */
export const range = (low: number, typical: number, high: number): Range => ({ low, typical, high });
