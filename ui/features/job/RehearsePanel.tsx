"use client";

import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { z } from "zod";
import { CAST_FAMILY } from "@/core/material";
import type { PlannedGates } from "@/core/plan";
import {
  begin,
  fillingAt,
  inflow,
  judged,
  oneChange,
  poured,
  roomOf,
  step,
  tickOf,
  TICKS,
  type Flaw,
  type Judged,
  type Network,
  type OneChange,
  type Setup,
  type State,
} from "@/core/rehearsal";
import { useModelWorker } from "../../data/useModelWorker";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { Drag } from "../../kit/Drag";
import { useDark } from "../../kit/theme";
import { useUnits } from "../../kit/units";
import { steadySolid } from "../../stage/round/solid";
import { useJob } from "./JobContext";

/** What a person sets for a rehearsal. */
interface Cuts {
  chokeMm: number;
  vents: number;
  ventMm: number;
  handMlS: number;
  pourC: number;
}
type Exercise = "proposed" | "small" | "slow" | "novents" | "cold" | "narrow";
/** From easy to hard: those a cold pot makes hard only where something freezes. */
const EXERCISES: readonly { value: Exercise; label: string; freezes?: true }[] = [
  { value: "proposed", label: "As proposed" },
  { value: "small", label: "A pot that just does" },
  { value: "slow", label: "A slow hand" },
  { value: "novents", label: "Without vents" },
  { value: "cold", label: "Nearly cold", freezes: true },
  { value: "narrow", label: "A narrow sprue" },
];
/** A pot nearly cold is so much above where it freezes, °C. */
const NEARLY_C = 12;
/** A pour that would take longer than this is shown faster, s. */
const SHOWN_S = 14;

const Best = z.object({ score: z.number(), seconds: z.number() });

/** A pour seen before anything is melted: the hand pours, the section fills, and what comes out is judged like a casting. */
export function RehearsePanel({ gates, onClose }: { gates: PlannedGates; onClose: () => void }) {
  const { id, job, plan } = useJob();
  const { fmt } = useUnits();
  const { ask, fault } = useModelWorker();
  const [network, setNetwork] = useState<Network | null>(null);
  const { sizes, question: q } = gates;
  const proposed = useMemo<Cuts>(() => {
    const flow = sizes.choke.flowMlS;
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
  const vented = cuts.vents > 0;
  useEffect(() => {
    if (!corners) return;
    let mine = true;
    void (async () => {
      const n = await ask((w) => w.network(corners, filling?.up ?? [0, 0, 1], filling?.sprueMm ?? null, vented ? (filling?.ventsMm ?? []) : [], q.volumeMl));
      if (mine && n) setNetwork(n);
    })();
    return () => {
      mine = false;
    };
  }, [corners, filling, vented, q.volumeMl, ask]);
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
        {network ? (
          <Pour
            key={JSON.stringify([cuts, vented, exercise])}
            network={network}
            setup={setup}
            bestKey={`${id}:${exercise}`}
            most={{ chokeMm: sizes.choke.mostMm, pourC: plan.cast?.peakC.high ?? 0 }}
          />
        ) : (
          <p>Looking at its basins …</p>
        )}
        <div className="space-y-2">
          <Choice label="Begin with" value={exercise} options={EXERCISES.filter((e) => !e.freezes || q.freezing)} onChange={choose} />
          <Drag
            label="Sprue"
            shown={fmt(cuts.chokeMm, "length")}
            spoken={fmt(cuts.chokeMm, "length")}
            value={cuts.chokeMm}
            min={0.5}
            max={Math.max(6, 2 * sizes.choke.mostMm)}
            step={0.5}
            onChange={(chokeMm) => change({ chokeMm })}
          />
          <Drag
            label="Vents"
            shown={String(cuts.vents)}
            spoken={String(cuts.vents)}
            value={cuts.vents}
            min={0}
            max={12}
            step={1}
            onChange={(vents) => change({ vents })}
          />
          {cuts.vents > 0 && (
            <Drag
              label="Each"
              shown={fmt(cuts.ventMm, "length")}
              spoken={fmt(cuts.ventMm, "length")}
              value={cuts.ventMm}
              min={0.2}
              max={12}
              step={0.1}
              onChange={(ventMm) => change({ ventMm })}
            />
          )}
          <Drag
            label="Your hand pours, a second"
            shown={fmt(cuts.handMlS, "volume")}
            spoken={fmt(cuts.handMlS, "volume")}
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
              spoken={fmt(cuts.pourC, "temperature")}
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

interface Ended {
  judged: Judged;
  change: OneChange | null;
}

function Pour({ network, setup, bestKey, most }: { network: Network; setup: Setup; bestKey: string; most: { chokeMm: number; pourC: number } }) {
  const { fmt } = useUnits();
  const canvas = useRef<HTMLCanvasElement>(null);
  const dark = useDark();
  const live = useRef<{ st: State; hand: { tick: number; pouring: boolean }[]; pouring: boolean; idle: number } | null>(null);
  const [told, setTold] = useState({ filled: 0, seconds: 0 });
  const [ended, setEnded] = useState<Ended | null>(null);
  const [back, setBack] = useState<number | null>(null);
  const looked = useRef<State | null>(null);
  const [hint, setHint] = useState<OneChange | "hold" | null>(null);
  const [best, setBest] = useState(() => readBest(bestKey));
  // Slow mixes are shown faster, at a round pace.
  const pace = useMemo(() => {
    const s = roomOf(network) / Math.max(1e-6, Math.min(inflow(setup, setup.funnelMl), setup.handMlS));
    return s <= SHOWN_S ? 1 : Math.ceil(s / SHOWN_S);
  }, [network, setup]);

  const finish = useCallback(
    (st: State, hand: readonly { tick: number; pouring: boolean }[]) => {
      const j = judged(network, st);
      setEnded({ judged: j, change: j.good ? null : oneChange(network, setup, hand, most) });
      setBest((b) => {
        const now = !b || j.score > b.score ? { score: j.score, seconds: j.seconds } : b;
        writeBest(bestKey, now);
        return now;
      });
    },
    [network, setup, most, bestKey],
  );

  useEffect(() => {
    let frame = 0;
    let before: number | null = null;
    let owed = 0;
    const draw = (now: number) => {
      const l = live.current;
      if (l && !l.st.ended) {
        owed += before === null ? 0 : Math.min(0.1, (now - before) / 1000) * pace * TICKS;
        for (; owed >= 1 && !l.st.ended; owed--) {
          step(network, setup, l.st, l.pouring);
          l.idle = l.pouring || l.st.funnelMl > 1e-9 ? 0 : l.idle + 1;
        }
        setTold({ filled: l.st.filledMl, seconds: l.st.tick / TICKS });
        if (l.st.ended) finish(l.st, l.hand);
      }
      before = now;
      if (canvas.current) paint(canvas.current, network, looked.current ?? l?.st ?? null, setup, dark);
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [network, setup, pace, dark, finish]);

  // The same hand again up to a tick: the same picture, on any machine.
  const lookBack = (tick: number | null) => {
    const l = live.current;
    looked.current = tick === null || !l ? null : poured(network, setup, l.hand, (st) => st.tick >= tick);
    setBack(tick);
  };
  const advise = () => {
    const steady = [{ tick: 0, pouring: true }];
    const good = judged(network, poured(network, setup, steady)).good;
    setHint(good ? "hold" : (oneChange(network, setup, steady, most) ?? "hold"));
  };
  const hold = (pouring: boolean) => {
    if (pouring && (!live.current || live.current.st.ended)) {
      live.current = { st: begin(network, setup), hand: [], pouring: false, idle: 0 };
      setEnded(null);
      lookBack(null);
    }
    const l = live.current;
    if (!l || l.pouring === pouring) return;
    l.pouring = pouring;
    l.hand.push({ tick: l.st.tick, pouring });
  };
  const stop = () => {
    const l = live.current;
    if (!l || l.st.ended) return;
    hold(false);
    l.st.ended = "out";
    l.st.endedTick = l.st.tick;
    finish(l.st, l.hand);
  };
  const keys = (down: boolean) => (e: KeyboardEvent) => {
    if (e.key !== " " && e.key !== "Enter") return;
    e.preventDefault();
    if (!e.repeat) hold(down);
  };
  const file = () =>
    URL.createObjectURL(
      new Blob([JSON.stringify({ kind: "rehearsal", setup, hand: live.current?.hand ?? [], result: ended?.judged ?? null }, null, 1)], {
        type: "application/json",
      }),
    );
  return (
    <div className="space-y-2">
      <canvas
        ref={canvas}
        width={720}
        height={560}
        className="w-full rounded-lg bg-paper"
        role="img"
        aria-label={`The mould in section, ${fmt(told.filled, "volume")} of ${fmt(roomOf(network), "volume")} in it`}
      />
      <p className="flex items-baseline justify-between gap-3">
        <span className="figure text-3xl">{fmt(told.filled, "volume")}</span>
        <span className="text-sm">
          of {fmt(roomOf(network), "volume")}, after {fmt(told.seconds / 3600, "duration")}
          {pace > 1 ? `, shown ${pace} times as fast` : ""}
        </span>
      </p>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-main min-w-40 touch-none select-none justify-center"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            hold(true);
          }}
          onPointerUp={() => hold(false)}
          onPointerCancel={() => hold(false)}
          onKeyDown={keys(true)}
          onKeyUp={keys(false)}
          onBlur={() => hold(false)}
        >
          Hold to pour
        </button>
        <button type="button" className="btn" onClick={stop}>
          Put the pot down
        </button>
        <button type="button" className="btn btn-bare" onClick={advise}>
          A hint
        </button>
      </div>
      <div role="status" className="min-h-16 space-y-1 text-sm">
        {hint !== null && !ended && (
          <p className="font-semibold">
            {hint === "hold" ? "Keep the funnel full from the first drop to the last: hold on, and do not stop." : changeWords(hint, fmt)}
          </p>
        )}
        {ended && (
          <>
            <p className="text-base">
              <b>{ended.judged.good ? "A good casting." : "Not a good casting."}</b> {ended.judged.score} of 100.
            </p>
            {ended.judged.flaws.map((f, i) => (
              <p key={i}>
                {flawWords(f, fmt)}{" "}
                <button type="button" className="btn !min-h-9 !py-0" onClick={() => lookBack(tickOf(network, setup, live.current?.hand ?? [], f))}>
                  Show me
                </button>
              </p>
            ))}
            <Drag
              label="Look back"
              shown={back === null ? "as it ended" : fmt(back / TICKS / 3600, "duration")}
              spoken={back === null ? "as it ended" : fmt(back / TICKS / 3600, "duration")}
              value={back ?? Math.round(ended.judged.seconds * TICKS)}
              min={0}
              max={Math.max(1, Math.round(ended.judged.seconds * TICKS))}
              step={Math.max(1, Math.round(ended.judged.seconds))}
              onChange={lookBack}
            />
            {ended.change && <p className="font-semibold">{changeWords(ended.change, fmt)}</p>}
            <a className="underline" href={file()} download="rehearsal.json">
              Keep this pour as a file
            </a>
          </>
        )}
        {best && (
          <p className="hint">
            Best so far at this: {best.score} of 100, in {fmt(best.seconds / 3600, "duration")}.
          </p>
        )}
      </div>
    </div>
  );
}

type Fmt = ReturnType<typeof useUnits>["fmt"];
const seconds = (tick: number, fmt: Fmt) => fmt(tick / TICKS / 3600, "duration");

function flawWords(f: Flaw, fmt: Fmt): string {
  switch (f.kind) {
    case "short":
      return `${fmt(f.missingMl, "volume")} is missing: ${{ frozen: "it froze", thick: "it thickened", skin: "its own skin held it at the sprue", out: "nothing more came" }[f.why]} after ${seconds(f.tick, fmt)}.`;
    case "void":
      return `A void of ${fmt(f.volumeMl, "volume")} at ${fmt(f.topMm, "length")}: the rising level shut it at ${fmt(f.spillMm, "length")}. A vent there lets it out.`;
    case "gulp":
      return `The funnel ran dry after ${seconds(f.tick, fmt)}: air went in with the next pour, and the front stood still.`;
    case "spilt":
      return `${fmt(f.ml, "volume")} ran over the funnel's rim: a slower hand, or a wider sprue.`;
  }
}

function changeWords(c: OneChange, fmt: Fmt): string {
  const then = c.good ? "the same hand makes it good" : `the same hand gets ${fmt(c.filledMl, "volume")} in`;
  switch (c.change) {
    case "choke":
      return `With the sprue opened to ${fmt(c.to, "length")} ${then}.`;
    case "vent":
      return `With ${c.to} ${c.to === 1 ? "vent" : "vents"} ${then}.`;
    case "warmer":
      return `Poured at ${fmt(c.to, "temperature")} ${then}.`;
    case "hand":
      return `Poured without a stop ${c.good ? "it is good" : `${fmt(c.filledMl, "volume")} gets in`}.`;
  }
}

const HUES = {
  light: { rubber: "#cfe3df", room: "#fffaf0", melt: "#8a6fae", air: "#a0211b", ink: "#2b2418", funnel: "#f4b400" },
  dark: { rubber: "#2f4a48", room: "#1d1a14", melt: "#c8adee", air: "#ff9389", ink: "#f3ead7", funnel: "#f4b400" },
};

/** The section: room, what has filled it, what air is shut in, the funnel and what stands in it. */
function paint(c: HTMLCanvasElement, n: Network, st: State | null, setup: Setup, dark: boolean): void {
  const ink = c.getContext("2d");
  if (!ink) return;
  const hue = HUES[dark ? "dark" : "light"];
  const left = Math.min(...n.bars.map((b) => b.xMm));
  const wide = Math.max(...n.bars.map((b) => b.xMm)) + n.barMm - left;
  const funnelMm = Math.max(0.18 * n.highMm, 8);
  const by = Math.min((c.width * 0.8) / wide, (c.height * 0.92) / (n.highMm + funnelMm * 1.8));
  const x0 = (c.width - wide * by) / 2 - left * by;
  const floor = c.height * 0.96;
  const y = (z: number) => floor - z * by;
  ink.fillStyle = hue.rubber;
  ink.fillRect(x0 + left * by - 0.08 * c.width, y(n.highMm + funnelMm * 0.8), wide * by + 0.16 * c.width, (n.highMm + funnelMm * 0.8) * by + 0.03 * c.height);
  const at = st ? fillingAt(n, st.filledMl) : null;
  const full = new Set(at ? n.order.slice(0, at.index) : []);
  // On whole points of the picture, so that neighbours meet without a line.
  const column = (xMm: number, from: number, to: number, fill: string) => {
    if (to <= from) return;
    ink.fillStyle = fill;
    const [px, right] = [Math.round(x0 + xMm * by), Math.round(x0 + (xMm + n.barMm) * by)];
    const [py, low] = [Math.round(y(to)), Math.round(y(from))];
    ink.fillRect(px, py, right - px, low - py);
  };
  for (const b of n.bars) {
    column(b.xMm, b.fromMm, b.toMm, hue.room);
    let from = b.fromMm;
    for (const part of b.basins) {
      const top = Math.min(part.toMm, b.airFromMm);
      if (full.has(part.basin)) column(b.xMm, from, top, hue.melt);
      else if (at?.basin === part.basin) column(b.xMm, from, Math.min(top, at.levelMm), hue.melt);
      from = part.toMm;
    }
    // Air that is shut off by now.
    if (b.airFromMm < b.toMm && (st?.ended || (at && at.levelMm >= b.airFromMm - 1e-6))) column(b.xMm, b.airFromMm, b.toMm, hue.air);
  }
  // Vents, up to the funnel's rim; the sprue and its funnel.
  const rim = n.highMm + funnelMm * 1.6;
  ink.fillStyle = hue.room;
  for (const v of n.ventXsMm) ink.fillRect(x0 + v * by, y(rim), Math.max(2, setup.vents.diameterMm * by), (rim - n.highMm) * by);
  const sx = x0 + (n.sprueXMm + n.barMm / 2) * by;
  const choke = Math.max(3, setup.chokeMm * by);
  const foot = n.highMm + funnelMm * 0.5;
  const mouth = choke * 3 + 16;
  ink.fillRect(sx - choke / 2, y(foot), choke, (foot - n.highMm) * by + 2);
  const cone = (share: number, fill: string) => {
    const half = choke / 2 + ((mouth - choke) / 2) * share;
    ink.fillStyle = fill;
    ink.beginPath();
    ink.moveTo(sx - choke / 2, y(foot));
    ink.lineTo(sx + choke / 2, y(foot));
    ink.lineTo(sx + half, y(foot + (rim - foot) * share));
    ink.lineTo(sx - half, y(foot + (rim - foot) * share));
    ink.fill();
  };
  cone(1, hue.room);
  if (st && st.funnelMl > 0) {
    cone(Math.cbrt(Math.min(1, st.funnelMl / setup.funnelMl)), hue.melt);
    ink.fillStyle = hue.melt;
    ink.fillRect(sx - choke / 2, y(foot), choke, (foot - n.highMm) * by + 2);
  }
}

const key = (jobId: string) => `rehearsal:${jobId}`;
function readBest(jobId: string): z.infer<typeof Best> | null {
  try {
    const read = Best.safeParse(JSON.parse(localStorage.getItem(key(jobId)) ?? "null"));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
function writeBest(jobId: string, best: z.infer<typeof Best>): void {
  try {
    localStorage.setItem(key(jobId), JSON.stringify(best));
  } catch {
    // A browser that keeps nothing keeps no best either.
  }
}
