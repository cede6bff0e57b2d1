"use client";

import { useCallback, useEffect, useMemo, useState } from "react";
import { CAST_FAMILY } from "@/core/material";
import type { PlannedGates } from "@/core/plan";
import type { Held, Network, Setup } from "@/core/rehearsal";
import { useModelWorker } from "../../../data/useModelWorker";
import { Choice } from "../../../kit/Choice";
import { Fault } from "../../../kit/controls";
import { Dialog } from "../../../kit/Dialog";
import { Drag } from "../../../kit/Drag";
import { useUnits } from "../../../kit/units";
import { steadySolid } from "../../../stage/round/solid";
import { useJob } from "../JobContext";
import { readBest } from "./best";
import { EXERCISES, type Exercise } from "./exercises";
import { Pour } from "./Pour";
import { Practice } from "./Practice";

/** What a person sets for a rehearsal. */
interface Cuts {
  chokeMm: number;
  vents: number;
  ventMm: number;
  handMlS: number;
  pourC: number;
}
/** A pot nearly cold is so much above where it freezes, °C. */
const NEARLY_C = 12;

/** A pour seen before anything is melted: the hand pours, the section fills, and what comes out is judged like a casting. */
export function RehearsePanel({ gates, onClose }: { gates: PlannedGates; onClose: () => void }) {
  const { id, job, plan } = useJob();
  const { fmt } = useUnits();
  const { ask, fault } = useModelWorker();
  const [network, setNetwork] = useState<Network | null>(null);
  const { sizes, question: q } = gates;
  const proposed = useMemo<Cuts>(() => {
    // Never slower than the sprue takes it.
    const flow = sizes.choke.firstMlS;
    return {
      chokeMm: sizes.choke.startMm,
      vents: sizes.vents.count,
      ventMm: Math.round(10 * Math.min(sizes.vents.startMm, 12)) / 10,
      handMlS: Math.max(0.5, Number((flow * 1.05).toPrecision(2))),
      pourC: q.freezing?.pourC ?? 0,
    };
  }, [sizes, q]);
  const [exercise, setExercise] = useState<Exercise>("proposed");
  const [cuts, setCuts] = useState<Cuts>(proposed);
  const corners = useMemo(() => (plan.body ? steadySolid(plan.body) : null), [plan.body]);
  const { filling } = job.mould;
  // Those that are cut stand where they were placed; any more are taken to stand highest.
  const cut = Math.min(cuts.vents, filling?.ventsMm.length ?? 0);
  const asked = useCallback(
    async (leanDeg: number, before: readonly Held[], frozen: readonly number[]): Promise<Network | null> =>
      corners &&
      (await ask((w) =>
        w.network(corners, {
          up: filling?.up ?? [0, 0, 1],
          sprueMm: filling?.sprueMm ?? null,
          ventsMm: (filling?.ventsMm ?? []).slice(0, cut),
          holdsMl: q.volumeMl,
          leanDeg,
          before,
          frozen,
        }),
      )),
    [corners, filling, cut, q.volumeMl, ask],
  );
  useEffect(() => {
    let mine = true;
    void asked(0, [], []).then((n) => mine && n && setNetwork(n));
    return () => {
      mine = false;
    };
  }, [asked]);
  const setup = useMemo<Setup>(
    () => ({
      liquid: q.liquid,
      skinNM: q.wets ? null : q.surfaceTensionNM,
      chokeMm: cuts.chokeMm,
      channelMm: q.channelMm,
      funnelMl: sizes.funnel.volumeMl,
      funnelHighMm: q.headMm - q.channelMm,
      vents: { count: cuts.vents, diameterMm: cuts.ventMm },
      freezing: q.freezing && { ...q.freezing, pourC: cuts.pourC },
      workingS: q.workingS,
      handMlS: cuts.handMlS,
      potMl: exercise === "small" ? q.volumeMl * 1.02 + sizes.funnel.volumeMl * 0.3 : q.volumeMl * 1.6 + sizes.funnel.volumeMl * 2,
    }),
    [q, sizes, cuts, exercise],
  );
  // Each with the best of it so far, from easy to hard.
  const [, setPoured] = useState(0);
  const oneMore = useCallback(() => setPoured((n) => n + 1), []);
  const exercises = EXERCISES.filter((e) => !e.freezes || q.freezing).map(({ value, label }) => {
    const best = readBest(`${id}:${value}`);
    return { value, label: best ? `${label}: ${best.score}` : label };
  });
  const change = (patch: Partial<Cuts>) => setCuts((c) => ({ ...c, ...patch }));
  const choose = (e: Exercise) => {
    setExercise(e);
    const changed: Record<Exercise, Partial<Cuts>> = {
      proposed: {},
      small: {},
      slow: { handMlS: Math.max(0.5, Number((0.4 * proposed.handMlS).toPrecision(2))) },
      novents: { vents: 0 },
      cold: q.freezing ? { pourC: Math.ceil(q.freezing.freezingC) + NEARLY_C } : {},
      narrow: { chokeMm: Math.max(0.5, Math.round(5 * proposed.chokeMm) / 10) },
    };
    setCuts({ ...proposed, ...changed[e] });
  };
  return (
    <Dialog open onOpenChange={onClose} title="Rehearse the pour" wide>
      <Fault>{fault}</Fault>
      <div className="grid gap-4 md:grid-cols-[1.2fr_1fr]">
        <div className="space-y-4">
          {network ? (
            <Pour
              key={JSON.stringify([cuts, exercise])}
              network={network}
              setup={setup}
              bestKey={`${id}:${exercise}`}
              of="cast"
              lean={asked}
              onBest={oneMore}
              most={{ chokeMm: sizes.choke.mostMm, pourC: plan.cast?.peakC.high ?? 0 }}
            />
          ) : (
            <p>Looking at its basins …</p>
          )}
          <Practice id={id} />
        </div>
        <div className="space-y-2">
          <Choice label="Begin with" value={exercise} options={exercises} onChange={choose} />
          <Drag
            label="Sprue"
            shown={fmt(cuts.chokeMm, "length")}
            value={cuts.chokeMm}
            min={0.5}
            max={Math.max(6, 2 * sizes.choke.mostMm)}
            step={0.5}
            onChange={(chokeMm) => change({ chokeMm })}
          />
          <Drag label="Vents" shown={String(cuts.vents)} value={cuts.vents} min={0} max={12} step={1} onChange={(vents) => change({ vents })} />
          {cuts.vents > 0 && (
            <Drag label="Each" shown={fmt(cuts.ventMm, "length")} value={cuts.ventMm} min={0.2} max={12} step={0.1} onChange={(ventMm) => change({ ventMm })} />
          )}
          <Drag
            label="Your hand pours, a second"
            shown={fmt(cuts.handMlS, "volume")}
            value={cuts.handMlS}
            min={0.5}
            max={Math.max(20, 4 * proposed.handMlS)}
            step={0.5}
            onChange={(handMlS) => change({ handMlS })}
          />
          {q.freezing && plan.cast && (
            <Drag
              label="Poured at"
              shown={fmt(cuts.pourC, "temperature")}
              value={cuts.pourC}
              min={Math.ceil(q.freezing.freezingC)}
              max={Math.max(Math.ceil(plan.cast.peakC.high), Math.ceil(q.freezing.freezingC) + 1)}
              step={1}
              onChange={(pourC) => change({ pourC })}
            />
          )}
          {plan.cast && CAST_FAMILY[plan.cast.family].molten && (
            <p className="hint">A rehearsal only. At the pot: face shield, leather, everything dry, and nobody without them near.</p>
          )}
        </div>
      </div>
    </Dialog>
  );
}
