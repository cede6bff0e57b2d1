import Papa from "papaparse";
import { FORMULA } from "../core/quantity";
import { FAULTS, OUTCOME_WORD } from "../core/plan";
import { type Pour } from "../core/log";
import { listLog } from "../db/pours";
import { logFilter } from "./pours";
import type { Workshop } from "./workshop";

/** Most pours in one table: past it a spreadsheet is the wrong tool. */
const MOST_ROWS = 100_000;

const time = (at: number | null): string => (at === null ? "" : new Date(at).toISOString());
const figure = (v: number | null): number | "" => (v === null ? "" : Number(v.toPrecision(9)));

/** One row a pour: when, what, into which mould, the frozen figures of that day, and how it came out. */
const pourRow = (p: Pour) => ({
  pour: p.id,
  poured_at: time(p.pouredAt),
  job: p.snapshot.jobName,
  kind: p.kind,
  what: p.snapshot.what,
  material: p.snapshot.material,
  rubber: p.snapshot.rubber,
  mould: p.mouldName ?? "",
  mixed_g: figure(p.snapshot.mixG),
  volume_ml: figure(p.snapshot.volumeMl),
  ratio: p.snapshot.ratioLabel,
  castings: p.snapshot.count,
  filled_g: figure(p.snapshot.filledG),
  shop_c: figure(p.snapshot.actual?.shopC ?? p.snapshot.shopC),
  sprue_mm: figure(p.snapshot.actual?.sprueMm ?? null),
  vents: p.snapshot.actual?.vents ?? "",
  vent_mm: figure(p.snapshot.actual?.ventMm ?? null),
  melt_c: figure(p.snapshot.actual?.meltC ?? null),
  took_s: figure(p.snapshot.actual?.tookS ?? null),
  changed: p.changed?.text ?? "",
  verdict: p.snapshot.verdict,
  ready_at: time(p.readyAt),
  opened_at: time(p.openedAt),
  outcome: p.outcome ? OUTCOME_WORD[p.outcome] : "",
  faults: p.faults.map((f) => FAULTS[f]).join(" | "),
  notes: p.notes,
});

/** One row a part weighed, so that a table can add up what was used. */
const batchRows = (p: Pour) =>
  p.snapshot.parts.map((c) => ({
    pour: p.id,
    poured_at: time(p.pouredAt),
    job: p.snapshot.jobName,
    material: p.snapshot.material,
    part: c.name,
    planned_g: figure(c.massG),
    planned_ml: figure(c.volumeMl),
    weighed_g: figure(p.snapshot.actual?.parts.find((a) => a.name === c.name)?.gotG ?? null),
  }));

/**
 * The log, or its batches part by part, as CSV with the log's own filters. Cells that a spreadsheet would run as a formula
 * are written as text.
 */
export function exportLog(w: Workshop, query: Record<string, unknown>): { fileName: string; text: string } {
  const batches = query.table === "batches";
  const { pours } = listLog(w.db, { ...logFilter(query), page: 0, pageSize: MOST_ROWS });
  const rows: object[] = batches ? pours.flatMap(batchRows) : pours.map(pourRow);
  const columns = batches
    ? ["pour", "poured_at", "job", "material", "part", "planned_g", "planned_ml", "weighed_g"]
    : [
        "pour",
        "poured_at",
        "job",
        "kind",
        "what",
        "material",
        "rubber",
        "mould",
        "mixed_g",
        "volume_ml",
        "ratio",
        "castings",
        "filled_g",
        "shop_c",
        "sprue_mm",
        "vents",
        "vent_mm",
        "melt_c",
        "took_s",
        "changed",
        "verdict",
        "ready_at",
        "opened_at",
        "outcome",
        "faults",
        "notes",
      ];
  return { fileName: batches ? "batches.csv" : "log.csv", text: Papa.unparse(rows, { columns, newline: "\r\n", escapeFormulae: FORMULA }) };
}
