import * as z from "zod";
import { CAST_FAMILY } from "./families";
import type { Range } from "../quantity";
import type { Material } from "./schema";

/** One doubt about a material's figures. Doubts never block saving: the person's data sheet may be right. */
export const Doubt = z.object({
  /** Dotted path of the field the doubt is about. */
  path: z.string(),
  message: z.string(),
});
export type Doubt = z.infer<typeof Doubt>;

function outside(path: string, r: Range, low: number, high: number, unit: string, what: string): Doubt[] {
  if (r.typical >= low && r.typical <= high) return [];
  return [
    {
      path,
      message: `${r.typical} ${unit} is unusual for ${what}: most lie between ${low} and ${high} ${unit}. Check the unit on the data sheet.`,
    },
  ];
}

/**
 * Says which figures of a material look wrong for its kind: a rubber of density 11 is a typing slip far more often than
 * a rubber. Spans are deliberately wide.
 */
export function doubtsAbout(material: Material): Doubt[] {
  switch (material.kind) {
    case "rubber":
      return [
        ...outside("densityGMl", material.densityGMl, 0.9, 1.8, "g/mL", "a mould rubber"),
        ...outside("shoreA", material.shoreA, 2, 60, "Shore A", "a mould rubber"),
        ...outside("potLifeMin", material.potLifeMin, 1, 240, "min", "a mould rubber's pot life"),
        ...outside("cureH", material.cureH, 0.1, 72, "h", "a mould rubber's cure"),
        ...(material.family === "urethane"
          ? [
              ...outside("heatContinuousC", material.heatContinuousC, 40, 110, "°C", "urethane rubber held hot"),
              ...outside("heatShortC", material.heatShortC, 60, 140, "°C", "urethane rubber for a short time"),
            ]
          : [
              ...outside("heatContinuousC", material.heatContinuousC, 100, 260, "°C", "silicone held hot"),
              ...outside("heatShortC", material.heatShortC, 120, 330, "°C", "silicone for a short time"),
            ]),
        ...outside("shrinkPct", material.shrinkPct, 0, 4, "%", "a mould rubber"),
        ...(material.potLifeMin.typical / 60 > material.cureH.typical
          ? [{ path: "potLifeMin", message: "Its pot life is longer than its cure: one of the two is in the wrong unit." }]
          : []),
        ...(material.heatShortC.typical < material.heatContinuousC.typical
          ? [{ path: "heatShortC", message: "The short-exposure limit is below the continuous one: they may be swapped." }]
          : []),
        ...(material.foodDeclared && material.family !== "platinum"
          ? [
              {
                path: "foodDeclared",
                message: "Food contact is declared only for some platinum rubbers: check the maker's letter.",
              },
            ]
          : []),
      ];
    case "cast": {
      const { densityGMl, peakC } = CAST_FAMILY[material.family];
      const [[low, high], [cool, warm]] = [densityGMl, peakC];
      return [
        ...outside("densityGMl", material.densityGMl, low, high, "g/mL", material.family),
        ...outside("peakC", material.peakC, cool, warm, "°C", `${material.family} in the mould`),
      ];
    }
    case "surface":
      return material.densityGMl ? outside("densityGMl", material.densityGMl, 0.1, 12, "g/mL", "a master") : [];
    case "box":
      return material.thicknessMm > 40 ? [{ path: "thicknessMm", message: `${material.thicknessMm} mm is thick for box stock: check the unit.` }] : [];
    case "sundry":
      return material.forMm ? outside("forMm", material.forMm, 5, 250, "mm", "the width of a candle with one wick") : [];
    case "release":
      return [];
  }
}
