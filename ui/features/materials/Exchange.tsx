"use client";

import { FileDown, Upload } from "lucide-react";
import { FilePick } from "../../kit/FilePick";
import { Download } from "../../kit/Download";
import { useState } from "react";
import { Dialog } from "../../kit/Dialog";
import { notice } from "../../kit/notice";
import { call } from "../../data/call";
import { DataTable } from "../../kit/DataTable";

interface Refused {
  fileName: string;
  text: string;
  format: "json" | "csv";
  message: string;
  good: number;
  faults: { line: number; column: string; message: string }[];
}

const formatOf = (name: string): "json" | "csv" => (/\.json$/i.test(name) ? "json" : "csv");

/** Takes the workshop's materials out as a file, and takes a file in: bad rows are shown before anything is kept. */
export function Exchange({ onChanged }: { onChanged: () => void }) {
  const [refused, setRefused] = useState<Refused | null>(null);
  const take = async (file: { name: string; text: string }, keepGood: boolean) => {
    const format = formatOf(file.name);
    const answer = await call("materials", "import", { body: { format, text: file.text, keepGood } });
    if (answer.ok) {
      setRefused(null);
      notice.good(
        `${answer.data.kept} material${answer.data.kept === 1 ? " is" : "s are"} kept.${answer.data.doubts.length > 0 ? ` ${answer.data.doubts.length} figures look unusual: open the entries to see.` : ""}`,
      );
      return onChanged();
    }
    if (answer.error !== "bad-rows") return notice.bad(answer.message);
    setRefused({
      fileName: file.name,
      text: file.text,
      format,
      message: answer.message,
      good: Number(answer.detail.good ?? 0),
      faults: Array.isArray(answer.detail.faults) ? answer.detail.faults : [],
    });
  };
  return (
    <div className="no-print flex flex-wrap gap-2">
      <Download className="btn" href="/api/materials/export?format=csv">
        <FileDown size={18} aria-hidden="true" /> Ours as CSV
      </Download>
      <Download className="btn" href="/api/materials/export?format=json">
        <FileDown size={18} aria-hidden="true" /> Ours as JSON
      </Download>
      <FilePick accept=".csv,.json,text/csv,application/json" onFile={(file) => void file.text().then((text) => take({ name: file.name, text }, false))}>
        <Upload size={18} aria-hidden="true" /> Import
      </FilePick>
      <Dialog open={refused !== null} onOpenChange={(o) => !o && setRefused(null)} title="Some rows are not usable" description={refused?.message ?? ""}>
        {refused && (
          <div className="space-y-4">
            <div className="max-h-[45dvh] overflow-auto" tabIndex={0} role="region" aria-label="Faults by line">
              <DataTable
                label="Faults by line"
                dense
                rows={refused.faults}
                keyOf={(_, i) => String(i)}
                columns={[
                  { id: "line", header: refused.format === "csv" ? "Line" : "Entry", accessorFn: (f) => f.line, cell: ({ row }) => <b>{row.original.line}</b> },
                  { id: "column", header: "Column", accessorFn: (f) => f.column },
                  { id: "message", header: "What is wrong", cell: ({ row }) => row.original.message },
                ]}
              />
            </div>
            <div className="flex flex-wrap justify-end gap-2">
              <button type="button" className="btn" onClick={() => setRefused(null)}>
                Import nothing
              </button>
              <button
                type="button"
                className="btn btn-main"
                disabled={refused.good === 0}
                onClick={() => void take({ name: refused.fileName, text: refused.text }, true)}
              >
                Keep the {refused.good} good ones
              </button>
            </div>
          </div>
        )}
      </Dialog>
    </div>
  );
}
