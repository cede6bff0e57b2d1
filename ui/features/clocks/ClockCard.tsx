"use client";

import Link from "next/link";
import { CLOCK_KINDS, dueAt, isDeadline, isShut } from "@/core/clock/kinds";
import type { ClockState } from "@/core/clock";
import { notice } from "../../kit/notice";
import type { BenchAct, ClockAct } from "@/contract/bench";
import { call } from "../../data/call";
import { useUnits } from "../../kit/units";
import { countdown } from "../weigh/countdown";
import { fromNow } from "../../kit/When";
import type { Thumb } from "@/core/draw";
import { SceneThumb } from "../../stage/SceneThumb";
import { useBenchClocks } from "./BenchClocks";

/** Past this a wait is read in hours, not on a stopwatch. */
const STOPWATCH_MS = 90 * 60_000;

/** Why a clock's end has moved, in words; null where it has not by more than a twentieth. */
export function whyMoved(c: ClockState, say: (s: string) => string, fmt: (v: number, d: "temperature" | "duration") => string): string | null {
  const span = c.clock.rule.hours.typical;
  if (c.clock.rule.kind === "fixed" || Math.abs(c.laterH) < Math.max(1 / 60, 0.05 * span)) return null;
  const how = `${fmt(Math.abs(c.laterH), "duration")} ${c.laterH > 0 ? "later" : "earlier"} than at the ${fmt(c.clock.plannedC, "temperature")} it was planned for`;
  return say(
    c.meanC === null ? `It ends ${how}.` : `The shop has been at ${fmt(c.meanC, "temperature")}${c.measured < 0.5 ? " by the forecast" : ""}: ${how}.`,
  );
}

/** One running clock, large enough to read across the shop; where it is what an act waits for, the act leads. */
export function ClockCard({
  state,
  now,
  act: next = null,
  thumb = null,
}: {
  state: ClockState;
  now: number | null;
  act?: BenchAct | null;
  /** The section of its job. */
  thumb?: Thumb | null;
}) {
  const { fmt, say, wall } = useUnits();
  const { refresh } = useBenchClocks();
  const at = dueAt(state);
  const { clock, phase } = state;
  const ended = phase === "ended";
  // Until the page knows the time, it goes by what the server said.
  const left = now === null ? (phase === "running" || phase === "soon" ? 1 : 0) : at - now;
  const act = async (body: ClockAct) => {
    const a = await call("clocks", "act", { params: { id: clock.id }, body });
    if (!a.ok) notice.bad(a.message);
    await refresh();
  };
  const moved = whyMoved(state, say, (v, d) => fmt(v, d));
  const big =
    now === null
      ? "…"
      : ended
        ? "Done"
        : left <= 0
          ? phase === "past"
            ? "Over"
            : state.closesAt
              ? "Now"
              : isDeadline(clock.kind)
                ? "Pour now"
                : "Ready"
          : left < STOPWATCH_MS
            ? countdown(left)
            : fromNow(at, now);
  return (
    <article
      aria-label={clock.label}
      className={`card flex h-full flex-col gap-1 p-4 ${ended ? "opacity-60" : phase === "past" ? "!border-2 !border-no" : left <= 0 ? "!border-2 !border-ink !bg-peel" : phase === "soon" ? "!border-2 !border-citrus" : ""}`}
    >
      <span className="flex items-start justify-between gap-3">
        {thumb && <SceneThumb thumb={thumb} width={72} height={48} />}
        {next ? (
          <span className="min-w-0 flex-1">
            <b className="block text-lg leading-tight">{next.name}</b>
            <Link href={`/jobs/${next.jobId}`} className="text-sm underline decoration-line">
              {next.jobName}
            </Link>
          </span>
        ) : clock.pourId ? (
          <Link href={`/log/${clock.pourId}`} className="line-clamp-2 min-w-0 flex-1 font-semibold underline decoration-line">
            {clock.label}
          </Link>
        ) : (
          <b className="line-clamp-2 min-w-0 flex-1">{clock.label}</b>
        )}
        <span className="shrink-0 text-sm text-soft">{CLOCK_KINDS[clock.kind].label.toLowerCase()}</span>
      </span>
      <span className="figure block text-4xl leading-tight" data-testid="clock-left">
        {big}
      </span>
      <span className="block text-sm text-soft">
        {now !== null && (
          <>
            {left <= 0 ? "since" : "about"} {wall(at, now)}
            {state.closesAt !== null && <>, until {wall(state.closesAt, now)}</>}
            {state.closesAt === null && !isDeadline(clock.kind) && clock.rule.hours.low !== clock.rule.hours.high && (
              <>
                {" "}
                ({wall(state.finish.lowAt, now).replace("today ", "")} to {wall(state.finish.highAt, now).replace("today ", "")})
              </>
            )}
          </>
        )}
      </span>
      <span className="mt-1 block h-2.5 overflow-hidden rounded-full bg-line" aria-hidden="true">
        <span className="block h-full bg-ink" style={{ width: `${(left <= 0 ? 1 : state.done) * 100}%` }} />
      </span>
      {moved && <span className="hint !text-care">{moved}</span>}
      {state.snoozedUntil !== null && now !== null && (
        <span className="hint">
          Quiet until {wall(state.snoozedUntil, now)}: {clock.snoozes.at(-1)?.reason.toLowerCase()}
        </span>
      )}
      <span className="mt-auto flex justify-end pt-1">
        {ended ? (
          <button type="button" className="btn btn-bare !min-h-11" onClick={() => void act({ do: "reopen" })}>
            Let it run on
          </button>
        ) : next?.does === "weigh" ? (
          <Link
            className={`btn !min-h-11 ${left <= 0 ? "btn-main" : "btn-bare"}`}
            href={`/jobs/${next.jobId}`}
            aria-label={`To it: ${next.name}, ${next.jobName}`}
          >
            To it
          </Link>
        ) : clock.pourId && isShut(clock.kind) && clock.closes === null ? (
          <Link className={`btn !min-h-11 ${next && left <= 0 ? "btn-main" : "btn-bare"}`} href={`/log/${clock.pourId}`}>
            Open it
          </Link>
        ) : (
          <button type="button" className="btn btn-bare !min-h-11" onClick={() => void act({ do: "end" })}>
            Put away
          </button>
        )}
      </span>
    </article>
  );
}
