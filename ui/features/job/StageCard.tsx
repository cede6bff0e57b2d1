"use client";

import { Play, Square } from "lucide-react";
import dynamic from "next/dynamic";
import { useEffect, useMemo, useState } from "react";
import { looksAlike, pictureOf, pourAt, putOn, stagesOf, VIEWS, type Scene, type Stage as StageName, type View } from "@/core/draw";
import { standOf, standUp } from "@/core/mould";
import { rubberRuns } from "@/core/plan";
import { pick } from "@/core/material";
import { Drag } from "../../kit/Drag";
import { Tabs } from "../../kit/Tabs";
import { useUnits } from "../../kit/units";
import { Legend, Stage, type Asked } from "../../stage/Stage";
import { useJob } from "./JobContext";
import { PictureStrip } from "./PictureStrip";

const ComparePanel = dynamic(() => import("./ComparePanel").then((m) => m.ComparePanel), { ssr: false });

const CostPanel = dynamic(() => import("./CostPanel").then((m) => m.CostPanel), { ssr: false });

/** Fetched only when somebody wants the piece in the round. */
const Round = dynamic(() => import("../../stage/round/Round").then((m) => m.Round), { ssr: false });

const VIEW_LABEL: Record<View, string> = { along: "Along", across: "Across", turned: "Turned", above: "From above" };
/** The cut in which a mould leans that is filled with `up` upwards: along, across, or turned by so many degrees from its length. */
function leaningView(up: readonly [number, number, number] | null): { view: View; turnDeg: number } {
  if (!up || Math.hypot(up[0], up[1]) < 0.05) return { view: "along", turnDeg: 45 };
  const deg = (Math.round((Math.atan2(up[1], up[0]) * 180) / Math.PI / 5) * 5 + 360) % 180;
  return deg === 0 ? { view: "along", turnDeg: 45 } : deg === 90 ? { view: "across", turnDeg: 45 } : { view: "turned", turnDeg: deg };
}

/** Sides of what looks the same all round. */
const ALIKE = VIEWS.filter((v) => v !== "across" && v !== "turned");
/** How long each stage stands while the work is played through, ms. */
const STAND_MS = 1800;

/** The drawing with what may be shown on it: the stages of the work, the sides it is seen from, and the list of what is there. */
export function StageCard({
  stage,
  onStage,
  asked,
  onAsk,
  onHeld,
}: {
  stage: StageName;
  onStage: (stage: StageName) => void;
  asked: Asked | null;
  onAsk: (asked: Asked | null, scene: Scene | null) => void;
  onHeld: (held: boolean) => void;
}) {
  const { id, job, plan, catalogue, edit } = useJob();
  const { fmt } = useUnits();
  // Until somebody chooses, a mould that leans is seen from where it leans.
  const poured = stage === "pour0" || stage === "pour1" ? pourAt({ plan, stage }) : null;
  const stand = poured?.leant ? standOf(job.mould.stands, poured.part) : null;
  const filled = job.mould.filling?.up ?? null;
  const up = useMemo(() => (stand ? standUp(stand) : stage === "cast" ? filled : null), [stand, filled, stage]);
  const leans = useMemo(() => leaningView(up), [up]);
  const [chosenView, setView] = useState<View | null>(null);
  const [chosenDeg, setTurnDeg] = useState<number | null>(null);
  const turnDeg = chosenDeg ?? leans.turnDeg;
  const [playing, setPlaying] = useState(false);
  const [comparing, setComparing] = useState(false);
  const [costing, setCosting] = useState(false);
  const [round, setRound] = useState(false);
  const stages = stagesOf(job.mould.opening, plan.layout, job.jacket !== "none");
  const panelMm = pick(catalogue.boxes, job.boxId)?.thicknessMm ?? 0;
  const alike = plan.body !== null && looksAlike(plan.body);
  const views = alike ? ALIKE : VIEWS;
  const view = chosenView ?? (alike ? "along" : leans.view);
  const scene = useMemo(() => pictureOf({ plan, mould: job.mould, stage, panelMm }, view, turnDeg), [plan, job.mould, stage, panelMm, view, turnDeg]);
  const pours = useMemo(
    () => (round ? rubberRuns(plan).map((r) => ({ name: r.pour.name, boxed: { ...r.room, leanDeg: r.stand.leanDeg } })) : []),
    [round, plan],
  );
  const at = stages.findIndex((s) => s.stage === stage);
  const next = stages[at + 1]?.stage;
  useEffect(() => {
    if (!playing) return;
    const wait = setTimeout(() => {
      if (next) onStage(next);
      else setPlaying(false);
    }, STAND_MS);
    return () => clearTimeout(wait);
  }, [playing, next, onStage]);
  const play = () => {
    if (playing) return setPlaying(false);
    // At the end it begins again.
    if (!next && stages[0]) onStage(stages[0].stage);
    setPlaying(true);
  };
  const { shape } = job.master;
  const read = shape === "model" || shape === "photographs" ? shape : null;
  const ask = (a: Asked | null) => onAsk(a, scene);
  return (
    <>
      <Tabs
        label="Shown on the drawing"
        className="flex min-h-0 flex-1 flex-col"
        contentClass="flex min-h-0 flex-1 flex-col"
        listClass="px-2 pt-2 !gap-1"
        value={stage}
        options={plan.layout ? stages.map((s) => ({ value: s.stage, label: s.label })) : []}
        onChange={(s) => {
          setPlaying(false);
          onStage(s);
        }}
      >
        {round && plan.body ? (
          <Round
            body={plan.body}
            opens={read ? (job.master[read]?.opens ?? null) : null}
            levelMm={plan.layout && plan.layout.partingAtMm !== null ? plan.layout.partingAtMm - plan.layout.masterFromMm : null}
            safeStrain={plan.strength?.stretch.safe.low ?? 0}
            marks={job.mould.offSeam}
            filling={job.mould.filling}
            cutsMm={job.inside.cutsMm}
            pours={pours}
            onFilling={(filling) => edit((j) => ({ ...j, mould: { ...j.mould, filling } }))}
            onMarks={(offSeam) => edit((j) => ({ ...j, mould: { ...j.mould, offSeam } }))}
            onPlug={(p) => edit((j) => ({ ...j, mould: { ...j.mould, plugs: [...j.mould.plugs, p].slice(-12) } }))}
            onCut={(zMm) => edit((j) => ({ ...j, inside: { ...j.inside, cutsMm: [...new Set([...j.inside.cutsMm, zMm])].sort((a, b) => a - b).slice(0, 6) } }))}
            onLay={read && ((laid) => edit((j) => ({ ...j, master: { ...j.master, [read]: { ...j.master[read], ...laid } } })))}
          />
        ) : (
          <Stage
            job={job}
            plan={plan}
            scene={scene}
            stage={stage}
            view={view}
            asked={asked}
            onAsk={ask}
            onHeld={onHeld}
            onPut={(list) => edit((j) => putOn(j, plan.body, list))}
            brings={stage === "master" ? `Volume ${fmt(plan.body?.volumeMl ?? null, "volume")}` : `Rubber ${fmt(plan.tally.rubberG, "mass")}`}
          />
        )}
      </Tabs>
      {!round && stage === "master" && job.master.shape === "photographs" && (job.master.photographs?.shots.length ?? 0) > 0 && (
        <PictureStrip jobId={id} shots={job.master.photographs?.shots ?? []} />
      )}
      {view === "turned" && !round && (
        <div className="px-3">
          <Drag
            label="Cut turned from the length"
            shown={`${turnDeg}°`}
            spoken={`${turnDeg} degrees`}
            value={turnDeg}
            min={0}
            max={175}
            step={5}
            onChange={setTurnDeg}
          />
        </div>
      )}
      <div className="flex flex-wrap items-center justify-between gap-x-3 px-2 pb-1">
        {scene && !round && <Legend plan={plan} scene={scene} asked={asked} onAsk={ask} />}
        <div className="ml-auto flex min-w-0 flex-wrap items-center justify-end">
          {plan.body &&
            views.map((v) => (
              <button
                key={v}
                type="button"
                aria-pressed={view === v && !round}
                className="min-h-11 rounded-lg px-2 text-sm hover:bg-peel/60 aria-pressed:font-semibold aria-pressed:underline aria-pressed:decoration-citrus aria-pressed:decoration-[3px] aria-pressed:underline-offset-4"
                onClick={() => {
                  setRound(false);
                  setView(v);
                }}
              >
                {VIEW_LABEL[v]}
              </button>
            ))}
          {plan.body && (
            <button
              type="button"
              aria-pressed={round}
              className="min-h-11 rounded-lg px-2 text-sm hover:bg-peel/60 aria-pressed:font-semibold aria-pressed:underline aria-pressed:decoration-citrus aria-pressed:decoration-[3px] aria-pressed:underline-offset-4"
              onClick={() => setRound(true)}
            >
              In the round
            </button>
          )}
          {plan.layout && (
            <button type="button" className="btn btn-bare !px-2 text-sm" onClick={() => setComparing(true)}>
              Compare
            </button>
          )}
          {plan.layout && (
            <button type="button" className="btn btn-bare !px-2 text-sm" onClick={() => setCosting(true)}>
              Costs
            </button>
          )}
          {stages.length > 1 && (
            <button type="button" className="btn btn-bare !px-2.5" onClick={play} aria-label={playing ? "Stop" : "Play the work through"}>
              {playing ? <Square size={18} aria-hidden="true" /> : <Play size={18} aria-hidden="true" />}
            </button>
          )}
        </div>
      </div>
      {costing && <CostPanel onClose={() => setCosting(false)} />}
      {comparing && <ComparePanel onClose={() => setComparing(false)} />}
    </>
  );
}
