import * as z from "zod";
import { BUILT_IN, isBuiltIn } from "./library";
import { doubtsAbout, type Doubt } from "./plausible";
import { Material, type MaterialKind } from "./schema";
import { isTrait } from "./traits";

/** The open form in which materials travel. Its JSON Schema is published at /api/materials/schema. */
export const MaterialFile = z.strictObject({ format: z.literal("zesty-materials"), version: z.literal(1), materials: z.array(Material).max(5000) });

/** Why a row of a file is no material: its line (1 is the first of the file), its column where one is to blame, and what to do. */
export const RowFault = z.object({ line: z.number(), column: z.string(), message: z.string() });
export type RowFault = z.infer<typeof RowFault>;

export interface ReadMaterials {
  good: { line: number; material: Material; doubts: Doubt[] }[];
  faults: RowFault[];
}

/** Writes materials as JSON that {@link readMaterialsJson} reads back. */
export const writeMaterialsJson = (materials: readonly Material[]): string =>
  `${JSON.stringify({ format: "zesty-materials", version: 1, materials }, null, 2)}\n`;

/** Columns that hold words with a bar between them. */
const WORD_LISTS = new Set(["traits", "cautions"]);

type Cell = string | number | boolean;
/** A table row: `kind`, then one cell a leaf of the material, its dotted path as the column. */
export type Row = Record<string, Cell>;

function flatten(value: unknown, path: string, into: Row): void {
  if (value === null) into[path] = "null";
  else if (Array.isArray(value) && value.every((v) => typeof v === "string"))
    into[path] = value.length === 0 && !WORD_LISTS.has(path) ? "[]" : value.join(" | ");
  else if (typeof value === "object") for (const [k, v] of Object.entries(value)) flatten(v, path ? `${path}.${k}` : k, into);
  else if (typeof value === "string" || typeof value === "number" || typeof value === "boolean") into[path] = value;
}

/** One flat row a material; lists of words are joined by bars; nothing is written null, and an empty list []. */
export const materialRows = (materials: readonly Material[]): Row[] =>
  materials.map((m) => {
    const row: Row = {};
    flatten(m, "", row);
    return row;
  });

/** Columns of a table of these materials, in the order a data sheet gives them. */
export const materialColumns = (materials: readonly Material[]): string[] => [...new Set(materialRows(materials).flatMap((r) => Object.keys(r)))];

const KINDS: readonly MaterialKind[] = ["rubber", "cast", "surface", "release", "box", "sundry"];

/** Reads a cell as the kind of value the same place holds in a built-in entry, else as a number or flag where it looks like one. */
function readCell(path: string, text: string, sample: unknown): unknown {
  // A stroke before what a spreadsheet would take for a formula was put there when the table was written.
  const t = text.trim().replace(/^'(?=[=+\-@])/, "");
  if (WORD_LISTS.has(path))
    return t === ""
      ? []
      : t
          .split("|")
          .map((w) => w.trim())
          .filter(Boolean);
  if (t === "null") return null;
  if (t === "[]") return [];
  if (typeof sample === "string") return t;
  if (/^(true|yes)$/i.test(t)) return true;
  if (/^(false|no)$/i.test(t)) return false;
  // A decimal comma is read as one only where it cannot be a thousands mark.
  const plain = /^-?\d+,\d{1,2}$/.test(t) ? t.replace(",", ".") : t;
  return typeof sample === "number" || /^-?\d*\.?\d+(e-?\d+)?$/i.test(plain) ? (Number.isFinite(Number(plain)) && plain !== "" ? Number(plain) : t) : t;
}

function sampleAt(kind: string, path: string): unknown {
  for (const m of BUILT_IN) {
    if (m.kind !== kind) continue;
    const v = path.split(".").reduce(ownAt, m);
    if (v !== undefined && v !== null) return v;
  }
  return undefined;
}

/** What lies at a key of outside data itself, never at one it inherits. */
const ownAt = (node: unknown, key: PropertyKey): unknown =>
  typeof node === "object" && node !== null && Object.hasOwn(node, key) ? (node as Record<PropertyKey, unknown>)[key] : undefined;

/** Names no property of a material has, and that mean something to the language itself. */
const RESERVED = new Set(["__proto__", "prototype", "constructor"]);
/** The deepest property of a material has four names; more is no material. */
const DEEPEST = 8;

/** Why a column cannot be one of a table of materials; null where it can. */
function columnFault(path: string): string | null {
  const keys = path.split(".");
  if (keys.length > DEEPEST) return `"${path.slice(0, 60)}" has ${keys.length} names in a row: no property of a material lies so deep. Take the column out.`;
  const reserved = keys.find((k) => RESERVED.has(k));
  return reserved === undefined ? null : `"${path.slice(0, 60)}" is no property of a material: take the column out.`;
}

/** A tree without a prototype: no name written into it reaches anything else. */
type Node = Record<string, unknown>;
const bare = (): Node => Object.create(null) as Node;

function unflatten(row: Record<string, string>): unknown {
  const root = bare();
  const kind = (row.kind ?? "").trim();
  for (const [path, text] of Object.entries(row)) {
    if (text.trim() === "" && !WORD_LISTS.has(path) && path !== "note") continue;
    const keys = path.split(".");
    let node = root;
    for (const key of keys.slice(0, -1)) {
      const next = node[key];
      node = typeof next === "object" && next !== null && !Array.isArray(next) ? (next as Node) : ((node[key] = bare()) as Node);
    }
    node[keys.at(-1) ?? path] = readCell(path, text, sampleAt(kind, path));
  }
  return listed(root);
}

/** Objects whose keys are 0, 1, 2 … are lists. */
function listed(node: unknown): unknown {
  if (typeof node !== "object" || node === null || Array.isArray(node)) return node;
  const entries = Object.entries(node).map(([k, v]) => [k, listed(v)] as const);
  return entries.length > 0 && entries.every(([k], i) => k === String(i)) ? entries.map(([, v]) => v) : Object.fromEntries(entries);
}

function judge(raw: unknown, line: number, into: ReadMaterials): void {
  const kind = ownAt(raw, "kind");
  if (!KINDS.some((k) => k === kind)) {
    into.faults.push({ line, column: "kind", message: `"${String(kind ?? "")}" is not a kind of material: write ${KINDS.join(", ")}.` });
    return;
  }
  const parsed = Material.safeParse(fillGaps(raw));
  if (parsed.success) into.good.push({ line, material: parsed.data, doubts: [...doubtsAbout(parsed.data), ...strangeTraits(raw)] });
  else for (const i of parsed.error.issues) into.faults.push({ line, column: i.path.join("."), message: faultWords(raw, i.path, i.message) });
}

/** Words among the traits that no rule knows: left out, and said so. */
function strangeTraits(raw: unknown): Doubt[] {
  const words = ownAt(raw, "traits");
  if (!Array.isArray(words)) return [];
  return words
    .filter((w) => !isTrait(w))
    .map((w) => ({ path: "traits", message: `"${String(w).slice(0, 40)}" is no trait that any rule knows, and was left out: write it into the note.` }));
}

/** What a table may leave out because it follows or hardly matters. */
const fillGaps = (raw: unknown): unknown => (typeof raw === "object" && raw !== null ? { id: "imported", copiedFrom: null, ...raw } : raw);

function faultWords(raw: unknown, path: readonly PropertyKey[], message: string): string {
  const value = path.reduce(ownAt, raw);
  if (value === undefined || value === null) return "is missing: fill it in from the data sheet.";
  const shown = typeof value === "object" ? JSON.stringify(value) : `"${String(value)}"`;
  return `${shown.slice(0, 80)}: ${message}`;
}

/** Reads materials from JSON text: a file of ours, or a bare list. Never throws; `line` counts materials from 1. */
export function readMaterialsJson(text: string): ReadMaterials {
  const out: ReadMaterials = { good: [], faults: [] };
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (e) {
    out.faults.push({
      line: 1,
      column: "",
      message: `This is not JSON (${e instanceof Error ? e.message : String(e)}): export a file from here to see the shape.`,
    });
    return out;
  }
  const list = Array.isArray(raw) ? raw : ownAt(raw, "materials");
  if (!Array.isArray(list)) {
    out.faults.push({ line: 1, column: "materials", message: "There is no list of materials in this file: export one from here to see the shape." });
    return out;
  }
  list.forEach((m, i) => judge(m, i + 1, out));
  return out;
}

/** Reads materials from table rows, each a column-to-text map with its line in the file. Never throws. */
export function readMaterialRows(rows: readonly { line: number; cells: Record<string, string> }[]): ReadMaterials {
  const out: ReadMaterials = { good: [], faults: [] };
  for (const { line, cells } of rows) {
    const faults = Object.keys(cells).flatMap((column) => {
      const message = columnFault(column);
      return message === null ? [] : [{ line: 1, column: column.slice(0, 60), message }];
    });
    if (faults.length > 0) return { good: [], faults };
    judge(unflatten(cells), line, out);
  }
  return out;
}

/** What an imported material is kept as: its own id where it is the workshop's, else a copy. */
export const importedId = (m: Material, fresh: () => string): string => (m.id.startsWith("own-") && !isBuiltIn(m.id) ? m.id : `own-${fresh()}`);
