"use client";

import { CirclePlus } from "lucide-react";
import Link from "next/link";
import { useState } from "react";
import type { Plan, Step } from "@/core/plan";
import type { Opening } from "@/core/mould";
import { StepMark, stepName } from "../job/Route";
import { NewJobDialog } from "../newJob";
import type { PatchView } from "../patch/PatchScreen";
import type { PourView } from "../types";
import { useUnits } from "../units";
import { VerdictMark } from "../VerdictMark";
import { fromNow, useNow, When } from "../When";

export interface JobCard {
  id: string;
  name: string;
  updatedAt: number;
  opening: Opening;
  castName: string | null;
  rubberName: string | null;
  tally: Plan["tally"];
  next: Step | null;
}

/** What is curing, what comes next and when, and the jobs in hand. */
export function BenchScreen({
  jobs,
  totalJobs,
  curing,
  patches,
}: {
  jobs: readonly JobCard[];
  totalJobs: number;
  curing: readonly PourView[];
  patches: readonly PatchView[];
}) {
  const now = useNow();
  const [starting, setStarting] = useState(false);
  const due = curing.filter((p) => now !== null && p.readyAt <= now);
  const waiting = curing.filter((p) => now === null || p.readyAt > now);
  const next = waiting[0];
  return (
    <div className="space-y-6 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl font-bold sm:text-4xl">
            {due.length > 0
              ? `${due.length} ready to open`
              : next && now !== null
                ? `Next opens ${fromNow(next.readyAt, now)}`
                : curing.length > 0
                  ? "Curing"
                  : "Nothing is curing"}
          </h1>
          <p className="mt-1 text-soft">
            {next ? (
              <>
                {next.snapshot.jobName}: {next.snapshot.what.toLowerCase()}, about <When at={next.readyAt} />
              </>
            ) : due.length > 0 ? (
              "Open them, and write down how they came out."
            ) : (
              "Pour something, and its clock appears here."
            )}
          </p>
        </div>
        <button type="button" className="btn btn-main text-lg" onClick={() => setStarting(true)}>
          <CirclePlus size={22} aria-hidden="true" /> Start a job
        </button>
      </div>

      {curing.length + patches.length > 0 && (
        <section aria-labelledby="curing" className="space-y-2">
          <h2 id="curing" className="text-xl font-bold">
            On the clock
          </h2>
          <ul className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
            {[...due, ...waiting].map((p) => (
              <li key={p.id}>
                <CuringCard pour={p} now={now} />
              </li>
            ))}
            {patches.map((p) => (
              <li key={p.id}>
                <Link href={`/patch/${p.id}`} className="card block h-full p-4 hover:bg-peel/40">
                  <span className="flex items-baseline justify-between gap-3">
                    <span className="min-w-0 truncate font-semibold">Patch test</span>
                    <span className="shrink-0 text-sm text-untested">patch</span>
                  </span>
                  <span className="figure block text-3xl leading-tight">{now === null ? "…" : now >= p.readyAt ? "Judge it" : fromNow(p.readyAt, now)}</span>
                  <span className="block text-sm text-soft">
                    {p.between[1]} on {p.between[0]}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}

      <section aria-labelledby="jobs" className="space-y-2">
        <h2 id="jobs" className="text-xl font-bold">
          Jobs in hand
        </h2>
        {jobs.length === 0 ? (
          <div className="card space-y-3 p-8 text-center">
            <p className="text-lg">No job yet. Start one with a ruler and the thing you want to copy.</p>
            <button type="button" className="btn btn-main" onClick={() => setStarting(true)}>
              Start a job
            </button>
          </div>
        ) : (
          <ul className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
            {jobs.map((j) => (
              <li key={j.id}>
                <JobTile job={j} />
              </li>
            ))}
          </ul>
        )}
        {totalJobs > jobs.length && <p className="hint">{totalJobs - jobs.length} more: press Ctrl+K and type part of a name.</p>}
      </section>
      {starting && <NewJobDialog onClose={() => setStarting(false)} />}
    </div>
  );
}

function CuringCard({ pour, now }: { pour: PourView; now: number | null }) {
  const { band } = useUnits();
  const ready = now !== null && pour.readyAt <= now;
  const share = now === null ? 0 : Math.min(1, Math.max(0, (now - pour.pouredAt) / Math.max(1, pour.readyAt - pour.pouredAt)));
  return (
    <Link href={`/log/${pour.id}`} className={`card block h-full p-4 hover:bg-peel/40 ${ready ? "!border-2 !border-ink !bg-peel" : ""}`}>
      <span className="flex items-baseline justify-between gap-3">
        <span className="min-w-0 truncate font-semibold">{pour.snapshot.jobName}</span>
        <span className={`shrink-0 text-sm ${pour.kind === "rubber" ? "text-rubber" : "text-cast"}`}>{pour.kind === "rubber" ? "rubber" : "casting"}</span>
      </span>
      <span className="figure block text-3xl leading-tight">{now === null ? "…" : ready ? "Ready" : fromNow(pour.readyAt, now)}</span>
      <span className="block text-sm text-soft">
        {pour.snapshot.what}, {ready ? "since" : "about"} <When at={pour.readyAt} />
      </span>
      <span className="mt-2 block h-2.5 overflow-hidden rounded-full bg-line" aria-hidden="true">
        <span className={`block h-full ${pour.kind === "rubber" ? "bg-rubber" : "bg-cast"}`} style={{ width: `${share * 100}%` }} />
      </span>
      <span className="hint mt-1 block">takes {band(pour.snapshot.demouldH, "duration")}</span>
    </Link>
  );
}

function JobTile({ job }: { job: JobCard }) {
  const { fmt, say } = useUnits();
  return (
    <Link href={`/jobs/${job.id}`} className="card flex h-full flex-col gap-2 p-4 hover:bg-peel/40">
      <span className="flex items-start justify-between gap-3">
        <span className="font-display text-lg font-bold leading-tight">{job.name}</span>
        <VerdictMark verdict={job.tally.verdict} className="shrink-0 text-sm" />
      </span>
      <span className="text-sm text-soft">
        {job.castName ?? "Cast not chosen"} in {job.rubberName ?? "a rubber not chosen"}
      </span>
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
