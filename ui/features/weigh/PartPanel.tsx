"use client";

import { Check, Scale as ScaleIcon } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { barShare, cupTargets, habitOf, leastWeighable, partState, type WeighAct, type PartToWeigh } from "@/core/weigh";
import { systemOf } from "@/core/quantity";
import { Caution } from "../../kit/controls";
import { PracticeScale } from "../device/PracticeScale";
import type { Scale } from "../device/useScale";
import { QuantityField } from "../../form/QuantityField";
import type { WeighView } from "@/contract/weigh";
import { useUnits } from "../../kit/units";
import { CupMarks, type CupView } from "./CupMarks";
import { useTone, type Ears } from "./useEars";

const WORD = { waiting: "to pour", short: "to pour", good: "right", over: "too much" } as const;

/** One part on the scale: the giant target, the live reading, and a bar that slows the eye. */
export function PartPanel({
  view,
  cup,
  part,
  target,
  scale,
  cups,
  ears,
  act,
  next,
}: {
  view: WeighView;
  cup: number;
  part: number;
  target: PartToWeigh;
  scale: Scale;
  ears: Ears;
  cups: readonly CupView[];
  act: (a: WeighAct) => void;
  next: () => void;
}) {
  const { fmt, system, say } = useUnits();
  const w = view.weighIn;
  const here = w.cups[cup]?.parts[part] ?? null;
  const was = here?.gotG ?? null;
  const tare = here?.tareG ?? null;
  const gross = scale.reading?.kind === "weight" ? scale.reading.grams : null;
  const stable = scale.reading?.kind === "weight" && scale.reading.stable;
  const net = gross !== null && tare !== null ? gross - tare : null;
  const step = scale.source === "simulated" && scale.sim.make === "pocket" ? 0.05 : w.handling.stepG;
  const decimals = step >= 1 ? 0 : step >= 0.1 ? 1 : 2;
  const live = (g: number) => (systemOf("mass", system) === "metric" ? `${g.toFixed(decimals)} g` : fmt(g, "mass"));
  const shown = net ?? was;
  const state = partState(target, shown);
  const low = target.targetG * (1 - target.underPct / 100);
  const high = target.targetG * (1 + target.overPct / 100);
  const coarse = leastWeighable(target, step);
  /** What a scale shows of an empty cup: its last figure dances. */
  const nothing = Math.min(2 * step, target.targetG / 4);
  const weighs = scale.source !== "typed";
  const spoken = useCallback((g: number) => fmt(g, "mass"), [fmt]);
  useTone(ears, net, { targetG: target.targetG, low, high }, spoken);

  // The cup that holds the parts before is nothing to this one: its tare is what stands there when it comes up.
  const tared = useRef(false);
  const earlier = part > 0 && w.cups[cup]?.parts.slice(0, part).some((p) => p.way === "scale");
  useEffect(() => {
    if (tared.current || tare !== null || gross === null || !stable || !earlier) return;
    tared.current = true;
    act({ do: "tare", cup, part, grossG: gross });
  }, [act, cup, earlier, gross, part, stable, tare]);

  const take = (grams: number, way: "scale" | "typed" | "marks") => {
    act({ do: "weigh", cup, part, was, grams: Math.max(0, grams), way });
    next();
  };
  return (
    <section aria-labelledby="part" className="card space-y-3 p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="part" className="text-2xl font-bold">
          {target.name}
        </h2>
        <p className="text-soft">{say(target.why)}</p>
      </div>
      <div className="grid items-end gap-3 sm:grid-cols-2">
        <p>
          <span className="block text-sm text-soft">{net === null ? "Target" : `${WORD[state]} · in the cup`}</span>
          <span
            data-testid="live"
            className={`figure block text-7xl leading-none sm:text-8xl ${state === "over" ? "text-no" : state === "good" ? "text-sound" : ""} ${net !== null && !stable ? "opacity-70" : ""}`}
          >
            {net === null ? live(target.targetG) : live(net)}
          </span>
        </p>
        <p>
          <span className="block text-sm text-soft">{net === null ? "May be" : state === "over" ? "Over by" : "Still to pour"}</span>
          <span className="figure block text-4xl leading-none">{net === null ? `${live(low)} to ${live(high)}` : live(Math.abs(target.targetG - net))}</span>
          {net !== null && (
            <span className="block text-soft">
              of {live(target.targetG)}; {live(low)} to {live(high)} is right
            </span>
          )}
        </p>
      </div>
      <Bar got={shown ?? 0} target={target.targetG} low={low} high={high} state={state} />
      {coarse !== null && (
        <Caution>
          A scale in steps of {live(step)} cannot weigh {fmt(target.targetG, "mass")} closely enough. Use a finer one, measure this part with a syringe, or mix
          at least {fmt(coarse, "mass")} of it.
        </Caution>
      )}
      {weighs && (
        <>
          <p role="status" className={`min-h-6 ${scale.state ? "font-semibold text-no" : "text-soft"}`}>
            {scale.state
              ? `${scale.state}. What was taken is kept; plug it in, or type the weight below.`
              : tare === null
                ? "Put the empty cup on the scale, then tare."
                : gross !== null && gross - tare < -Math.max(2, step)
                  ? "The scale shows less than the cup: was it lifted off, or did the scale lose its tare? Put it back and tare again."
                  : stable
                    ? "Steady"
                    : "Settling…"}
          </p>
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className={`btn text-lg ${tare === null ? "btn-main" : ""}`}
              disabled={gross === null}
              onClick={() => gross !== null && act({ do: "tare", cup, part, grossG: gross })}
            >
              <ScaleIcon size={20} aria-hidden="true" /> {tare === null ? "Tare: the cup is on" : "Tare again"}
            </button>
            {net !== null && (
              <button
                type="button"
                className={`btn btn-main ${ears.large ? "!min-h-28 w-full text-4xl" : "text-lg"}`}
                disabled={net <= nothing || !stable}
                onClick={() => take(net, "scale")}
              >
                <Check size={20} aria-hidden="true" /> Take {live(Math.max(0, net))}
              </button>
            )}
          </div>
          {scale.source === "simulated" && <PracticeScale scale={scale} />}
        </>
      )}
      <Typed target={target} was={was} take={(g) => take(g, "typed")} add={(grams) => act({ do: "add", cup, part, was, grams })} />
      {was !== null && partState(target, was) === "short" && <Short view={view} cup={cup} part={part} target={target} got={was} act={act} next={next} />}
      {target.volumeMl !== null && (
        <CupMarks
          parts={w.parts.map((p) => p.name)}
          targets={w.parts.map((p) => (p.volumeMl === null ? null : (p.volumeMl * (w.cups[cup]?.factor ?? 1)) / w.cups.length))}
          part={part}
          cups={cups}
          cupId={w.handling.cupId}
          take={() => take(target.targetG, "marks")}
        />
      )}
    </section>
  );
}

function Bar({ got, target, low, high, state }: { got: number; target: number; low: number; high: number; state: "waiting" | "short" | "good" | "over" }) {
  const most = 1.12;
  const at = (g: number) => `${(Math.min(most, barShare(g, target)) / most) * 100}%`;
  return (
    <div className="relative h-12 overflow-hidden rounded-xl border-2 border-ink bg-field" aria-hidden="true">
      <div className={`h-full ${state === "over" ? "bg-no" : state === "good" ? "bg-sound" : "bg-citrus"}`} style={{ width: at(got) }} />
      <div className="absolute inset-y-0 border-x-2 border-ink bg-sound/25" style={{ left: at(low), width: `calc(${at(high)} - ${at(low)})` }} />
      {[0.25, 0.5, 0.75, 0.9].map((s) => (
        <div key={s} className="absolute inset-y-0 w-px bg-ink/25" style={{ left: at(s * target) }} />
      ))}
    </div>
  );
}

/** What a short part may do: go on, the rest as it needs; or make the batch as small as what is there, and say what it lacks. */
function Short({
  view,
  cup,
  part,
  target,
  got,
  act,
  next,
}: {
  view: WeighView;
  cup: number;
  part: number;
  target: PartToWeigh;
  got: number;
  act: (a: WeighAct) => void;
  next: () => void;
}) {
  const { fmt } = useUnits();
  const w = view.weighIn;
  const least = habitOf(w).mayBeShort[target.role];
  const factor = ((w.cups[cup]?.factor ?? 1) * got) / target.targetG;
  const totalG = cupTargets(w, cup).reduce((s, t) => s + t.targetG, 0);
  const lacksG = totalG * (1 - got / target.targetG);
  const spareG = w.needG === null ? 0 : (w.batchG - w.needG) / w.cups.length;
  return (
    <div className="space-y-2 rounded-xl border-2 border-care p-3">
      <p className="text-lg">
        <b>{fmt(got, "mass")} is in</b>, {fmt(target.targetG - got, "mass")} is missing.
        {least !== undefined && " Hold the rest back and add it as the mix needs: powders differ from bag to bag, and water cannot be taken out again."}
      </p>
      <div className="flex flex-wrap gap-2">
        {least !== undefined && got >= least * target.targetG && (
          <button
            type="button"
            className="btn btn-main text-lg"
            onClick={() => {
              act({ do: "settle", cup, part });
              next();
            }}
          >
            <Check size={20} aria-hidden="true" /> Go on, the rest later
          </button>
        )}
        {least === undefined && (
          <button
            type="button"
            className="btn text-lg"
            onClick={() => {
              act({ do: "smaller", cup, part, factor });
              next();
            }}
          >
            That is all there is: make {fmt(totalG - lacksG, "mass")}
          </button>
        )}
      </div>
      {least === undefined && (
        <p>
          The {habitOf(w).vessel.one.toLowerCase()} would then lack {fmt(lacksG, "mass")}, about {fmt(lacksG / w.gMl, "volume")}
          {lacksG > spareG
            ? ": more than its margin, so it will not reach the line. Have that much more of the same mixed before this one sets."
            : ": its margin covers that."}
        </p>
      )}
    </div>
  );
}

/** Less than this share of what is in is taken for what was added, never for all of it. */
const ADDITION_SHARE = 0.5;

/** A weight typed: all that is in, or, once something is, what was added; it shows which it understood. */
function Typed({ target, was, take, add }: { target: PartToWeigh; was: number | null; take: (g: number) => void; add: (g: number) => void }) {
  const { fmt } = useUnits();
  const [g, setG] = useState<number | null>(was);
  const added = was !== null && was > 0 && g !== null && g > 0 && g < was * ADDITION_SHARE;
  // What shows as the target is the target: a display rounds further than a part bears.
  const total = g !== null && fmt(g, "mass") === fmt(target.targetG, "mass") ? target.targetG : g;
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="w-48">
        <QuantityField label={`${target.name} in the cup`} value={g} dimension="mass" min={0} max={1_000_000} optional onChange={setG} />
      </div>
      <button type="button" className="btn text-lg" disabled={g === null || g <= 0} onClick={() => (added ? add(g) : total !== null && take(total))}>
        <Check size={20} aria-hidden="true" /> Take what I typed
      </button>
      {was !== null && g !== null && g > 0 && g !== was && (
        <p className="w-full">{added ? `Understood: ${fmt(g, "mass")} more, ${fmt(was + g, "mass")} in all.` : `Understood: ${fmt(g, "mass")} in all.`}</p>
      )}
    </div>
  );
}
