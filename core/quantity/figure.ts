import * as z from "zod";
import { LEAST } from "./bounds";
import type { NumberField } from "./field";
import { STORED_UNIT } from "./units";

type Stored<F extends NumberField> = F extends { open: true } ? z.ZodNullable<z.ZodNumber> : z.ZodNumber;

/** The schema of one number, refusing in words what its field would not take. */
export function figure<F extends NumberField>(f: F): Stored<F> {
  const what = f.what ?? f.label.toLowerCase();
  const unit = f.times === 60 ? "min" : STORED_UNIT[f.dimension];
  const bound = (v: number) => (unit === "" ? String(v) : `${v} ${unit}`);
  const number = z.number({ error: ({ input }) => (input === null || input === undefined ? `${what} is missing` : `${what} has to be a number`) });
  const least = f.above ?? f.min;
  const low =
    f.tooLow ??
    (f.above !== undefined
      ? `${what} has to be more than ${bound(least)}`
      : least === 0
        ? `${what} cannot be negative`
        : `${what} has to be ${bound(least)} or more`);
  const base = (f.whole ? number.int(`${what} has to be a whole number`) : number).max(f.max, f.tooHigh ?? `${what} can be at most ${bound(f.max)}`);
  const bounded = f.above === undefined ? base.min(least, low) : base.min(least + LEAST, low);
  return (f.open ? bounded.nullable() : bounded) as Stored<F>;
}

/** The schemas of a table of numbers, by name. */
export function figures<T extends Record<string, NumberField>>(fields: T): { [K in keyof T]: Stored<T[K]> } {
  return Object.fromEntries(Object.entries(fields).map(([k, f]) => [k, figure(f)])) as { [K in keyof T]: Stored<T[K]> };
}
