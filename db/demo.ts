import { dossierOf,newJob,trimmed,type Job } from "../core/record";
import { catalogueOf,type Material } from "../core/material";
import { OPENING } from "../core/mould";
import { clockFrom } from "../core/clock";
import { clocksOf,freeze,type Changed,type FaultKey,type FaultMark,type Outcome,type PourKind,type Snapshot } from "../core/plan";
import { plan } from "../core/plan/plan";
import { insertClocks } from "./clocks";
import { demoPieces } from "./demoPieces";
import { fillStock } from "./demoStock";
import { insertJob,saveJob } from "./jobs";
import { changeMould } from "./moulds";
import { putMaterial } from "./materials";
import type { Db } from "./open";
import { changePour,insertPour } from "./pours";
import { jobs,materials,settings } from "./schema";
import { Settings } from "../core/workshop";
import { writeSettings } from "./settings";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

type Sizes = Job["master"]["sizes"];
const master = (shape: Job["master"]["shape"], sizes: Sizes, surfaceId: string, more: Partial<Job["master"]> = {}): Job["master"] => ({ shape, sizes, profile: [], model: null, photographs: null, girths: [], parts: [], copies: { along: 1, across: 1, gapMm: 20 }, readingMm: 0.5, surfaceId, massG: null, ...more });

/** The made-up workshop's own rubber: a copy of a built-in entry with figures from its own test block. */
function ownRubber(): Material {
  const base = catalogueOf().rubbers.find((r) => r.id === "rubber-platinum-medium-25");
  if (!base) throw new Error("The built-in medium platinum rubber is missing.");
  return { ...base, id: "own-dome-25", name: "Dome-room 25 A, 1:1", note: "The pail by the door. Weighed and timed on our own test block.", provenance: "Our test block, 2026-09", pricePerKg: 26, densityGMl: { low: 1.08, typical: 1.09, high: 1.1 }, copiedFrom: base.id };
}

/** Heat rubber and pewter of the workshop's own, with the narrower figures of its data sheets. */
function ownFoundry(): Material[] {
  const { rubbers, casts } = catalogueOf();
  const heat = rubbers.find((r) => r.id === "rubber-tin-heat-30");
  const pewter = casts.find((c) => c.id === "cast-pewter");
  if (!heat || !pewter) throw new Error("The built-in heat rubber or pewter is missing.");
  const provenance = "Our data sheet, 2026-08";
  return [
    { ...heat, pricePerKg: 41, id: "own-ember-30", name: "Ember 30 A, 10:1, heat-resistant", note: "For the comet pulls. Baked out before its first metal.", provenance, heatContinuousC: { low: 245, typical: 250, high: 255 }, heatShortC: { low: 295, typical: 300, high: 305 }, copiedFrom: heat.id },
    { ...pewter, id: "own-comet-pewter", name: "Comet pewter", note: "Lead-free; we pour it by thermometer.", provenance, peakC: { low: 270, typical: 275, high: 280 }, copiedFrom: pewter.id },
  ];
}

/** Everything the made-up workshop has entered itself. */
export const demoMaterials = (): Material[] => [ownRubber(), ...ownFoundry()];

/** Jobs of Perigee Yard, who make things for a small-town observatory's shop. */
export function demoJobs(): { id: string; job: Job }[] {
  const job = (name: string, patch: Partial<Job>): Job => ({ ...newJob(name, 20), ...patch });
  const mould = (patch: Partial<Job["mould"]>): Job["mould"] => ({ ...newJob("x").mould, ...patch });
  const pieces = demoPieces();
  return [
    {
      id: "demo-crater-lamp-base",
      job: job("Crater lamp base", {
        note: "Heavy foot for the reading lamp. The crater rim faces up; the flat back takes the felt.",
        master: master("turned", {}, "surface-wood-sealed", { profile: [{ zMm: 0, radiusMm: 95 }, { zMm: 14, radiusMm: 95 }, { zMm: 40, radiusMm: 82 }, { zMm: 58, radiusMm: 64 }, { zMm: 74, radiusMm: 48 }, { zMm: 92, radiusMm: 40 }, { zMm: 100, radiusMm: 33 }] }),
        castId: "cast-concrete", rubberId: "rubber-platinum-firm-40", sealerId: "release-acrylic", releaseId: "release-wax", boxId: "box-plastic-sheet-1",
        mould: mould({ box: "cylindrical", wallMm: 18, coverMm: 15 }), held: "non-food",
      }),
    },
    {
      id: "demo-moon-phase-tile",
      job: job("Moon-phase tile", {
        note: "Eight phases, one mould each. This is the waxing gibbous.",
        master: master("plaque", { lengthMm: 120, widthMm: 120, heightMm: 12, reliefMm: 6, coveragePct: 45 }, "surface-oil-clay-free"),
        castId: "cast-plaster", rubberId: "own-dome-25", boxId: "box-acrylic-4", mould: mould({ wallMm: 12, coverMm: 10 }), held: "non-food",
        cast: { ...newJob("x").cast, waterPer100: 70, count: 4 }, use: "hung",
      }),
    },
    {
      id: "demo-comet-drawer-pull",
      job: job("Comet drawer pull", {
        note: "Pewter. The tail is thin: first pour of the day usually stops short.",
        master: master("displaced", { volumeMl: 14, readingMl: 0.5, lengthMm: 64, widthMm: 22, heightMm: 20 }, "surface-print-filament"),
        castId: "own-comet-pewter", rubberId: "own-ember-30", sealerId: "release-acrylic", releaseId: "release-petroleum",
        mould: mould({ opening: "twoPart", wallMm: 14, baseMm: 14, coverMm: 14, partingMm: 10 }), held: "non-food", rubber: { ...newJob("x").rubber, marginPct: 8 },
      }),
    },
    {
      id: "demo-eclipse-pillar",
      job: job("Eclipse pillar candle", {
        master: master("cylinder", { diameterMm: 75, heightMm: 130 }, "surface-wood-sealed"),
        castId: "cast-beeswax", rubberId: "rubber-platinum-medium-25", releaseId: "release-wax", boxId: "box-plastic-sheet-1", mould: mould({ box: "cylindrical", wallMm: 12, coverMm: 12 }), held: "non-food",
      }),
    },
    {
      id: "demo-constellation-bar",
      job: job("Chocolate constellation bar", {
        note: "Food only, for ever. Lives on the top shelf with the green tag.",
        master: master("plaque", { lengthMm: 150, widthMm: 70, heightMm: 7, reliefMm: 3, coveragePct: 30 }, "surface-metal"),
        castId: "cast-dark-chocolate", rubberId: "rubber-platinum-food-22", use: "food", held: "food", boxId: "box-acrylic-4", mould: mould({ wallMm: 10, coverMm: 8 }), cast: { ...newJob("x").cast, count: 6 }, rubber: { ...newJob("x").rubber, marginPct: 10 },
      }),
    },
    {
      id: "demo-dome-finial",
      job: job("Dome finial", {
        note: "For the reading-room stair. Too tall and too slim in the waist for a block.",
        master: master("turned", {}, "surface-wood-sealed", { profile: [{ zMm: 0, radiusMm: 60 }, { zMm: 40, radiusMm: 62 }, { zMm: 80, radiusMm: 35 }, { zMm: 120, radiusMm: 50 }, { zMm: 160, radiusMm: 40 }, { zMm: 180, radiusMm: 15 }] }),
        castId: "cast-plaster", rubberId: "rubber-platinum-brush-30", sealerId: "release-acrylic", releaseId: "release-wax", jacket: "plaster", mould: mould({ opening: "skin" }), held: "new",
      }),
    },
    {
      id: "demo-nebula-knob",
      job: job("Nebula knob", {
        note: "Drawn as an egg on a foot. Trying the general platinum first.",
        master: master("dome", { lengthMm: 42, widthMm: 42, heightMm: 30 }, "surface-print-uv-resin"),
        castId: "cast-fast-urethane", rubberId: "rubber-platinum-medium-25", mould: mould({ wallMm: 10, coverMm: 10 }),
      }),
    },
    {
      id: "demo-owl-bookend",
      job: job("Owl bookend", {
        note: "Modelled in oil clay; measured from two photographs with the bench ruler beside it.",
        master: master("photographs", {}, "surface-oil-clay-free", { photographs: pieces.owl }),
        castId: "cast-plaster", rubberId: "own-dome-25", releaseId: "release-petroleum",
        mould: mould({ opening: "twoPart", wallMm: 16, baseMm: 16, coverMm: 16 }), held: "new",
      }),
    },
    {
      id: "demo-comet-modelled",
      job: job("Comet pull, as modelled", {
        note: "The ridged comet from its own file, to see how it leaves a mould before one is built.",
        master: master("model", {}, "surface-print-filament", { model: pieces.comet }),
        castId: "own-comet-pewter", rubberId: "own-ember-30", sealerId: "release-acrylic", releaseId: "release-petroleum",
        mould: mould({ opening: "twoPart", wallMm: 14, baseMm: 14, coverMm: 14 }), held: "new",
      }),
    },
  ];
}

interface DemoPour {
  jobId: string;
  kind: PourKind;
  index: number;
  hoursAgo: number;
  outcome?: Outcome;
  faults?: FaultKey[];
  notes?: string;
  sprueMm?: number;
  changed?: Changed;
  /** Where a fault sits, from the cavity's floor to its top. */
  markAt?: number;
}

const POURS: DemoPour[] = [
  { jobId: "demo-crater-lamp-base", kind: "rubber", index: 0, hoursAgo: 22 * 24, outcome: "good" },
  { jobId: "demo-crater-lamp-base", kind: "cast", index: 0, hoursAgo: 20 * 24, outcome: "flawed", faults: ["bubbles"], notes: "Pinholes round the rim. Vibrate from below next time." },
  { jobId: "demo-crater-lamp-base", kind: "cast", index: 0, hoursAgo: 17 * 24, outcome: "good", notes: "Two minutes on the vibrating board." },
  { jobId: "demo-crater-lamp-base", kind: "cast", index: 0, hoursAgo: 18 },
  { jobId: "demo-moon-phase-tile", kind: "rubber", index: 0, hoursAgo: 12 * 24, outcome: "good" },
  { jobId: "demo-moon-phase-tile", kind: "cast", index: 0, hoursAgo: 9 * 24 + 5, outcome: "good" },
  { jobId: "demo-moon-phase-tile", kind: "cast", index: 0, hoursAgo: 9 * 24 + 3, outcome: "good" },
  { jobId: "demo-moon-phase-tile", kind: "cast", index: 0, hoursAgo: 8 * 24, outcome: "failed", faults: ["crack"], notes: "Opened after 20 minutes: too early." },
  { jobId: "demo-moon-phase-tile", kind: "cast", index: 0, hoursAgo: 0.4 },
  { jobId: "demo-comet-drawer-pull", kind: "rubber", index: 0, hoursAgo: 15 * 24, outcome: "good" },
  { jobId: "demo-comet-drawer-pull", kind: "rubber", index: 1, hoursAgo: 14 * 24, outcome: "good" },
  { jobId: "demo-comet-drawer-pull", kind: "cast", index: 0, hoursAgo: 11 * 24 + 4, outcome: "failed", faults: ["short-fill"], notes: "Tail froze half way. Mould was cold.", sprueMm: 4, markAt: 0.9 },
  { jobId: "demo-comet-drawer-pull", kind: "cast", index: 0, hoursAgo: 11 * 24 + 3, outcome: "failed", faults: ["short-fill"], sprueMm: 4, markAt: 0.85 },
  { jobId: "demo-comet-drawer-pull", kind: "cast", index: 0, hoursAgo: 11 * 24 + 2, outcome: "good", notes: "Warmed the mould, opened the vent at the tail.", sprueMm: 6, changed: { key: "short-fill/choke", text: "Opened the sprue from 4 mm to 6 mm." } },
  { jobId: "demo-eclipse-pillar", kind: "rubber", index: 0, hoursAgo: 3 },
  { jobId: "demo-constellation-bar", kind: "rubber", index: 0, hoursAgo: 30 * 24, outcome: "good", notes: "Post-cured as its maker says." },
  { jobId: "demo-constellation-bar", kind: "cast", index: 0, hoursAgo: 6 * 24, outcome: "good" },
  { jobId: "demo-constellation-bar", kind: "cast", index: 0, hoursAgo: 2 * 24, outcome: "flawed", faults: ["detail"], notes: "Temper lost: dull on one side." },
];

/** What was weighed, where a demo pour says how its sprue was cut. */
const weighed = (s: Snapshot, p: DemoPour): Snapshot =>
  p.sprueMm === undefined
    ? s
    : { ...s, actual: { parts: s.parts.map((c) => ({ name: c.name, gotG: Math.round(c.massG * 10) / 10, lateG: 0 })), totalG: s.mixG, cups: 1, witnessG: 0, stirredAt: null, shopC: 18, sprueMm: p.sprueMm, ventMm: 1, vents: 1, meltC: null, tookS: null } };

const markOf = (job: Job, p: DemoPour): FaultMark[] => {
  const [fault] = p.faults ?? [];
  const height = job.master.sizes.heightMm ?? 20;
  return fault && p.markAt !== undefined ? [{ fault, xMm: 22, zMm: job.mould.baseMm + p.markAt * height }] : [];
};

/** True while nobody has used this workshop: no settings, jobs or materials of its own. */
export function isNewWorkshop(db: Db): boolean {
  return [settings, jobs, materials].every((table) => db.select().from(table).limit(1).all().length === 0);
}

/** Fills an empty workshop with the demo, whole or not at all. `now` in ms dates its history. */
export const loadDemo = (db: Db, now: number): void => db.transaction(() => fill(db, now));

const MOULD_PLACES: Record<string, string> = {
  "demo-crater-lamp-base": "Under the bench, on its board",
  "demo-comet-drawer-pull": "Metal cupboard, dry",
  "demo-constellation-bar": "Top shelf, green tag",
};

function fill(db: Db, now: number): void {
  writeSettings(db, Settings.parse({ workshopName: "Perigee Yard", pricing: { perHour: 18, overheadPct: 20, marginPct: 40 }, units: "metric", shopC: 20, forecast: { dayC: 20, nightC: 15, dayFromMin: 480, dayToMin: 1200 }, cups: [{ id: "demo-litre", name: "White litre tub", profile: { kind: "tapered", bottomMm: 98, topMm: 116, heightMm: 118 } }] }));
  const own = demoMaterials();
  for (const m of own) putMaterial(db, m, now - 40 * DAY);
  const catalogue = catalogueOf(own);
  const made = new Map<string, Job>();
  demoJobs().forEach(({ id, job }, i) => {
    insertJob(db, id, { ...job, note: "" }, now - 30 * DAY + i * HOUR);
    saveJob(db, id, job, 1, now - (i > 6 ? 50 + i : (6 - i) * 7) * HOUR);
    made.set(id, job);
  });
  const mouldOf = new Map<string, string>();
  POURS.forEach((p, i) => {
    const job = made.get(p.jobId);
    if (!job) throw new Error(`No demo job ${p.jobId}.`);
    const planned = plan(dossierOf(job, catalogue));
    const frozen = freeze(planned, 2, p.kind, p.index);
    if (!frozen.ok) throw new Error(`${job.name}: ${frozen.message}`);
    const { demouldH } = frozen.snapshot;
    const pouredAt = now - p.hoursAgo * HOUR;
    const last = !OPENING[job.mould.opening].halves || p.index === 1;
    const mould = p.kind === "rubber" && last ? { id: `demo-mould-${i}`, name: `${job.name}, mould 1` } : null;
    if (mould) mouldOf.set(p.jobId, mould.id);
    const id = `demo-pour-${String(i).padStart(2, "0")}`;
    insertPour(db, {
      id, jobId: p.jobId, mouldId: mouldOf.get(p.jobId) ?? null, kind: p.kind, pourIndex: p.index, pouredAt,
      readyLowAt: pouredAt + demouldH.low * HOUR, readyAt: pouredAt + demouldH.typical * HOUR, readyHighAt: pouredAt + demouldH.high * HOUR, snapshot: weighed(frozen.snapshot, p), dossier: trimmed(planned.dossier), changed: p.changed ?? null, mould,
    });
    const clocks = clocksOf(planned, p.kind, p.index).filter((c) => c.when === "pour");
    insertClocks(db, clocks.map((c) => ({ ...clockFrom(`${id}-${c.kind}`, c, { jobId: p.jobId, pourId: id, weighId: null, at: pouredAt, plannedC: 20 }), endedAt: p.outcome ? pouredAt + demouldH.typical * HOUR * 1.1 : null })));
    if (p.outcome) changePour(db, id, { openedAt: pouredAt + demouldH.typical * HOUR * 1.1, outcome: p.outcome, faults: p.faults ?? [], notes: p.notes ?? "", marks: markOf(job, p) });
  });
  for (const [jobId, place] of Object.entries(MOULD_PLACES)) {
    const id = mouldOf.get(jobId);
    if (id) changeMould(db, id, { place });
  }
  const good = POURS.flatMap((p, i) => (p.jobId === "demo-crater-lamp-base" && p.kind === "cast" && p.outcome === "good" ? [`demo-pour-${String(i).padStart(2, "0")}`] : []));
  fillStock(db, now, good.slice(0, 1));
}
