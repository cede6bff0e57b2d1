"use client";

import { ChevronDown, ChevronUp } from "lucide-react";
import { useMemo, useState, type ReactNode } from "react";
import { pick } from "@/core/material";
import { thumbOf, type Stage } from "@/core/draw";
import { SceneThumb } from "../../stage/SceneThumb";
import { useJob } from "./JobContext";

/** On a narrow page the question comes first: the drawing stays small above it while sizes are typed, and opens with a tap. */
export function PhoneDrawing({ stage, children }: { stage: Stage; children: ReactNode }) {
  const { job, plan, catalogue } = useJob();
  const [open, setOpen] = useState(false);
  const panelMm = pick(catalogue.boxes, job.boxId)?.thicknessMm ?? 0;
  const thumb = useMemo(() => (open ? null : thumbOf({ plan, mould: job.mould, stage, panelMm })), [open, plan, job.mould, stage, panelMm]);
  return (
    <section aria-label="Section drawing" className={`card overflow-hidden ${open ? "flex h-[78dvh] flex-col" : "sticky top-0 z-10"}`}>
      {open && children}
      <button
        type="button"
        className="flex min-h-11 w-full items-center justify-center gap-3 px-3 font-semibold"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {thumb && <SceneThumb thumb={thumb} width={150} height={76} />}
        {open ? "Close the drawing" : "Drawing"}
        {open ? <ChevronUp size={20} aria-hidden="true" /> : <ChevronDown size={20} aria-hidden="true" />}
      </button>
    </section>
  );
}
