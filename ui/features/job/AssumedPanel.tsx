"use client";

import { Check } from "lucide-react";
import { USE_LABEL } from "@/core/fit";
import { JACKETS, pick } from "@/core/material";
import { OPENING } from "@/core/mould";
import type { Plan, StepId } from "@/core/plan";
import { useUnits } from "../../kit/units";
import { useJob } from "./JobContext";

interface Assumable {
  label: string;
  step: StepId;
  value: (p: Plan, fmt: ReturnType<typeof useUnits>["fmt"]) => string;
}

const nameOf = (m: { name: string } | null) => m?.name ?? "none";

/** What may be assumed of a piece: what it is called, where it is changed, and how it stands. */
const ASSUMABLE: Record<string, Assumable> = {
  "master.surfaceId": { label: "made of", step: "master", value: ({ dossier: d }) => nameOf(pick(d.materials.surfaces, d.job.master.surfaceId)) },
  "master.sizes.volumeMl": { label: "volume, guessed", step: "master", value: (p, fmt) => fmt(p.body?.volumeMl ?? null, "volume") },
  castId: { label: "cast in", step: "pairing", value: ({ cast }) => nameOf(cast) },
  rubberId: { label: "rubber", step: "pairing", value: ({ rubber }) => nameOf(rubber) },
  use: { label: "it is for", step: "pairing", value: ({ dossier }) => USE_LABEL[dossier.job.use] },
  "mould.opening": { label: "opens as", step: "opening", value: ({ dossier }) => OPENING[dossier.job.mould.opening].label },
  releaseId: { label: "release", step: "prepare", value: ({ dossier: d }) => nameOf(pick(d.materials.releases, d.job.releaseId)) },
  boxId: { label: "box of", step: "box", value: ({ dossier: d }) => nameOf(pick(d.materials.boxes, d.job.boxId)) },
  jacket: { label: "jacket", step: "box", value: ({ dossier }) => JACKETS[dossier.job.jacket].label },
};

/** Where a new job opens: there all of it is seen; elsewhere what is changed there. */
const ALL_AT: StepId = "rubber";

/** What nobody said and is assumed for this kind of piece: each can be gone to and changed, or all agreed to. */
export function AssumedPanel({ step, go }: { step: StepId; go: (step: StepId) => void }) {
  const { job, plan, edit } = useJob();
  const { fmt } = useUnits();
  const shown = job.assumed.flatMap((path) => {
    const a = ASSUMABLE[path];
    return a && (step === ALL_AT || a.step === step) ? [{ path, ...a }] : [];
  });
  if (shown.length === 0) return null;
  return (
    <section aria-label="Assumed" className="space-y-1 rounded-xl border-2 border-dashed border-line p-2">
      <p className="flex items-center justify-between gap-2 pl-1">
        <span className="label">Assumed. Tap what is not so:</span>
        <button type="button" className="btn btn-bare !px-2 text-sm" onClick={() => edit((j) => ({ ...j, assumed: [] }))}>
          <Check size={18} aria-hidden="true" /> All of it is so
        </button>
      </p>
      <ul className="flex flex-wrap gap-1">
        {shown.map((a) => (
          <li key={a.path} className="min-w-0">
            <button
              type="button"
              className="flex min-h-11 max-w-full items-center gap-1 rounded-lg border border-line px-2 text-left leading-tight hover:bg-peel/60"
              onClick={() => go(a.step)}
            >
              <span className="whitespace-nowrap text-xs text-soft">{a.label} </span>
              <b className="min-w-0 truncate text-[0.92rem]">{a.value(plan, fmt)}</b>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
