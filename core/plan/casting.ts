import { castBatch, type CastBatch } from "../batch";
import type { Body } from "../body";
import { castCure, type CastCure, type Cooling } from "../cure";
import { pick, type Cast, type Catalogue, type Rubber } from "../material";
import { LAYER_WAYS, placeInserts, sectionsOf, shrinkChain, thinnestSection, type LayeredCast, type Layout, type PlacedInsert, type Section } from "../mould";
import { quote } from "../quantity";
import type { Dossier, Job } from "../record";
import { freeWaterOf, planLayers, wholeCure, wholeOf, type PlannedLayer } from "./layers";
import type { Add } from "./remarks";
import type { PlannedInside } from "./types";

/** The casting of a job: its layers, what they take together, how long it takes, and what goes into it or is left out. */
export interface PlannedCasting {
  layers: readonly PlannedLayer[];
  batch: CastBatch | null;
  cure: CastCure | null;
  inside: PlannedInside | null;
  /** Volume the cast itself takes in one casting, mL. */
  castMl: number | null;
}
export const NO_CASTING: PlannedCasting = { layers: [], batch: null, cure: null, inside: null, castMl: null };

export const cavityOf = (body: Body, layout: Layout | null): number => (layout?.kind === "block" ? layout.cavityMl : body.volumeMl);

export function planCasting(
  dossier: Dossier,
  body: Body,
  layout: Layout | null,
  layered: LayeredCast | null,
  rubber: Rubber | null,
  cast: Cast,
  met: Cast,
  cooling: Cooling | null,
  add: Add,
): PlannedCasting {
  const { job, materials: catalogue } = dossier;
  const placed = placeInserts(job.inside.inserts, body);
  add("cast", "warning", placed.warnings);
  const insertsMl = placed.placed.reduce((s, i) => s + i.volumeMl, 0);
  const sections = job.inside.cutsMm.length > 0 ? sectionsOf(body, job.inside.cutsMm, layered, job.inside.solidSections) : [];
  const { layers, castMl, cure } = layered
    ? inLayers(dossier, body, displaced(layered, placed.placed, body.volumeMl - cavityOf(body, layout)), sections, cast, met, placed.placed, cooling, add)
    : inOneLump(job, body, cavityOf(body, layout) - insertsMl, insertsMl, cast, placed.placed, cooling, add);
  const batch = wholeOf(layers, job.cast.count);
  const inside = planInside(job, catalogue, body, cast, rubber, batch, placed.placed, layered, sections);
  if (inside.thin && inside.thin.margin < 2)
    add("cast", "warning", [
      {
        code: "weak-when-fresh",
        path: "inside",
        message: `Lifted level by its back, the fresh casting bends most ${quote(inside.thin.atMm, "length")} up: ${quote(inside.thin.stressMPa * 1e6, "pressure")}, and it may bear only ${quote(inside.thin.strengthMPa.low * 1e6, "pressure")} when just set. Lift it upright, leave it longer, or put a rod through.`,
      },
    ]);
  if (cure?.demould.never) add("cast", "fault", [{ code: "never-sets", path: "shopC", message: cure.demould.never }]);
  const mixes = [...new Map([cast, ...layers.map((l) => l.cast)].map((c) => [c.id, c])).values()];
  for (const c of mixes) add("cast", "warning", frost(c, job.shopC));
  return { layers, batch, cure, inside, castMl };
}

type Made = Pick<PlannedCasting, "layers" | "castMl" | "cure">;

function inOneLump(
  job: Job,
  body: Body,
  castMl: number,
  insertsMl: number,
  cast: Cast,
  inserts: readonly PlacedInsert[],
  cooling: Cooling | null,
  add: Add,
): Made {
  const made = castMl > 0 ? castBatch(cast, castMl, job.cast) : null;
  let batch: CastBatch | null = null;
  if (!made)
    add("cast", "fault", [
      {
        code: "inserts-fill-it",
        path: "inside.inserts",
        message: `What goes inside takes ${quote(insertsMl, "volume")}, all there is of ${quote(castMl + insertsMl, "volume")}: one of its sizes is misread.`,
      },
    ]);
  else if (made.ok) {
    batch = made.batch;
    add(
      "cast",
      "warning",
      made.warnings.map((message) => ({ code: "water-unusual", path: "cast.waterPer100", message })),
    );
  } else add("cast", "fault", [{ code: "mix-not-possible", path: made.path, message: made.message }]);
  const one = batch && { staysG: batch.wetG, demouldedG: batch.demouldedG, dryG: batch.dryG, staysMl: castMl };
  const cure = castCure(cast, job.shopC, { volumeMl: body.volumeMl, areaMm2: body.areaMm2, ...(one ? { freeWaterGMl: freeWaterOf([one]) } : {}) }, cooling);
  const layer: PlannedLayer[] =
    batch && one
      ? [
          {
            ...one,
            name: cast.name,
            cast,
            way: "poured",
            coat: null,
            batch,
            backG: Math.max(0, batch.mixG - batch.wetG * job.cast.count),
            serves: null,
            cure,
            next: null,
            inserts: inserts.filter((i) => i.afterCoat !== null),
          },
        ]
      : [];
  return { layers: layer, castMl, cure };
}

function inLayers(
  { job, materials }: Dossier,
  body: Body,
  layered: LayeredCast,
  sections: readonly Section[],
  cast: Cast,
  met: Cast,
  inserts: readonly PlacedInsert[],
  cooling: Cooling | null,
  add: Add,
): Made {
  const layers = planLayers(job, materials, body, filledUp(layered, sections), cast, met, inserts, cooling, add) ?? [];
  const castMl = layers.reduce((s, l) => s + l.staysMl, 0);
  // With the back open a shell dries from both faces; closed, from its outside only.
  const dryMm =
    layered.inner.hollowMl < layered.inner.shellMl * 0.05 ? (2 * castMl * 1000) / body.areaMm2 : layered.wallMm * (layered.mouth === "closed" ? 2 : 1);
  return { layers, castMl, cure: wholeCure(layers, job.shopC, dryMm) };
}

/**
 * What stands in the hollow when it is filled takes the place of mix: an insert from the first coat after it that fills what is
 * left, or is poured back out again; loose plugs from the first that does either. Coats that only line the face keep their volume.
 */
function displaced(layered: LayeredCast, inserts: readonly PlacedInsert[], plugsMl: number): LayeredCast {
  const coats = layered.coats.map((c) => ({ ...c }));
  const take = (ml: number, from: number) => {
    const filling = coats.slice(from).find((c) => LAYER_WAYS[c.layer.way].fills && (c.thicknessMm === 0 || c.layer.way === "back"));
    if (!filling) return;
    filling.potMl = Math.max(0, filling.potMl - ml);
    if (filling.thicknessMm === 0) filling.staysMl = Math.max(0, filling.staysMl - ml);
    filling.backMl = Math.max(0, filling.potMl - filling.staysMl);
  };
  take(Math.max(0, plugsMl), 0);
  for (const i of inserts) take(i.volumeMl, i.afterCoat ?? 0);
  return { ...layered, coats };
}

/** Sections that are cast solid are filled up with the last coat's mix. */
function filledUp(layered: LayeredCast, sections: readonly Section[]): LayeredCast {
  if (!sections.some((s) => s.solid)) return layered;
  const more = Math.max(0, sections.reduce((s, x) => s + x.volumeMl, 0) - layered.coats.reduce((s, c) => s + c.staysMl, 0));
  const coats = layered.coats.map((c, i) => (i === layered.coats.length - 1 ? { ...c, staysMl: c.staysMl + more, potMl: c.potMl + more } : c));
  return { ...layered, coats };
}

/** Below this fresh cement hardly gains strength, °C. */
const COLD_C = 5;

/** What cold does to a mix of water and powder that is still wet. */
function frost(cast: Cast, shopC: number): { code: string; path: string; message: string }[] {
  const at = quote(shopC, "temperature");
  if (cast.family === "cement" && shopC < COLD_C)
    return [
      {
        code: "frost",
        path: "shopC",
        message:
          shopC <= 0
            ? `At ${at} fresh cement freezes, and is ruined for good: no waiting mends it. Warm the place, and the mould, above ${quote(COLD_C, "temperature")} first.`
            : `At ${at} cement hardly gains strength, and a frosty night ruins it while it is fresh. Keep it above ${quote(COLD_C, "temperature")} for the first days.`,
      },
    ];
  if (cast.family === "gypsum" && shopC <= 0)
    return [
      { code: "frost", path: "shopC", message: `At ${at} plaster freezes while it is wet, and crumbles. Cast and dry it above ${quote(0, "temperature")}.` },
    ];
  return [];
}

function planInside(
  job: Job,
  catalogue: Catalogue,
  body: Body,
  cast: Cast,
  rubber: Rubber | null,
  batch: CastBatch | null,
  inserts: PlannedInside["inserts"],
  hollow: LayeredCast | null,
  sections: readonly Section[],
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
    thin: thinnestSection(body, cast.family, density, hollow?.inner ?? null),
    sections,
    shrink: shrinkChain(links),
  };
}
