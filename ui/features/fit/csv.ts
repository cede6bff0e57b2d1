import { unparse } from "papaparse";
import { VERDICT_WORD, type MatrixCell } from "@/core/fit";
import { FORMULA } from "@/core/quantity";
import type { Cast } from "@/core/material";

/** The matrix as CSV: a line a pair, with its verdict and every reason in the reader's units. */
export const matrixCsv = (rows: readonly { cast: Cast; cells: readonly MatrixCell[] }[], say: (sentence: string) => string): string =>
  unparse(
    rows.flatMap((r) =>
      r.cells.map((c) => ({
        cast: c.cast.name,
        rubber: c.rubber.name,
        verdict: VERDICT_WORD[c.link.verdict],
        reasons: c.link.findings.map((f) => say(f.reason)).join(" "),
        instead: c.link.findings.map((f) => say(f.remedy)).join(" "),
      })),
    ),
    { newline: "\r\n", escapeFormulae: FORMULA },
  );
