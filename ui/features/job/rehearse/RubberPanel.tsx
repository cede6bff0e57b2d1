"use client";

import { useEffect, useMemo, useState } from "react";
import { rubberRuns, type RubberRun } from "@/core/plan";
import type { Network } from "@/core/rehearsal";
import { useModelWorker } from "../../../data/useModelWorker";
import { Choice } from "../../../kit/Choice";
import { Fault } from "../../../kit/controls";
import { Dialog } from "../../../kit/Dialog";
import { Drag } from "../../../kit/Drag";
import { Tick } from "../../../kit/Tick";
import { useUnits } from "../../../kit/units";
import { steadySolid } from "../../../stage/round/solid";
import { useJob } from "../JobContext";
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
  const { ask, fault } = useModelWorker();
  const [network, setNetwork] = useState<Network | null>(null);
  const [handMlS, setHandMlS] = useState(run.setup.handMlS);
  const [painted, setPainted] = useState(false);
  const corners = useMemo(() => (plan.body ? steadySolid(plan.body) : null), [plan.body]);
  const { boardMm, toMm, wallMm, holdsMl } = run.room;
  const { upsideDown } = run.pour;
  useEffect(() => {
    if (!corners) return;
    let mine = true;
    void ask((w) => w.networkRound(corners, { up: [0, 0, upsideDown ? -1 : 1], boardMm, toMm, wallMm, holdsMl })).then((n) => mine && n && setNetwork(n));
    return () => {
      mine = false;
    };
  }, [corners, upsideDown, boardMm, toMm, wallMm, holdsMl, ask]);
  const setup = useMemo(() => ({ ...run.setup, handMlS }), [run.setup, handMlS]);
  const shown = useMemo(() => network && (painted ? { ...network, shut: [] } : network), [network, painted]);
  const { closed: g } = run;
  return (
    <div className="grid gap-4 pt-3 md:grid-cols-[1.2fr_1fr]">
      <div>
        <Fault>{fault}</Fault>
        {shown ? (
          <Pour key={`${handMlS} ${painted}`} network={shown} setup={setup} of="rubber" bestKey={`${id}:rubber:${run.pour.part}`} most={null} lean={null} />
        ) : (
          <p>Looking at the room round it …</p>
        )}
      </div>
      <div className="space-y-3">
        <p>
          From the bottom corner, and let it rise: {fmt(run.pour.rubberMl, "volume")} before its pot life of {fmt(run.pour.cure.potLife.hours.low, "duration")}{" "}
          is over.
        </p>
        <Drag label="Your hand pours, a second" shown={fmt(handMlS, "volume")} value={handMlS} min={0.5} max={30} step={0.5} onChange={setHandMlS} />
        <Tick checked={painted} onChange={setPainted}>
          A first coat is painted on
        </Tick>
        <p className="text-sm">
          <b>Into a closed jacket or box</b> it wants a hole of {fmt(g.choke.startMm, "length")} with a funnel on it, {g.vents.count}{" "}
          {g.vents.count === 1 ? "vent" : "vents"} of {fmt(g.vents.startMm, "length")} at the highest {g.vents.count === 1 ? "place" : "places"}, and{" "}
          {fmt(g.choke.fillS / 3600, "duration")} to run in.
        </p>
        <p className="hint">By {run.setup.liquid.viscosityPaS.toPrecision(2)} Pa·s. The data sheet is right where it says otherwise.</p>
      </div>
    </div>
  );
}
