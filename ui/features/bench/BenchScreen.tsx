"use client";

import { CirclePlus, Scale, TimerReset } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import type { Plan, Step } from "@/core/plan";
import type { Opening } from "@/core/mould";
import { StepMark, stepName } from "../job/Route";
import type { Thumb } from "@/core/draw";
import type { Patch } from "@/core/log";
import { SceneThumb } from "../../stage/SceneThumb";
import type { ClockState } from "@/core/clock";
import { dueAt, isDeadline, isShut } from "@/core/clock/kinds";
import { useBenchClocks, useTicking } from "../clocks/BenchClocks";
import { ClockCard } from "../clocks/ClockCard";
import type { PlannedStretch } from "../clocks/River";
import { ShopPanel } from "../clocks/ShopPanel";
import { useQuery } from "@tanstack/react-query";
import type { BenchAct, BenchView } from "@/contract/bench";
import { read } from "../../data/read";
import { Fold } from "../../kit/Fold";
import { Caution } from "../../kit/controls";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { fromNow, When } from "../../kit/When";

const StartTimer = dynamic(() => import("../clocks/StartTimer").then((m) => m.StartTimer), { ssr: false });
// It is drawn once the page knows the time, so it may come after it.
const River = dynamic(() => import("../clocks/River").then((m) => m.River), { ssr: false, loading: () => <p className="card min-h-60 p-4 text-soft">…</p> });

export interface JobCard {
  id: string;
  name: string;
  updatedAt: number;
  opening: Opening;
  castName: string | null;
  rubberName: string | null;
  /** Null where its numbers cannot be worked out. */
  tally: Plan["tally"] | null;
  next: Step | null;
}

export interface BatchLine {
  id: string;
  jobName: string;
  what: string;
  material: string;
  startedAt: number;
}

const ACTS_EVERY_MS = 15_000;
/** Past this a clock that nobody acts on is no work of today. */
const LONG_MS = 3 * 24 * 3_600_000;

interface Wanted {
  act: BenchAct | null;
  clock: ClockState | null;
}

/** What wants hands, the soonest first: each job's next act with the clock it waits for, then every other clock; apart, what is over for days. */
function handsWanted(acts: readonly BenchAct[], running: readonly ClockState[], t: number): { shown: Wanted[]; long: ClockState[] } {
  const ofAct = (a: BenchAct) => running.find((c) => c.clock.pourId !== null && c.clock.pourId === a.pourId && isShut(c.clock.kind)) ?? null;
  const led = acts.map((act): Wanted => ({ act, clock: ofAct(act) }));
  const taken = new Set(led.map((x) => x.clock?.clock.id));
  const free = running.filter((c) => !taken.has(c.clock.id));
  const isLong = (c: ClockState) => dueAt(c) < t - LONG_MS;
  const at = ({ act, clock }: Wanted) => (clock ? dueAt(clock) : (act?.fromAt ?? 0));
  const shown = [...led, ...free.filter((c) => !isLong(c)).map((clock): Wanted => ({ act: null, clock }))].sort((a, b) => at(a) - at(b));
  return { shown, long: free.filter(isLong) };
}

/** What runs, what wants hands in the next two days, what is on the bench, and the jobs in hand. */
export function BenchScreen({
  jobs,
  totalJobs,
  initial,
  patches,
  batches,
  planned,
  acts: firstActs,
  aside,
  thumbs,
  unread,
  damage,
}: {
  jobs: readonly JobCard[];
  totalJobs: number;
  initial: BenchView;
  patches: readonly Patch[];
  batches: readonly BatchLine[];
  planned: readonly PlannedStretch[];
  /** What wants hands at each job next. */
  acts: readonly BenchAct[];
  /** Another workshop was put aside and is kept. */
  aside: boolean;
  /** The section of each job, by its id; none where nothing is measured yet. */
  thumbs: Readonly<Record<string, Thumb>>;
  /** Stored entries that could not be read and are left out of what is shown. */
  unread: number;
  /** What the last look at the file found; null while it is sound. */
  damage: string | null;
}) {
  const { wall } = useUnits();
  const now = useTicking(1000);
  const bench = useBenchClocks().bench ?? initial;
  const { data: acts } = useQuery({
    queryKey: ["acts"],
    queryFn: () => read("clocks", "acts", {}),
    initialData: [...firstActs],
    refetchInterval: ACTS_EVERY_MS,
  });
  const thumbOf = (jobId: string | null): Thumb | null => (jobId === null ? null : (thumbs[jobId] ?? null));
  const [starting, setStarting] = useState(false);
  const running = bench.clocks.filter((c) => c.clock.endedAt === null).sort((a, b) => dueAt(a) - dueAt(b));
  const ended = bench.clocks.filter((c) => c.clock.endedAt !== null);
  const t = now ?? initial.now;
  const { shown, long } = handsWanted(acts, running, t);
  const nameOf = (c: ClockState) => {
    const led = shown.find((x) => x.clock === c)?.act;
    return led ? `${led.jobName}: ${led.name.charAt(0).toLowerCase()}${led.name.slice(1)}` : c.clock.label;
  };
  const due = running.filter((c) => dueAt(c) <= t);
  const next = running.find((c) => dueAt(c) > t);
  const urgent = running.find((c) => isDeadline(c.clock.kind));
  return (
    <div className="space-y-6 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl font-bold sm:text-4xl">
            {urgent
              ? dueAt(urgent) <= t
                ? "Pour now"
                : `Pour ${fromNow(dueAt(urgent), t)} at the latest`
              : due.length > 0
                ? due.length === 1
                  ? "1 is ready"
                  : `${due.length} are ready`
                : next
                  ? `Next ${fromNow(dueAt(next), t)}`
                  : "Nothing is running"}
          </h1>
          <p className="mt-1 text-soft">
            {urgent
              ? urgent.clock.label
              : next && now !== null
                ? `${nameOf(next)}, about ${wall(dueAt(next), t)}`
                : due.length > 0
                  ? "See to them, and write down how they came out."
                  : "Weigh something in, and its clocks appear here."}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <button type="button" className="btn text-lg" onClick={() => setStarting(true)}>
            <TimerReset size={22} aria-hidden="true" /> Set a timer
          </button>
          <Link href="/start" className="btn btn-main text-lg">
            <CirclePlus size={22} aria-hidden="true" /> Start a job
          </Link>
        </div>
      </div>

      {damage !== null && (
        <Caution>
          The workshop’s file is damaged ({damage}): what is written now may be lost.{" "}
          <Link href="/settings#copies" className="underline">
            Open the newest copy that is sound
          </Link>
          , and have the disk looked at.
        </Caution>
      )}
      {unread > 0 && (
        <Caution>
          {unread === 1 ? "One stored entry" : `${unread} stored entries`} cannot be read and {unread === 1 ? "is" : "are"} left out here.{" "}
          <Link href="/settings#odd" className="underline">
            See which, and take {unread === 1 ? "it" : "them"} out as {unread === 1 ? "a file" : "files"}
          </Link>
        </Caution>
      )}
      {batches.length > 0 && (
        <section aria-label="On the bench" className="flex flex-wrap gap-2">
          {batches.map((b) => (
            <Link key={b.id} href={`/weigh/${b.id}`} className="btn btn-main text-lg">
              <Scale size={22} aria-hidden="true" /> Weigh on: {b.what}, {b.jobName}
            </Link>
          ))}
        </section>
      )}

      <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="min-w-0 space-y-4">
          {shown.length + ended.length + long.length + patches.length > 0 && (
            <section aria-labelledby="curing" className="space-y-2">
              <h2 id="curing" className="text-xl font-bold">
                What wants hands
              </h2>
              <ul className="grid grid-cols-1 gap-3 sm:grid-cols-2">
                {shown.map(({ act, clock }) => (
                  <li key={clock?.clock.id ?? act?.jobId}>
                    {clock ? (
                      <ClockCard state={clock} now={now} act={act} thumb={thumbOf(clock.clock.jobId)} />
                    ) : (
                      act && <ActCard act={act} now={now} thumb={thumbOf(act.jobId)} />
                    )}
                  </li>
                ))}
                {ended.map((c) => (
                  <li key={c.clock.id}>
                    <ClockCard state={c} now={now} thumb={thumbOf(c.clock.jobId)} />
                  </li>
                ))}
                {patches.map((p) => (
                  <li key={p.id}>
                    <Link href={`/patch/${p.id}`} className="card block h-full p-4 hover:bg-peel/40">
                      <span className="flex items-baseline justify-between gap-3">
                        <span className="min-w-0 truncate font-semibold">Patch test</span>
                        <span className="shrink-0 text-sm text-untested">patch</span>
                      </span>
                      <span className="figure block text-4xl leading-tight">
                        {now === null ? "…" : now >= p.readyAt ? "Judge it" : fromNow(p.readyAt, now)}
                      </span>
                      <span className="block text-sm text-soft">
                        {p.between[1]} on {p.between[0]}, <When at={p.readyAt} />
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
              {long.length > 0 && (
                <Fold title={`Over for days, and nobody said so: ${long.length}`}>
                  <ul className="mt-1 grid grid-cols-1 gap-3 sm:grid-cols-2">
                    {long.map((c) => (
                      <li key={c.clock.id}>
                        <ClockCard state={c} now={now} thumb={thumbOf(c.clock.jobId)} />
                      </li>
                    ))}
                  </ul>
                </Fold>
              )}
            </section>
          )}
          <section aria-labelledby="river" className="space-y-2">
            <h2 id="river" className="text-xl font-bold">
              The next two days
            </h2>
            {now === null ? <p className="card min-h-60 p-4 text-soft">…</p> : <River bench={bench} now={now} planned={planned} />}
          </section>
        </div>
        <div className="space-y-4">
          <ShopPanel bench={bench} now={now} />
        </div>
      </div>

      <section aria-labelledby="jobs" className="space-y-2">
        <h2 id="jobs" className="text-xl font-bold">
          Jobs in hand
        </h2>
        {jobs.length === 0 ? (
          <div className="card space-y-3 p-8 text-center">
            <p className="text-lg">No job yet. Take the thing you want to copy, a ruler, and the nearest of twelve pictures.</p>
            <p className="text-soft">
              Three sizes give the rubber, the box, the casting mix and the times. The bench then weighs with you, runs the clocks and remembers what worked.
            </p>
            <Link href="/start" className="btn btn-main">
              Start a job
            </Link>
            {aside && (
              <p>
                <Link href="/settings#copies" className="underline">
                  Go back to the workshop that was put aside
                </Link>
              </p>
            )}
          </div>
        ) : (
          <ul className="grid grid-cols-1 gap-3 sm:grid-cols-2 xl:grid-cols-3">
            {jobs.map((j) => (
              <li key={j.id}>
                <JobTile job={j} thumb={thumbOf(j.id)} />
              </li>
            ))}
          </ul>
        )}
        {totalJobs > jobs.length && <p className="hint">{totalJobs - jobs.length} more: press Ctrl+K and type part of a name.</p>}
      </section>
      {starting && <StartTimer onClose={() => setStarting(false)} />}
    </div>
  );
}

/** An act that waits for no clock any more. */
function ActCard({ act, now, thumb }: { act: BenchAct; now: number | null; thumb: Thumb | null }) {
  const { wall } = useUnits();
  return (
    <article aria-label={`${act.name}, ${act.jobName}`} className="card flex h-full flex-col gap-1 !border-2 !border-ink !bg-peel p-4">
      <span className="flex items-start gap-3">
        {thumb && <SceneThumb thumb={thumb} width={72} height={48} />}
        <span className="min-w-0">
          <b className="block text-lg leading-tight">{act.name}</b>
          <Link href={`/jobs/${act.jobId}`} className="text-sm underline decoration-line">
            {act.jobName}
          </Link>
        </span>
      </span>
      <span className="figure block text-4xl leading-tight">
        {now === null ? "…" : act.fromAt !== null && act.fromAt > now ? fromNow(act.fromAt, now) : "Ready"}
      </span>
      <span className="text-sm text-soft">{now !== null && act.fromAt !== null && <>since {wall(act.fromAt, now)}</>}</span>
      <span className="mt-auto flex justify-end pt-1">
        <Link
          className="btn btn-main !min-h-11"
          href={act.does === "open" && act.pourId ? `/log/${act.pourId}` : `/jobs/${act.jobId}`}
          aria-label={`To it: ${act.name}, ${act.jobName}`}
        >
          {act.does === "open" ? "Open it" : "To it"}
        </Link>
      </span>
    </article>
  );
}

function JobTile({ job, thumb }: { job: JobCard; thumb: Thumb | null }) {
  const { fmt, say } = useUnits();
  return (
    <Link href={`/jobs/${job.id}`} className="card flex h-full flex-col gap-2 p-4 hover:bg-peel/40">
      <span className="flex items-start justify-between gap-3">
        {thumb && <SceneThumb thumb={thumb} />}
        <span className="min-w-0 flex-1 font-display text-lg font-bold leading-tight">{job.name}</span>
        {job.tally && <VerdictMark verdict={job.tally.verdict} className="shrink-0 text-sm" />}
      </span>
      <span className="text-sm text-soft">
        {job.castName ?? "Cast not chosen"} in {job.rubberName ?? "a rubber not chosen"}
      </span>
      {job.tally ? (
        <span className="grid grid-cols-2 gap-3">
          <span>
            <span className="block text-xs text-soft">Rubber to mix</span>
            <span className="figure text-xl">{fmt(job.tally.rubberG, "mass")}</span>
          </span>
          <span>
            <span className="block text-xs text-soft">Casting to mix</span>
            <span className="figure text-xl">{fmt(job.tally.castG, "mass")}</span>
          </span>
        </span>
      ) : (
        <span className="fault">Its numbers cannot be worked out: look through its sizes.</span>
      )}
      {job.next && (
        <span className="mt-auto flex items-start gap-2 border-t border-line pt-2 text-sm">
          <StepMark state={job.next.state} />
          <span className="min-w-0">
            <b>{stepName(job.next.id, job.opening)}:</b> {say(job.next.line)}
          </span>
        </span>
      )}
    </Link>
  );
}
