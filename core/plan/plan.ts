import { castBatch, massRatio, rubberBatch } from "../batch";
import type { CastBatch } from "../batch";
import { castCure, CONDENSATION_DEPTH_MM, rubberCure, type CastCure } from "../cure";
import { heatKey, heatQuestionFor, likeBody, type HeatQuestion, type HeatStudies } from "../heat";
import { judgeChain, type Held } from "../fit";
import type { Dossier, Job } from "../record";
import { JACKET_HEAT, pick, type BoxStock, type Cast, type Rubber, type Catalogue } from "../material";
import type { Body } from "../body";
import { measureMaster, SHAPES, type FormProblem } from "../master";
import {
  boxMassG,
  buoyancy,
  hollowCast,
  hydrostaticPa,
  layOutMould,
  OPENING,
  placeInserts,
  sectionsOf,
  shrinkChain,
  thinnestSection,
  wallPushN,
  type BlockPour,
  type Layout,
  type Opening,
  type RubberPour,
} from "../mould";
import { quote } from "../quantity";
import { fitQuestionOf } from "./fitQuestion";
import { planStrength, type PlannedStrength } from "./strength";
import { cautionsOf, stepsOf } from "./steps";
import {
  COMFORTABLE_LIFT_G,
  type Place,
  type Plan,
  type PlannedHeat,
  type PlannedInside,
  type PlannedPour,
  type Remark,
  type StepId,
  type Weights,
} from "./types";

/** The graver of two histories: what is not food outweighs food, and food outweighs nothing. */
const moreHeld = (a: Held, b: Held): Held => (a === "non-food" || b === "non-food" ? "non-food" : a === "food" || b === "food" ? "food" : "new");

const NO_STUDIES: HeatStudies = new Map();

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
    shopC,
    ...job.session,
  });
}

/**
 * Everything that follows from a dossier, in one pass and without side effects: measures, layout, batches, contact
 * verdicts, times, weights, and what each step still needs. Never throws on a job that passes its schema.
 */
export function plan(dossier: Dossier, studies: HeatStudies = NO_STUDIES): Plan {
  const { job, materials: catalogue } = dossier;
  const { shopC } = job;
  const remarks: Remark[] = [];
  const add = (step: StepId, severity: Remark["severity"], list: readonly FormProblem[]) => remarks.push(...list.map((p) => ({ ...p, severity, step })));

  const measured = measureMaster(job.master);
  const body = measured.ok ? measured.body : null;
  if (!measured.ok) add("master", "fault", measured.problems);
  const missing = measured.ok ? [] : measured.missing.map((k) => SHAPES[job.master.shape].fields.find((f) => f.key === k)?.label.toLowerCase() ?? k);

  const kind = OPENING[job.mould.opening];
  const rubber = pick(catalogue.rubbers, job.rubberId);
  const second = kind.halves ? (pick(catalogue.rubbers, job.secondRubberId) ?? rubber) : null;
  const plugRubber = kind.plugs ? (pick(catalogue.rubbers, job.plugRubberId) ?? rubber) : null;
  const cast = pick(catalogue.casts, job.castId);
  const surface = pick(catalogue.surfaces, job.master.surfaceId);
  const stock = pick(catalogue.boxes, job.boxId);
  for (const [path, wanted, found, step] of [
    ["rubberId", job.rubberId, rubber, "pairing"],
    ["castId", job.castId, cast, "pairing"],
    ["master.surfaceId", job.master.surfaceId, surface, "master"],
    ["secondRubberId", kind.halves ? job.secondRubberId : null, pick(catalogue.rubbers, job.secondRubberId), "rubber"],
    ["plugRubberId", kind.plugs ? job.plugRubberId : null, plugRubber, "rubber"],
    ["sealerId", job.sealerId, pick(catalogue.releases, job.sealerId), "prepare"],
    ["releaseId", job.releaseId, pick(catalogue.releases, job.releaseId), "prepare"],
    ["clayId", kind.halves ? job.clayId : null, pick(catalogue.surfaces, job.clayId), "prepare"],
    ["boxId", job.boxId, stock, "box"],
    ["strength.boardId", job.strength.boardId, pick(catalogue.boxes, job.strength.boardId), "strength"],
    ["inside.thenCastId", job.inside.thenCastId, pick(catalogue.casts, job.inside.thenCastId), "cast"],
  ] as const) {
    if (wanted !== null && found === null) add(step, "fault", [{ path, message: "What was chosen here is no longer among the materials: choose another." }]);
  }

  const masterG =
    job.master.massG ??
    (job.master.shape === "weighed" ? (job.master.sizes.massG ?? null) : body && surface?.densityGMl ? body.volumeMl * surface.densityGMl.typical : null);

  const laid = body ? layOutMould(body, job.mould, stock, job.jacket) : null;
  const ofOpening = (p: FormProblem): StepId => (/^mould\.(opening|partingMm|wallMm|baseMm|coverMm|plugs|skin)/.test(p.path) ? "opening" : "box");
  const sorted = (severity: Remark["severity"], list: readonly FormProblem[]) => list.forEach((p) => add(ofOpening(p), severity, [p]));
  if (laid && !laid.ok) sorted("fault", laid.problems);
  if (laid?.ok) sorted("warning", laid.warnings);
  const layout = laid?.ok ? laid.layout : null;

  const meets = [rubber, second, plugRubber].filter((r): r is Rubber => r !== null).filter((r, i, all) => all.findIndex((o) => o.id === r.id) === i);
  const heat = body && layout && cast ? meets.map((r) => heatOf(heatQuestion(job, body, layout, r, cast, shopC), r, studies)) : [];
  const chain = judgeChain(
    { ...fitQuestionOf(job), held: moreHeld(job.held, dossier.held) },
    catalogue,
    (r) => heat.find((h) => h.rubberId === r.id)?.study ?? null,
  );

  const pours: PlannedPour[] = [];
  if (layout && rubber && body) {
    for (const pour of layout.pours) {
      const mine = (pour.kind === "coat" ? rubber : pour.plug ? plugRubber : pour.turned ? second : rubber) ?? rubber;
      pours.push(planPour(job, layout, pour, mine, masterG ?? 0, shopC, (message) => add("rubber", "fault", [{ path: "rubber.catalystPct", message }])));
    }
    pourRemarks(job, body, layout, rubber, pours, add);
  }

  const risky = chain.links.find((l) => l.contact.endsWith("-rubber") && l.verdict === "untested");
  if (risky && pours.length > 0) {
    add("out", "warning", [
      {
        path: "cure",
        message: `Nobody knows yet how ${risky.between[0]} takes this rubber: it may cure slowly or stay tacky where they touch. No figure tells how much; wait out the slow end, and press a thumbnail at an edge before you open it.`,
      },
    ]);
  }

  let batch: CastBatch | null = null;
  let cure: CastCure | null = null;
  let inside: PlannedInside | null = null;
  let castMl: number | null = null;
  if (body && cast) {
    const placed = placeInserts(job.inside.inserts, body);
    add("cast", "warning", placed.warnings);
    const insertsMl = placed.placed.reduce((s, i) => s + i.volumeMl, 0);
    const cavityMl = layout?.kind === "block" ? layout.cavityMl : body.volumeMl;
    const hollow = hollowCast(body, job.mould, job.inside, cavityMl);
    add("cast", "warning", hollow?.warnings ?? []);
    castMl = (hollow?.hollow ? hollow.hollow.shellMl : cavityMl) - insertsMl;
    const made = castMl > 0 ? castBatch(cast, castMl, job.cast) : null;
    if (!made)
      add("cast", "fault", [
        {
          path: "inside.inserts",
          message: `What goes inside takes ${quote(insertsMl, "volume")}, all there is of ${quote(castMl + insertsMl, "volume")}: one of its sizes is misread.`,
        },
      ]);
    else if (made.ok) {
      batch = made.batch;
      add(
        "cast",
        "warning",
        made.warnings.map((message) => ({ path: "cast.waterPer100", message })),
      );
    } else add("cast", "fault", [{ path: made.path, message: made.message }]);
    cure = castCure(cast, shopC, body);
    inside = planInside(job, catalogue, body, cast, rubber, batch, placed.placed, hollow?.hollow ?? null);
    if (inside.thin && inside.thin.margin < 2)
      add("cast", "warning", [
        {
          path: "inside",
          message: `Lifted level by its back, the fresh casting bends most ${quote(inside.thin.atMm, "length")} up: ${inside.thin.stressMPa.toFixed(2)} MPa, and it may bear only ${inside.thin.strengthMPa.low} MPa when just set. Lift it upright, leave it longer, or put a rod through.`,
        },
      ]);
  }

  const densityOf = (castId: string): number | null => {
    const other = pick(catalogue.casts, castId);
    const made = other && castBatch(other, 1000, { ...job.cast, waterPer100: castId === job.castId ? job.cast.waterPer100 : null });
    return made?.ok ? made.batch.wetDensityGMl : null;
  };
  const strength =
    body && layout && rubber
      ? planStrength(job, catalogue, body, layout, rubber, plugRubber, cast && batch ? { id: cast.id, gMl: batch.wetDensityGMl } : null, densityOf)
      : null;
  if (strength) strengthRemarks(job.mould.opening, strength, add);

  const weights = weigh(pours, batch, inside, layout, stock, masterG, strength);
  if (weights?.heavy) {
    const heaviest: FormProblem[] = [
      {
        path: "mould",
        message: `${weights.filledG >= (weights.boxedG ?? 0) ? "The filled mould" : "The box with rubber and master in it"} weighs ${quote(Math.max(weights.filledG, weights.boxedG ?? 0), "mass")}: past a comfortable one-person lift of ${quote(COMFORTABLE_LIFT_G, "mass")}. Fill it where it will stand, or lift with two.`,
      },
    ];
    // Said where it is decided, and again where it is lifted.
    add("strength", "warning", heaviest);
    add("out", "warning", heaviest);
  }

  const mixes = pours.map((p) => p.batch?.mixG);
  const allMixed = mixes.length > 0 && mixes.every((g) => g !== undefined);
  const priced = pours.length > 0 && pours.every((p) => p.batch && p.rubber.pricePerKg !== null);
  return {
    dossier,
    body,
    missing,
    masterG,
    layout,
    pours,
    rubber,
    cast,
    castMl,
    castBatch: batch,
    castCure: cure,
    chain,
    heat,
    strength,
    inside,
    rubberCost: priced ? pours.reduce((s, p) => s + ((p.batch?.mixG ?? 0) / 1000) * (p.rubber.pricePerKg ?? 0), 0) : null,
    weights,
    places: body && layout ? placesOf(job, body, layout, weights, pours) : [],
    remarks,
    steps: stepsOf(job, { body, missing, layout, pours, rubber, cast, batch, chain, remarks, surfaceKnown: surface !== null, strength }),
    cautions: cautionsOf(rubber, second, cast),
    tally: {
      rubberG: allMixed ? mixes.reduce<number>((s, g) => s + (g ?? 0), 0) : null,
      castG: batch?.mixG ?? null,
      filledG: weights?.filledG ?? null,
      verdict: chain.verdict,
      rubberOutH: pours.length > 0 ? pours.reduce((s, p) => s + p.wait.hours.typical, 0) : null,
      castOutH: cure?.demould.hours.typical ?? null,
    },
  };
}

type Add = (step: StepId, severity: Remark["severity"], list: readonly FormProblem[]) => void;

function planPour(job: Job, layout: Layout, pour: RubberPour, rubber: Rubber, masterG: number, shopC: number, fault: (message: string) => void): PlannedPour {
  const ratio = massRatio(rubber.mix, job.rubber.catalystPct);
  if (!ratio.ok) fault(ratio.message);
  const density = rubber.densityGMl.typical;
  const needMl = pour.kind === "coat" ? pour.rubberMl + pour.runOffMl : pour.rubberMl;
  const cure = rubberCure(rubber, shopC, job.rubber.catalystPct);
  const recoats = pour.kind === "coat" && pour !== layout.pours.at(-1);
  const common = {
    rubber,
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
  if (pour.kind === "coat" || layout.kind === "skin") return { ...pour, ...common, lift: null, seamPa: null, wallPushN: null };
  const depth = pour.fillLineMm - pour.fromMm;
  const boxed = !pour.plug && layout.box.shape === "rectangular";
  return {
    ...pour,
    ...common,
    lift: buoyancy(pour.coversMl, masterG, density),
    seamPa: hydrostaticPa(density, depth),
    wallPushN: boxed ? wallPushN(density, depth, Math.max(layout.box.lengthMm, layout.box.widthMm)) : null,
  };
}

const isBlock = (p: RubberPour): p is BlockPour => p.kind === "block";

function pourRemarks(job: Job, body: Body, layout: Layout, rubber: Rubber, pours: readonly PlannedPour[], add: Add): void {
  const errorPct = body.volumeMl > 0 ? (body.volumeErrorMl / layout.rubberMl) * 100 : 0;
  if (layout.kind === "block" && errorPct > job.rubber.marginPct) {
    add("rubber", "warning", [
      {
        path: "rubber.marginPct",
        message: `Your measurements leave the rubber uncertain by ± ${errorPct.toFixed(0)} %, more than the margin of ${job.rubber.marginPct} %: measure again or raise the margin.`,
      },
    ]);
  }
  for (const p of pours) {
    if (p.batch && p.rubber.form === "pourable" && p.cure.potLife.hours.typical < 0.15 && p.batch.mixG > 1000) {
      add("rubber", "warning", [
        {
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
        path: "rubberId",
        message: `${rubber.name} is meant to be ${does[rubber.form]}, and this mould is ${does[wants]}: amounts hold, the work may not.`,
      },
    ]);
}

function strengthRemarks(opening: Opening, strength: PlannedStrength, add: Add): void {
  const { worst } = strength;
  if (worst && strength.support === "free" && worst.grade !== "holds") {
    const band = `${quote(worst.mostMm.typical, "length")} (${quote(worst.mostMm.low, "length")} to ${quote(worst.mostMm.high, "length")})`;
    add("strength", "warning", [
      {
        path: "strength",
        message:
          worst.grade === "bulges"
            ? `Free-standing, the walls bulge ${band} under this fill; ${quote(strength.toleranceMm, "length")} is allowed. Make them thicker, put boards and straps round them, or give the mould a jacket.`
            : `Free-standing, the walls bulge about ${band}: inside ${quote(strength.toleranceMm, "length")} if all goes well. Boards and two bands make it sure.`,
      },
    ]);
  }
  if (worst?.large && strength.support === "free")
    add("strength", "warning", [
      { path: "strength.large", message: "The bulge is more than half the wall's thickness: past that the figures only say that it is far too much." },
    ]);
  if (worst?.blocky && strength.support === "free")
    add("strength", "warning", [
      {
        path: "strength.blocky",
        message: "This wall is thicker than a third of its span: blockier than plates are reckoned, so take the bulge as a rough figure.",
      },
    ]);
  if (strength.support === "boards" && strength.boards && !strength.boards.enough)
    add("strength", "warning", [
      {
        path: "strength.boards",
        message: `${strength.boards.stock.name} bows ${quote(strength.boards.bow.mostMm.typical, "length")} behind the rubber even with ${strength.boards.straps.length} straps, or a strap pulls more than ${Math.round(strength.boards.pullN)} N: take a stiffer board or a stronger strap.`,
      },
    ]);
  if (strength.panel && strength.panel.mostMm.typical > 1)
    add("box", "warning", [
      {
        path: "boxId",
        message: `Under the rubber the longest side bows ${quote(strength.panel.mostMm.typical, "length")}: put straps over battens round it, or take a stiffer sheet.`,
      },
    ]);
  if (strength.hoop?.used && strength.hoop.used > 0.5)
    add("box", "warning", [
      {
        path: "boxId",
        message: `The wrap uses ${Math.round(strength.hoop.used * 100)} % of its weakest strength at the foot: take a thicker sheet, or bind it with cord.`,
      },
    ]);
  if (strength.stretch.grade !== "holds") {
    const pct = (v: number) => `${Math.round(v * 100)} %`;
    add("opening", "warning", [
      {
        path: "mould.opening",
        message: `To let go it has to stretch ${pct(strength.stretch.strain)} where it is narrow; this rubber is good for ${pct(strength.stretch.safe.low)} to ${pct(strength.stretch.safe.typical)}, cast after cast.${OPENING[opening].ifTooTight}`,
      },
    ]);
  }
  for (const c of strength.cores.filter((x) => x.grade === "bulges"))
    add("strength", "warning", [
      {
        path: "strength.cores",
        message: `${c.name}: ${quote(c.lengthMm, "length")} long on ${quote(c.diameterMm, "length")} sags ${quote(c.sagMm, "length")} or tears when it is drawn. Fill the hole in the master and drill the castings, or cast the core round a pin.`,
      },
    ]);
}

function planInside(
  job: Job,
  catalogue: Catalogue,
  body: Body,
  cast: Cast,
  rubber: Rubber | null,
  batch: CastBatch | null,
  inserts: PlannedInside["inserts"],
  hollow: PlannedInside["hollow"],
): PlannedInside {
  const then = pick(catalogue.casts, job.inside.thenCastId);
  const links = [
    ...(rubber ? [{ name: rubber.name, shrinkPct: rubber.shrinkPct, times: job.inside.generations }] : []),
    { name: cast.name, shrinkPct: cast.shrinkPct, times: job.inside.generations },
    ...(then ? [{ name: then.name, shrinkPct: then.shrinkPct, times: 1 }] : []),
  ];
  const density = batch?.wetDensityGMl ?? cast.densityGMl.typical;
  return {
    inserts,
    insertsG: inserts.reduce((s, i) => s + i.massG, 0),
    hollow,
    chargeG: hollow ? hollow.chargeMl * density : null,
    backG: hollow ? hollow.backMl * density : null,
    thin: thinnestSection(body, cast.family, density, hollow),
    sections: job.inside.cutsMm.length > 0 ? sectionsOf(body, job.inside.cutsMm) : [],
    shrink: shrinkChain(links),
  };
}

function weigh(
  pours: readonly PlannedPour[],
  batch: CastBatch | null,
  inside: PlannedInside | null,
  layout: Layout | null,
  stock: BoxStock | null,
  masterG: number | null,
  strength: PlannedStrength | null,
): Weights | null {
  if (pours.length === 0 || !batch || !layout) return null;
  const rubberG = pours.reduce((s, p) => s + p.rubberMl * p.rubber.densityGMl.typical, 0);
  const boxG = layout.kind === "block" ? boxMassG(layout.panels, stock) : null;
  // Boards weigh what their own sheet weighs.
  const boards = layout.kind === "block" && strength?.boards?.stock.densityGMl ? strength.boards.stock : null;
  const boardsG =
    boards?.densityGMl && layout.kind === "block"
      ? (layout.box.perimeterMm * layout.fillHeightMm * boards.thicknessMm * boards.densityGMl.typical) / 1000
      : null;
  const jacketG = boardsG ?? layout.jacket?.massG.typical ?? null;
  const insertsG = inside?.insertsG ?? 0;
  const boxedG = boxG === null ? null : boxG + rubberG + (masterG ?? 0);
  const filledG = rubberG + batch.wetG + insertsG + (jacketG ?? 0);
  return {
    rubberG,
    boxG,
    boxedG,
    jacketG,
    mouldG: rubberG,
    castWetG: batch.wetG + insertsG,
    castDemouldedG: batch.demouldedG.typical + insertsG,
    castDryG: batch.dryG.typical + insertsG,
    filledG,
    heavy: Math.max(filledG, boxedG ?? 0) > COMFORTABLE_LIFT_G,
  };
}

/** Rubber froths up to this many times its height before it falls back. */
const HEAD_ROOM = 4;

function placesOf(job: Job, m: Body, layout: Layout, weights: Weights | null, pours: readonly PlannedPour[]): Place[] {
  const places: Place[] = [];
  const jacket = layout.jacket?.thicknessMm ?? 0;
  const outer =
    layout.kind === "block"
      ? [layout.box.lengthMm + 2 * jacket, layout.box.widthMm + 2 * jacket, layout.fillHeightMm + jacket]
      : [
          m.lengthMm + 2 * (layout.skinMm + jacket + (layout.flange?.widthMm ?? 0)),
          m.widthMm + 2 * (layout.skinMm + jacket + (layout.flange?.widthMm ?? 0)),
          layout.fillHeightMm + jacket,
        ];
  const [length = 0, width = 0, height = 0] = outer;
  const sizes = `${quote(length, "length")} × ${quote(width, "length")} × ${quote(height, "length")}`;
  const { stand, chamber } = job.strength;
  if (stand) {
    const flat = Math.max(length, width) <= Math.max(stand.lengthMm, stand.widthMm) && Math.min(length, width) <= Math.min(stand.lengthMm, stand.widthMm);
    const load = weights === null || weights.filledG <= stand.loadG;
    places.push({
      name: "Shelf",
      fits: flat && height <= stand.heightMm && load,
      why: !flat
        ? `The mould is ${sizes}: it does not go on the shelf.`
        : height > stand.heightMm
          ? `The mould is ${quote(height, "length")} high: more than the shelf leaves.`
          : !load
            ? `Filled it weighs ${quote(weights?.filledG ?? 0, "mass")}: more than the shelf may carry.`
            : `${sizes}${weights ? ` and ${quote(weights.filledG, "mass")}` : ""}: it goes.`,
    });
  }
  if (chamber) {
    const most = Math.max(0, ...pours.map((p) => p.batch?.mixMl ?? 0));
    const potMl = ((Math.PI / 4) * chamber.diameterMm ** 2 * chamber.heightMm) / 1000;
    const cup = most * HEAD_ROOM <= potMl * 0.8;
    const block = Math.hypot(length, width) <= chamber.diameterMm && height <= chamber.heightMm;
    places.push({
      name: "Vacuum or pressure pot",
      fits: cup,
      why: cup
        ? `The largest mix, ${quote(most, "volume")}, has room to froth to ${HEAD_ROOM} times its height. ${block ? "The whole mould goes in too" : "The mould itself does not go in"}; only masters known to be solid go under vacuum or pressure, and only rated pots.`
        : `The largest mix, ${quote(most, "volume")}, would froth over: degas it in ${Math.ceil((most * HEAD_ROOM) / (potMl * 0.8))} cups.`,
    });
  }
  return places;
}
