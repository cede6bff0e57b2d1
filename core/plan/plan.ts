import { gatesOf } from "./gates";
import { castBatch, type CastBatch } from "../batch";
import { howMany, repeated, type Body } from "../body";
import { type HeatStudies } from "../heat";
import { judgeChain } from "../fit";
import type { Dossier } from "../record";
import { pick, type Surface } from "../material";
import { quote } from "../quantity";
import { measureMaster, SHAPES } from "../master";
import { layerCast, layOutMould, OPENING, type LayeredCast } from "../mould";
import { cavityOf, NO_CASTING, planCasting } from "./casting";
import { chosenOf } from "./chosen";
import { faceOf, fitQuestionOf, moreHeld } from "./fitQuestion";
import { coolingOf, heatsOf, runawayRemarks } from "./heat";
import { mostInMouldG, type PlannedLayer } from "./layers";
import { placesOf } from "./places";
import { planPour, pourRemarks } from "./pours";
import type { Add } from "./remarks";
import { heavyRemarks, weightsOf } from "./weights";
import { planStrength, strengthRemarks } from "./strength";
import { cautionsOf, stepsOf } from "./steps";
import { type Plan, type PlannedPour, type Remark } from "./types";

const NO_STUDIES: HeatStudies = new Map();

/**
 * Everything that follows from a dossier, in one pass and without side effects: measures, layout, batches, contact
 * verdicts, times, weights, and what each step still needs. Never throws on a job that passes its schema.
 */
export function plan(dossier: Dossier, studies: HeatStudies = NO_STUDIES): Plan {
  const { job, materials: catalogue } = dossier;
  const { shopC } = job;
  const remarks: Remark[] = [];
  const add: Add = (step, severity, list) => remarks.push(...list.map((p) => ({ ...p, severity, step })));

  const measured = measureMaster(job.master);
  const piece = measured.ok ? measured.body : null;
  const inBox = OPENING[job.mould.opening].made === "block";
  const pieces = inBox ? howMany(job.master.copies) : 1;
  const body = piece && inBox ? repeated(piece, job.master.copies) : piece;
  if (!inBox && howMany(job.master.copies) > 1)
    add("opening", "warning", [
      { code: "copies-alone", path: "mould.opening", message: "Several in one box is for moulds that are poured in a box: this way of opening takes one." },
    ]);
  if (!measured.ok) add("master", "fault", measured.problems);
  const missing = measured.ok ? [] : measured.missing.map((k) => SHAPES[job.master.shape].fields.find((f) => f.key === k)?.label.toLowerCase() ?? k);

  const { rubber, second, plugRubber, seamRubber, cast, surface, stock } = chosenOf(dossier, add);

  // Of all that stand in the box: what is weighed is one of them.
  const oneG =
    job.master.massG ??
    (job.master.shape === "weighed" ? (job.master.sizes.massG ?? null) : body && surface?.densityGMl ? body.volumeMl * surface.densityGMl.typical : null);

  const masterG = oneG === null ? null : oneG * pieces;

  if (job.master.massG !== null && piece) add("master", "warning", tooHeavy(job.master.massG, piece.volumeMl, surface));

  const laid = body ? layOutMould(body, job.mould, stock, job.jacket) : null;
  if (laid && !laid.ok) for (const p of laid.problems) add(p.step, "fault", [p]);
  if (laid?.ok) for (const p of laid.warnings) add(p.step, "warning", [p]);
  const layout = laid?.ok ? laid.layout : null;

  const shaped = body ? layerCast(body, job.mould, job.inside, cavityOf(body, layout)) : null;
  add("cast", "warning", shaped?.warnings ?? []);
  const layered = shaped?.cast ?? null;
  // What meets the rubber: the face of a layered casting.
  const met = layered ? pick(catalogue.casts, faceOf(job)) : cast;
  const heat = body && layout && cast ? heatsOf(job, body, layout, layered, [rubber, second, plugRubber, seamRubber], met ?? cast, studies) : [];
  runawayRemarks(shopC, heat, add);
  const chain = judgeChain(
    { ...fitQuestionOf(job), held: moreHeld(job.held, dossier.held) },
    catalogue,
    (r) => heat.find((h) => h.rubberId === r.id)?.study ?? null,
  );

  // A sealant that stops the cure is refused where it is chosen, not first where the pour is.
  for (const f of chain.links.flatMap((l) => (l.contact === "seal-rubber" ? l.findings : [])).filter((x) => x.verdict === "no"))
    add("box", "fault", [{ code: "sealing-stops-cure", path: "sealing", message: `${f.reason} ${f.remedy}` }]);

  const pours: PlannedPour[] = [];
  if (layout && rubber && body) {
    for (const pour of layout.pours) {
      const mine = (pour.kind === "coat" ? (pour.role === "wall" ? seamRubber : rubber) : pour.plug ? plugRubber : pour.turned ? second : rubber) ?? rubber;
      pours.push(
        planPour(job, body, layout, pour, mine, masterG ?? 0, shopC, (message) =>
          add("rubber", "fault", [{ code: "catalyst-outside", path: "rubber.catalystPct", message }]),
        ),
      );
    }
    pourRemarks(job, body, layout, rubber, pours, add);
  }

  const risky = chain.links.find((l) => l.contact.endsWith("-rubber") && l.verdict === "untested");
  if (risky && pours.length > 0) {
    add("out", "warning", [
      {
        code: "contact-untested",
        path: "cure",
        message: `Nobody knows yet how ${risky.between[0]} takes this rubber: it may cure slowly or stay tacky where they touch. No figure tells how much; wait out the slow end, and press a thumbnail at an edge before you open it.`,
      },
    ]);
  }

  const { layers, batch, cure, inside, castMl } =
    body && cast ? planCasting(dossier, body, layout, layered, rubber, cast, met ?? cast, coolingOf(heat), add) : NO_CASTING;
  const densityOf = (castId: string): number | null => {
    const other = pick(catalogue.casts, castId);
    const made =
      other &&
      castBatch(other, 1000, {
        ...job.cast,
        waterPer100: castId === job.castId ? job.cast.waterPer100 : null,
        additions: castId === job.castId ? job.cast.additions : [],
      });
    return made?.ok ? made.batch.wetDensityGMl : null;
  };
  const strength =
    body && piece && layout && rubber
      ? planStrength(
          job,
          catalogue,
          body,
          piece,
          layout,
          rubber,
          plugRubber,
          cast && batch ? { id: cast.id, gMl: pressingGMl(layers, layered, body, batch) } : null,
          densityOf,
        )
      : null;
  if (strength) strengthRemarks(job.mould.opening, strength, add);

  const weights = weightsOf(pours, batch, mostInMouldG(layers, job.cast.count), inside, layout, stock, masterG, strength);
  heavyRemarks(weights, add);

  const mixes = pours.map((p) => p.batch?.mixG);
  const allMixed = mixes.length > 0 && mixes.every((g) => g !== undefined);
  const priced = pours.length > 0 && pours.every((p) => p.batch && p.rubber.pricePerKg !== null);
  return {
    dossier,
    body,
    piece,
    pieces,
    missing,
    masterG,
    layout,
    pours,
    rubber,
    cast,
    castMl,
    layers,
    castBatch: batch,
    castCure: cure,
    chain,
    heat,
    strength,
    inside,
    gates: gatesOf(job, { body, pieces, layout, rubber, cast, castMl }),
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
      castOutH: cure && !cure.demould.never ? cure.demould.hours.typical : null,
    },
  };
}

/** Share of the height below which no coat is taken to press. */
const LEAST_DEPTH = 0.001;

/**
 * Density that presses on the walls, g/mL. What fills the mould presses with its full head; coats that never stand in it press only
 * with their own thickness, so their density counts by that share of the height.
 */
function pressingGMl(layers: readonly PlannedLayer[], layered: LayeredCast | null, body: Body, batch: CastBatch): number {
  if (!layered) return batch.wetDensityGMl;
  const full = layers.filter((l) => l.coat && (l.way === "back" || (l.way === "poured" && l.coat.thicknessMm === 0)));
  if (full.length > 0) return Math.max(...full.map((l) => l.batch.wetDensityGMl));
  const poured = layered.coats.reduce((s, c) => s + (c.layer.way === "poured" ? c.thicknessMm : 0), 0);
  const deep = Math.max(layered.wallMm, poured);
  return Math.max(...layers.map((l) => l.batch.wetDensityGMl)) * Math.min(1, Math.max(LEAST_DEPTH, deep / body.heightMm));
}

/** The densest thing that is moulded, lead, g/mL; a figure above it was misread, whatever it is made of. */
const DENSEST_GML = 11.4;
/** Above the high end of its material's density by this factor, a master weighs more than it can. */
const DOUBTED = 1.3;

/** A weight that cannot be true for its volume and what it is made of; a hollow master is lighter, so only too much is doubted. */
function tooHeavy(massG: number, volumeMl: number, surface: Surface | null): { code: string; path: string; message: string }[] {
  const most = surface?.densityGMl ? surface.densityGMl.high * DOUBTED : DENSEST_GML;
  const gMl = massG / volumeMl;
  if (gMl <= most) return [];
  const kinds = surface?.densityGMl
    ? `${surface.name} is ${quote(surface.densityGMl.low, "density")} to ${quote(surface.densityGMl.high, "density")}`
    : "nothing people mould is";
  return [
    {
      code: "weight-doubted",
      path: "master.massG",
      message: `${quote(massG, "mass")} in ${quote(volumeMl, "volume")} would be ${quote(gMl, "density")}; ${kinds}. The weight, a size, or what it is made of was misread.`,
    },
  ];
}
