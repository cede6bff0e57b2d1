import Papa from "papaparse";
import { fitMatrix } from "@/core/fit";
import { catalogueOf } from "@/core/material";
import { say } from "@/core/quantity";
import { matrixCsv } from "./csv";

describe("the matrix as CSV", () => {
  const matrix = fitMatrix(catalogueOf(), new Map());
  const text = matrixCsv(matrix, (s) => say(s, "us"));
  const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true });

  it("has a line for every pair, and reads back with its commas and quotes", () => {
    expect(errors).toEqual([]);
    expect(data).toHaveLength(matrix.flatMap((r) => r.cells).length);
    const cell = data.find((d) => d.cast === "Lead-free pewter" && d.rubber === "Platinum 25 A, 1:1, medium")!;
    expect(cell.verdict).toBe("Do not");
    expect(cell.reasons).toMatch(/554 °F/);
  });

  it("leaves no quantity unwritten, and nothing a spreadsheet would run", () => {
    expect(text).not.toMatch(/\{\{/);
    for (const d of data) for (const v of Object.values(d)) expect(v).not.toMatch(/^[=+@]/);
  });
});
