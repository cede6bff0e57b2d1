import { castBatch, type CastBatch } from "../batch";
import type { Body } from "../body";
import { castCure, type CastCure, type Cooling } from "../cure";
import { pick, type Cast, type Catalogue, type Rubber } from "../material";
import { hollowCast, placeInserts, sectionsOf, shrinkChain, thinnestSection, type Layout } from "../mould";
import { quote } from "../quantity";
import type { Dossier, Job } from "../record";
import type { Add } from "./remarks";
import type { PlannedInside } from "./types";

/** The casting of a job: what is mixed, how long it takes, and what goes into it or is left out. */
export interface PlannedCasting {
  batch: CastBatch | null;
  cure: CastCure | null;
  inside: PlannedInside | null;
  /** Volume the cast itself takes in one casting, mL. */
  castMl: number | null;
}
export const NO_CASTING: PlannedCasting = { batch: null, cure: null, inside: null, castMl: null };

export function planCasting(
  dossier: Dossier,
  body: Body,
  layout: Layout | null,
  rubber: Rubber | null,
  cast: Cast,
  cooling: Cooling | null,
  add: Add,
): PlannedCasting {
  const { job, materials: catalogue } = dossier;
  let batch: CastBatch | null = null;
  const placed = placeInserts(job.inside.inserts, body);
  add("cast", "warning", placed.warnings);
  const insertsMl = placed.placed.reduce((s, i) => s + i.volumeMl, 0);
  const cavityMl = layout?.kind === "block" ? layout.cavityMl : body.volumeMl;
  const hollow = hollowCast(body, job.mould, job.inside, cavityMl);
  add("cast", "warning", hollow?.warnings ?? []);
  const castMl = (hollow?.hollow ? hollow.hollow.shellMl : cavityMl) - insertsMl;
  const made = castMl > 0 ? castBatch(cast, castMl, job.cast) : null;
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
  const inside = planInside(job, catalogue, body, cast, rubber, batch, placed.placed, hollow?.hollow ?? null);
  if (inside.thin && inside.thin.margin < 2)
    add("cast", "warning", [
      {
        code: "weak-when-fresh",
        path: "inside",
        message: `Lifted level by its back, the fresh casting bends most ${quote(inside.thin.atMm, "length")} up: ${inside.thin.stressMPa.toFixed(2)} MPa, and it may bear only ${inside.thin.strengthMPa.low} MPa when just set. Lift it upright, leave it longer, or put a rod through.`,
      },
    ]);
  const cure = castCure(cast, job.shopC, body, cooling);
  if (cure.demould.never) add("cast", "fault", [{ code: "never-sets", path: "shopC", message: cure.demould.never }]);
  add("cast", "warning", frost(cast, job.shopC));
  return { batch, cure, inside, castMl };
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
