"use client";

import { CopyPlus, Camera, DoorOpen, Trash2, Undo2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState, type ReactNode } from "react";
import type { ClockState } from "@/core/clock";
import { isShut } from "@/core/clock/kinds";
import { FAULTS, faultsOf, OUTCOME_WORD, OUTCOMES, type Outcome } from "@/core/plan";
import type { NextChange } from "@/core/rack";
import { useBenchClocks, useTicking } from "../clocks/BenchClocks";
import { whyMoved } from "../clocks/ClockCard";
import { useActKey } from "../../data/key";
import { Choice } from "../../kit/Choice";
import { Figure, Fault } from "../../kit/controls";
import { PartList } from "../job/steps/PartList";
import type { AfterPour, PourAdvice, PourChange } from "@/contract/log";
import { call } from "../../data/call";
import type { SaveState } from "../../data/savedDocument";
import { Conflict } from "../../form/Conflict";
import { useSaved } from "../../data/useSaved";
import { pourDocument } from "./pourDocument";
import type { Photo, PhotoOf, Pour } from "@/core/log";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { fromNow, useNow, When } from "../../kit/When";
import { openDoubts, undoneDoubts } from "@/core/log/doubts";
import { WhenField } from "../../form/WhenField";
import { AskFirst, type Asked } from "./AskFirst";
import { AfterPanel } from "./AfterPanel";
import { EachPanel } from "./EachPanel";
import { FaultSection } from "./FaultSection";
import { Poured } from "./Poured";
import { Fold } from "../../kit/Fold";
import { SceneThumb } from "../../stage/SceneThumb";
import type { Thumb } from "@/core/draw";
import { notice } from "../../kit/notice";

/** One pour: its frozen numbers, how it came out and where, what to change next, and its photos. */
export function PourScreen({
  initial,
  photos: firstPhotos,
  before,
  thumb,
  advice,
  after,
  firstClocks,
}: {
  initial: Pour;
  photos: readonly Photo[];
  /** What the casting before it looked like; null where nobody took a picture. */
  before: PhotoOf | null;
  /** The section of its mould. */
  thumb: Thumb | null;
  advice: PourAdvice;
  after: AfterPour;
  firstClocks: readonly ClockState[];
}) {
  const router = useRouter();
  const { fmt, band, say } = useUnits();
  const now = useNow();
  const act = useActKey();
  const ticking = useTicking(1000);
  const { bench, refresh } = useBenchClocks();
  const told = useRef({ router, refresh });
  useEffect(() => {
    told.current = { router, refresh };
  });
  const [{ view: pour, save }, document] = useSaved<Pour, PourChange>(() =>
    pourDocument(initial, (patch) => {
      told.current.router.refresh();
      if (patch.opened !== undefined || patch.outcome !== undefined) void told.current.refresh();
    }),
  );
  const fault = save.kind === "failed" ? save.message : null;
  const change = (patch: PourChange) => document.update(patch, true);
  const [openedAt, setOpenedAt] = useState<{ at: number | null; ok: boolean }>({ at: null, ok: true });
  const [asked, setAsked] = useState<Asked | null>(null);
  const ticked = new Set(after.events.flatMap((e) => (e.what.kind === "done" ? [e.what.step] : [])));
  const open = (at: number | null) => {
    const patch: PourChange = { opened: true, ...(at === null ? {} : { openedAt: at }) };
    const doubts = [...openDoubts(pour, at ?? now ?? pour.readyHighAt), ...undoneDoubts(after.steps, ticked)].map((d) => ({ ...d, message: say(d.message) }));
    if (doubts.length === 0) change(patch);
    else setAsked({ doubts, yes: (despite) => change({ ...patch, despite }) });
  };
  const retimed = (corrected: Pour) => {
    document.take(corrected);
    notice.good("Corrected: its clocks moved with it.");
    router.refresh();
    void refresh();
  };
  const s = pour.snapshot;
  const curing = pour.openedAt === null;
  const live = bench?.clocks.filter((c) => c.clock.pourId === pour.id) ?? [];
  const clock = (live.length > 0 ? live : firstClocks).find((c) => isShut(c.clock.kind)) ?? null;
  const ready = clock
    ? { low: clock.finish.lowAt, at: clock.finish.typicalAt, high: clock.finish.highAt }
    : { low: pour.readyLowAt, at: pour.readyAt, high: pour.readyHighAt };
  const moved = clock && whyMoved(clock, say, (v, d) => fmt(v, d));
  const t = ticking ?? now;
  return (
    <div className="space-y-4 pb-10 pt-2">
      <p className="text-sm">
        <Link href="/log" className="underline">
          Logbook
        </Link>{" "}
        ·{" "}
        <Link href={`/jobs/${pour.jobId}`} className="underline">
          {s.jobName}
        </Link>
        {pour.mouldName && pour.mouldId && (
          <>
            {" "}
            ·{" "}
            <Link href={`/rack/${pour.mouldId}`} className="underline">
              {pour.mouldName}
            </Link>
          </>
        )}
      </p>
      <AskFirst asked={asked} act="Open it all the same" close={() => setAsked(null)} />
      <div className="flex items-center gap-4">
        {thumb && <SceneThumb thumb={thumb} width={120} height={80} />}
        <h1 className="min-w-0 text-3xl font-bold">
          {s.kind === "rubber" ? `${s.what} of rubber` : s.what}, {s.jobName}
        </h1>
      </div>
      {pour.kind !== "jacket" && (
        <button
          type="button"
          className="btn btn-bare -ml-3"
          onClick={async () => {
            const made = await call("jobs", "make", { body: { key: act.key(), likePour: pour.id } });
            if (!made.ok) return notice.bad(made.message);
            act.answered();
            router.push(`/jobs/${made.data.id}`);
          }}
        >
          <CopyPlus size={18} aria-hidden="true" /> A new job like that one
        </button>
      )}
      <Fault large>{fault}</Fault>
      {save.kind === "conflict" && <Conflict resolve={document.resolve}>This pour was changed somewhere else since this page read it.</Conflict>}
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <div className="space-y-4">
          <section aria-labelledby="clock" className="card min-h-60 space-y-2 p-4">
            <h2 id="clock" className="text-xl font-bold">
              {curing ? "On the clock" : "Opened"}
            </h2>
            {curing ? (
              <>
                <p className="figure text-4xl">{t === null ? "…" : ready.at <= t ? "Ready to open" : `Ready ${fromNow(ready.at, t)}`}</p>
                <p>
                  Poured <When at={pour.pouredAt} />; ready about <When at={ready.at} />, between <When at={ready.low} /> and <When at={ready.high} />.
                </p>
                {moved && <p className="font-semibold text-care">{moved}</p>}
                <p className="hint">{say(s.demouldReason)}</p>
                <div className="flex flex-wrap items-end gap-3">
                  <button type="button" className="btn btn-main text-lg" disabled={!openedAt.ok} onClick={() => open(openedAt.at)}>
                    <DoorOpen size={20} aria-hidden="true" /> {openedAt.at === null ? "Opened just now" : "Opened then"}
                  </button>
                  <WhenField label="Opened earlier?" onChange={(at, ok) => setOpenedAt({ at, ok })} />
                </div>
              </>
            ) : (
              <>
                <p>
                  Poured <When at={pour.pouredAt} />, opened <When at={pour.openedAt ?? pour.pouredAt} /> after{" "}
                  {fmt(((pour.openedAt ?? pour.pouredAt) - pour.pouredAt) / 3_600_000, "duration")}; {band(s.demouldH, "duration")} was reckoned.
                </p>
                <button type="button" className="btn btn-bare" onClick={() => change({ opened: false, outcome: null })}>
                  <Undo2 size={18} aria-hidden="true" /> Not opened after all
                </button>
              </>
            )}
            <Poured pour={pour} events={after.events} moved={retimed} ask={setAsked} />
          </section>
          {s.despite.length > 0 && (
            <section aria-labelledby="despite" className="card space-y-1 p-4">
              <h2 id="despite" className="text-lg font-bold">
                Done all the same
              </h2>
              <ul className="list-disc pl-5">
                {s.despite.map((d) => (
                  <li key={d}>{d}</li>
                ))}
              </ul>
            </section>
          )}
          <section aria-labelledby="outcome" className="card space-y-3 p-4">
            <h2 id="outcome" className="text-xl font-bold">
              How it came out
            </h2>
            {!pour.each && (
              <Choice
                label="Outcome"
                hideLabel
                value={pour.outcome ?? ""}
                options={OUTCOMES.map((o) => ({ value: o as string, label: OUTCOME_WORD[o] }))}
                onChange={(o) => change({ outcome: OUTCOMES.find((k) => k === o) ?? null })}
              />
            )}
            {pour.kind === "cast" && <EachPanel pour={pour} count={after.count} change={(each) => change({ each })} />}
            {!pour.each && (
              <fieldset>
                <legend className="label mb-1">Faults seen</legend>
                <div className="flex flex-wrap gap-2">
                  {[...new Set([...faultsOf(pour.kind), ...pour.faults])].map((k) => {
                    const on = pour.faults.includes(k);
                    return (
                      <button
                        key={k}
                        type="button"
                        className="chip"
                        aria-pressed={on}
                        onClick={() => change({ faults: on ? pour.faults.filter((f) => f !== k) : [...pour.faults, k] })}
                      >
                        {FAULTS[k]}
                      </button>
                    );
                  })}
                </div>
              </fieldset>
            )}
            {advice.scene && <FaultSection scene={advice.scene} faults={pour.faults} marks={pour.marks} change={(marks) => change({ marks })} />}
            <Notes text={pour.notes} save={save} change={(notes) => document.update({ notes })} />
          </section>
          <Photos pourId={pour.id} first={firstPhotos} before={before} outcome={pour.outcome} />
        </div>
        <div className="space-y-4">
          {pour.kind === "cast" && pour.outcome !== "failed" && <AfterPanel pour={pour} after={after} />}
          {pour.changed && (
            <section aria-labelledby="changed" className="card space-y-1 p-4">
              <h2 id="changed" className="text-xl font-bold">
                Changed for this one
              </h2>
              <p>{say(pour.changed.text)}</p>
              {pour.changed.key === "several" ? (
                <p role="status" className="font-semibold text-soft">
                  Several things were changed at once: whichever way it came out, nobody can tell which one did it.
                </p>
              ) : (
                pour.changed.key && (
                  <p role="status" className={`font-semibold ${advice.helped ? "text-sound" : advice.helped === false ? "text-no" : "text-soft"}`}>
                    {advice.helped === null
                      ? "Whether it helped shows once the outcome is written down."
                      : advice.helped
                        ? `The fault it was for is gone. ${advice.sure}`
                        : "It did not help: the same fault is back. Change it back, and try the next thing."}
                  </p>
                )
              )}
            </section>
          )}
          {advice.next.length > 0 && <NextTime next={advice.next} say={say} />}
          <section aria-labelledby="frozen" className="card space-y-3 p-4">
            <h2 id="frozen" className="text-xl font-bold">
              The numbers of that day
            </h2>
            <p className="hint">Frozen when it was poured; later changes to the job do not touch them.</p>
            <PartList parts={s.parts} total={s.mixG} />
            <dl className="grid grid-cols-2 gap-3 sm:grid-cols-3">
              <Frozen name="Material">{s.material}</Frozen>
              {s.lots.length > 0 && (
                <Frozen name="Out of">{s.lots.map((l) => `${l.name}${l.batch ? ` ${l.batch}` : ""}${l.past ? ", past its date" : ""}`).join("; ")}</Frozen>
              )}
              <Frozen name="Ratio">{s.ratioLabel}</Frozen>
              <Frozen name="To fill">{fmt(s.volumeMl, "volume")}</Frozen>
              {s.count > 1 && <Frozen name="Castings">{s.count}</Frozen>}
              <Frozen name="Shop">{fmt(s.shopC, "temperature")}</Frozen>
              <Frozen name="Wall">{fmt(s.wallMm, "length")}</Frozen>
              {s.fillLineMm !== null && <Frozen name="Fill line">{fmt(s.fillLineMm, "length")}</Frozen>}
              {s.wetG !== null && <Frozen name="One casting, wet">{fmt(s.wetG, "mass")}</Frozen>}
              {s.dryG !== null && <Frozen name="One casting, finished">{fmt(s.dryG, "mass")}</Frozen>}
              {s.filledG !== null && <Frozen name="Filled mould">{fmt(s.filledG, "mass")}</Frozen>}
            </dl>
            {s.actual && (
              <>
                {s.actual.parts.length > 0 && (
                  <>
                    <h3 className="text-lg font-bold">As it was weighed</h3>
                    <PartList
                      parts={s.actual.parts.map((p) => ({
                        name: p.name,
                        massG: p.gotG,
                        volumeMl: null,
                        ...(p.lateG > 0 ? { note: `${fmt(p.lateG, "mass")} of it while mixing` } : {}),
                      }))}
                      total={s.actual.totalG}
                    />
                  </>
                )}
                <dl className="grid grid-cols-2 gap-3 sm:grid-cols-3">
                  {s.actual.cups > 1 && <Frozen name="Cups">{s.actual.cups}</Frozen>}
                  {s.actual.shopC !== null && <Frozen name="Shop, as read">{fmt(s.actual.shopC, "temperature")}</Frozen>}
                  {s.actual.sprueMm !== null && <Frozen name="Narrowest place of the sprue">{fmt(s.actual.sprueMm, "length")}</Frozen>}
                  {s.actual.vents > 0 && (
                    <Frozen name="Vents">
                      {s.actual.vents}
                      {s.actual.ventMm !== null && ` × ${fmt(s.actual.ventMm, "length")}`}
                    </Frozen>
                  )}
                </dl>
              </>
            )}
            <Figure name="How its stuffs got on, that day" size="text-lg">
              <VerdictMark verdict={s.verdict} />
            </Figure>
          </section>
        </div>
      </div>
    </div>
  );
}

/** One thing to change next time, and the others in reserve. */
function NextTime({ next, say }: { next: readonly NextChange[]; say: (s: string) => string }) {
  const [first, ...rest] = next;
  if (!first) return null;
  return (
    <section aria-labelledby="next-time" className="card space-y-2 !border-2 !border-ink p-4">
      <h2 id="next-time" className="text-xl font-bold">
        Next time, change one thing
      </h2>
      <p className="text-lg font-semibold">{say(first.change)}</p>
      <p className="text-soft">{say(first.why)}</p>
      {rest.length > 0 && (
        <Fold title="If that does not help">
          <ol className="list-decimal space-y-2 pl-5">
            {rest.map((a) => (
              <li key={a.key}>
                <b>{say(a.change)}</b> <span className="text-soft">{say(a.why)}</span>
              </li>
            ))}
          </ol>
        </Fold>
      )}
    </section>
  );
}

const Frozen = ({ name, children }: { name: string; children: ReactNode }) => (
  <div className="min-w-0">
    <dt className="text-sm text-soft">{name}</dt>
    <dd className="font-semibold">{children}</dd>
  </div>
);

const NOTES_STATE: Record<SaveState<Pour>["kind"], string> = {
  saved: "Saved",
  waiting: "Saving",
  saving: "Saving",
  conflict: "Not saved",
  failed: "Not saved",
};

function Notes({ text, save, change }: { text: string; save: SaveState<Pour>; change: (notes: string) => void }) {
  const state = NOTES_STATE[save.kind];
  return (
    <label className="block space-y-1">
      <span className="flex justify-between">
        <span className="label">Notes</span>
        <span role="status" className={`hint ${state === "Not saved" ? "font-semibold !text-no" : ""}`}>
          {state}
        </span>
      </span>
      <textarea
        className="field"
        rows={3}
        maxLength={4000}
        value={text}
        onChange={(e) => change(e.target.value)}
        placeholder="What you would do the same, and what not"
      />
    </label>
  );
}

function Photos({ pourId, first, before, outcome }: { pourId: string; first: readonly Photo[]; before: PhotoOf | null; outcome: Outcome | null }) {
  const [photos, setPhotos] = useState(first);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const add = async (files: FileList | null) => {
    setFault(null);
    setBusy(true);
    for (const file of files ?? []) {
      const answer = await call("log", "addPhoto", { params: { id: pourId }, bytes: file });
      if (answer.ok) setPhotos((all) => [...all, answer.data]);
      else setFault(`${file.name}: ${answer.message}`);
    }
    setBusy(false);
    if (input.current) input.current.value = "";
  };
  const remove = async (id: string) => {
    const answer = await call("log", "removePhoto", { params: { id } });
    if (answer.ok) setPhotos((all) => all.filter((p) => p.id !== id));
    else setFault(answer.message);
  };
  return (
    <section aria-labelledby="photos" className="card space-y-3 p-4">
      <h2 id="photos" className="text-xl font-bold">
        Photos
      </h2>
      <Fault>{fault}</Fault>
      {before && photos.length > 0 && <BesideBefore before={before} now={photos[0]!} outcome={outcome} />}
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {photos.map((p, i) => (
          <li key={p.id} className="relative">
            {/* eslint-disable-next-line @next/next/no-img-element -- served from this workshop's own folder at its own size */}
            <img src={`/api/photos/${p.id}`} alt={`Photo ${i + 1} of this pour`} className="aspect-square w-full rounded-lg border border-line object-cover" />
            <button type="button" className="btn absolute right-1 top-1 !min-h-10 !px-2" aria-label={`Remove photo ${i + 1}`} onClick={() => void remove(p.id)}>
              <Trash2 size={17} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <label className={`btn ${busy ? "opacity-60" : ""} cursor-pointer`}>
        <Camera size={19} aria-hidden="true" /> {busy ? "Keeping it…" : "Add a photo"}
        <input
          ref={input}
          type="file"
          accept="image/jpeg,image/png,image/webp"
          multiple
          className="sr-only"
          disabled={busy}
          onChange={(e) => void add(e.target.files)}
        />
      </label>
      <p className="hint">JPEG, PNG or WebP, at most 12 MB each.</p>
    </section>
  );
}

/** The casting before and this one, side by side: what a change did is seen, not remembered. */
function BesideBefore({ before, now, outcome }: { before: PhotoOf; now: Photo; outcome: Outcome | null }) {
  const both = [
    { id: before.photoId, name: "Last time", outcome: before.outcome, href: `/log/${before.pourId}` },
    { id: now.id, name: "This time", outcome, href: null },
  ];
  return (
    <div className="grid grid-cols-2 gap-2" role="group" aria-label="Last time and this time">
      {both.map((p) => (
        <figure key={p.name}>
          {/* eslint-disable-next-line @next/next/no-img-element -- served from this workshop's own folder at its own size */}
          <img src={`/api/photos/${p.id}`} alt={`${p.name}, the casting`} className="aspect-[4/3] w-full rounded-lg border border-line object-cover" />
          <figcaption className="text-sm">
            {p.href ? (
              <Link href={p.href} className="underline">
                {p.name}
              </Link>
            ) : (
              p.name
            )}
            {p.outcome && `: ${OUTCOME_WORD[p.outcome].toLowerCase()}`}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
