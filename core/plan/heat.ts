import { areaOf, stackLateralArea, stackVolume, type Body } from "../body";
import { coolsAtC, type Cooling } from "../cure";
import { heatKey, heatQuestionFor, likeBody, likeOpen, likeShell, likeWall, quickOpenS, type HeatQuestion, type HeatStudies } from "../heat";
import { JACKET_HEAT, meltsAgain, type Cast, type Rubber } from "../material";
import { OPENING, type LayeredCast, type Layout } from "../mould";
import { quote } from "../quantity";
import type { Job } from "../record";
import type { Add } from "./remarks";
import type { PlannedHeat } from "./types";

const heatOf = (question: HeatQuestion, rubber: Rubber, studies: HeatStudies): PlannedHeat => ({
  rubberId: rubber.id,
  question,
  study: studies.get(heatKey(question)) ?? null,
});

/** What a heat study of this job reads: the casting as the plate, rod or ball it cools like, in the thinnest rubber round it. */
function heatQuestion(job: Job, m: Body, layout: Layout, layered: LayeredCast | null, rubber: Rubber, cast: Cast, shopC: number): HeatQuestion {
  const water = layered ? (layered.coats[0]?.layer.waterPer100 ?? null) : job.cast.waterPer100;
  const body = {
    ...shapeOf(job, m, layered, cast),
    wallMm: Math.max(0.5, Math.min(layout.thinnestMm, (job.mould.besideMm ?? Infinity) / 2)),
    ...(job.mould.besideMm === null ? {} : { shared: BESIDE }),
    jacket: JACKET_HEAT[job.jacket],
    shopC: coolsAtC(cast, shopC),
    ...job.session,
  };
  return heatQuestionFor(cast, rubber, body, water);
}

/** In a row, half of a casting's outside looks at another. */
const BESIDE = 0.5;

/** What the casting cools like: a lump, a wall with rubber on both sides, or a shell with rubber on one. */
function shapeOf(job: Job, m: Body, layered: LayeredCast | null, cast: Cast): Pick<HeatQuestion, "dimensions" | "halfMm" | "coreMm" | "openFace"> {
  if (layered && layered.wallMm > 0 && layered.inner.hollowMl > 0) {
    // What melts cools through all of its wall; what sets warms coat by coat.
    const wall = meltsAgain(cast) ? layered.wallMm : Math.max(...layered.coats.map((c) => c.thicknessMm));
    if (wall > 0) return likeShell(wall);
  }
  if (m.hollow.length > 0) {
    const coreMm = stackVolume(m.hollow) / (stackLateralArea(m.hollow) + areaOf(m.hollow[0]!.outline));
    if (coreMm > 0) return likeWall(m.volumeMl, m.areaMm2, coreMm);
  }
  const leastMm = Math.min(m.lengthMm, m.widthMm, m.heightMm);
  const kind = OPENING[job.mould.opening];
  const backMm2 = m.levels[0]?.areaMm2 ?? 0;
  // Open-faced and slit blocks are filled through the back.
  return kind.made === "block" && !kind.base && backMm2 > 0 ? likeOpen(m.volumeMl, m.areaMm2, backMm2, leastMm) : likeBody(m.volumeMl, m.areaMm2, leastMm);
}

/** What heat does to each rubber the cast meets, each rubber once; answers are there where a study is. */
export function heatsOf(
  job: Job,
  body: Body,
  layout: Layout,
  layered: LayeredCast | null,
  rubbers: readonly (Rubber | null)[],
  cast: Cast,
  studies: HeatStudies,
): PlannedHeat[] {
  const met = rubbers.filter((r): r is Rubber => r !== null).filter((r, i, all) => all.findIndex((o) => o.id === r.id) === i);
  return met.map((r) => heatOf(heatQuestion(job, body, layout, layered, r, cast, job.shopC), r, studies));
}

/** What is to be said of a mix that may run away: what a few degrees in the shop make of it, and how hot it gets at the worst. */
export function runawayRemarks(shopC: number, heat: readonly PlannedHeat[], add: Add): void {
  const study = heat.find((h) => h.study?.swing)?.study;
  if (!study?.swing) return;
  const t = (v: number) => quote(v, "temperature");
  const { coolC, coolPeakC, warmC, warmPeakC } = study.swing;
  add("cast", "warning", [
    {
      code: "runs-away",
      path: "shopC",
      message: `At this thickness its own heat decides: about ${t(coolPeakC)} in a shop at ${t(coolC)}, ${t(study.castPeakC.typical)} at ${t(shopC)}, ${t(warmPeakC)} at ${t(warmC)}, and ${t(study.castPeakC.high)} where figures fall badly. Pour thinner, in layers, or cooler.`,
    },
  ]);
}

/** How the casting cools in the rubber that holds it longest; null before there is a mould. */
export function coolingOf(heat: readonly PlannedHeat[]): Cooling | null {
  const slow = heat.map((h) => ({ h, s: h.study?.openS?.high ?? quickOpenS(h.question)?.high ?? 0 })).sort((a, b) => b.s - a.s)[0];
  return slow ? { question: slow.h.question, study: slow.h.study } : null;
}
