import type { Cast, Rubber } from "../material";
import type { HabitKey } from "./keys";
import type { Habit } from "./kind";
import { food, metal, soap, wax } from "./melt";
import { jacketResin, resinFast, resinSlow } from "./resin";
import { brushed, poured, putty } from "./rubber";
import { cement, gypsum, jacketPlaster } from "./water";

export { HABIT_KEYS, type HabitKey } from "./keys";
export { HOLD_KEYS, HOLD_POINTS, NO_FACTS, type Facts, type Habit, type HoldPoint } from "./kind";

/** Every way stuff is handled, one file or entry a family. */
export const HABIT: Record<HabitKey, Habit> = {
  poured,
  brushed,
  putty,
  gypsum,
  cement,
  resinFast,
  resinSlow,
  wax,
  metal,
  food,
  soap,
  jacketPlaster,
  jacketResin,
};

/** What has to be out of the cup within this is fast, min. */
export const FAST_MIN = 12;

/** How a rubber is handled: pressed, laid on in coats, or poured. */
export const habitOfRubber = (rubber: Rubber, laidOn: boolean): HabitKey => (rubber.form === "putty" && laidOn ? "putty" : laidOn ? "brushed" : "poured");

/** How a casting material is handled. */
export function habitOfCast(cast: Cast): HabitKey {
  return cast.family === "resin" ? (cast.workingMin.typical <= FAST_MIN ? "resinFast" : "resinSlow") : cast.family;
}

/** How a part of a jacket is handled: two parts that react, or powder and water. */
export const habitOfJacket = (reacts: boolean): HabitKey => (reacts ? "jacketResin" : "jacketPlaster");
