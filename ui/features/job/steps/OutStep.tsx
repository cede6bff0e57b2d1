"use client";

import { CheckCheck, Scale } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Wait } from "@/core/cure";
import { INSERT_PRACTICE } from "@/core/mould";
import { jacketPartsOf, OUTCOME_WORD, type PourKind } from "@/core/plan";
import { NO_CUT, type Cut } from "@/core/weigh";
import { Pick } from "../../../kit/Pick";
import { notice } from "../../../kit/notice";
import { call } from "../../../data/call";
import type { Pour } from "@/core/log";
import { useActKey } from "../../../data/key";
import { useUnits } from "../../../kit/units";
import { CutFields } from "../../weigh/CutFields";
import { VerdictMark } from "../../../kit/VerdictMark";
import { useNow, When } from "../../../kit/When";
import { useJob } from "../JobContext";
import { JobField } from "../JobField";

export function OutStep() {
  const { plan, moulds, pours } = useJob();
  const { say } = useUnits();
  const [mouldId, setMouldId] = useState<string | null>(null);
  const [cut, setCut] = useState(NO_CUT);
  const refused = plan.chain.verdict === "no" || plan.chain.verdict === "untested";
  return (
    <>
      <JobField path="shopC" />
      {refused && (
        <p className="flex items-center gap-2 font-semibold">
          <VerdictMark verdict={plan.chain.verdict} /> See the pairing and prepare steps before you pour.
        </p>
      )}
      {plan.remarks
        .filter((r) => r.step === "out")
        .map((r) => (
          <p key={r.message} className="hint font-semibold !text-care">
            {say(r.message)}
          </p>
        ))}
      <div className="rounded-xl border-2 border-dashed border-ink p-3">
        <p className="font-semibold">Stop before you wet or melt anything:</p>
        <p>Release on and dry. Board level. Cups, sticks, scale and tools laid out. Gloves and goggles on, and a mask for dust.</p>
        {plan.inside?.inserts.map((i, k) => (
          <p key={k}>
            <b>
              {i.count} × {i.label.toLowerCase()}:
            </b>{" "}
            {INSERT_PRACTICE[i.kind]}
          </p>
        ))}
      </div>
      {plan.pours.length === 0 && !plan.castCure && <p>Times appear once the rubber and the cast are worked out.</p>}
      {plan.pours.map((p, i) => (
        <Clock
          key={p.name}
          title={plan.pours.length === 1 ? "Rubber" : `Rubber, ${p.name.toLowerCase()}`}
          wait={p.wait}
          until={p.wait.until === "recoat" ? "next coat from" : p.kind === "coat" && p !== plan.pours.at(-1) ? "next section after" : "open after"}
          kind="rubber"
          index={i}
          ready={p.batch !== null}
          mouldId={null}
        />
      ))}
      {jacketPartsOf(plan).map((part, i, all) => (
        <Clock
          key={part.name}
          title={`${part.name}, ${part.material.toLowerCase()}`}
          wait={part.sets}
          until={i < all.length - 1 ? "next part after" : "lift after"}
          kind="jacket"
          index={i}
          ready
          mouldId={null}
        />
      ))}
      {plan.castCure && plan.cast && (
        <>
          {moulds.length > 1 && (
            <Pick
              label="Cast in which mould?"
              value={mouldId ?? moulds[0]?.id ?? null}
              options={moulds.map((m) => ({ value: m.id, label: m.name }))}
              none="The newest"
              onChange={setMouldId}
            />
          )}
          <CutFields cut={cut} set={setCut} />
          {plan.layers.map((l, i) => {
            const last = l.next === null;
            return (
              <Clock
                key={l.name}
                title={l.coat ? `${l.name}, ${l.cast.name.toLowerCase()}` : l.cast.name}
                wait={l.next ?? plan.castCure?.demould ?? l.cure.demould}
                until={last ? "open after" : "next layer from"}
                kind={last ? "cast" : "layer"}
                index={last ? 0 : i}
                ready
                mouldId={mouldId}
                cut={cut}
              />
            );
          })}
          {plan.castCure.finished && (
            <p className="text-[0.95rem]">
              <b>
                {plan.castCure.finished.name}: <Span wait={plan.castCure.finished} />.
              </b>{" "}
              <span className="text-soft">{say(plan.castCure.finished.reason)}</span>
            </p>
          )}
        </>
      )}
      <History pours={pours} />
    </>
  );
}

function Span({ wait }: { wait: Wait }) {
  const { band } = useUnits();
  return <>{band(wait.hours, "duration")}</>;
}

/** How long one pour takes, until when if poured now, and the tap that logs it. */
function Clock({
  title,
  wait,
  until = "open after",
  kind,
  index,
  ready,
  mouldId,
  cut = NO_CUT,
}: {
  title: string;
  wait: Wait;
  until?: string;
  kind: PourKind;
  index: number;
  ready: boolean;
  mouldId: string | null;
  cut?: Cut;
}) {
  const { id, document } = useJob();
  const { fmt, say, wall } = useUnits();
  const router = useRouter();
  const now = useNow();
  const [busy, setBusy] = useState(false);
  const act = useActKey();
  const log = async () => {
    setBusy(true);
    const saved = await document.flush();
    const answer = saved
      ? await call("log", "enter", {
          body: {
            key: act.key(),
            jobId: id,
            jobRevision: document.getState().revision,
            kind,
            pourIndex: index,
            mouldId,
            cut,
          },
        })
      : null;
    setBusy(false);
    if (!answer) return notice.bad("Not logged: the job itself could not be saved yet. See the note on top.");
    if (!answer.ok) return notice.bad(answer.message);
    act.answered();
    notice.good(`${title} is in the log. Its clock is running.`);
    router.refresh();
  };
  const weigh = async () => {
    setBusy(true);
    const saved = await document.flush();
    const answer = saved
      ? await call("weigh", "begin", { body: { jobId: id, jobRevision: document.getState().revision, kind, pourIndex: index, mouldId, cut } })
      : null;
    setBusy(false);
    if (!answer) return notice.bad("Not begun: the job itself could not be saved yet. See the note on top.");
    if (!answer.ok) return notice.bad(answer.message);
    router.push(`/weigh/${answer.data.id}`);
  };
  return (
    <div className="flex flex-wrap items-center justify-between gap-3 rounded-xl bg-paper p-3">
      <div className="min-w-0 flex-1 basis-64">
        <p className="text-sm text-soft">
          {title}: {until}
        </p>
        {wait.never ? (
          <p className="fault text-lg">{say(wait.never)}</p>
        ) : (
          <>
            <p className="figure text-3xl leading-tight">{fmt(wait.hours.typical, "duration")}</p>
            <p className="text-sm">
              Between <Span wait={wait} />
              {now !== null && <>; poured now, about {wall(now + wait.hours.typical * 3_600_000, now)}</>}
            </p>
            <p className="hint mt-1">{say(wait.reason)}</p>
          </>
        )}
      </div>
      <div className="flex flex-col gap-2">
        <button
          type="button"
          className="btn btn-main text-lg"
          disabled={!ready || busy}
          onClick={() => void weigh()}
          aria-label={`Weigh in ${title.toLowerCase()}`}
        >
          <Scale size={20} aria-hidden="true" /> Weigh it in
        </button>
        <button type="button" className="btn" disabled={!ready || busy} onClick={() => void log()} aria-label={`Poured ${title.toLowerCase()}: log it`}>
          <CheckCheck size={20} aria-hidden="true" /> Poured: log it
        </button>
      </div>
    </div>
  );
}

function History({ pours }: { pours: readonly Pour[] }) {
  if (pours.length === 0) return null;
  return (
    <div>
      <h3 className="text-lg font-bold">Poured so far</h3>
      <ul className="divide-y divide-line">
        {pours.slice(0, 8).map((p) => (
          <li key={p.id}>
            <Link href={`/log/${p.id}`} className="flex min-h-12 flex-wrap items-center justify-between gap-x-3 hover:bg-peel/40">
              <span className="font-semibold">{p.snapshot.what}</span>
              <span className="text-soft">
                <When at={p.pouredAt} />
              </span>
              <span>{p.openedAt === null ? "curing" : p.outcome ? OUTCOME_WORD[p.outcome] : "opened"}</span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}
