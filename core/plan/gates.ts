import { areaOf, extentAlong, sectionAt } from "../body";
import { gateSizes, partingN, sinksOf, thicknessAt, widestDryGap, type GateQuestion } from "../gating";
import { flowOf, meltsAgain, thermalOf } from "../material";
import { OPENING } from "../mould";
import type { Job } from "../record";
import type { Plan, PlannedGates } from "./types";

/** A funnel set on the mould stands this high over the rubber, mm, where nobody says otherwise. */
const FUNNEL_MM = 25;
const UPRIGHT = [0, 0, 1] as const;
/** A mould that leans further than this lies on its side, cosine. */
const LIES = 0.7;
/** Thin parts of a casting against its mean thickness: a workshop estimate, as nobody measures each. */
const THIN_SHARE = 0.4;
/** What metals and waxes lose as they freeze, share of their volume: handbook values for tin alloys 2 to 3 %, waxes 8 to 15 %. */
const FREEZES_BY = { metal: 0.03, other: 0.1 };

/**
 * Sizes for the sprue, vents and funnel of a job whose mould is closed all round. Null for a mould that is open at its back, and before
 * piece and casting are known. `told` is how many places keep air; without it
 * as many as have a vent, and one where nobody looked.
 */
export function gatesOf(job: Job, p: Pick<Plan, "body" | "pieces" | "cast" | "rubber" | "layout" | "castMl">, told?: number): PlannedGates | null {
  const { body, cast, rubber, layout } = p;
  const pockets = told ?? Math.max(1, job.mould.filling?.ventsMm.length ?? 1);
  if (!body || !cast || !rubber || layout?.kind !== "block" || !OPENING[job.mould.opening].base) return null;
  const flow = flowOf(cast);
  const freezes = cast.setting.kind === "freezing" || cast.setting.kind === "cooling";
  const t = thermalOf(cast);
  const { freezing } = t;
  const metal = cast.family === "metal";
  const densityKgM3 = 1000 * (cast.setting.kind === "freezing" ? cast.setting.meltDensityGMl : cast.densityGMl.typical);
  const meanMm = (2 * body.volumeMl * 1000) / body.areaMm2;
  const thickMm = Math.max(...body.levels.map((l) => thicknessAt(l.areaMm2, l.perimeterMm)));
  const coverMm = Math.max(5, layout.box.leastWallMm);
  const question: GateQuestion = {
    // Each piece has its own gate.
    volumeMl: (p.castMl ?? body.volumeMl) / p.pieces,
    thinMm: Math.max(0.5, THIN_SHARE * meanMm),
    thickMm: Math.max(meanMm, thickMm),
    liquid: { densityKgM3, viscosityPaS: flow.viscosityPaS.typical },
    surfaceTensionNM: flow.surfaceTensionNM.typical,
    wets: flow.wets,
    headMm: coverMm + FUNNEL_MM,
    channelMm: coverMm,
    workingS: freezes ? null : cast.workingMin.low * 60,
    freezing: freezing && {
      latentJKg: t.heatJG.typical * 1000,
      heatJKgK: t.specificHeatJGK.typical * 1000,
      freezingC: freezing.solidusC,
      pourC: cast.peakC.typical,
      mouldC: job.shopC,
      mouldKWmK: rubber.conductivityWMK.typical,
      mouldDensityKgM3: rubber.densityGMl.typical * 1000,
      mouldHeatJKgK: rubber.specificHeatJGK.typical * 1000,
    },
    pockets,
    shrinks: meltsAgain(cast) ? (metal ? FREEZES_BY.metal : FREEZES_BY.other) : 0,
  };
  const sizes = gateSizes(question);
  const partingMm = layout.partingAtMm === null ? body.widestMm : layout.partingAtMm - layout.masterFromMm;
  // Lying, half of what it is high then stands over the middle of the seam.
  const up = job.mould.filling?.up ?? UPRIGHT;
  const { lowMm, highMm } = extentAlong(body, up);
  const overMm = question.headMm + (Math.abs(up[2]) > LIES ? Math.max(0, up[2] > 0 ? body.heightMm - partingMm : partingMm) : (highMm - lowMm) / 2);
  const push = {
    partingN: partingN(overMm, areaOf(sectionAt(body, partingMm)), densityKgM3 / 1000),
    flashGapMm: flow.wets ? null : widestDryGap(overMm, densityKgM3 / 1000, question.surfaceTensionNM),
  };
  // As wide as all their sprues together and a tenth more, so that it never is the narrowest place.
  const runnerMm = p.pieces > 1 ? 1.1 * sizes.choke.startMm * Math.sqrt(p.pieces) : null;
  return { ...push, runnerMm, question, sizes, sinks: question.shrinks > 0 ? sinksOf(body, true, question.shrinks) : [] };
}
