import * as z from "zod";
import { massRatio, RATIO_GOOD_PCT, splitByRatio } from "../mix";
import { positive } from "../quantity";
import { fmt, kindOf, numberField, rangeField, spread } from "./kind";
import { resinSide, twoPartFields } from "./resin";

/** Two parts that react, with a powder stirred in: metal or stone to look at, resin to hold. The powder is a share of the whole by volume. */
const schema = z.object({
  kind: z.literal("filled"),
  basis: z.enum(["mass", "volume"]),
  partA: resinSide,
  partB: resinSide,
  powder: z.object({ name: z.string().min(1), densityGMl: z.number().positive().max(20) }),
  /** Share of the finished volume that is powder, %; past about half it is a paste that no longer pours. */
  powderPct: positive(60),
});

export const filled = kindOf({
  schema,
  batch: (mix, about, ml) => {
    const r = massRatio({ kind: "ratio", basis: mix.basis, partA: mix.partA, partB: mix.partB });
    if (!r.ok) return { ok: false, path: "castId", message: r.message };
    const powderMl = (ml * mix.powderPct.typical) / 100;
    const powderG = powderMl * mix.powder.densityGMl;
    const { densityA, densityB, bPerA } = r.ratio;
    // What is left of the volume is resin, at the density of its parts together.
    const resinGMl = (1 + bPerA) / (1 / densityA + bPerA / densityB);
    const resinG = (ml - powderMl) * resinGMl;
    const total = resinG + powderG;
    const spanned = spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high);
    const [a, b] = splitByRatio(resinG, r.ratio);
    return {
      ok: true,
      warnings: [],
      batch: {
        parts: [a, { name: mix.powder.name, role: "dry", massG: powderG, volumeMl: null, note: "stirred into this part until no streak is left" }, b],
        mixG: total,
        mixMl: ml,
        wetG: total,
        demouldedG: spanned,
        dryG: spanned,
        wetDensityGMl: total / ml,
        ratioLabel: `${r.ratio.label}, ${fmt(mix.powderPct.typical)} % powder by volume`,
        notes: [
          "Brush a first coat with as much powder as it takes, so that the face is all powder; then fill. It thickens the mix: vibrate or brush, do not hurry.",
        ],
      },
    };
  },
  asks: () => ({}),
  bearsPct: RATIO_GOOD_PCT / 2,
  why: (role) =>
    role === "partB"
      ? "The second part last: from now on the working time runs."
      : role === "dry"
        ? "Into the first part: it can be stirred as long as it takes."
        : "This part first; the other starts the clock.",
  fields: (mix) => [
    ...twoPartFields("mix"),
    rangeField("mix.powderPct", `${mix.powder.name}, by volume`, "percent"),
    numberField("mix.powder.densityGMl", `${mix.powder.name}: density`, "density"),
  ],
});
