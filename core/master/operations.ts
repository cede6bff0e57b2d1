import * as z from "zod";
import { define, Master, measure, Measured, girth, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "master.measure",
    "Volume, area, outer sizes and girth profile of a master",
    z.strictObject({ master: Master }),
    Measured.extend({ girth }),
    ({ master }) => {
      const m = measure(master);
      return { ...m, areaIsEstimate: m.unknown.includes("area"), girth: [...m.levels] };
    },
  ),
];
