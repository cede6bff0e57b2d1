"use client";

import { ArrowLeft, Check, Hand, Timer, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { HOLD_POINTS, type HoldPoint } from "@/core/habit";
import { anythingWeighed, cupGot, cupTargets, habitOf, holdPassed, partState, rebalance, splitOf, type WeighAct } from "@/core/weigh";
import { useBenchClocks, useTicking } from "../clocks/BenchClocks";
import { Caution, Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { useScale } from "../device/useScale";
import { notice } from "../../kit/notice";
import { call } from "../../data/call";
import type { Lesson } from "@/contract/log";
import type { WeighView } from "@/contract/weigh";
import { LessonPanel } from "../rack/LessonPanel";
import { QuantityField } from "../../form/QuantityField";
import { useUnits } from "../../kit/units";
import { CutFields } from "./CutFields";
import { GaugePanel } from "./GaugePanel";
import { HandlingFields } from "./HandlingFields";
import { PartPanel } from "./PartPanel";
import { countdown } from "./countdown";
import { useCupClocks } from "./potLife";
import { Shared, SharePanel } from "./SharePanel";
import { useBatch } from "./useBatch";
import type { CupView } from "./CupMarks";
import { HandsAndEars } from "./HandsAndEars";
import { useEarChoices } from "./useEars";

/** One batch, full screen: hold-point, parts in order with a live target, cups, clock, gauge, and into the log. */
export function WeighScreen({ initial, cups, lesson }: { initial: WeighView; cups: readonly CupView[]; lesson: Lesson | null }) {
  const router = useRouter();
  const { fmt, say } = useUnits();
  const { refresh } = useBenchClocks();
  const now = useTicking(500);
  const scale = useScale();
  const [ears, chooseEars] = useEarChoices();
  const { view, act, take, fault, setFault, waiting } = useBatch(initial);
  const w = view.weighIn;
  const [chosenCup, setCup] = useState<number | null>(null);
  const [chosenPart, setPart] = useState<number | null>(null);
  const [dropping, setDropping] = useState(false);
  const [busy, setBusy] = useState(false);
  const habit = habitOf(w);
  const { vessel } = habit;
  const passed = holdPassed(w);
  const firstOpen = w.cups.findIndex((c) => c.pouredAt === null);
  const cup = Math.min(chosenCup ?? (firstOpen < 0 ? w.cups.length - 1 : firstOpen), w.cups.length - 1);
  const here = w.cups[cup];
  const targets = cupTargets(w, cup);
  const got = cupGot(w, cup);
  const open = targets.findIndex((t, i) => ["waiting", "short"].includes(partState(t, got[i] ?? null)) && !here?.parts[i]?.settled);
  const part = chosenPart ?? (open < 0 ? null : open);
  const full = open < 0;
  const fix = rebalance(targets, got);
  const allPoured = w.cups.every((c) => c.pouredAt !== null);
  const split = splitOf(w);
  const clocks = useCupClocks(view.id);
  const pot = clocks[cup] ?? null;
  const total = targets.reduce((s, t) => s + t.targetG, 0);

  const does = (a: WeighAct) => {
    act(a);
    if (a.do === "stir" || a.do === "empty") setTimeout(() => void refresh(), 400);
  };
  const finish = async () => {
    setBusy(true);
    const a = await call("weigh", "finish", { params: { id: view.id }, body: {} });
    setBusy(false);
    if (!a.ok) return setFault(a.message);
    notice.good("In the log. Its clock is running.");
    await refresh();
    router.push(`/log/${a.data.pourId}`);
  };
  const renew = async () => {
    const a = await call("weigh", "renew", { params: { id: view.id } });
    if (!a.ok) return setFault(a.message);
    take(a.data);
  };
  const drop = async () => {
    const a = await call("weigh", "drop", { params: { id: view.id } });
    if (!a.ok) return setFault(a.message);
    router.push(`/jobs/${view.jobId}`);
  };
  if (view.endedAt !== null)
    return (
      <div className="space-y-4 py-8">
        <h1 className="text-3xl font-bold">This batch has left the bench</h1>
        <p>{view.pourId ? "It was poured, and is in the log." : "It was thrown away."}</p>
        <Link className="btn btn-main" href={view.pourId ? `/log/${view.pourId}` : `/jobs/${view.jobId}`}>
          {view.pourId ? "To the pour" : "To the job"}
        </Link>
      </div>
    );
  return (
    <div className="space-y-3 pb-10 pt-1">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Link href={`/jobs/${view.jobId}`} className="btn !px-3" aria-label="Back to the job; the batch stays on the bench">
          <ArrowLeft size={20} aria-hidden="true" />
        </Link>
        <div className="min-w-0 flex-1">
          <h1 className="truncate text-2xl font-bold">
            {w.what}, {w.jobName}
          </h1>
          <p className="truncate text-sm text-soft">
            {w.material} · <b className="text-ink">{w.ratioLabel}</b> · {fmt(w.batchG + w.handling.witnessG, "mass")} in all
          </p>
        </div>
        {pot && now !== null && here?.pouredAt === null && (
          <p role="timer" aria-label="Time left" className={`flex items-center gap-2 rounded-xl px-3 py-1 ${pot.low <= now ? "bg-no text-card" : "bg-peel"}`}>
            <Timer size={26} aria-hidden="true" />
            <span className="figure text-4xl leading-none">{countdown(pot.low - now)}</span>
            <span className="text-sm leading-tight">
              {habit.life}
              <br />
              {pot.low <= now ? "is over" : "left, at the short end"}
            </span>
          </p>
        )}
        <button type="button" className="btn btn-bare !px-2.5" aria-label="Throw this batch away" onClick={() => setDropping(true)}>
          <Trash2 size={20} aria-hidden="true" />
        </button>
      </div>
      <Fault large>{fault && say(fault)}</Fault>
      {waiting > 0 && (
        <p role="status" className="hint">
          Saving…
        </p>
      )}
      {w.cups.length > 1 && (
        <div className="flex flex-wrap items-center gap-2" role="group" aria-label={capital(vessel.many)}>
          {w.cups.map((c, i) => (
            <button
              key={i}
              type="button"
              className="chip !min-h-12"
              aria-pressed={i === cup}
              onClick={() => {
                setCup(i);
                setPart(null);
              }}
            >
              {vessel.one} {i + 1}{" "}
              {c.pouredAt !== null ? "· poured" : c.stirredAt !== null ? "· stirring" : c.parts.every((p) => p.gotG !== null) ? "· weighed" : ""}
            </button>
          ))}
          <span className="hint">
            {split.ok &&
              (split.because === "pot life"
                ? `Split so that each is out of its ${vessel.one.toLowerCase()} within its share of the ${habit.life}.`
                : "Split so that each fits its cup with head-room.")}
          </span>
        </div>
      )}
      {view.newerG !== null && (
        <div role="status" className="card flex flex-wrap items-center justify-between gap-3 !border-2 !border-ink p-3">
          <p>
            <b>The job was changed since.</b> It now says {fmt(view.newerG, "mass")} in all.
          </p>
          <button type="button" className="btn" onClick={() => void renew()}>
            Take that over
          </button>
        </div>
      )}
      {!anythingWeighed(w) && <SharePanel view={view} take={take} />}
      {w.shares.length > 0 && anythingWeighed(w) && <Shared view={view} />}
      {!split.ok && <Caution>{say(split.message)}</Caution>}
      {split.ok && split.hands > 1 && (
        <Caution>
          More than one pair of hands can place in its {habit.life}: {split.hands} pairs of hands with a {vessel.one.toLowerCase()} each, or {split.hands}{" "}
          layers one after another.
        </Caution>
      )}
      <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,2fr)]">
        <section aria-labelledby="parts" className="card space-y-1 p-3">
          <h2 id="parts" className="sr-only">
            Parts in pouring order
          </h2>
          <ol className="space-y-1">
            {targets.map((t, i) => {
              const state = partState(t, got[i] ?? null);
              return (
                <li key={t.name}>
                  <button
                    type="button"
                    disabled={!passed || here?.stirredAt !== null}
                    aria-current={i === part ? "step" : undefined}
                    onClick={() => setPart(i)}
                    className={`flex w-full items-center gap-3 rounded-lg p-2 text-left ${i === part && passed ? "bg-peel" : "enabled:hover:bg-peel/40"}`}
                  >
                    <span className="figure w-6 text-xl text-soft" aria-hidden="true">
                      {state === "good" ? "✓" : state === "over" ? "!" : i + 1}
                    </span>
                    <span className="min-w-0 flex-1">
                      <span className="flex flex-wrap items-baseline justify-between gap-x-3">
                        <span className="text-lg font-semibold">{t.name}</span>
                        <span className="figure text-xl">{fmt(t.targetG, "mass")}</span>
                      </span>
                      <span className="block text-sm text-soft">
                        {got[i] === null || got[i] === undefined ? (
                          say(t.why)
                        ) : (
                          <b className={state === "over" ? "text-no" : state === "short" ? "text-care" : "text-sound"}>{fmt(got[i], "mass")} in</b>
                        )}
                      </span>
                    </span>
                  </button>
                </li>
              );
            })}
          </ol>
          <p className="flex justify-between border-t border-line px-2 pt-2">
            <span>{w.cups.length > 1 ? `${vessel.one} ${cup + 1} of ${w.cups.length}` : "Batch"}</span>
            <b>{fmt(total, "mass")}</b>
          </p>
          {(here?.factor ?? 1) > 1.0001 && (
            <p className="hint px-2">
              Made {Math.round(((here?.factor ?? 1) - 1) * 1000) / 10} % larger after an over-pour: {fmt(total - total / (here?.factor ?? 1), "mass")} more than
              planned.
            </p>
          )}
        </section>
        {/* On a phone the weight comes before the list. */}
        <div className="space-y-4 max-lg:order-first">
          {lesson && !passed && <LessonPanel lesson={lesson} changed={w.changed} put={(changed) => does({ do: "change", changed })} />}
          {!passed ? (
            <HoldPointPanel asked={habit.hold(w.facts)} held={w.passed} act={does} cautions={view.cautions} />
          ) : fix.byPart !== null && here?.stirredAt === null ? (
            <section aria-labelledby="over" className="card space-y-3 !border-2 !border-no p-4">
              <h2 id="over" className="text-2xl font-bold">
                Too much {targets[fix.byPart]?.name}
              </h2>
              <p className="text-lg">
                {fmt(got[fix.byPart], "mass")} is in, {fmt(targets[fix.byPart]?.targetG, "mass")} was wanted. Nothing comes out of the cup again, so the rest
                follows it:
              </p>
              <ul className="space-y-1">
                {targets.map((t, i) => (
                  <li key={t.name} className="flex items-baseline justify-between gap-4 border-b border-line py-1">
                    <span className="text-lg">{t.name}</span>
                    <span>
                      <span className="text-soft line-through">{fmt(t.targetG, "mass")}</span> <b className="figure text-2xl">{fmt(fix.targetsG[i], "mass")}</b>
                      {(fix.addG[i] ?? 0) > 0 && got[i] !== null && <span className="block text-sm">add {fmt(fix.addG[i], "mass")} to what is in</span>}
                    </span>
                  </li>
                ))}
              </ul>
              <p>
                The cup becomes <b>{fmt(fix.totalG, "mass")}</b>, {fmt(fix.extraG, "mass")} more than planned.
                {fix.totalG / w.gMl > w.handling.cupMl / (w.handling.degas ? 4 : 1.3) && (
                  <b className="text-no"> It will not fit its cup of {fmt(w.handling.cupMl, "volume")} with head-room: take a larger one first.</b>
                )}
              </p>
              <div className="flex flex-wrap gap-2">
                <button type="button" className="btn btn-main text-lg" onClick={() => does({ do: "accept", cup, factor: (here?.factor ?? 1) * fix.factor })}>
                  <Check size={20} aria-hidden="true" /> Accept the larger batch
                </button>
                <button
                  type="button"
                  className="btn"
                  onClick={() => {
                    const i = fix.byPart ?? 0;
                    does({ do: "weigh", cup, part: i, was: got[i] ?? null, grams: null, way: "typed" });
                    setPart(i);
                  }}
                >
                  No: I weigh {targets[fix.byPart]?.name} again
                </button>
              </div>
            </section>
          ) : here?.stirredAt === null && !full && part !== null && targets[part] ? (
            <PartPanel
              key={`${cup}-${part}`}
              view={view}
              cup={cup}
              part={part}
              target={targets[part]}
              scale={scale}
              ears={ears}
              cups={cups}
              act={does}
              next={() => setPart(null)}
            />
          ) : here?.stirredAt === null ? (
            <section className="card space-y-3 p-5 text-center">
              <p className="text-xl">
                {w.cups.length > 1 ? `${vessel.one} ${cup + 1} is weighed.` : "Everything is weighed."} {habit.begin.says}
              </p>
              <button type="button" className="btn btn-main !min-h-20 w-full text-3xl" onClick={() => does({ do: "stir", cup })}>
                <Timer size={34} aria-hidden="true" /> {habit.begin.act}
              </button>
              <button type="button" className="btn btn-bare" onClick={() => setPart(0)}>
                Look at a weight again
              </button>
            </section>
          ) : here && here.pouredAt === null ? (
            <Stirring view={view} cup={cup} act={does} />
          ) : null}
          {allPoured && (
            <section className="card space-y-3 p-5">
              {w.changed.length > 0 && (
                <p>
                  Changed for this one: <b>{w.changed.map((c) => say(c.text)).join(" ")}</b>
                </p>
              )}
              <button type="button" className="btn btn-main !min-h-20 w-full text-3xl" disabled={busy} onClick={() => void finish()}>
                <Check size={34} aria-hidden="true" /> All poured: into the log
              </button>
            </section>
          )}
          {/* What is poured in one go is over before anybody reads a level. */}
          {passed && view.fill && w.habit !== "metal" && w.cups.some((c) => c.stirredAt !== null) && <GaugePanel view={view} act={does} />}
          {view.kind === "cast" && passed && (
            <div className="card px-4 py-1">
              <CutFields cut={w.cut} set={(cut) => does({ do: "cut", cut })} melts={w.habit === "metal"} />
            </div>
          )}
          <HandlingFields view={view} cups={cups} scale={scale} act={does} />
          <HandsAndEars ears={ears} choose={chooseEars} />
        </div>
      </div>
      {dropping && (
        <Dialog
          open
          onOpenChange={(o) => !o && setDropping(false)}
          title="Throw this batch away?"
          description="What was weighed is forgotten; the log stays as it is."
        >
          <div className="flex gap-2">
            <button type="button" className="btn" onClick={() => setDropping(false)}>
              Keep it
            </button>
            <button type="button" className="btn !border-no !text-no" onClick={() => void drop()}>
              Throw it away
            </button>
          </div>
        </Dialog>
      )}
    </div>
  );
}

function HoldPointPanel({
  asked,
  held,
  act,
  cautions,
}: {
  asked: readonly HoldPoint[];
  held: readonly HoldPoint[];
  act: (a: WeighAct) => void;
  cautions: readonly string[];
}) {
  return (
    <section aria-labelledby="hold" className="card space-y-3 !border-2 !border-ink p-4">
      <h2 id="hold" className="flex items-center gap-3 text-2xl font-bold">
        <Hand size={30} aria-hidden="true" /> Stop before you wet or melt anything
      </h2>
      <ul className="grid gap-2 sm:grid-cols-2">
        {asked.map((k) => (
          <li key={k}>
            <button
              type="button"
              role="checkbox"
              aria-checked={held.includes(k)}
              onClick={() => act({ do: "hold", point: k, on: !held.includes(k) })}
              className={`flex min-h-20 w-full items-center gap-3 rounded-xl border-2 p-3 text-left text-lg ${held.includes(k) ? "border-sound bg-fine" : "border-ink bg-card"}`}
            >
              <span className="flex size-9 shrink-0 items-center justify-center rounded-lg border-2 border-ink bg-field" aria-hidden="true">
                {held.includes(k) && <Check size={26} />}
              </span>
              {HOLD_POINTS[k]}
            </button>
          </li>
        ))}
      </ul>
      {cautions.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
    </section>
  );
}

function Stirring({ view, cup, act }: { view: WeighView; cup: number; act: (a: WeighAct) => void }) {
  const { refresh } = useBenchClocks();
  const { say } = useUnits();
  const w = view.weighIn;
  const h = w.handling;
  const habit = habitOf(w);
  const degas = async () => {
    const a = await call("clocks", "start", {
      body: {
        label: `${view.weighIn.jobName}: under vacuum`,
        kind: "degas",
        minutes: h.degasMin,
        equipment: "vacuum-pot",
        jobId: view.jobId,
        weighId: `${view.id}:${cup}`,
      },
    });
    if (!a.ok) notice.bad(a.message);
    await refresh();
  };
  return (
    <section aria-labelledby="stirring" className="card space-y-3 p-4">
      <h2 id="stirring" className="text-2xl font-bold">
        {habit.doing.title}
      </h2>
      <ol className="list-decimal space-y-1 pl-6 text-lg">
        {habit.doing.steps({ ...w.facts, degas: h.degas, pressure: h.pressure }).map((x) => (
          <li key={x}>{say(x)}</li>
        ))}
      </ol>
      <LaterParts view={view} cup={cup} act={act} />
      {h.pressure && habit.pressure && (
        <Caution>Rated tanks only, with a working relief valve: never over what is stamped on it, never opened before the gauge is at nothing.</Caution>
      )}
      {h.degas && habit.vacuum && (
        <>
          <Caution>Rated pots only, and only rubber: a hollow master is crushed. It rises to three or four times its volume before it falls.</Caution>
          <button type="button" className="btn text-lg" onClick={() => void degas()}>
            Under vacuum now: {h.degasMin} min
          </button>
        </>
      )}
      <button type="button" className="btn btn-main !min-h-16 w-full text-2xl" onClick={() => act({ do: "empty", cup })}>
        <Check size={28} aria-hidden="true" />{" "}
        {w.cups.length > 1 ? `${habit.vessel.one} ${cup + 1}: ${habit.doing.done.charAt(0).toLowerCase()}${habit.doing.done.slice(1)}` : habit.doing.done}
      </button>
    </section>
  );
}

const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);

/** What may still be added while it is mixed, as it needs: the rest of the water. It is written down as it was. */
function LaterParts({ view, cup, act }: { view: WeighView; cup: number; act: (a: WeighAct) => void }) {
  const { fmt } = useUnits();
  const w = view.weighIn;
  const targets = cupTargets(w, cup);
  const got = cupGot(w, cup);
  const may = habitOf(w).mayFollow;
  return targets.map((t, i) => {
    if (!may.includes(t.role)) return null;
    const late = w.cups[cup]?.parts[i]?.lateG ?? 0;
    const left = t.targetG - (got[i] ?? 0);
    return (
      <div key={t.name} className="space-y-1">
        <p className="text-soft">
          {left > 0.5 ? `${fmt(left, "mass")} of ${t.name.toLowerCase()} held back, for as it needs.` : `All of the ${t.name.toLowerCase()} is in.`}
          {late > 0 && ` ${fmt(late, "mass")} of it went in while mixing.`}
        </p>
        <Added label={`${t.name} added now`} add={(grams) => act({ do: "add", cup, part: i, was: got[i] ?? null, grams })} />
      </div>
    );
  });
}

function Added({ label, add }: { label: string; add: (g: number) => void }) {
  const [g, setG] = useState<number | null>(null);
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="w-48">
        <QuantityField label={label} value={g} dimension="mass" min={0.01} max={1_000_000} optional onChange={setG} />
      </div>
      <button
        type="button"
        className="btn text-lg"
        disabled={g === null || g <= 0}
        onClick={() => {
          if (g !== null) add(g);
          setG(null);
        }}
      >
        <Check size={20} aria-hidden="true" /> It is in
      </button>
    </div>
  );
}
