import { api } from "../contract";
import { randomUUID } from "node:crypto";
import Papa from "papaparse";
import * as z from "zod";
import {
  importedId,
  materialColumns,
  MaterialFile,
  materialRows,
  readMaterialRows,
  readMaterialsJson,
  writeMaterialsJson,
  type Material,
  type ReadMaterials,
  type RowFault,
} from "../core/material";
import { FORMULA } from "../core/quantity";
import { putMaterials } from "../db/materials";
import { allMaterials, ownMaterials } from "./materials";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

const ExportQuery = z.object({ format: z.enum(["json", "csv"]).catch("json"), scope: z.enum(["own", "all"]).catch("own") });

/** The workshop's own materials, or all that are known, as a file. */
export function exportMaterials(w: Workshop, query: Record<string, unknown>): { fileName: string; mime: string; text: string } {
  const { format, scope } = ExportQuery.parse({ format: query.format ?? "json", scope: query.scope ?? "own" });
  const materials = scope === "own" ? ownMaterials(w) : allMaterials(w);
  if (format === "json") return { fileName: "materials.json", mime: "application/json", text: writeMaterialsJson(materials) };
  return {
    fileName: "materials.csv",
    mime: "text/csv; charset=utf-8",
    text: Papa.unparse(materialRows(materials), { columns: materialColumns(materials), newline: "\r\n", escapeFormulae: FORMULA }),
  };
}

export const materialFileSchema = (): unknown => z.toJSONSchema(MaterialFile, { io: "input" });

function readCsv(text: string): ReadMaterials {
  const { data, errors, meta } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: false });
  const [head, ...body] = data;
  const broken: RowFault[] = errors
    .filter((e) => e.code !== "UndetectableDelimiter")
    .map((e) => ({ line: (e.row ?? 0) + 1, column: "", message: `${e.message}: check the quotes on this line.` }));
  if (!head?.includes("kind"))
    return {
      good: [],
      faults: [
        ...broken,
        {
          line: 1,
          column: "kind",
          message: `The first line has to name the columns, "kind" among them, with "${meta.delimiter || ","}" between them: export a table from here to see the shape.`,
        },
      ],
    };
  // Line numbers count the file's own lines, also across line breaks inside quotes.
  let line = 1 + (head.join("").match(/\n/g)?.length ?? 0);
  const rows = body.flatMap((cells) => {
    line += 1;
    const at = line;
    line += cells.join("").match(/\n/g)?.length ?? 0;
    return cells.every((c) => c.trim() === "") ? [] : [{ line: at, cells: Object.fromEntries(head.map((c, i) => [c.trim(), cells[i] ?? ""])) }];
  });
  const read = readMaterialRows(rows);
  return { good: read.good, faults: [...broken, ...read.faults] };
}

/** Takes materials in. Bad rows are listed by line and column and nothing is kept, unless the person agrees to keep the rest. */
export function importMaterials(w: Workshop, body: unknown): { kept: number; faults: RowFault[]; doubts: { line: number; name: string; message: string }[] } {
  const ask = parseOrRefuse(api.materials.import.in, body);
  const { good, faults } = ask.format === "json" ? readMaterialsJson(ask.text) : readCsv(ask.text);
  if (faults.length > 0 && !ask.keepGood)
    throw new Refusal(422, "bad-rows", `${new Set(faults.map((f) => f.line)).size} of the rows are not usable; nothing was imported.`, {
      faults: faults.slice(0, 200),
      good: good.length,
    });
  const kept: Material[] = good.map(({ material }) => ({ ...material, id: importedId(material, randomUUID) }));
  putMaterials(w.db, kept, w.now());
  return { kept: kept.length, faults, doubts: good.flatMap((g) => g.doubts.map((d) => ({ line: g.line, name: g.material.name, message: d.message }))) };
}
