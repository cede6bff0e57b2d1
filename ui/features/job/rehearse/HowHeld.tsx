"use client";

import { proxy } from "comlink";
import { useState } from "react";
import { endOf } from "@/core/air";
import { BESIDE_WALL, MOST_LEANT_DEG, TOWARDS, towardsName, withStand, type HeldBy, type RubberStand } from "@/core/mould";
import type { RubberRun } from "@/core/plan";
import { wayReasons, type RoundAsked, type RubberWay } from "@/core/rehearsal";
import { useGoing } from "../../../data/useGoing";
import type { useModelWorker } from "../../../data/useModelWorker";
import { Drag } from "../../../kit/Drag";
import { Pick } from "../../../kit/Pick";
import { Running } from "../../../kit/Progress";
import { Tick } from "../../../kit/Tick";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";

const HELD: Record<HeldBy, string> = {
  board: "Its back is held to the board.",
  former: "It stands on its sprue former.",
  bar: "It hangs by its sprue former from a bar across the box.",
  wall: "Its sprue former holds it from the wall of the box.",
  clay: "It lies in its bed of clay.",
  rubber: "It lies in the rubber that is there.",
};
/** Less air than this is none, mL. */
const NONE_ML = 1e-3;

/** Where a stream goes in, by name: the lowest place, the middle, or along a side. */
function placesOf(ring: RoundAsked["ring"]): { value: string; label: string; atMm: RubberStand["atMm"] }[] {
  const at = (deg: number): [number, number] => {
    const [x, y] = endOf(ring, [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)]);
    return [Math.round(10 * BESIDE_WALL * x) / 10, Math.round(10 * BESIDE_WALL * y) / 10];
  };
  return [
    { value: "low", label: "In its lowest place", atMm: null },
    { value: "middle", label: "Over the middle", atMm: [0, 0] },
    ...TOWARDS.map((t) => ({ value: String(t.deg), label: `At its ${t.name}`, atMm: at(t.deg) })),
  ];
}

/** How the box of one pour is held and where it is poured in: chosen, or proposed by the air that stays. */
export function HowHeld({ run, corners, worker: { ask, stop } }: { run: RubberRun; corners: Float32Array | null; worker: ReturnType<typeof useModelWorker> }) {
  const { edit } = useJob();
  const { fmt } = useUnits();
  const going = useGoing();
  const [ways, setWays] = useState<readonly RubberWay[] | null>(null);
  const { stand, pour } = run;
  const part = pour.part as RubberStand["part"];
  const hold = (change: Partial<Omit<RubberStand, "part">>, onHead?: boolean) =>
    edit((j) => ({ ...j, mould: { ...j.mould, stands: withStand(j.mould.stands, part, change), ...(onHead === undefined ? {} : { onHead }) } }));
  const look = async () => {
    if (!corners) return;
    const tell = going.begin("Wedging it up on every side");
    const found = await ask((w) => w.rubberWays(corners, [run.room, ...(run.other ? [run.other] : [])], proxy(tell)));
    going.end();
    if (found) setWays(found);
  };
  const places = placesOf(run.room.ring);
  const place = places.find((p) => p.atMm?.join() === stand.atMm?.join());
  const { leant } = pour;
  const now = (w: RubberWay) =>
    w.onHead === pour.upsideDown && w.leanDeg === stand.leanDeg && (w.leanDeg === 0 || (w.towardsDeg === stand.towardsDeg && w.backPct === stand.backPct));
  const chosen = ways?.find(now);
  return (
    <section aria-label="How it is held" className="space-y-2">
      <p className="text-sm">
        <b>{HELD[run.heldBy]}</b>
        {leant && (
          <>
            {" "}
            Set it down level when the rubber stands <b className="figure">{fmt(leant.lowWallMm, "length")}</b> up the low wall.
          </>
        )}
      </p>
      {leant?.overPct != null && leant.overPct < stand.backPct && (
        <p className="fault">From {Math.floor(leant.overPct)} % on it would run over the low wall: set it down sooner, or lean it less.</p>
      )}
      <Running doing={going.doing} stop={stop} end={going.end} />
      {ways === null ? (
        !going.doing && (
          <button type="button" className="btn !min-h-9 !py-0" onClick={() => void look()}>
            Which way shuts in least air?
          </button>
        )
      ) : (
        <ul className="flex flex-wrap gap-1.5" aria-label="Ways to hold it">
          {ways.map((w) => (
            <li key={`${w.onHead} ${w.leanDeg} ${w.towardsDeg}`}>
              <button
                type="button"
                className="chip text-left"
                aria-pressed={now(w)}
                onClick={() =>
                  hold({ leanDeg: w.leanDeg, towardsDeg: w.towardsDeg, ...(w.leanDeg > 0 ? { backPct: w.backPct } : {}) }, run.other ? w.onHead : undefined)
                }
              >
                {run.other ? (w.onHead ? "on its head, " : "upright, ") : ""}
                {w.leanDeg === 0 ? "level" : `${w.leanDeg}°, ${towardsName(w.towardsDeg)} low to ${w.backPct} %`}:{" "}
                {w.airMl < NONE_ML ? "no air" : fmt(w.airMl, "volume")}
              </button>
            </li>
          ))}
        </ul>
      )}
      {chosen && ways && <p className="text-sm">{wayReasons(chosen, ways).join(" ")}</p>}
      {run.other && (
        <Tick checked={pour.upsideDown} onChange={(onHead) => hold({}, onHead)}>
          The master on its head
        </Tick>
      )}
      <Drag
        label="Wedged up"
        shown={stand.leanDeg === 0 ? "level" : `${Math.round(stand.leanDeg)}°`}
        value={stand.leanDeg}
        min={0}
        max={MOST_LEANT_DEG}
        step={5}
        onChange={(leanDeg) => hold({ leanDeg })}
      />
      {stand.leanDeg > 0 && (
        <div className="grid grid-cols-2 gap-2">
          <Pick
            label="Lies low"
            must
            value={String((Math.round(stand.towardsDeg / 45) % 8) * 45)}
            options={TOWARDS.map((t) => ({ value: String(t.deg), label: t.name }))}
            onChange={(v) => v && hold({ towardsDeg: Number(v) })}
          />
          <Drag
            label="Set down at"
            shown={`${Math.round(stand.backPct)} %`}
            value={stand.backPct}
            min={5}
            max={95}
            step={5}
            onChange={(backPct) => hold({ backPct })}
          />
        </div>
      )}
      <Pick
        label="Poured in"
        must
        value={place?.value ?? "own"}
        options={[...places, ...(place ? [] : [{ value: "own", label: "Where it was dragged to" }])].map(({ value, label }) => ({ value, label }))}
        onChange={(v) => {
          const to = places.find((p) => p.value === v);
          if (to) hold({ atMm: to.atMm });
        }}
      />
    </section>
  );
}
