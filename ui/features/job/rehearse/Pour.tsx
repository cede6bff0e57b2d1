"use client";

import dynamic from "next/dynamic";
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import {
  begin,
  entered,
  frozenVents,
  inflow,
  isShut,
  judged,
  oneChange,
  openness,
  poured,
  readRehearsal,
  rehearsalFile,
  roomOf,
  step,
  tickOf,
  TICKS,
  turn,
  type Held,
  type Judged,
  type Network,
  type OneChange,
  type Setup,
  type Skin,
  type State,
  type Turn,
} from "@/core/rehearsal";
import { Fault } from "../../../kit/controls";
import { Drag } from "../../../kit/Drag";
import { FilePick } from "../../../kit/FilePick";
import { useDark } from "../../../kit/theme";
import { useUnits } from "../../../kit/units";
import type { Moment } from "../../../stage/round/Filling";
import { readBest, writeBest } from "./best";
import { paint, pourHues, type Picture } from "./paint";
import { changeWords, flawWords } from "./words";

/** Fetched with the first pour: a page that only tells sizes does without. */
const Filling = dynamic(() => import("../../../stage/round/Filling").then((m) => m.Filling), { ssr: false });

/** A pour that would take longer than this is shown faster, s. */
const SHOWN_S = 14;
/** One of sixty frames a second, ms. */
const FRAME_MS = 1000 / 60;
/** The body is drawn in at least one frame of so many. */
const MOST_RESTS = 24;
/** As far as anybody leans a mould with a full funnel on it, degrees. */
const MOST_LEAN = 60;

interface Live {
  st: State;
  hand: { tick: number; pouring: boolean }[];
  /** How it was held, from the first on. */
  first: Network;
  turns: Turn[];
  held: Held[];
  pouring: boolean;
  /** Being turned: nothing runs until it is known how it stands then. */
  waits: boolean;
}

interface Ended {
  judged: Judged;
  change: OneChange | null;
}

/** The hand and the section: hold to pour, lean it, put the pot down; then look back at it. */
export function Pour({
  network,
  straight = network,
  setup: asked,
  of,
  bestKey,
  most,
  lean,
  mostLean = MOST_LEAN,
  onBest,
}: {
  /** As it is held before the first drop; and as it stands straight, where that is another. */
  network: Network;
  straight?: Network;
  setup: Setup;
  of: Picture["of"];
  bestKey: string;
  /** As far as the sprue may be opened and the pot heated; null where nothing of that can be changed. */
  most: { chokeMm: number; pourC: number } | null;
  /** The same mould held otherwise, by how it was held before; null for what stands on its board. */
  lean: ((leanDeg: number, before: readonly Held[], frozen: readonly number[]) => Promise<Network | null>) | null;
  /** As far as it is leant, degrees. */
  mostLean?: number;
  /** A pour has come to its end, and the best so far is kept. */
  onBest?: () => void;
}) {
  const { fmt } = useUnits();
  // A pour that was opened from a file is poured as it was; the next is this one's own again.
  const [opened, setOpened] = useState<Setup | null>(null);
  const setup = opened ?? asked;
  const [fault, setFault] = useState<string | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const round = useRef<((m: Moment) => void) | null>(null);
  const dark = useDark();
  const hues = useMemo(() => ({ ...pourHues(dark, of), way: "#f4b400" }), [dark, of]);
  const size = useMemo(() => network.skin && sizeOf(network.skin), [network.skin]);
  const live = useRef<Live | null>(null);
  const [told, setTold] = useState({ filled: 0, seconds: 0 });
  const [ended, setEnded] = useState<Ended | null>(null);
  const [back, setBack] = useState<number | null>(null);
  const looked = useRef<State | null>(null);
  const [hint, setHint] = useState<OneChange | "hold" | null>(null);
  const [best, setBest] = useState(() => readBest(bestKey));
  const [leanDeg, setLeanDeg] = useState(network.leanDeg);
  // How it stands before the first drop.
  const start = useRef(network);
  // Slow mixes are shown faster, at a round pace.
  const pace = useMemo(() => {
    const runs = setup.open ? setup.handMlS : Math.min(inflow(setup, setup.funnelMl), setup.handMlS);
    const s = network.cavityMl / Math.max(1e-6, runs);
    return s <= SHOWN_S ? 1 : Math.ceil(s / SHOWN_S);
  }, [network, setup]);

  const tell = useCallback(
    (l: Live, by: Setup) => {
      const j = judged(l.st);
      setEnded({ judged: j, change: j.good || !most ? null : oneChange(l.first, by, l.hand, most, l.turns) });
    },
    [most],
  );
  const finish = useCallback(
    (l: Live) => {
      tell(l, setup);
      const j = judged(l.st);
      const before = readBest(bestKey);
      const now = !before || j.score > before.score ? { score: j.score, seconds: j.seconds } : before;
      writeBest(bestKey, now);
      setBest(now);
      onBest?.();
    },
    [setup, tell, bestKey, onBest],
  );

  useEffect(() => {
    let frame = 0;
    let before: number | null = null;
    let owed = 0;
    let last: unknown[] = [];
    let [rests, every, usualMs] = [0, 0, FRAME_MS];
    const draw = (now: number) => {
      const l = live.current;
      if (l && !l.st.ended && !l.waits) {
        owed += before === null ? 0 : Math.min(0.1, (now - before) / 1000) * pace * TICKS;
        for (; owed >= 1 && !l.st.ended; owed--) step(setup, l.st, l.pouring);
        setTold({ filled: l.st.filledMl, seconds: l.st.tick / TICKS });
        if (l.st.ended) finish(l);
      }
      if (before !== null) usualMs += 0.15 * (Math.min(100, now - before) - usualMs);
      before = now;
      const st = looked.current ?? l?.st ?? null;
      const shown = st?.network ?? start.current;
      // What looks the same is not drawn again.
      const looks = [shown, st, st?.tick, st?.ended, round.current];
      if (looks.every((v, i) => v === last[i])) return void (frame = requestAnimationFrame(draw));
      // Without a graphics card the body costs several frames: then it is drawn in fewer of them, and the section in each.
      const due = --rests < 0 || (st?.ended ?? null) !== null || looked.current !== null;
      if (due) {
        every = usualMs > 1.25 * FRAME_MS ? Math.min(MOST_RESTS, 1.5 * every + 2) : Math.max(0, every - 1);
        rests = Math.round(every);
      }
      // The body has to come to where the section is, if only a little later.
      last = due ? looks : [];
      if (shown.skin && due)
        round.current?.({
          skin: shown.skin,
          leanDeg: shown.leanDeg,
          filledMl: st ? reached(st.filledMl - shown.heldMl) : 0,
          grown: st ? shown.basins.map((_, b) => 1 - openness(shown, setup, st, b)) : [],
          over: st !== null && (st.ended !== null || shown.heldMl > 0 || shown.shut.some((p) => isShut(shown, p, st.filledMl))),
        });
      if (canvas.current) paint(canvas.current, { network: shown, straight, st, setup, dark, of });
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [straight, setup, pace, dark, finish, of]);

  const byKey = useRef(false);
  // The newest wish counts: while one way of holding it is worked out, others may be asked for.
  const wanted = useRef<number | null>(null);
  const turning = useRef(false);
  const leanTo = async (deg: number) => {
    setLeanDeg(deg);
    wanted.current = deg;
    if (turning.current || !lean) return;
    turning.current = true;
    while (wanted.current !== null) {
      const to: number = wanted.current;
      wanted.current = null;
      const l = live.current;
      if (l) l.waits = true;
      // Before the first drop it stands otherwise from the start; after it, it is turned.
      if (!l || l.st.ended || l.st.tick === 0) {
        const n = await lean(to, [], []);
        if (!n) break;
        start.current = n;
        const begun = live.current;
        if (begun && !begun.st.ended && begun.st.tick === 0) {
          begun.first = n;
          begun.st = begin(n, asked);
        }
      } else {
        const now = { leanDeg: l.st.network.leanDeg, filledMl: l.st.filledMl, frozen: frozenVents(l.st) };
        const n = await lean(to, [...l.held, now], now.frozen);
        if (!n) break;
        turn(l.st, n);
        l.held.push(now);
        l.turns.push({ tick: l.st.tick, network: n });
        l.waits = wanted.current !== null;
      }
    }
    if (live.current) live.current.waits = false;
    turning.current = false;
  };

  // The same hand again up to a tick: the same picture, on any machine.
  const lookBack = (tick: number | null) => {
    const l = live.current;
    looked.current = tick === null || !l ? null : poured(l.first, setup, l.hand, { turns: l.turns, until: (st) => st.tick >= tick });
    setBack(tick);
  };
  const advise = () => {
    const steady = [{ tick: 0, pouring: true }];
    const good = !most || judged(poured(start.current, setup, steady)).good;
    setHint(good ? "hold" : (oneChange(start.current, setup, steady, most) ?? "hold"));
  };
  const hold = (pouring: boolean) => {
    if (pouring && (!live.current || live.current.st.ended)) {
      setOpened(null);
      const first = entered(start.current, 0);
      live.current = { st: begin(first, asked), hand: [], first, turns: [], held: [], pouring: false, waits: turning.current };
      setEnded(null);
      lookBack(null);
      // What it leaned at the end of the last pour is how it stands now.
      if (lean && leanDeg !== first.leanDeg) void leanTo(leanDeg);
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
    finish(l);
  };
  const keys = (down: boolean) => (e: KeyboardEvent) => {
    if (e.key !== " " && e.key !== "Enter") return;
    e.preventDefault();
    if (e.repeat) return;
    byKey.current = down;
    hold(down);
  };
  const file = () => {
    const l = live.current;
    const turns =
      l?.turns.map((t, i) => ({ tick: t.tick, leanDeg: t.network.leanDeg, filledMl: l.held[i]?.filledMl ?? 0, frozen: [...(l.held[i]?.frozen ?? [])] })) ?? [];
    const kept = rehearsalFile({ of, setup, leanDeg: l?.first.leanDeg ?? 0, hand: l?.hand ?? [], turns });
    return URL.createObjectURL(new Blob([JSON.stringify(kept, null, 1)], { type: "application/json" }));
  };
  const openFile = async (f: File) => {
    const read = readRehearsal(await f.text());
    if (!read.ok) return setFault(read.why);
    const { file: kept } = read;
    if (kept.of !== of || (!lean && kept.turns.length > 0))
      return setFault(`This pour is of ${kept.of === "rubber" ? "rubber round a master" : "a casting"}: open it there.`);
    setFault(null);
    const first = lean && kept.leanDeg !== network.leanDeg ? await lean(kept.leanDeg, [], []) : network;
    const held: Held[] = [];
    const turns: Turn[] = [];
    let leant = kept.leanDeg;
    for (const t of kept.turns) {
      held.push({ leanDeg: leant, filledMl: t.filledMl, frozen: t.frozen });
      const n = lean && (await lean(t.leanDeg, held, t.frozen));
      if (!n) return setFault("This pour could not be poured again here.");
      turns.push({ tick: t.tick, network: n });
      leant = t.leanDeg;
    }
    if (!first) return setFault("This pour could not be poured again here.");
    const l: Live = { st: poured(first, kept.setup, kept.hand, { turns }), hand: kept.hand, first, turns, held, pouring: false, waits: false };
    live.current = l;
    setOpened(kept.setup);
    setTold({ filled: l.st.filledMl, seconds: l.st.tick / TICKS });
    tell(l, kept.setup);
  };
  return (
    <div className="space-y-2">
      <div className="grid grid-cols-[minmax(0,2.2fr)_minmax(0,1fr)] gap-2">
        <canvas
          ref={canvas}
          width={720}
          height={520}
          className="w-full rounded-lg bg-paper"
          role="img"
          aria-label={`${of === "rubber" ? "The box" : "The mould"} in section, ${fmt(told.filled, "volume")} of ${fmt(roomOf(straight), "volume")} in it`}
        />
        {size && (
          <Filling
            {...size}
            hues={hues}
            label={of === "rubber" ? "The master in the round, as the rubber rises" : "The casting in the round, as it fills"}
            ways={of === "rubber" ? 0 : 0.25 * network.highMm + 8}
            show={round}
          />
        )}
      </div>
      <p className="flex items-baseline justify-between gap-3">
        <span className="figure whitespace-nowrap text-3xl">{fmt(told.filled, "volume")}</span>
        <span className="text-sm">
          of {fmt(roomOf(straight), "volume")}, after {fmt(told.seconds / 3600, "duration")}
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
          // A finger that holds it goes on pouring while another leans the mould; a key that is let go elsewhere is not heard.
          onBlur={() => byKey.current && hold(false)}
        >
          Hold to pour
        </button>
        <button type="button" className="btn" onClick={stop}>
          Put the pot down
        </button>
        {most && (
          <button type="button" className="btn btn-bare" onClick={advise}>
            A hint
          </button>
        )}
      </div>
      {lean && (
        <Drag
          label={of === "rubber" ? "Lean the box" : "Lean it, to the left or right"}
          shown={leanDeg === 0 ? "straight" : `${Math.abs(leanDeg)}° ${leanDeg < 0 ? "left" : "right"}`}
          spoken={leanDeg === 0 ? "straight" : `${Math.abs(leanDeg)} degrees to the ${leanDeg < 0 ? "left" : "right"}`}
          value={leanDeg}
          min={-mostLean}
          max={mostLean}
          step={5}
          onChange={(deg) => void leanTo(deg)}
        />
      )}
      <div role="status" className="min-h-16 space-y-1 text-sm">
        {hint !== null && !ended && (
          <p className="font-semibold">
            {hint === "hold" ? "Keep the funnel full from the first drop to the last: hold on, and do not stop." : changeWords(hint, fmt)}
          </p>
        )}
        {ended && (
          <>
            <p className="text-base">
              <b>{ended.judged.good ? `A good ${THING[of]}.` : `Not a good ${THING[of]}.`}</b> {ended.judged.score} of 100.
            </p>
            {ended.judged.flaws.map((f, i) => (
              <p key={i}>
                {flawWords(f, of, fmt)}{" "}
                <button
                  type="button"
                  className="btn !min-h-9 !py-0"
                  onClick={() => live.current && lookBack(tickOf(live.current.first, setup, live.current.hand, f, live.current.turns))}
                >
                  Show me
                </button>
              </p>
            ))}
            <Drag
              label="Look back"
              shown={back === null ? "as it ended" : fmt(back / TICKS / 3600, "duration")}
              value={back ?? Math.round(ended.judged.seconds * TICKS)}
              min={0}
              max={Math.max(1, Math.round(ended.judged.seconds * TICKS))}
              step={Math.max(1, Math.round(ended.judged.seconds))}
              onChange={lookBack}
            />
            {ended.change && <p className="font-semibold">{changeWords(ended.change, fmt)}</p>}
            {opened && <p>As it was kept in the file, with its own cuts.</p>}
            <a className="mr-4 inline-flex min-h-11 items-center underline" href={file()} download="rehearsal.json">
              Keep this pour as a file
            </a>
          </>
        )}
        <FilePick accept="application/json,.json" className="inline-flex min-h-11 items-center underline" onFile={(f) => void openFile(f)}>
          Open a pour from a file
        </FilePick>
        <Fault>{fault}</Fault>
        {best && (
          <p className="hint">
            Best so far at this: {best.score} of 100, in {fmt(best.seconds / 3600, "duration")}.
          </p>
        )}
      </div>
    </div>
  );
}

/** What is exactly full is under, to the last figure. */
const reached = (ml: number): number => (ml > 0 ? ml * (1 + 1e-4) + 1e-6 : ml);

/** How large a surface is and where its middle height is, mm: what it is looked at from. */
function sizeOf({ places }: Skin): { sizeMm: number; middleMm: number } {
  let [wide, low, high] = [1, Infinity, -Infinity];
  places.forEach((v, i) => {
    if (i % 3 < 2) wide = Math.max(wide, 2 * Math.abs(v));
    else [low, high] = [Math.min(low, v), Math.max(high, v)];
  });
  return { sizeMm: Math.min(1e5, Math.max(wide, high - low)), middleMm: (low + high) / 2 };
}

const THING = { cast: "casting", rubber: "pour of rubber" };
