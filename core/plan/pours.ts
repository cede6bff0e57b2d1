import { massRatio, rubberBatch } from "../batch";
import { stackVolume, type Body } from "../body";
import { CONDENSATION_DEPTH_MM, rubberCure } from "../cure";
import type { Rubber } from "../material";
import { buoyancy, hydrostaticPa, OPENING, wallPushN, type BlockPour, type Layout, type RubberPour } from "../mould";
import { quote } from "../quantity";
import type { Job } from "../record";
import type { Add } from "./remarks";
import type { PlannedPour } from "./types";

/** Catalyst of one pour, % of base: a coat's own, a seam wall's own, or the job's; null takes what is typical. */
function catalystOf(job: Job, pour: RubberPour): number | null {
  const { catalystPct, coatCatalystPct, wallCatalystPct } = job.rubber;
  if (pour.kind !== "coat") return catalystPct;
  return (pour.role === "wall" ? wallCatalystPct : coatCatalystPct[pour.coat]) ?? catalystPct;
}

/** One pour or coat with everything needed to make it. */
export function planPour(
  job: Job,
  body: Body,
  layout: Layout,
  pour: RubberPour,
  rubber: Rubber,
  masterG: number,
  shopC: number,
  fault: (message: string) => void,
): PlannedPour {
  const catalystPct = catalystOf(job, pour);
  const ratio = massRatio(rubber.mix, catalystPct);
  if (!ratio.ok) fault(ratio.message);
  const density = rubber.densityGMl.typical;
  const needMl = pour.kind === "coat" ? pour.rubberMl + pour.runOffMl : pour.rubberMl;
  const cure = rubberCure(rubber, shopC, catalystPct);
  const recoats = pour.kind === "coat" && !pour.closes;
  const common = {
    rubber,
    catalystPct,
    wait: recoats
      ? {
          hours: cure.tack.opens,
          rule: cure.tack.opensRule,
          reason: "The next coat goes on when this one is tacky but leaves nothing on a gloved finger.",
          until: "recoat" as const,
        }
      : { ...cure.demould, until: "open" as const },
    batch: ratio.ok ? rubberBatch(needMl, density, ratio.ratio, job.rubber.marginPct, { k: job.rubber.cupLossK, floorG: job.rubber.cupLossFloorG }) : null,
    cure,
  };
  if (pour.kind === "coat" || layout.kind === "skin")
    return { ...pour, ...common, pressing: pressingOf(job, common.batch?.mixG ?? 0, cure.potLife.hours.low), lift: null, seamPa: null, wallPushN: null };
  // Leaning, the low edge may lie deeper than it ever does once the box is level.
  const depth = Math.max(pour.fillLineMm - pour.fromMm, pour.leant?.deepMm ?? 0);
  // An open vessel that rubber rises round before it runs in floats as a boat does, on all its outside keeps out.
  const floatsMl = pour.plug || pour.turned ? 0 : stackVolume(body.hollow) / 1000;
  const boxed = !pour.plug && layout.box.shape === "rectangular";
  return {
    ...pour,
    ...common,
    pressing: null,
    lift: buoyancy(pour.coversMl + floatsMl, masterG, density),
    seamPa: hydrostaticPa(density, depth),
    wallPushN: boxed ? wallPushN(density, depth, Math.max(layout.box.lengthMm, layout.box.widthMm)) : null,
  };
}

/** Share of the pot life that hands are at the putty; the rest is kneading and fetching. */
const AT_WORK = 0.7;

/** Putty by what hands press while it is soft: batches, grams of each, and the hours it takes. Null for what is brushed or poured. */
function pressingOf(job: Job, mixG: number, potLifeH: number): PlannedPour["pressing"] {
  const kind = OPENING[job.mould.opening];
  if (kind.made !== "skin" || !kind.pressed || mixG <= 0) return null;
  const { pressGMin, hands } = job.mould.putty;
  const rate = pressGMin * hands;
  const batches = Math.max(1, Math.ceil(mixG / (rate * potLifeH * 60 * AT_WORK)));
  return { batches, eachG: mixG / batches, hours: mixG / rate / 60 / AT_WORK };
}

const isBlock = (p: RubberPour): p is BlockPour => p.kind === "block";

/** What is to be said of all pours together. */
export function pourRemarks(job: Job, body: Body, layout: Layout, rubber: Rubber, pours: readonly PlannedPour[], add: Add): void {
  const errorPct = body.volumeMl > 0 ? (body.volumeErrorMl / layout.rubberMl) * 100 : 0;
  if (layout.kind === "block" && errorPct > job.rubber.marginPct) {
    add("rubber", "warning", [
      {
        code: "measured-too-roughly",
        path: "rubber.marginPct",
        message: `Your measurements leave the rubber uncertain by ± ${errorPct.toFixed(0)} %, more than the margin of ${job.rubber.marginPct} %: measure again or raise the margin.`,
      },
    ]);
  }
  for (const p of pours) {
    if (p.batch && p.rubber.form === "pourable" && p.cure.potLife.hours.typical < 0.15 && p.batch.mixG > 1000) {
      add("rubber", "warning", [
        {
          code: "pot-life-short",
          path: "rubberId",
          message: `${quote(p.batch.mixG, "mass")} is a lot to stir and pour in ${quote(p.cure.potLife.hours.typical, "duration")}: split it, or choose a slower rubber.`,
        },
      ]);
    }
  }
  const deep = pours.find(
    (p) =>
      p.rubber.traits.includes("condensation") &&
      layout.kind === "block" &&
      isBlock(p) &&
      Math.min(p.fillLineMm - p.fromMm, layout.box.leastWallMm) > CONDENSATION_DEPTH_MM,
  );
  if (deep)
    add("out", "warning", [
      {
        code: "cures-by-moisture",
        path: "cure",
        message: `${deep.rubber.name} cures by moisture from the air, and this section is more than ${quote(CONDENSATION_DEPTH_MM, "length")} deep: give it days longer, open to the air, and no oven. Press a thumbnail into the thickest part before you trust it.`,
      },
    ]);
  const { wants } = OPENING[job.mould.opening];
  const does = { pourable: "poured as a block", brushable: "brushed on in coats", putty: "pressed on by hand" };
  // Pourable rubber thickened is brushed every day; anything else is the wrong stuff for the work.
  if (rubber.form !== wants && !(wants === "brushable" && rubber.form === "pourable" && job.mould.skin.thickened))
    add("pairing", "warning", [
      {
        code: "form-does-not-suit",
        path: "rubberId",
        message: `${rubber.name} is meant to be ${does[rubber.form]}, and this mould is ${does[wants]}: amounts hold, the work may not.`,
      },
    ]);
}
