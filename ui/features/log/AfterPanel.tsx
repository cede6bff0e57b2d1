"use client";

import { Check, Plus, Undo2 } from "lucide-react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { AfterPour } from "@/contract/log";
import type { EventWhat, LogEvent, Pour } from "@/core/log";
import type { Need } from "@/core/plan";
import { call } from "../../data/call";
import { useActKey } from "../../data/key";
import { QuantityField } from "../../form/QuantityField";
import { WhenField } from "../../form/WhenField";
import { Choice } from "../../kit/Choice";
import { Fold } from "../../kit/Fold";
import { notice } from "../../kit/notice";
import { Pick } from "../../kit/Pick";
import { useUnits } from "../../kit/units";
import { When } from "../../kit/When";

const DryingChart = dynamic(() => import("../../chart/DryingChart").then((m) => m.DryingChart), { ssr: false });

/** Writes an event of a pour down and shows the page anew. */
function useWriting(pourId: string): { busy: boolean; write: (what: EventWhat, at?: number | null) => Promise<boolean>; takeBack: (id: string) => void } {
  const router = useRouter();
  const act = useActKey();
  const [busy, setBusy] = useState(false);
  const write = async (what: EventWhat, at: number | null = null) => {
    setBusy(true);
    const a = await call("log", "write", { params: { id: pourId }, body: { key: act.key(), what, ...(at === null ? {} : { at }) } });
    setBusy(false);
    if (!a.ok) {
      notice.bad(a.message);
      return false;
    }
    act.answered();
    router.refresh();
    return true;
  };
  const takeBack = async (id: string) => {
    const a = await call("log", "takeBack", { params: { id } });
    if (!a.ok) return notice.bad(a.message);
    router.refresh();
  };
  return { busy, write, takeBack: (id) => void takeBack(id) };
}

/** What is left to do with a casting, in order: while it stands in the mould, once it is out, and how it dries. */
export function AfterPanel({ pour, after }: { pour: Pour; after: AfterPour }) {
  const { write, takeBack, busy } = useWriting(pour.id);
  const [when, setWhen] = useState<{ at: number | null; ok: boolean }>({ at: null, ok: true });
  const done = new Map(after.events.flatMap((e) => (e.what.kind === "done" ? [[e.what.step, e] as const] : [])));
  const shown = after.steps.filter((s) => s.when === "poured" || pour.openedAt !== null || s.own);
  const later = after.steps.length - shown.length;
  return (
    <section aria-labelledby="after" className="card space-y-3 p-4">
      <h2 id="after" className="text-xl font-bold">
        {pour.openedAt === null ? "While it stands" : "To finish it"}
      </h2>
      <ul className="space-y-1.5">
        {shown.map((s) => (
          <Step
            key={s.id}
            step={s}
            done={done.get(s.id) ?? null}
            busy={busy || !when.ok}
            tick={() => void write({ kind: "done", step: s.id, text: s.text }, when.at)}
            back={takeBack}
          />
        ))}
      </ul>
      {shown.length > 0 && <WhenField label="Done earlier?" onChange={(at, ok) => setWhen({ at, ok })} />}
      {later > 0 && <p className="hint">{later === 1 ? "One more step follows" : `${later} more steps follow`} once it is opened.</p>}
      <OwnStepForm pourId={pour.id} steps={after.steps} />
      {after.dries && pour.openedAt !== null && <DryingPanel after={after} one={after.count > 1} write={write} takeBack={takeBack} />}
    </section>
  );
}

function Step({ step, done, busy, tick, back }: { step: Need; done: LogEvent | null; busy: boolean; tick: () => void; back: (id: string) => void }) {
  const { say } = useUnits();
  return (
    <li className={`flex items-start gap-3 rounded-lg p-2 ${step.hold && !done ? "border-l-4 border-care bg-peel/40" : ""}`}>
      <button
        type="button"
        role="checkbox"
        aria-checked={done !== null}
        aria-label={say(step.text)}
        disabled={busy}
        onClick={() => (done ? back(done.id) : tick())}
        className="flex h-11 w-11 shrink-0 items-center justify-center rounded-lg border-2 border-ink bg-card"
      >
        {done && <Check size={26} aria-hidden="true" />}
      </button>
      <div className="min-w-0">
        <p className={done ? "text-soft" : ""}>
          {step.hold && !done && <b>Before you go on: </b>}
          {say(step.text)}
        </p>
        {done && (
          <p className="text-sm text-soft">
            Done <When at={done.at} />
          </p>
        )}
      </div>
    </li>
  );
}

/** A step of a person's own: here, and at every casting of this job to come. */
function OwnStepForm({ pourId, steps }: { pourId: string; steps: readonly Need[] }) {
  const router = useRouter();
  const { say } = useUnits();
  const [text, setText] = useState("");
  const [when, setWhen] = useState<"poured" | "opened">("opened");
  const [after, setAfter] = useState<string | null>(null);
  const add = async () => {
    const a = await call("log", "ownStep", { params: { id: pourId }, body: { text, when, after } });
    if (!a.ok) return notice.bad(a.message);
    setText("");
    notice.good("Added, here and for the next casting.");
    router.refresh();
  };
  return (
    <Fold title="Add a step of your own">
      <div className="mt-1 space-y-2">
        <label className="block">
          <span className="label">What is done</span>
          <input className="field" maxLength={300} value={text} onChange={(e) => setText(e.target.value)} />
        </label>
        <Choice
          label="When"
          value={when}
          options={[
            { value: "poured", label: "While it stands" },
            { value: "opened", label: "Once it is out" },
          ]}
          onChange={(v) => setWhen(v === "poured" ? "poured" : "opened")}
        />
        {steps.length > 0 && (
          <Pick
            label="After"
            value={after}
            none="At the end"
            options={steps.map((s) => ({ value: s.id, label: say(s.text).slice(0, 60) }))}
            onChange={setAfter}
          />
        )}
        <button type="button" className="btn" disabled={text.trim() === ""} onClick={() => void add()}>
          <Plus size={18} aria-hidden="true" /> Add it
        </button>
      </div>
    </Fold>
  );
}

/** Weighings of a casting that dries: its own curve, and whether it is dry. */
function DryingPanel({
  after,
  one,
  write,
  takeBack,
}: {
  after: AfterPour;
  /** Of several castings one is weighed. */
  one: boolean;
  write: ReturnType<typeof useWriting>["write"];
  takeBack: (id: string) => void;
}) {
  const { fmt, wall } = useUnits();
  const [massG, setMass] = useState<number | null>(null);
  const [when, setWhen] = useState<{ at: number | null; ok: boolean }>({ at: null, ok: true });
  const d = after.drying;
  const last = d?.weighings.at(-1);
  const weighed = after.events.filter((e) => e.what.kind === "weighed");
  const dryAt = d?.dryAfterH ? (h: number) => d.fromAt + h * 3_600_000 : null;
  const now = last?.at ?? 0;
  return (
    <div className="space-y-2 border-t border-line pt-3">
      <h3 className="text-lg font-bold">Drying</h3>
      {d && (
        <p className="text-lg" role="status">
          {d.dry ? (
            <b className="text-sound">Dry: it loses next to nothing in a day.</b>
          ) : (
            <>
              <b className="figure text-3xl">{fmt(d.waterG, "mass")}</b> of water still in it.{" "}
              {d.dryAfterH && dryAt ? (
                <>
                  Dry about {wall(dryAt(d.dryAfterH.typical), now)}, between {wall(dryAt(d.dryAfterH.low), now)} and {wall(dryAt(d.dryAfterH.high), now)}.
                </>
              ) : (
                "Weigh it again in a day, and it says until when."
              )}
              {last && d.dailyLoss !== null && d.dailyLoss < 0.001 && (
                <> Your scale cannot tell yet: weigh it again {wall(last.at + d.againAfterH * 3_600_000, last.at)} or later.</>
              )}
            </>
          )}
        </p>
      )}
      {d && d.weighings.length > 1 && <DryingChart drying={d} />}
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-48">
          <QuantityField label={one ? "One of them weighs" : "It weighs"} value={massG} dimension="mass" min={0.1} max={1e6} optional onChange={setMass} />
        </div>
        <WhenField label="Weighed earlier?" onChange={(at, ok) => setWhen({ at, ok })} />
        <button
          type="button"
          className="btn"
          disabled={massG === null || !when.ok}
          onClick={() => {
            if (massG !== null) void write({ kind: "weighed", massG }, when.at).then((ok) => ok && setMass(null));
          }}
        >
          <Plus size={18} aria-hidden="true" /> Write it down
        </button>
      </div>
      {weighed.length > 0 && (
        <ul className="text-sm">
          {weighed.map((e) => (
            <li key={e.id} className="flex items-center justify-between gap-2">
              <span>
                <When at={e.at} />: {e.what.kind === "weighed" && fmt(e.what.massG, "mass")}
              </span>
              <button type="button" className="btn btn-bare !min-h-11" aria-label="Take this weighing back" onClick={() => takeBack(e.id)}>
                <Undo2 size={16} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
