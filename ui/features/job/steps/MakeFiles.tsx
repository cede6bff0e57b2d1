"use client";

import { FileDown } from "lucide-react";
import { useState } from "react";
import { Download } from "../../../kit/Download";
import { notice } from "../../../kit/notice";
import type { MakeSummary } from "@/contract/jobs";
import { call } from "../../../data/call";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";
import { Fold } from "../../../kit/Fold";
import { JobField } from "../JobField";

/** Files to cut and print from, and the sizes of sheet and printer they are made for. */
export function MakeFiles() {
  const { id, plan, job, document } = useJob();
  const { fmt } = useUnits();
  const [summary, setSummary] = useState<{ for: string; answer: MakeSummary } | null>(null);
  const [busy, setBusy] = useState(false);
  if (!plan.layout) return null;
  const block = plan.layout.kind === "block";
  const now = JSON.stringify([job.master, job.mould, job.make, job.jacket, job.boxId, job.strength.boardId]);
  const look = async () => {
    setBusy(true);
    const saved = await document.flush();
    const answer = saved ? await call("jobs", "toMake", { params: { id } }) : null;
    setBusy(false);
    if (!answer) return notice.bad("The job itself could not be saved yet: see the note on top.");
    if (!answer.ok) return notice.bad(answer.message);
    setSummary({ for: now, answer: answer.data });
  };
  const file = (name: string, label: string) => (
    <Download className="btn" href={`/api/jobs/${id}/make/${name}`}>
      <FileDown size={18} aria-hidden="true" /> {label}
    </Download>
  );
  const answer = summary?.for === now ? summary.answer : null;
  const print = answer?.box ?? answer?.jacket ?? null;
  return (
    <Fold title="Files to cut and print from" titleClass="min-h-8 text-lg font-bold">
      <div className="mt-2 space-y-4">
        {block && (
          <div className="space-y-2">
            <h4 className="font-semibold">Cut from sheet</h4>
            <div className="flex flex-wrap gap-2">
              {file("cut-list.svg", "Cut list, SVG")}
              {file("cut-list.dxf", "Cut list, DXF")}
              {file("sheets.svg", "On sheets, SVG")}
              {file("sheets.dxf", "On sheets, DXF")}
            </div>
            <div className="grid grid-cols-2 gap-3">
              <JobField path="make.sheetLengthMm" />
              <JobField path="make.sheetWidthMm" />
            </div>
          </div>
        )}
        <div className="space-y-2">
          <h4 className="font-semibold">Print</h4>
          <div className="flex flex-wrap gap-2">
            {block ? file("box.stl", "Box, STL") : file("jacket.stl", "Jacket, STL")}
            {block ? file("box.3mf", "Box, 3MF") : file("jacket.3mf", "Jacket, 3MF")}
            {file("keys.stl", "Keys, STL")}
            {plan.gates && file("sprue.stl", "Sprue and vents, STL")}
          </div>
          <div className="grid grid-cols-3 gap-3">
            <JobField path="make.bedXMm" />
            <JobField path="make.bedYMm" />
            <JobField path="make.bedZMm" />
            <JobField path="make.printWallMm" />
            <JobField path="make.printFlangeMm" />
            <JobField path="make.boltMm" />
          </div>
        </div>
        <button type="button" className="btn" disabled={busy} onClick={() => void look()}>
          {busy ? "Working it out…" : "How many parts and sheets?"}
        </button>
        {answer && answer.sheets.length > 0 && (
          // eslint-disable-next-line @next/next/no-img-element -- drawn for this very moment: nothing for an image loader to improve
          <img
            src={`/api/jobs/${id}/make/sheets.svg?look=${document.getState().revision}`}
            alt="The pieces laid out on stock sheets"
            className="w-full rounded-xl border border-line bg-white"
          />
        )}
        {answer && (
          <div role="status" className="space-y-2 rounded-xl bg-paper p-3">
            {answer.sheets.map((s) => (
              <p key={s.thicknessMm}>
                <b>
                  {s.sheets} {s.sheets === 1 ? "sheet" : "sheets"} of {fmt(s.thicknessMm, "length")}
                </b>
                , {Math.round(s.used * 100)} % used.{s.tooLarge.length > 0 ? ` Too large for the sheet: ${s.tooLarge.join(", ")}.` : ""}
              </p>
            ))}
            {print && (
              <>
                <p>
                  <b>
                    {print.parts.length} printed {print.parts.length === 1 ? "part" : "parts"}
                  </b>
                  , {fmt(print.volumeMl, "volume")} of plastic, {print.holes} bolt holes.{" "}
                  {print.parts.every((p) => p.fits) ? "Every part fits the bed." : "Some parts are larger than the bed."}
                </p>
                <ul className="text-sm text-soft">
                  {print.parts.map((p) => (
                    <li key={p.name}>
                      {p.name}: {p.sizeMm.map((v) => fmt(v, "length")).join(" × ")}, {fmt(p.volumeMl, "volume")}
                      {p.fits ? "" : ", too large"}
                    </li>
                  ))}
                </ul>
              </>
            )}
          </div>
        )}
      </div>
    </Fold>
  );
}
