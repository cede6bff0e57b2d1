"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { CalendarPlus, Pencil, Plus, Printer } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import type { JobName } from "@/contract/jobs";
import type { ProjectView } from "@/contract/works";
import { call } from "../../data/call";
import { read } from "../../data/read";
import { Fault, Figure } from "../../kit/controls";
import { More } from "../../kit/More";
import { notice } from "../../kit/notice";
import { Pick } from "../../kit/Pick";
import { useUnits } from "../../kit/units";
import { dayIn } from "../../kit/zone";
import { SceneThumb } from "../../stage/SceneThumb";

const WorkDialog = dynamic(() => import("./WorkDialog").then((m) => m.WorkDialog), { ssr: false });

/** Works whose parts are cast apart, with weights to pack by, and editions with where each number went. */
export function Works({ initial, jobs }: { initial: ProjectView[]; jobs: readonly JobName[] }) {
  const queries = useQueryClient();
  const { data: projects = initial } = useQuery({
    queryKey: ["projects"],
    queryFn: () => read("works", "projects", { body: { all: "no" } }),
    initialData: initial,
  });
  const [open, setOpen] = useState<{ project: ProjectView | null } | null>(null);
  // What is shown is read anew before a dialog closes: opened again at once, it shows what was just kept.
  const changed = () => queries.invalidateQueries({ queryKey: ["projects"] });
  return (
    <div className="space-y-4">
      <button type="button" className="btn no-print" disabled={jobs.length === 0} onClick={() => setOpen({ project: null })}>
        <Plus size={18} aria-hidden="true" /> A work or an edition
      </button>
      {projects.length === 0 && (
        <p className="card max-w-2xl p-5 text-soft">
          A figure cast as body, arms and hands; three panels that make one; twenty numbered copies: put their jobs together here, and their rubber, weights and
          castings are kept as one.
        </p>
      )}
      {projects.map((p) => (
        <Work key={p.id} view={p} onEdit={() => setOpen({ project: p })} onChanged={changed} />
      ))}
      {open && <WorkDialog view={open.project} jobs={jobs} onClose={() => setOpen(null)} onChanged={changed} />}
    </div>
  );
}

function Work({ view, onEdit, onChanged }: { view: ProjectView; onEdit: () => void; onChanged: () => Promise<void> }) {
  const { fmt, zone } = useUnits();
  const { project } = view;
  // Each part's job with as many castings as the work takes; a mould that stands on the rack is not built again.
  const onCalendar = async () => {
    const read = await call("calendar", "read", {});
    if (!read.ok) return notice.bad(read.message);
    const { calendar, revision } = read.data;
    const jobs = [...new Set(view.parts.map((p) => p.jobId))]
      .filter((jobId) => !calendar.jobs.some((j) => j.jobId === jobId))
      .map((jobId) => {
        const mine = view.parts.filter((p) => p.jobId === jobId);
        return {
          jobId,
          casts: Math.min(
            20,
            mine.reduce((s, p) => s + p.count, 0),
          ),
          build: !mine[0]!.hasMould,
        };
      });
    if (jobs.length === 0) return notice.say("They are on the calendar already.");
    const saved = await call("calendar", "save", { body: { baseRevision: revision, calendar: { ...calendar, jobs: [...calendar.jobs, ...jobs] } } });
    if (!saved.ok) return notice.bad(saved.message);
    notice.good(`${jobs.length} ${jobs.length === 1 ? "job is" : "jobs are"} on the calendar.`);
  };
  return (
    <article className="card space-y-3 p-4" aria-label={project.name}>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h2 className="text-xl font-bold leading-tight">{project.name}</h2>
          {project.note && <p className="max-w-2xl text-soft">{project.note}</p>}
        </div>
        <div className="no-print flex gap-2">
          <button type="button" className="btn" onClick={onEdit}>
            <Pencil size={17} aria-hidden="true" /> Change
          </button>
          <button type="button" className="btn" onClick={() => void onCalendar()}>
            <CalendarPlus size={17} aria-hidden="true" /> Onto the calendar
          </button>
          <button type="button" className="btn" onClick={() => window.print()}>
            <Printer size={17} aria-hidden="true" /> Packing list
          </button>
        </div>
      </div>
      <div className="flex flex-wrap gap-x-8 gap-y-2">
        <Figure name="The whole weighs" size="text-3xl" note="its castings, dry">
          {view.wholeG === null ? "–" : fmt(view.wholeG, "mass")}
        </Figure>
        <Figure name="Castings there are make up" size="text-3xl">
          {view.works} {view.works === 1 ? "work" : "works"}
        </Figure>
        {project.edition !== null && (
          <Figure name="Numbered so far" size="text-3xl">
            {project.castings.length} of {project.edition}
          </Figure>
        )}
        {view.rubbers.map((r) => (
          <Figure key={r.name} name={`${r.name} for moulds not made yet`}>
            {fmt(r.g, "mass")}
          </Figure>
        ))}
      </div>
      <ul className="grid gap-2 sm:grid-cols-2">
        {view.parts.map((p, i) => (
          <li key={i} className="flex items-center gap-3 rounded-xl border border-line p-2">
            {p.thumb ? <SceneThumb thumb={p.thumb} /> : <span className="w-24" />}
            <div className="min-w-0">
              <p className="font-bold leading-tight">
                {p.count > 1 ? `${p.count} × ` : ""}
                {p.name}{" "}
                <Link className="text-sm font-normal text-soft underline" href={`/jobs/${p.jobId}`}>
                  {p.jobName}
                </Link>
              </p>
              <p className="text-sm">
                {p.eachG === null ? "weight not known" : `${fmt(p.eachG, "mass")} each`}
                {p.sizeMm ? `, ${p.sizeMm.map((v) => fmt(v, "length")).join(" × ")}` : ""}
              </p>
              <p className="text-sm">
                {p.ready >= p.count ? "there" : p.hasMould ? `${p.count - p.ready} to cast` : "no mould yet"}
                {p.joint ? `; ${p.joint}` : ""}
              </p>
            </div>
          </li>
        ))}
      </ul>
      {project.edition !== null && <Edition view={view} zone={zone} onChanged={onChanged} />}
    </article>
  );
}

function Edition({ view, zone, onChanged }: { view: ProjectView; zone: string; onChanged: () => Promise<void> }) {
  const { project } = view;
  const [pourId, setPour] = useState<string | null>(null);
  const [to, setTo] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const save = async (castings: ProjectView["project"]["castings"]) => {
    const a = await call("works", "saveProject", { params: { id: view.id }, body: { project: { ...project, castings }, baseRevision: view.revision } });
    setFault(a.ok ? null : a.message);
    await onChanged();
    if (a.ok) {
      setPour(null);
      setTo("");
    }
  };
  return (
    <section aria-label="Edition" className="space-y-2">
      <ol className="flex flex-wrap gap-2">
        {view.castings.map((c) => (
          <li key={c.number} className="rounded-lg border border-ink px-3 py-1 text-sm">
            <b className="figure text-lg">
              {c.number}/{project.edition}
            </b>{" "}
            {c.pourId ? (
              <Link className="underline" href={`/log/${c.pourId}`}>
                {c.mould || c.what}
              </Link>
            ) : (
              "from before"
            )}
            {c.lots ? `, ${c.lots}` : ""}
            {c.to ? `, to ${c.to}` : ""}
            {c.at !== null ? `, ${dayIn(c.at, zone)}` : ""}
          </li>
        ))}
      </ol>
      {view.next !== null && (
        <More title={`Number ${view.next}`} now={`${view.free.length} good ones without a number`}>
          <div className="grid gap-3 sm:grid-cols-2">
            <Pick
              label="Which casting"
              value={pourId}
              none="One from before"
              options={view.free.map((f) => ({ value: f.pourId, label: `${f.name}, ${dayIn(f.pouredAt, zone)}` }))}
              onChange={setPour}
            />
            <label className="block">
              <span className="label">Where it goes</span>
              <input className="field" maxLength={120} value={to} onChange={(e) => setTo(e.target.value)} autoComplete="off" />
            </label>
          </div>
          <button
            type="button"
            className="btn"
            onClick={() => void save([...project.castings, { number: view.next ?? 1, pourId, to, at: to.trim() === "" ? null : Date.now() }])}
          >
            Give it number {view.next}
          </button>
        </More>
      )}
      <Fault>{fault}</Fault>
    </section>
  );
}
