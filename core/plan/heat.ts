import type { Body } from "../body";
import { coolsAtC, type Cooling } from "../cure";
import { heatKey, heatQuestionFor, likeBody, quickOpenS, type HeatQuestion, type HeatStudies } from "../heat";
import { JACKET_HEAT, type Cast, type Rubber } from "../material";
import type { Layout } from "../mould";
import type { Job } from "../record";
import type { PlannedHeat } from "./types";

const heatOf = (question: HeatQuestion, rubber: Rubber, studies: HeatStudies): PlannedHeat => ({
  rubberId: rubber.id,
  question,
  study: studies.get(heatKey(question)) ?? null,
});

/** What a heat study of this job reads: the casting as the plate, rod or ball it cools like, in the thinnest rubber round it. */
function heatQuestion(job: Job, m: Body, layout: Layout, rubber: Rubber, cast: Cast, shopC: number): HeatQuestion {
  return heatQuestionFor(cast, rubber, {
    ...likeBody(m.volumeMl, m.areaMm2, Math.min(m.lengthMm, m.widthMm, m.heightMm)),
    wallMm: Math.max(0.5, layout.thinnestMm),
    jacket: JACKET_HEAT[job.jacket],
    shopC: coolsAtC(cast, shopC),
    ...job.session,
  });
}

/** What heat does to each rubber the cast meets, each rubber once; answers are there where a study is. */
export function heatsOf(job: Job, body: Body, layout: Layout, rubbers: readonly (Rubber | null)[], cast: Cast, studies: HeatStudies): PlannedHeat[] {
  const met = rubbers.filter((r): r is Rubber => r !== null).filter((r, i, all) => all.findIndex((o) => o.id === r.id) === i);
  return met.map((r) => heatOf(heatQuestion(job, body, layout, r, cast, job.shopC), r, studies));
}

/** How the casting cools in the rubber that holds it longest; null before there is a mould. */
export function coolingOf(heat: readonly PlannedHeat[]): Cooling | null {
  const slow = heat.map((h) => ({ h, s: h.study?.openS?.high ?? quickOpenS(h.question)?.high ?? 0 })).sort((a, b) => b.s - a.s)[0];
  return slow ? { question: slow.h.question, study: slow.h.study } : null;
}
