import * as z from "zod";
import { formatQuantity, parseQuantity } from ".";
import { define, fault, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "quantity.parse",
    "Read a quantity as typed in a workshop, such as 4 3/4 in",
    z.strictObject({
      text: z.string().max(200),
      dimension: z.enum(["length", "mass", "volume", "temperature", "duration", "density", "percent", "count"]),
      system: z.enum(["metric", "us"]).default("metric"),
    }),
    z.object({ value: z.number().describe("in mm, g, mL, °C, h, g/mL or %"), metric: z.string(), us: z.string() }),
    ({ text, dimension, system }) => {
      const p = parseQuantity(text, { dimension, system });
      return p.ok
        ? { value: p.value, metric: formatQuantity(p.value, dimension, "metric"), us: formatQuantity(p.value, dimension, "us") }
        : fault("text", p.message);
    },
  ),
];
