import { areaOf, extentAlong, footprintOf, sectionAt } from "../body";
import { gateSizes, partingN, sinksOf, thicknessAt, widestDryGap, type GateQuestion, type GateSizes } from "../gating";
import { flowOf, meltsAgain, thermalOf } from "../material";
import { boxRing, heldBy, OPENING, standOf, type BlockPour, type HeldBy, type RubberStand } from "../mould";
import type { Job } from "../record";
import type { RoundAsked, Setup } from "../rehearsal";
import type { Plan, PlannedGates, PlannedPour } from "./types";

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
  return { ...push, runnerMm, question, sizes, sinks: question.shrinks > 0 ? sinksOf(body, up, question.shrinks) : [] };
}

/** A hole through a jacket or a lid is so long, mm: usual plaster and laminate shells. */
const SHELL_MM = 12;
/** Rubber is poured in a thin stream: so much a second without hurry, mL. */
const STREAM_ML_S = 5;

/** A pour of rubber into a box, as it is rehearsed. */
export interface RubberRun {
  pour: PlannedPour & BlockPour;
  stand: Omit<RubberStand, "part">;
  room: RoundAsked;
  /** The same with the master the other way up, where it may be poured either way; null where it may not. */
  other: RoundAsked | null;
  heldBy: HeldBy;
  setup: Setup;
  /** Into a closed jacket or box, through a hole of its own: what that asks for, and how it is rehearsed. */
  closed: { sizes: GateSizes; setup: Setup };
}

/** The pours of rubber that rise round a master in a box, with what is needed to rehearse them; none for what is brushed or pressed, and for loose plugs. */
export function rubberRuns(p: Pick<Plan, "body" | "layout" | "pours" | "dossier">): RubberRun[] {
  const { body, layout } = p;
  const { mould } = p.dossier.job;
  if (!body || layout?.kind !== "block") return [];
  return p.pours.flatMap((pour): RubberRun[] => {
    if (pour.kind !== "block" || pour.plug) return [];
    const flow = flowOf(pour.rubber);
    const stand = standOf(mould.stands, pour.part);
    const workingS = pour.cure.potLife.hours.low * 3600;
    const liquid = { densityKgM3: 1000 * pour.rubber.densityGMl.typical, viscosityPaS: flow.viscosityPaS.typical };
    const standing = (onHead: boolean): RoundAsked => {
      // On its head the top of the block is the floor.
      const floorMm = onHead ? -(layout.fillHeightMm - layout.masterFromMm) : -layout.masterFromMm;
      return {
        onHead,
        boardMm: floorMm + pour.fromMm,
        toMm: floorMm + pour.fillLineMm,
        rimMm: floorMm + layout.wallHeightMm,
        ring: boxRing(layout.box, footprintOf(body)),
        holdsMl: pour.rubberMl,
        towardsDeg: stand.towardsDeg,
        atMm: stand.atMm,
      };
    };
    const question: GateQuestion = {
      volumeMl: pour.rubberMl,
      thinMm: layout.thinnestMm,
      thickMm: layout.thinnestMm,
      liquid,
      surfaceTensionNM: flow.surfaceTensionNM.typical,
      wets: flow.wets,
      headMm: SHELL_MM + FUNNEL_MM,
      channelMm: SHELL_MM,
      workingS,
      freezing: null,
      pockets: 1,
      shrinks: 0,
    };
    const sizes = gateSizes(question);
    const common = { liquid, skinNM: null, freezing: null, workingS, handMlS: STREAM_ML_S };
    const kind = OPENING[mould.opening];
    return [
      {
        pour,
        stand,
        room: standing(pour.upsideDown),
        other: kind.base && !kind.halves ? standing(!pour.upsideDown) : null,
        heldBy: heldBy(mould, pour),
        setup: {
          ...common,
          chokeMm: 0,
          channelMm: 0,
          funnelMl: pour.rubberMl,
          funnelHighMm: 0,
          vents: { count: 0, diameterMm: 0 },
          potMl: pour.rubberMl * 1.05,
          open: true,
        },
        closed: {
          sizes,
          setup: {
            ...common,
            chokeMm: sizes.choke.startMm,
            channelMm: SHELL_MM,
            funnelMl: sizes.funnel.volumeMl,
            funnelHighMm: FUNNEL_MM,
            vents: { count: sizes.vents.count, diameterMm: sizes.vents.startMm },
            potMl: pour.rubberMl * 1.05 + 2 * sizes.funnel.volumeMl,
          },
        },
      },
    ];
  });
}
