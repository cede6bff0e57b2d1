import type { MakeSummary } from "../contract/jobs";
import { type Plan } from "../core/plan";
import type { Job } from "../core/record";
import { formersOf } from "../core/gating";
import { cutListPlot, dxfOf, nestedPlot, svgOf } from "../make/plot";
import { nest } from "../make/nest";
import { overlapNote, piecesOf } from "../make/pieces";
import { stlOf, threeMfOf } from "../make/meshfiles";
import { printedBox, printedJacket, printedFormers, printedKeys, type Print } from "../make/solids";
import { sheetOf } from "../make/document";
import { jobSheetPdf } from "../make/sheet";
import type { Sheet } from "../core/draw";
import { readSettings } from "../db/settings";
import { OPENING } from "../core/mould";
import { getJob } from "./jobs";
import { mouldsOfJob } from "./pours";
import { lessonFor } from "./rack";
import { Refusal } from "./refusal";
import { catalogue, planJob } from "./plans";
import type { Workshop } from "./workshop";

/** Files a job can be made from, with their media types. */
export const MAKE_FILES = {
  "cut-list.svg": "image/svg+xml",
  "cut-list.dxf": "image/vnd.dxf",
  "sheets.svg": "image/svg+xml",
  "sheets.dxf": "image/vnd.dxf",
  "box.stl": "model/stl",
  "box.3mf": "model/3mf",
  "jacket.stl": "model/stl",
  "jacket.3mf": "model/3mf",
  "keys.stl": "model/stl",
  "sprue.stl": "model/stl",
  "job-sheet.pdf": "application/pdf",
} as const;
export type MakeFile = keyof typeof MAKE_FILES;
const isMakeFile = (name: string): name is MakeFile => Object.hasOwn(MAKE_FILES, name);

export interface Made {
  name: string;
  type: string;
  body: Uint8Array | string;
}

const notReady = (what: string): never => {
  throw new Refusal(422, "not-ready", what);
};

/** What a job sheet says, for paper and for the screen alike: the plan as it stands, with the lesson of its newest mould. */
export function jobSheet(w: Workshop, jobId: string): Sheet {
  const stored = getJob(w, jobId);
  const lesson = lessonFor(w, mouldsOfJob(w, jobId)[0]?.id ?? null);
  const taught = lesson && [lesson.line, lesson.change ? `Change: ${lesson.change.change}` : lesson.sure].filter(Boolean).join(" ");
  return sheetOf(stored.job, stored.revision, planJob(w, stored), catalogue(w), taught || null);
}

/** One file of a job, worked out from its plan as it stands. Refuses with what is missing. */
export async function makeFile(w: Workshop, jobId: string, name: string): Promise<Made> {
  const stored = getJob(w, jobId);
  if (!isMakeFile(name)) throw new Refusal(404, "no-file", `There is no file "${name.slice(0, 40)}". There are: ${Object.keys(MAKE_FILES).join(", ")}.`);
  const p = planJob(w, stored);
  const type = MAKE_FILES[name];
  const stem =
    stored.job.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 40) || "job";
  const made = (body: Uint8Array | string): Made => ({ name: `${stem}-${name}`, type, body });
  switch (name) {
    case "job-sheet.pdf":
      return made(await jobSheetPdf(jobSheet(w, jobId), readSettings(w.db).units));
    case "cut-list.svg":
    case "cut-list.dxf": {
      const plot = cutListPlot(
        pieces(stored.job, p, w),
        `${stored.job.name}: cut list, finished sizes. ${overlapNote(stored.job)} The saw takes ${stored.job.mould.kerfMm} mm: cut outside the lines.`,
        p.gates ? formersOf(p.gates.question, p.gates.sizes) : [],
      );
      return made(name.endsWith(".svg") ? svgOf(plot) : dxfOf(plot));
    }
    case "sheets.svg":
    case "sheets.dxf": {
      const plot = nestedPlot(nested(stored.job, p, w), `${stored.job.name}: pieces on stock sheets, ${stored.job.mould.kerfMm} mm for the saw between them`);
      return made(name.endsWith(".svg") ? svgOf(plot) : dxfOf(plot));
    }
    default: {
      const print = await printOf(name, stored.job, p);
      return made(name.endsWith(".3mf") ? threeMfOf(print) : stlOf(print));
    }
  }
}

function pieces(job: Job, p: Plan, w: Workshop) {
  const all = piecesOf(job, p, catalogue(w));
  return all.length > 0 ? all : notReady(p.layout ? "A skin has no box to cut." : "Measure the master first: the cut list follows from it.");
}

const nested = (job: Job, p: Plan, w: Workshop) =>
  nest(pieces(job, p, w), { lengthMm: job.make.sheetLengthMm, widthMm: job.make.sheetWidthMm }, job.mould.kerfMm);

async function printOf(name: string, job: Job, p: Plan): Promise<Print> {
  const { layout, body } = p;
  if (!layout || !body) return notReady("Measure the master first: what is printed follows from it.");
  if (name.startsWith("box."))
    return layout.kind === "block" ? printedBox(layout, body, job.mould, job.make) : notReady("A skin has no box: print its jacket.");
  if (name.startsWith("jacket."))
    return layout.kind === "skin" ? printedJacket(layout, body, job.mould, job.make) : notReady("A block has its box: print that, or choose a skin.");
  const wall = layout.kind === "block" ? layout.box.leastWallMm : job.mould.skin.flangeMm;
  if (name === "keys.stl")
    return printedKeys(
      layout.kind === "skin" && layout.flange ? layout.flange.keysAtMm.length * job.mould.skin.sections : 4,
      Math.max(3, Math.min(10, wall / 3)),
    );
  if (!OPENING[job.mould.opening].base) return notReady("An open mould is poured through its back: it needs no sprue former.");
  if (!p.gates) return notReady("Choose what is cast, and its rubber: how wide its sprue and vents are follows from them.");
  return printedFormers(formersOf(p.gates.question, p.gates.sizes));
}

export async function makeSummary(w: Workshop, jobId: string): Promise<MakeSummary> {
  const stored = getJob(w, jobId);
  const { job } = stored;
  const p = planJob(w, stored);
  const { make } = job;
  const summed = (print: Print): NonNullable<MakeSummary["box"]> => ({
    parts: print.parts.map(({ name, sizeMm, volumeMl }) => ({
      name,
      sizeMm,
      volumeMl,
      fits: sizeMm[0] <= make.bedXMm && sizeMm[1] <= make.bedYMm && sizeMm[2] <= make.bedZMm,
    })),
    volumeMl: print.volumeMl,
    holes: print.holes,
  });
  const block = p.layout?.kind === "block";
  return {
    box: block ? summed(await printOf("box.stl", job, p)) : null,
    jacket: p.layout?.kind === "skin" ? summed(await printOf("jacket.stl", job, p)) : null,
    sheets: block
      ? nested(job, p, w).map((n) => ({ sheets: n.sheets, thicknessMm: n.thicknessMm, used: n.used, tooLarge: n.tooLarge.map((t) => t.name) }))
      : [],
  };
}
