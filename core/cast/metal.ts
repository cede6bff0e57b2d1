import * as z from "zod";
import { Range } from "../quantity";
import { fmt, grams, kindOf, rangeField, spread } from "./kind";

/** Molten metal: more is in the ladle than stays in the mould, and goes back to the pot. */
const schema = z.object({ kind: z.literal("metal"), buttonPct: Range, ladlePct: Range });

export const metal = kindOf({
  schema,
  batch: (mix, about, ml) => {
    const casting = ml * about.densityGMl.typical;
    const button = (casting * mix.buttonPct.typical) / 100;
    const ladle = (casting * mix.ladlePct.typical) / 100;
    return {
      ok: true,
      warnings: [],
      batch: {
        parts: [{ name: "Alloy", role: "melt", massG: casting + button + ladle, volumeMl: null }],
        mixG: casting + button + ladle,
        mixMl: (casting + button + ladle) / about.densityGMl.typical,
        wetG: casting,
        demouldedG: spread(casting + button, casting * (1 + mix.buttonPct.low / 100), casting * (1 + mix.buttonPct.high / 100)),
        dryG: spread(casting, ml * about.densityGMl.low, ml * about.densityGMl.high),
        wetDensityGMl: about.densityGMl.typical,
        ratioLabel: `casting + ${fmt(mix.buttonPct.typical)} % sprue and button + ${fmt(mix.ladlePct.typical)} % in the ladle`,
        notes: [`About ${grams(button + ladle)} a casting goes back to the pot: sprue, button and what stays in the ladle.`],
      },
    };
  },
  asks: () => ({}),
  bearsPct: 5,
  why: () => "Into the ladle, with what stays behind in it.",
  fields: () => [rangeField("mix.buttonPct", "Sprue and button", "percent"), rangeField("mix.ladlePct", "Left in the ladle", "percent")],
});
