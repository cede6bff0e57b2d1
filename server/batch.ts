import { FAST_MIN, HABIT, habitOfCast, habitOfJacket, habitOfRubber, NO_FACTS, type Facts, type HabitKey } from "../core/habit";
import { JACKET_BUCKET } from "../core/mould";
import { jacketPartsOf, layerOf, type Plan, type PourKind } from "../core/plan";
import { castParts, jacketToWeigh, rubberParts, type Handling, type WeighIn } from "../core/weigh";
import type { Settings } from "../core/workshop";
import { Refusal } from "./refusal";

/** What of a weigh-in follows from a plan alone. */
export type PlannedBatch = Pick<WeighIn, "habit" | "facts" | "parts" | "batchG" | "needG" | "gMl" | "gMlHalf" | "ratioLabel" | "potLifeMin">;

/** A batch for one pour of a plan; refuses where it is not worked out. */
export function plannedBatch(
  p: Plan,
  kind: PourKind,
  pourIndex: number,
): Omit<
  WeighIn,
  "format" | "shares" | "cups" | "passed" | "gauges" | "handling" | "despite" | "changed" | "cut" | "jobName" | "jobRevision" | "what" | "material"
> {
  if (kind === "rubber") {
    const pour = p.pours[pourIndex];
    if (!pour?.batch) throw new Refusal(422, "not-ready", "The rubber is not worked out yet: finish the master, box and rubber steps first.");
    const { low, typical, high } = pour.rubber.densityGMl;
    const hours = pour.cure.potLife.hours;
    const laidOn = pour.kind === "coat" && pour.role !== "anchors";
    return {
      habit: habitOfRubber(pour.rubber, laidOn),
      facts: rubberFacts(p, pourIndex),
      parts: rubberParts(pour.batch.parts, pour.rubber.mix, pour.catalystPct),
      batchG: pour.batch.mixG,
      needG: pour.batch.needG,
      gMl: typical,
      gMlHalf: (high - low) / 2,
      ratioLabel: pour.batch.ratioLabel,
      potLifeMin: { low: hours.low * 60, typical: hours.typical * 60, high: hours.high * 60 },
    };
  }
  if (kind === "jacket") {
    const part = jacketPartsOf(p)[pourIndex];
    if (!part) throw new Refusal(422, "not-ready", "The jacket is not worked out yet: finish the master, opening and box steps first.");
    const gMl = part.mixG / part.volumeMl;
    const { low, typical, high } = part.working.hours;
    return {
      habit: habitOfJacket(part.parts.some((x) => x.role === "partA")),
      facts: { ...NO_FACTS, first: pourIndex === 0 },
      parts: jacketToWeigh(part.parts),
      batchG: part.mixG,
      needG: part.mixG / (1 + JACKET_BUCKET),
      gMl,
      gMlHalf: gMl * 0.1,
      ratioLabel: "",
      potLifeMin: { low: low * 60, typical: typical * 60, high: high * 60 },
    };
  }
  const layer = layerOf(p.layers, kind, pourIndex);
  if (!layer) throw new Refusal(422, "not-ready", "The casting is not worked out yet: finish the steps “Master” and “Cast & rubber” first.");
  const hours = layer.cure.working.hours;
  const { parts, wetDensityGMl, ratioLabel } = layer.batch;
  const batchG = parts.reduce((s, c) => s + c.massG, 0);
  return {
    habit: habitOfCast(layer.cast),
    facts: {
      ...NO_FACTS,
      // What is molten is poured at its degree; what sets has a peak of its own.
      pourC:
        layer.cast.setting.kind === "cooling" || layer.cast.setting.kind === "freezing" ? { low: layer.cast.peakC.low, high: layer.cast.peakC.high } : null,
      first: kind === "cast" ? p.layers.length <= 1 : pourIndex === 0,
      fast: layer.cast.workingMin.typical <= FAST_MIN,
      inserts: (p.inside?.inserts.length ?? 0) > 0,
      way: layer.coat ? layer.way : null,
      goesOn: layer.next !== null,
    },
    parts: castParts(parts, layer.cast),
    batchG,
    needG: layer.staysG * p.dossier.job.cast.count,
    gMl: wetDensityGMl,
    gMlHalf: wetDensityGMl * 0.02,
    ratioLabel,
    potLifeMin: { low: hours.low * 60, typical: hours.typical * 60, high: hours.high * 60 },
  };
}

/** What the words of a pour of rubber have to know. */
function rubberFacts(p: Plan, pourIndex: number): Facts {
  const pour = p.pours[pourIndex];
  const { body, layout } = p;
  if (!pour || !body || !layout) return NO_FACTS;
  if (pour.kind === "coat")
    return {
      ...NO_FACTS,
      first: pour.role !== "anchors" && p.pours[pourIndex - 1]?.wait.until !== "recoat",
      tinted: pour.tinted,
      cloth: pour.cloth,
      goesOn: pour.wait.until === "recoat",
    };
  if (pour.plug || layout.kind !== "block") return NO_FACTS;
  const { masterFromMm, fillHeightMm } = layout;
  return { ...NO_FACTS, topMm: pour.upsideDown ? fillHeightMm - masterFromMm : masterFromMm + body.heightMm, fillLineMm: pour.fillLineMm };
}

/** How a batch of its kind is handled here: as somebody kept it, else as is usual for the kind. */
export function handlingFor(settings: Settings, habit: HabitKey, p: Plan): Handling {
  if (habit === "poured") return settings.handling;
  const { stirMin, pourGMin } = HABIT[habit];
  const { pressGMin, hands } = p.dossier.job.mould.putty;
  return settings.habits[habit] ?? { ...settings.handling, degas: false, pressure: false, stirMin, pourGMin: habit === "putty" ? pressGMin * hands : pourGMin };
}

/** What was found; null where it was refused. */
export const foundOr = <T>(find: () => T): T | null => {
  try {
    return find();
  } catch (e) {
    if (e instanceof Refusal) return null;
    throw e;
  }
};
