import { castBatch, massRatio, rubberBatch, type CastBatch, type RubberBatch } from "../batch";
import { castCure, CONDENSATION_DEPTH_MM, rubberCure, type CastCure, type RubberCure } from "../cure";
import { heatKey, heatQuestionFor, likeBody, type HeatQuestion, type HeatStudies, type HeatStudy } from "../heat";
import { JACKET_HEAT, judgeChain, type Chain, type Contact, type FitQuestion, type Held, type Verdict } from "../fit";
import type { Job } from "../job";
import { pick, type Cast, type Rubber, type Shelf } from "../material";
import { measureMaster, SHAPES, type FormProblem, type Measure } from "../master";
import { buoyancy, hydrostaticPa, layOutMould, wallPushN, type Buoyancy, type Layout, type RubberPour } from "../mould";
import { quote } from "../quantity";

/** One pour of rubber with everything needed to make it. */
export interface PlannedPour extends RubberPour {
  rubber: Rubber;
  batch: RubberBatch | null;
  cure: RubberCure;
  /** Lift on the covered part of the master if rubber gets under it. */
  lift: Buoyancy;
  /** Pressure at the lowest seam the liquid reaches, Pa, and push on the longest straight wall, N (null for wraps). */
  seamPa: number;
  wallPushN: number | null;
}

export const STEP_IDS = ["master", "pairing", "prepare", "box", "rubber", "cast", "out"] as const;
export type StepId = (typeof STEP_IDS)[number];
export type StepState = "waiting" | "asks" | "settled" | "troubled";

export interface Step {
  id: StepId;
  state: StepState;
  /** What is missing or wrong, or the step's answer in a few words. */
  line: string;
}

/** A doubt or fault about one thing a person typed. */
export interface Remark extends FormProblem {
  severity: "fault" | "warning";
  step: StepId;
}

export interface Weights {
  rubberG: number;
  /** Mould alone, and mould filled with wet cast, g. */
  mouldG: number;
  filledG: number;
  castWetG: number;
  castDemouldedG: number;
  castDryG: number;
  /** True when the filled mould is past a comfortable one-person lift. */
  heavy: boolean;
}

/** Most a person should lift alone in ideal conditions, g: the load constant of the NIOSH lifting equation, 23 kg. */
export const COMFORTABLE_LIFT_G = 23_000;

export interface Plan {
  measure: Measure | null;
  missing: readonly string[];
  masterG: number | null;
  layout: Layout | null;
  pours: readonly PlannedPour[];
  rubber: Rubber | null;
  cast: Cast | null;
  castBatch: CastBatch | null;
  castCure: CastCure | null;
  chain: Chain;
  /** What heat does to each rubber the cast meets; the study is null while it is being worked out. */
  heat: readonly PlannedHeat[];
  weights: Weights | null;
  remarks: readonly Remark[];
  steps: readonly Step[];
  cautions: readonly { step: StepId; text: string }[];
  /** What is always in sight. Grams and hours; null until known. */
  tally: {
    rubberG: number | null;
    castG: number | null;
    filledG: number | null;
    verdict: Verdict;
    rubberOutH: number | null;
    castOutH: number | null;
  };
}

/** What the shop is like beyond what the job says; null keeps the job's own temperature. */
export interface Conditions {
  shopC: number | null;
  /** What the log says this job's moulds have held; the person may know of more, never of less. */
  held?: Held;
}

/** The graver of two histories: what is not food outweighs food, and food outweighs nothing. */
const moreHeld = (a: Held, b: Held): Held => (a === "non-food" || b === "non-food" ? "non-food" : a === "food" || b === "food" ? "food" : "new");

/** One rubber's heat question, with its answer once a worker has it. */
export interface PlannedHeat {
  rubberId: string;
  question: HeatQuestion;
  study: HeatStudy | null;
}

const NO_STUDIES: HeatStudies = new Map();

const heatOf = (question: HeatQuestion, rubber: Rubber, studies: HeatStudies): PlannedHeat => ({
  rubberId: rubber.id,
  question,
  study: studies.get(heatKey(question)) ?? null,
});

/** What a heat study of this job reads: the casting as the plate, rod or ball it cools like, in the thinnest rubber round it. */
function heatQuestion(job: Job, m: Measure, layout: Layout, rubber: Rubber, cast: Cast, shopC: number): HeatQuestion {
  return heatQuestionFor(cast, rubber, {
    ...likeBody(m.volumeMl, m.areaMm2, Math.min(m.lengthMm, m.widthMm, m.heightMm)),
    wallMm: Math.max(0.5, Math.min(layout.box.leastWallMm, job.mould.coverMm)),
    jacket: JACKET_HEAT[job.jacket],
    shopC,
    ...job.session,
  });
}

/** What the contact rules are asked about a job. Without a rubber of its own, the second half is the first's. */
export function fitQuestionOf(job: Job): FitQuestion {
  const twoPart = job.mould.opening === "twoPart";
  return {
    surfaceId: job.master.surfaceId,
    sealerId: job.sealerId,
    releaseId: job.releaseId,
    clayId: twoPart ? job.clayId : null,
    rubberId: job.rubberId,
    secondRubberId: twoPart ? (job.secondRubberId ?? job.rubberId) : null,
    plugRubberId: job.plugRubberId,
    castId: job.castId,
    use: job.use,
    held: job.held,
    washedToday: job.washedToday,
    boxId: job.boxId,
    sealing: job.sealing,
    jacket: job.jacket,
    finish: job.finish,
  };
}

/**
 * Everything derived from a job's decisions, in one pass and without side effects: measures, layout, batches, contact
 * verdicts, times, weights, and what each step still needs. Never throws on a job that passes its schema.
 */
export function plan(job: Job, shelf: Shelf, conditions: Conditions = { shopC: null }, studies: HeatStudies = NO_STUDIES): Plan {
  const shopC = conditions.shopC ?? job.shopC;
  const remarks: Remark[] = [];
  const add = (step: StepId, severity: Remark["severity"], list: readonly FormProblem[]) => remarks.push(...list.map((p) => ({ ...p, severity, step })));

  const measured = measureMaster(job.master);
  const measure = measured.ok ? measured.measure : null;
  if (!measured.ok) add("master", "fault", measured.problems);
  const missing = measured.ok ? [] : measured.missing.map((k) => SHAPES[job.master.shape].fields.find((f) => f.key === k)?.label.toLowerCase() ?? k);

  const rubber = pick(shelf.rubbers, job.rubberId);
  const twoPart = job.mould.opening === "twoPart";
  const second = twoPart ? (pick(shelf.rubbers, job.secondRubberId) ?? rubber) : null;
  const cast = pick(shelf.casts, job.castId);
  const surface = pick(shelf.surfaces, job.master.surfaceId);
  const stock = pick(shelf.boxes, job.boxId);
  for (const [path, wanted, found, step] of [
    ["rubberId", job.rubberId, rubber, "pairing"],
    ["castId", job.castId, cast, "pairing"],
    ["master.surfaceId", job.master.surfaceId, surface, "master"],
    ["secondRubberId", twoPart ? job.secondRubberId : null, pick(shelf.rubbers, job.secondRubberId), "rubber"],
    ["sealerId", job.sealerId, pick(shelf.releases, job.sealerId), "prepare"],
    ["releaseId", job.releaseId, pick(shelf.releases, job.releaseId), "prepare"],
    ["clayId", twoPart ? job.clayId : null, pick(shelf.surfaces, job.clayId), "prepare"],
    ["boxId", job.boxId, stock, "box"],
  ] as const) {
    if (wanted !== null && found === null) add(step, "fault", [{ path, message: "What was chosen here is no longer on the shelf: choose another." }]);
  }

  const masterG =
    job.master.massG ??
    (job.master.shape === "weighed" ? (job.master.sizes.massG ?? null) : measure && surface?.densityGMl ? measure.volumeMl * surface.densityGMl.typical : null);

  const laid = measure ? layOutMould(measure, job.mould, stock) : null;
  if (laid && !laid.ok) add("box", "fault", laid.problems);
  if (laid?.ok) add("box", "warning", laid.warnings);
  const layout = laid?.ok ? laid.layout : null;

  const meets = [rubber, second, pick(shelf.rubbers, job.plugRubberId)]
    .filter((r): r is Rubber => r !== null)
    .filter((r, i, all) => all.findIndex((o) => o.id === r.id) === i);
  const heat = measure && layout && cast ? meets.map((r) => heatOf(heatQuestion(job, measure, layout, r, cast, shopC), r, studies)) : [];
  const chain = judgeChain(
    { ...fitQuestionOf(job), held: moreHeld(job.held, conditions.held ?? "new") },
    shelf,
    (r) => heat.find((h) => h.rubberId === r.id)?.study ?? null,
  );

  const pours: PlannedPour[] = [];
  if (layout && rubber && measure) {
    layout.pours.forEach((pour, i) => {
      const mine = i === 0 ? rubber : (second ?? rubber);
      const ratio = massRatio(mine.mix, job.rubber.catalystPct);
      if (!ratio.ok) add("rubber", "fault", [{ path: "rubber.catalystPct", message: ratio.message }]);
      const density = mine.densityGMl.typical;
      const depth = pour.fillLineMm - pour.fromMm;
      pours.push({
        ...pour,
        rubber: mine,
        batch: ratio.ok
          ? rubberBatch(pour.rubberMl, density, ratio.ratio, job.rubber.marginPct, {
              k: job.rubber.cupLossK,
              floorG: job.rubber.cupLossFloorG,
            })
          : null,
        cure: rubberCure(mine, shopC, job.rubber.catalystPct),
        lift: buoyancy(pour.coversMl, masterG ?? 0, density),
        seamPa: hydrostaticPa(density, depth),
        wallPushN: layout.box.shape === "rectangular" ? wallPushN(density, depth, Math.max(layout.box.lengthMm, layout.box.widthMm)) : null,
      });
    });
    const errorPct = measure.volumeMl > 0 ? (measure.volumeErrorMl / layout.rubberMl) * 100 : 0;
    if (errorPct > job.rubber.marginPct) {
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
    for (const p of pours) {
      const depth = p.fillLineMm - p.fromMm;
      if (p.rubber.traits.includes("condensation") && Math.min(depth, layout.box.leastWallMm) > CONDENSATION_DEPTH_MM) {
        add("out", "warning", [
          {
            path: "cure",
            message: `${p.rubber.name} cures by moisture from the air, and this section is more than ${quote(CONDENSATION_DEPTH_MM, "length")} deep: give it days longer, open to the air, and no oven. Press a thumbnail into the thickest part before you trust it.`,
          },
        ]);
        break;
      }
    }
    if (rubber.form !== "pourable")
      add("pairing", "warning", [
        {
          path: "rubberId",
          message: `${rubber.name} is meant to be ${rubber.form === "putty" ? "pressed on by hand" : "brushed"}, not poured as a block: amounts here are for a solid block.`,
        },
      ]);
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
  if (measure && cast) {
    const made = castBatch(cast, measure.volumeMl, job.cast);
    if (made.ok) {
      batch = made.batch;
      add(
        "cast",
        "warning",
        made.warnings.map((message) => ({ path: "cast.waterPer100", message })),
      );
    } else add("cast", "fault", [{ path: made.path, message: made.message }]);
    cure = castCure(cast, shopC, measure);
  }

  const rubberG = pours.reduce((s, p) => s + p.rubberMl * p.rubber.densityGMl.typical, 0);
  const weights: Weights | null =
    pours.length > 0 && batch
      ? {
          rubberG,
          mouldG: rubberG,
          castWetG: batch.wetG,
          castDemouldedG: batch.demouldedG.typical,
          castDryG: batch.dryG.typical,
          filledG: rubberG + batch.wetG,
          heavy: rubberG + batch.wetG > COMFORTABLE_LIFT_G,
        }
      : null;
  if (weights?.heavy)
    add("out", "warning", [
      {
        path: "mould",
        message: `The filled mould weighs ${quote(weights.filledG, "mass")}: past a comfortable one-person lift of ${quote(COMFORTABLE_LIFT_G, "mass")}. Fill it where it will stand, or lift with two.`,
      },
    ]);

  const mixes = pours.map((p) => p.batch?.mixG);
  const allMixed = mixes.length > 0 && mixes.every((g) => g !== undefined);
  return {
    measure,
    missing,
    masterG,
    layout,
    pours,
    rubber,
    cast,
    castBatch: batch,
    castCure: cure,
    chain,
    heat,
    weights,
    remarks,
    steps: steps(job, { measure, missing, layout, pours, rubber, cast, batch, chain, remarks, surfaceKnown: surface !== null }),
    cautions: cautions(rubber, second, cast),
    tally: {
      rubberG: allMixed ? mixes.reduce<number>((s, g) => s + (g ?? 0), 0) : null,
      castG: batch?.mixG ?? null,
      filledG: weights?.filledG ?? null,
      verdict: chain.verdict,
      rubberOutH: pours.length > 0 ? pours.reduce((s, p) => s + p.cure.demould.hours.typical, 0) : null,
      castOutH: cure?.demould.hours.typical ?? null,
    },
  };
}

/** Contacts that the pairing step answers for, and those that the prepare step does. */
export const PAIR_CONTACTS: readonly Contact[] = ["rubber-cast", "cast-use", "mould-cast", "release-cast", "cast-finish"];
export const PREPARE_CONTACTS: readonly Contact[] = ["surface-rubber", "clay-rubber", "rubber-rubber", "box-rubber", "seal-rubber", "jacket-rubber"];

interface Known {
  measure: Measure | null;
  missing: readonly string[];
  layout: Layout | null;
  pours: readonly PlannedPour[];
  rubber: Rubber | null;
  cast: Cast | null;
  batch: CastBatch | null;
  chain: Chain;
  remarks: readonly Remark[];
  surfaceKnown: boolean;
}

const listed = (words: readonly string[]): string => (words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`);

function steps(job: Job, k: Known): Step[] {
  const fault = (id: StepId) => k.remarks.find((r) => r.step === id && r.severity === "fault");
  const linkVerdict = (contacts: readonly Contact[]): Verdict =>
    k.chain.links
      .filter((l) => contacts.includes(l.contact))
      .reduce<Verdict>(
        (w, l) => (l.verdict === "no" || w === "no" ? "no" : l.verdict === "untested" || w === "untested" ? "untested" : l.verdict === "care" ? "care" : w),
        "sound",
      );
  const make = (id: StepId, ready: boolean, needs: string | null, answer: string, trouble: string | null = null): Step => {
    const f = fault(id);
    if (f) return { id, state: "troubled", line: f.message };
    if (needs !== null) return { id, state: ready ? "asks" : "waiting", line: needs };
    if (trouble) return { id, state: "troubled", line: trouble };
    return { id, state: "settled", line: answer };
  };
  const { measure, rubber, cast, layout } = k;
  const surfaceNo = linkVerdict(PREPARE_CONTACTS);
  const pairNo = linkVerdict(PAIR_CONTACTS);
  const reasonOf = (contacts: readonly Contact[]) =>
    k.chain.links
      .filter((l) => contacts.includes(l.contact))
      .flatMap((l) => l.findings)
      .find((f) => f.verdict === "no")?.reason ?? "";
  const rubberMl = layout?.rubberMl ?? 0;
  return [
    make(
      "master",
      true,
      k.missing.length > 0 ? `Measure ${listed(k.missing)}` : !measure ? "Draw its outline" : !k.surfaceKnown ? "Say what it is made of" : null,
      measure ? `${quote(measure.volumeMl, "volume")} of volume` : "",
    ),
    make(
      "pairing",
      true,
      !cast ? "Choose what to cast" : !rubber ? "Choose a rubber" : null,
      `${rubber?.name ?? ""} with ${cast?.name.toLowerCase() ?? ""}`,
      pairNo === "no" ? reasonOf(PAIR_CONTACTS) : null,
    ),
    make(
      "prepare",
      rubber !== null && k.surfaceKnown,
      rubber === null || !k.surfaceKnown ? "Needs master and rubber" : null,
      surfaceNo === "sound" ? "Nothing to seal or release" : "Prepared with care",
      surfaceNo === "no" ? reasonOf(PREPARE_CONTACTS) : null,
    ),
    make(
      "box",
      measure !== null,
      measure === null ? "Needs the master's sizes" : null,
      layout ? `${quote(layout.box.lengthMm, "length")} × ${quote(layout.box.widthMm, "length")} inside, ${quote(layout.wallHeightMm, "length")} high` : "",
    ),
    make(
      "rubber",
      layout !== null && rubber !== null,
      k.pours.length === 0 ? "Needs box and rubber" : null,
      `${quote(
        k.pours.reduce((s, p) => s + (p.batch?.mixG ?? 0), 0),
        "mass",
      )} to mix for ${quote(rubberMl, "volume")}`,
    ),
    make(
      "cast",
      measure !== null && cast !== null,
      !measure || !cast ? "Needs master and cast" : null,
      k.batch ? `${quote(k.batch.mixG, "mass")} for ${job.cast.count === 1 ? "one casting" : `${job.cast.count} castings`}` : "",
    ),
    make("out", k.pours.length > 0 && k.batch !== null, k.pours.length === 0 || !k.batch ? "Needs rubber and cast" : null, "Times worked out"),
  ];
}

function cautions(rubber: Rubber | null, second: Rubber | null, cast: Cast | null): { step: StepId; text: string }[] {
  const once = new Set([...(rubber?.cautions ?? []), ...(second?.cautions ?? [])]);
  const out: { step: StepId; text: string }[] = [...once].map((text) => ({ step: "rubber", text }));
  for (const text of cast?.cautions ?? []) out.push({ step: "cast", text });
  if (cast?.family === "cement" || cast?.family === "gypsum")
    out.push({ step: "out", text: "Fresh edges are sharp: gloves when lifting out and trimming; sand wet, with a respirator." });
  if (cast?.family === "metal") out.push({ step: "out", text: "The casting stays hot long after it is hard: gloves and tongs." });
  return out;
}
