"use client";

import { ArchiveX, CircleAlert, CloudCheck, CloudUpload, Redo2, Printer, TriangleAlert, Undo2 } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useDeferredValue, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { asMade, dossierOf, madeOtherwise, type Job, type MadeOf } from "@/core/record";
import type { Catalogue } from "@/core/material";
import { afterChange } from "@/core/start/assumed";
import { heldByLog, STEP_IDS, type StepId } from "@/core/plan";
import { plan as planOf } from "@/core/plan/plan";
import { Conflict } from "../../form/Conflict";
import { useMedia } from "../../kit/device";
import { Caution } from "../../kit/controls";
import { notice } from "../../kit/notice";
import { useHeatWorker } from "../heat/useHeatStudies";
import { call } from "../../data/call";
import { useShortcuts } from "../shell/shortcuts";
import type { JobView } from "@/contract/jobs";
import type { Pour } from "@/core/log";
import { JobProvider } from "./JobContext";
import type { SaveState } from "../../data/savedDocument";
import type { JobDocument } from "./jobDocument";
import { Route, stepName } from "./Route";
import { loadAnswers, StepPanel, type AskedOf } from "./StepPanel";
import { stagesOf } from "@/core/draw/stages";
import type { Scene, Stage } from "@/core/draw";
import type { Asked } from "../../stage/Stage";
import { loadSteps } from "./steps";
import type { Lesson } from "@/contract/log";
import { Tally } from "./Tally";
import { useJobDocument } from "./useJobDocument";

/** Drawn once the page knows its own width, so it is fetched after it. */
const StageCard = dynamic(() => import("./StageCard").then((m) => m.StageCard), { ssr: false });
const StandLine = dynamic(() => import("./StandLine").then((m) => m.StandLine), { ssr: false });
const PhoneDrawing = dynamic(() => import("./PhoneDrawing").then((m) => m.PhoneDrawing), { ssr: false });

const STAGE_OF: Record<StepId, Stage> = {
  master: "master",
  pairing: "pour0",
  opening: "pour0",
  prepare: "pour0",
  box: "pour0",
  rubber: "pour0",
  strength: "cast",
  cast: "cast",
  out: "cast",
};

const watchHash = (heard: () => void) => {
  window.addEventListener("hashchange", heard);
  return () => window.removeEventListener("hashchange", heard);
};

/** The step named in the address, so that a reload comes back to it. */
function useStep(first: StepId): [StepId, (id: StepId) => void] {
  const hash = useSyncExternalStore(
    watchHash,
    () => window.location.hash.slice(1),
    () => "",
  );
  const step = STEP_IDS.find((id) => id === hash) ?? first;
  const go = useCallback((id: StepId) => {
    window.history.replaceState(null, "", `#${id}`);
    window.dispatchEvent(new HashChangeEvent("hashchange"));
  }, []);
  return [step, go];
}

/** One job: the section drawing, the route of steps, and the tally. */
export function JobScreen({
  initial,
  catalogue,
  pours,
  moulds,
  madeOf,
  lesson,
}: {
  initial: JobView;
  catalogue: Catalogue;
  pours: readonly Pour[];
  moulds: readonly { id: string; name: string }[];
  /** What the mould it casts in is made of; null while there is none. */
  madeOf: MadeOf | null;
  /** What the last casting of its newest mould taught. */
  lesson: Lesson | null;
}) {
  const { job, save, canUndo, canRedo, document } = useJobDocument(initial);
  // Heat is worked out beside the page; until an answer is in, the plan says that it is pending.
  const known = useMemo(() => ({ shopC: null, held: heldByLog(pours) }), [pours]);
  const { studies, ask, fault: heatFault } = useHeatWorker();
  const plan = useMemo(() => planOf(dossierOf(job, catalogue, known.held), studies), [job, known, catalogue, studies]);
  const otherwise = useMemo(() => (madeOf ? madeOtherwise(plan.dossier, madeOf) : []), [plan, madeOf]);
  const inMould = useMemo(() => (madeOf && otherwise.length > 0 ? planOf(asMade(plan.dossier, madeOf), studies) : plan), [plan, madeOf, otherwise, studies]);
  // The route may follow a drag a moment later.
  const calmSteps = useDeferredValue(plan.steps);
  useEffect(() => ask([...plan.heat, ...(inMould === plan ? [] : inMould.heat)].map((h) => h.question)), [ask, plan, inMould]);
  const [firstStep] = useState<StepId>(
    () => plan.steps.find((s) => s.state === "asks" || s.state === "troubled")?.id ?? (job.assumed.length > 0 && pours.length === 0 ? "rubber" : "out"),
  );
  const [step, go] = useStep(firstStep);
  const [chosen, setChosen] = useState<{ step: StepId; stage: Stage } | null>(null);

  const { opening } = job.mould;
  useEffect(() => {
    loadSteps();
    loadAnswers();
  }, []);

  const stages = useMemo(() => stagesOf(opening, plan.layout, job.jacket !== "none").map((x) => x.stage), [opening, plan.layout, job.jacket]);
  const opens = step === "box" && stages.includes("jacket") ? "jacket" : STAGE_OF[step];
  const wanted = chosen?.step === step ? chosen.stage : opens;
  const stage = !plan.layout ? "master" : stages.includes(wanted) ? wanted : "pour0";
  const edit = useCallback((change: (j: Job) => Job) => document.update((j) => afterChange(j, change(j))), [document]);
  const onStage = useCallback((to: Stage) => setChosen({ step, stage: to }), [step]);
  const [asked, setAsked] = useState<AskedOf | null>(null);
  const onAsk = useCallback((what: Asked | null, scene: Scene | null) => setAsked(what && scene ? { what, scene } : null), []);
  const wide = useMedia("(min-width: 1024px)", true);
  const toStep = useCallback(
    (id: StepId) => {
      setAsked(null);
      go(id);
    },
    [go],
  );
  const keys = useMemo(
    () => [
      ...STEP_IDS.map((id, i) => ({ keys: String(i + 1), label: `To step ${i + 1}, ${stepName(id, opening)}`, run: () => toStep(id) })),
      { keys: "Ctrl+Z", label: "Undo", run: () => void document.step("undo") },
      { keys: "Ctrl+Shift+Z", label: "Redo", run: () => void document.step("redo") },
    ],
    [document, toStep, opening],
  );
  useShortcuts(keys);
  const onClose = useCallback(() => setAsked(null), []);
  const world = useMemo(
    () => ({ id: initial.id, job, plan, catalogue, pours, inMould, otherwise, moulds, document, edit }),
    [initial.id, job, plan, catalogue, pours, inMould, otherwise, moulds, document, edit],
  );
  const calm = useDeferredValue(world);
  const [inHand, setInHand] = useState(false);
  const drawing = <StageCard stage={stage} onStage={onStage} asked={asked?.what ?? null} onAsk={onAsk} onHeld={setInHand} />;

  return (
    <JobProvider value={world}>
      <div className="flex flex-1 flex-col gap-2">
        <TitleRow job={job} save={save} canUndo={canUndo} canRedo={canRedo} document={document} id={initial.id} />
        <Trouble save={save} document={document} />
        {heatFault && <Caution>The heat could not be worked out: {heatFault}. Change anything it depends on to try again.</Caution>}
        <Route steps={calmSteps} opening={job.mould.opening} current={step} onGo={toStep} />
        <div className="grid flex-1 items-start gap-3 pb-2 lg:grid-cols-[minmax(0,1fr)_minmax(23rem,27rem)]">
          {wide ? (
            <section
              aria-label="Section drawing"
              className="card flex h-[calc(100dvh-14.4rem-var(--calls,0px))] min-h-96 flex-col overflow-hidden lg:sticky lg:top-[calc(0.5rem+var(--calls,0px))]"
            >
              {drawing}
            </section>
          ) : (
            <PhoneDrawing stage={stage}>{drawing}</PhoneDrawing>
          )}
          {/* While something on the drawing is in the hand, what stands beside it follows when there is time. */}
          <JobProvider value={inHand ? calm : world}>
            <StepPanel step={step} asked={asked} onClose={onClose} go={toStep} lesson={lesson} />
          </JobProvider>
        </div>
        <Tally plan={plan} pours={pours} />
      </div>
    </JobProvider>
  );
}

function TitleRow({
  job,
  save,
  canUndo,
  canRedo,
  document,
  id,
}: {
  job: Job;
  save: SaveState<JobView>;
  canUndo: boolean;
  canRedo: boolean;
  document: JobDocument;
  id: string;
}) {
  const router = useRouter();
  const [name, setName] = useState<string | null>(null);
  const fault = name !== null && name.trim() === "";
  const putAway = async () => {
    if (!(await document.flush())) return;
    const answer = await call("jobs", "putAway", { params: { id } });
    if (!answer.ok) return notice.bad(answer.message);
    notice.say(`${job.name} is put away; its log and moulds stay.`);
    router.push("/");
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <h1 className="min-w-0 flex-1 basis-28 sm:basis-56">
        <input
          aria-label="Name of the job"
          className={`w-full truncate rounded-lg border-2 bg-transparent px-1 font-display text-2xl font-bold hover:border-line focus:bg-field ${fault ? "border-no" : "border-transparent"}`}
          value={name ?? job.name}
          maxLength={80}
          aria-invalid={fault ? true : undefined}
          onChange={(e) => {
            setName(e.target.value);
            if (e.target.value.trim() !== "") document.update((j) => ({ ...j, name: e.target.value }));
          }}
          onBlur={() => setName(null)}
        />
      </h1>
      <div className="contents max-sm:order-last max-sm:flex max-sm:w-full">
        <StandLine />
      </div>
      <SaveWord save={save} />
      <div className="flex">
        <Link href={`/jobs/${id}/sheet`} className="btn btn-bare !px-2.5" aria-label="Job sheet to print">
          <Printer size={20} aria-hidden="true" />
        </Link>
        <button
          type="button"
          className="btn btn-bare !px-2.5"
          disabled={!canUndo && save.kind === "saved"}
          onClick={() => void document.step("undo")}
          aria-label="Undo (Ctrl+Z)"
        >
          <Undo2 size={20} aria-hidden="true" />
        </button>
        <button type="button" className="btn btn-bare !px-2.5" disabled={!canRedo} onClick={() => void document.step("redo")} aria-label="Redo (Ctrl+Shift+Z)">
          <Redo2 size={20} aria-hidden="true" />
        </button>
        <button type="button" className="btn btn-bare !px-2.5" onClick={() => void putAway()} aria-label="Put this job away">
          <ArchiveX size={20} aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}

function SaveWord({ save }: { save: SaveState<JobView> }) {
  const { Icon, word } =
    save.kind === "saved"
      ? { Icon: CloudCheck, word: "Saved" }
      : save.kind === "failed" || save.kind === "conflict"
        ? { Icon: CircleAlert, word: "Not saved" }
        : { Icon: CloudUpload, word: "Saving" };
  return (
    <span
      role="status"
      data-testid="save-state"
      className={`flex items-center gap-1.5 text-sm ${word === "Not saved" ? "font-semibold text-no" : "text-soft"}`}
    >
      <Icon size={18} aria-hidden="true" /> <span className={word === "Not saved" ? "" : "max-sm:sr-only"}>{word}</span>
    </span>
  );
}

function Trouble({ save, document }: { save: SaveState<JobView>; document: JobDocument }) {
  if (save.kind === "conflict") {
    const { name } = save.theirs.job;
    return (
      <Conflict resolve={document.resolve} more="Undo reaches the other either way.">
        This job was saved somewhere else since this page read it{name ? ` (there it is called “${name}”)` : ""}.
      </Conflict>
    );
  }
  if (save.kind !== "failed") return null;
  return (
    <div role="alert" className="card space-y-2 !border-2 !border-no p-3">
      <p className="flex gap-2 font-semibold">
        <TriangleAlert className="shrink-0 text-no" aria-hidden="true" />
        {save.message}
      </p>
      <button type="button" className="btn" onClick={() => void document.flush()}>
        Try again
      </button>
    </div>
  );
}
