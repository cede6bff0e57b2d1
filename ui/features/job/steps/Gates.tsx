"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { formersOf } from "@/core/gating";
import { Figure } from "../../../kit/controls";
import { More } from "../../../kit/More";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";

/** Fetched only when somebody rehearses. */
const RehearsePanel = dynamic(() => import("../rehearse/RehearsePanel").then((m) => m.RehearsePanel), { ssr: false });

/** Sprue, vents and funnel before the first cut: what to begin with, how far it may be opened, and why. */
export function Gates() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const { gates } = plan;
  const [rehearsing, setRehearsing] = useState(false);
  if (!gates) return null;
  const { sizes: g, question: q, sinks } = gates;
  const seconds = (s: number) => fmt(s / 3600, "duration");
  const why = { freezing: "its thin parts freeze", working: "the mix thickens", patience: "nobody pours longer" }[g.by];
  const study = plan.heat[0]?.study ?? null;
  const early = g.gateFreezesS !== null && g.thickFreezesS !== null && g.gateFreezesS < g.thickFreezesS;
  return (
    <More title="Sprue, vents, funnel" now={`begin with ${fmt(g.choke.startMm, "length")}`}>
      <div className="grid grid-cols-2 gap-3 rounded-xl bg-paper p-3">
        <Figure name="Sprue, at its narrowest" note={`open it to ${fmt(g.choke.mostMm, "length")} at most`}>
          {fmt(g.choke.startMm, "length")}
        </Figure>
        <Figure
          name={g.vents.count === 1 ? "One vent" : `${g.vents.count} vents, each`}
          note={q.wets ? `open to ${fmt(g.vents.mostMm, "length")}` : `up to ${fmt(g.vents.mostMm, "length")} it stays dry`}
        >
          {fmt(g.vents.startMm, "length")}
        </Figure>
        <Figure name="Fills in" note={`it has ${seconds(g.allowedS)} before ${why}`}>
          {seconds(g.choke.fillS)}
        </Figure>
        <Figure name="Funnel" note={`${fmt(g.funnel.highMm, "length")} high, ${fmt(g.funnel.volumeMl, "volume")}`}>
          {fmt(g.funnel.topMm, "length")} wide
        </Figure>
        <Figure name="In the pot" note={`${fmt(g.buttonG, "mass")} of it goes back`}>
          {fmt(g.potG, "mass")}
        </Figure>
        <Figure name="Head over the gate" note={g.fineHeadMm > 0 ? `fine parts ask for ${fmt(g.fineHeadMm, "length")}` : undefined}>
          {fmt(q.headMm, "length")}
        </Figure>
      </div>
      <button type="button" className="btn w-full justify-center" onClick={() => setRehearsing(true)}>
        Rehearse the pour
      </button>
      {rehearsing && <RehearsePanel gates={gates} onClose={() => setRehearsing(false)} />}
      <p>
        <b>Begin small.</b> Rubber cut away does not come back: cut these, pour, and open up. Vents start at the highest places and end at the top of the
        funnel, never in it lower down.
      </p>
      <p>
        The fill pushes the parts asunder with {fmt(gates.partingN, "force")}: a board on either side, a cleat across the middle, many thin bands, and a light
        squeeze.{" "}
        {gates.flashGapMm === null
          ? "It finds any gap: chase the seams and close them with clay."
          : `Gaps under ${fmt(gates.flashGapMm, "length")} stay free of flash.`}
      </p>
      {gates.runnerMm !== null && (
        <p>
          These are for one of the {plan.pieces}. Filled from one funnel, a runner of {fmt(gates.runnerMm, "length")} joins their sprues: never narrower than
          all of them together.
        </p>
      )}
      <p>
        Formers to bed before the rubber is poured:{" "}
        {formersOf(q, g)
          .map((f) =>
            f.topMm === f.acrossMm
              ? `${f.count === 1 ? "a rod" : `${f.count} rods`} of ${fmt(f.acrossMm, "length")} by ${fmt(f.lengthMm, "length")}`
              : `a cone ${fmt(f.topMm, "length")} wide at its top`,
          )
          .join(", ")}
        . Wax, clay or printed, as in the cut list; or cut them later, with a bent knife.
      </p>
      <p>
        Lay the halves edge to edge, all round, before a band goes on; a slip of a millimetre is a step in every casting. The old box cut down makes the two
        boards behind them, and keeps them true.
      </p>
      {study?.solidS && q.freezing && (
        <p>
          By the heat study the whole casting is solid after {seconds(study.solidS.typical)} ({seconds(study.solidS.low)} to {seconds(study.solidS.high)}); the
          quick form above counts only its thin parts, and is shorter for them.
        </p>
      )}
      {early && <p>The sprue freezes before the thickest part: keep the funnel full and hot until it has sunk, or feed there.</p>}
      {sinks.slice(0, 2).map((s) => (
        <p key={s.upMm}>
          About {fmt(s.upMm, "length")} up it is {fmt(s.thickMm, "length")} thick behind a neck of {fmt(s.neckMm, "length")}: it freezes last and lacks{" "}
          {fmt(s.shortMl, "volume")}. A second feeder there, or a sink to fill.
        </p>
      ))}
      <p className="hint">
        By {q.liquid.viscosityPaS.toPrecision(2)} Pa·s as it is poured and thin parts of {fmt(q.thinMm, "length")}, four tenths of the mean thickness. Where the
        data sheet says otherwise, it is right.
      </p>
    </More>
  );
}
