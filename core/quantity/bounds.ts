import * as z from "zod";

/**
 * Bounds of what is stored, wherever it comes in: typed, sent by a program, or restored from a file. They are wider than any
 * workshop and narrower than what would take a page to draw or add up; what is asked for in a field has bounds of its own.
 */
const within = (min: number, max: number, words: string) => z.number().min(min, words).max(max, words);

/** Instants, ms: what is older was never written here, what is later no clock reaches. */
export const FIRST_MOMENT = Date.UTC(2000, 0, 1);
export const LAST_MOMENT = Date.UTC(2200, 0, 1);

export const stored = {
  /** ms since 1970. */
  moment: within(FIRST_MOMENT, LAST_MOMENT, "is not a time between the years 2000 and 2200"),
  mm: within(-1e6, 1e6, "is no length in a workshop: at most 1 km"),
  g: within(-1e9, 1e9, "is no mass in a workshop: at most 1000 t"),
  ml: within(-1e9, 1e9, "is no volume in a workshop: at most 1000 m³"),
  c: within(-273.15, 5000, "is no temperature: from -273.15 to 5000 °C"),
  /** Waits, h: eleven years are enough for any cure. */
  hours: within(0, 1e5, "is no wait: from 0 to 100,000 hours"),
  seconds: within(0, 3.6e8, "is no wait: from 0 to 360 million seconds"),
  minutes: within(0, 6e6, "is no wait: from 0 to 6 million minutes"),
  gMl: within(0, 100, "is no density: from 0 to 100 g/mL"),
  count: within(0, 1e6, "is no count: from 0 to a million").int(),
  /** Shares, factors and figures without a unit. */
  figure: within(-1e9, 1e9, "is no figure here: at most a thousand million"),
  money: within(0, 1e12, "is no price"),
};

/** Low, typical and high of one kind of figure. */
export const storedSpan = <T extends z.ZodNumber>(of: T) => z.object({ low: of, typical: of, high: of });

/** The least of what has to be more than 0: a smaller number was never measured, and sums that divide by it lose their footing. */
export const LEAST = 1e-4;
