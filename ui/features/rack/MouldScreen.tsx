"use client";

import { Printer } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { LessonLines } from "./LessonPanel";
import { FAULTS, type Outcome } from "@/core/plan";
import { Figure, Fault } from "../../kit/controls";
import { OutcomeMark } from "../log/OutcomeMark";
import { QuantityField } from "../../form/QuantityField";
import { useUnits } from "../../kit/units";
import { When } from "../../kit/When";
import type { Thumb } from "@/core/draw";
import type { PhotoOf } from "@/core/log";
import { SceneThumb } from "../../stage/SceneThumb";
import { MouldEvents } from "./MouldEvents";
import { LifeBar } from "./RackScreen";
import type { Lesson, MouldChange, MouldPage } from "@/contract/log";
import { Conflict } from "../../form/Conflict";
import { useSaved } from "../../data/useSaved";
import { mouldDocument } from "./mouldDocument";
import { Fold } from "../../kit/Fold";

const MouldCharts = dynamic(() => import("./MouldCharts").then((m) => m.MouldCharts), { ssr: false });

/** One mould: its name and place, its life, what it has given and at what cost, and everything that was cast in it. */
export function MouldScreen({
  initial,
  lesson,
  thumb,
  last,
}: {
  initial: MouldPage;
  lesson: Lesson | null;
  thumb: Thumb | null;
  /** What its last casting looks like, where it was photographed. */
  last: PhotoOf | null;
}) {
  const { fmt, say } = useUnits();
  const [{ view: page, save: state }, document] = useSaved<MouldPage, MouldChange>(() => mouldDocument(initial));
  const fault = state.kind === "failed" ? state.message : null;
  const save = (change: MouldChange) => document.update(change, true);
  const type = (change: MouldChange) => document.update(change);
  const m = page.mould;
  const judged = m.good + m.flawed + m.failed;
  const life = m.life ?? { low: 20, typical: 50, high: 100 };
  const setLife = (patch: Partial<typeof life>) => {
    const next = { ...life, ...patch };
    save({
      expected: {
        low: Math.min(next.low, next.typical, next.high),
        typical: [next.low, next.typical, next.high].sort((a, b) => a - b)[1] ?? next.typical,
        high: Math.max(next.low, next.typical, next.high),
      },
    });
  };
  return (
    <div className="space-y-4 pb-10 pt-2">
      <p className="text-sm">
        <Link href="/rack" className="underline">
          Mould rack
        </Link>{" "}
        ·{" "}
        <Link href={`/jobs/${m.jobId}`} className="underline">
          {m.jobName}
        </Link>
      </p>
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div className="flex min-w-0 items-center gap-4">
          {thumb && <SceneThumb thumb={thumb} width={230} height={150} />}
          {last && (
            <Link href={`/log/${last.pourId}`}>
              {/* eslint-disable-next-line @next/next/no-img-element -- served from this workshop's own folder at its own size */}
              <img
                src={`/api/photos/${last.photoId}`}
                alt="Its last casting"
                className="h-36 w-48 rounded-xl border border-line object-cover max-sm:h-24 max-sm:w-32"
              />
            </Link>
          )}
          <h1 className="min-w-0 text-3xl font-bold">{m.name || initial.mould.name}</h1>
        </div>
        <div className="flex flex-wrap gap-2">
          <Link href={`/rack/${m.id}/label`} className="btn">
            <Printer size={19} aria-hidden="true" /> Label
          </Link>
          <Link href={`/jobs/${m.jobId}#out`} className="btn btn-main">
            Cast in it
          </Link>
        </div>
      </div>
      {lesson && (
        <section aria-label="What last time taught" className="card space-y-1 p-4">
          <LessonLines lesson={lesson} />
        </section>
      )}
      <Fault large>{fault}</Fault>
      {state.kind === "conflict" && <Conflict resolve={document.resolve}>This mould was changed somewhere else since this page read it.</Conflict>}
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <div className="space-y-4">
          <section aria-labelledby="life" className="card space-y-3 p-4">
            <h2 id="life" className="text-xl font-bold">
              Its life
            </h2>
            <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
              <Figure name="Good casts" note={judged > 0 ? `${Math.round((m.good / judged) * 100)} % of ${judged}` : "none judged yet"}>
                {m.good}
              </Figure>
              <Figure
                name="Good casts left"
                note={m.expected ? "by your own figure and its yield" : m.life ? "usual for its kind, by its own yield" : "nobody knows"}
              >
                {m.left ? (m.left.high === 0 ? "none" : `${m.left.low} to ${m.left.high}`) : "–"}
              </Figure>
              <Figure name="Its rubber cost" note={page.cost === null ? "give the rubber a price" : undefined}>
                {page.cost === null ? "–" : fmt(page.cost, "money")}
              </Figure>
              <Figure name="A good cast has cost" note="of the mould, so far">
                {page.costPerGood === null ? "–" : fmt(page.costPerGood, "money")}
              </Figure>
            </div>
            <LifeBar mould={m} />
            <Fold title="Expect another number of casts">
              <div className="mt-2 grid grid-cols-3 gap-3">
                <QuantityField
                  label="At least"
                  value={life.low}
                  dimension="count"
                  min={0}
                  max={1e6}
                  whole
                  onChange={(v) => v !== null && setLife({ low: v })}
                />
                <QuantityField
                  label="Usually"
                  value={life.typical}
                  dimension="count"
                  min={0}
                  max={1e6}
                  whole
                  onChange={(v) => v !== null && setLife({ typical: v })}
                />
                <QuantityField
                  label="At most"
                  value={life.high}
                  dimension="count"
                  min={0}
                  max={1e6}
                  whole
                  onChange={(v) => v !== null && setLife({ high: v })}
                />
              </div>
              {m.expected && (
                <button type="button" className="btn mt-2" onClick={() => save({ expected: null })}>
                  Back to what is usual
                </button>
              )}
            </Fold>
          </section>
          <MouldEvents page={page} changed={document.take} />
          {page.casts.length > 1 && <MouldCharts casts={page.casts} like={page.cutsLike} cost={page.cost} />}
          <section aria-labelledby="names" className="card space-y-3 p-4">
            <h2 id="names" className="text-xl font-bold">
              Name and place
            </h2>
            <label className="block space-y-1">
              <span className="label">Name</span>
              <input className="field" maxLength={100} value={m.name} onChange={(e) => type({ name: e.target.value })} />
            </label>
            <label className="block space-y-1">
              <span className="label">Where it lives</span>
              <input className="field" maxLength={120} value={m.place} placeholder="Top shelf, left" onChange={(e) => type({ place: e.target.value })} />
            </label>
            <label className="block space-y-1">
              <span className="label">Note</span>
              <textarea className="field" rows={2} maxLength={2000} value={m.note} onChange={(e) => type({ note: e.target.value })} />
            </label>
            <p className="hint">
              Born <When at={m.madeAt} />
              {m.retiredAt !== null && (
                <>
                  , retired <When at={m.retiredAt} />
                </>
              )}
            </p>
            <button type="button" className="btn" onClick={() => save({ retired: m.retiredAt === null })}>
              {m.retiredAt === null ? "Retire it" : "Take it back into use"}
            </button>
          </section>
        </div>
        <section aria-labelledby="history" className="card space-y-2 p-4">
          <h2 id="history" className="text-xl font-bold">
            Cast in it
          </h2>
          {page.casts.length === 0 && <p className="hint">Nothing has been cast in it yet.</p>}
          <ul className="divide-y divide-line">
            {[...page.casts]
              .reverse()
              .slice(0, 100)
              .map((c, i) => (
                <li key={c.id} className="py-1.5">
                  <Link href={`/log/${c.id}`} className="grid min-h-11 grid-cols-[3rem_1fr_auto] items-center gap-3 hover:bg-peel/40">
                    <span className="figure text-xl">{page.casts.length - i}</span>
                    <span className="min-w-0">
                      <When at={c.pouredAt} />
                      {c.faults.length > 0 && (
                        <span className="block truncate text-sm text-soft">{c.faults.map((f) => FAULTS[f].toLowerCase()).join(", ")}</span>
                      )}
                    </span>
                    <OutcomeMark outcome={c.outcome as Outcome | null} open={c.outcome === null} />
                  </Link>
                  {c.changed && (
                    <p className="pl-12 text-sm">
                      Changed: {say(c.changed.text)}{" "}
                      {c.helped !== null && <b className={c.helped ? "text-sound" : "text-no"}>{c.helped ? "The fault is gone." : "It did not help."}</b>}
                    </p>
                  )}
                </li>
              ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
