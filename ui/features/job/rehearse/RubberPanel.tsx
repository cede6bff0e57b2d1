"use client";

import { useCallback, useEffect, useMemo, useState } from "react";
import { MOST_LEANT_DEG } from "@/core/mould";
import { rubberRuns, type RubberRun } from "@/core/plan";
import type { Held, Network } from "@/core/rehearsal";
import { useModelWorker } from "../../../data/useModelWorker";
import { Choice } from "../../../kit/Choice";
import { Fault } from "../../../kit/controls";
import { Dialog } from "../../../kit/Dialog";
import { Drag } from "../../../kit/Drag";
import { Tick } from "../../../kit/Tick";
import { useUnits } from "../../../kit/units";
import { steadySolid } from "../../../stage/round/solid";
import { useJob } from "../JobContext";
import { HowHeld } from "./HowHeld";
import { Pour } from "./Pour";

/** Rubber seen rising round its master before it is mixed: where it shuts air in, and whether the hand is in time for its pot life. */
export function RubberPanel({ first, onClose }: { first: string; onClose: () => void }) {
  const { plan } = useJob();
  const runs = useMemo(() => rubberRuns(plan), [plan]);
  const [name, setName] = useState(first);
  const run = runs.find((r) => r.pour.name === name) ?? runs[0];
  return (
    <Dialog open onOpenChange={onClose} title="Rehearse the rubber" wide>
      {runs.length > 1 && (
        <Choice label="Which pour" value={run?.pour.name ?? name} options={runs.map((r) => ({ value: r.pour.name, label: r.pour.name }))} onChange={setName} />
      )}
      {run ? <Run key={name} run={run} /> : <p>No rubber is poured round it: it is brushed or pressed on, or not worked out yet.</p>}
    </Dialog>
  );
}

function Run({ run }: { run: RubberRun }) {
  const { id, plan } = useJob();
  const { fmt } = useUnits();
  const worker = useModelWorker();
  const { ask, fault } = worker;
  const [handMlS, setHandMlS] = useState(run.setup.handMlS);
  const [painted, setPainted] = useState(false);
  const [closed, setClosed] = useState(false);
  const corners = useMemo(() => (plan.body ? steadySolid(plan.body) : null), [plan.body]);
  const held = JSON.stringify([run.room, closed]);
  const asked = useCallback(
    async (leanDeg: number, before: readonly Held[]): Promise<Network | null> => {
      const [room, lid] = JSON.parse(held) as [RubberRun["room"], boolean];
      return corners && (await ask((w) => w.networkRound(corners, { ...room, lid, leanDeg, before })));
    },
    [corners, held, ask],
  );
  // As it is to be held first, and as it stands level: where both are the same, one is asked for.
  const [shown, setShown] = useState<{ held: string; first: Network; level: Network } | null>(null);
  const first = closed ? 0 : run.stand.leanDeg;
  useEffect(() => {
    let mine = true;
    void (async () => {
      const level = await asked(0, []);
      const leaning = first === 0 ? level : await asked(first, []);
      if (mine && level && leaning) setShown({ held, first: leaning, level });
    })();
    return () => {
      mine = false;
    };
  }, [asked, first, held]);
  const clean = useCallback((n: Network): Network => (painted ? { ...n, shut: [] } : n), [painted]);
  const lean = useCallback(
    async (deg: number, before: readonly Held[]) => {
      const n = await asked(deg, before);
      return n && clean(n);
    },
    [asked, clean],
  );
  const setup = useMemo(() => ({ ...(closed ? run.closed.setup : run.setup), handMlS }), [closed, run, handMlS]);
  const networks = useMemo(() => shown && { first: clean(shown.first), level: clean(shown.level) }, [shown, clean]);
  const { sizes: g } = run.closed;
  return (
    <div className="grid gap-4 pt-3 md:grid-cols-[1.2fr_1fr]">
      <div>
        <Fault>{fault}</Fault>
        {networks ? (
          <Pour
            key={`${shown?.held} ${networks.first.leanDeg} ${handMlS} ${painted}`}
            network={networks.first}
            straight={networks.level}
            setup={setup}
            of="rubber"
            bestKey={`${id}:rubber:${run.pour.part}`}
            most={null}
            lean={lean}
            mostLean={MOST_LEANT_DEG}
          />
        ) : (
          <p>Looking at the room round it …</p>
        )}
      </div>
      <div className="space-y-3">
        <p>
          {fmt(run.pour.rubberMl, "volume")}, and let it rise, before its pot life of {fmt(run.pour.cure.potLife.hours.low, "duration")} is over.
        </p>
        <HowHeld run={run} corners={corners} worker={worker} />
        <Drag label="Your hand pours, a second" shown={fmt(handMlS, "volume")} value={handMlS} min={0.5} max={30} step={0.5} onChange={setHandMlS} />
        <div className="flex flex-wrap gap-2">
          <Tick checked={painted} onChange={setPainted}>
            A first coat is painted on
          </Tick>
          <Tick checked={closed} onChange={setClosed}>
            Into a closed box or jacket
          </Tick>
        </div>
        {closed && (
          <p className="text-sm">
            Through a hole of {fmt(g.choke.startMm, "length")} with a funnel on it, {g.vents.count} {g.vents.count === 1 ? "vent" : "vents"} of{" "}
            {fmt(g.vents.startMm, "length")} at the highest {g.vents.count === 1 ? "place" : "places"}: {fmt(g.choke.fillS / 3600, "duration")} to run in.
          </p>
        )}
        <p className="hint">By {run.setup.liquid.viscosityPaS.toPrecision(2)} Pa·s. The data sheet is right where it says otherwise.</p>
      </div>
    </div>
  );
}
