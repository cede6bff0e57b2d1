"use client";

import { Scale } from "lucide-react";
import Link from "next/link";
import { Fragment, useState, type ReactNode } from "react";
import type { Wait } from "@/core/cure";
import { meltsAgain } from "@/core/material";
import { INSERT_PRACTICE } from "@/core/mould";
import { jacketPartsOf, OUTCOME_WORD, type PourKind } from "@/core/plan";
import { NO_CUT, type Cut } from "@/core/weigh";
import { Pick } from "../../../kit/Pick";
import type { Pour } from "@/core/log";
import { standOf } from "@/core/log/stand";
import { WhenField } from "../../../form/WhenField";
import { useUnits } from "../../../kit/units";
import { CutFields } from "../../weigh/CutFields";
import { VerdictMark } from "../../../kit/VerdictMark";
import { useNow, When } from "../../../kit/When";
import { useJob } from "../JobContext";
import { Aside } from "../../../kit/brief";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";
import { useActs, type Acts } from "../useActs";

export function OutStep() {
  const { job, plan, inMould, moulds, pours } = useJob();
  const { fmt, say } = useUnits();
  const [mouldId, setMouldId] = useState<string | null>(null);
  const [cut, setCut] = useState(NO_CUT);
  const stand = standOf(inMould, pours);
  // One for all clocks: what asks first stays while a clock moves to another place.
  const acts = useActs();
  const { next } = stand;
  const isNext = (kind: PourKind, index: number) => stand.next?.kind === kind && stand.next.index === index;
  const warnings = plan.remarks.filter((r) => r.step === "out");
  const refused = plan.chain.verdict === "no" || plan.chain.verdict === "untested";
  const mine = next ? `${next.kind} ${next.index}` : null;
  const clocks = [
    ...plan.pours.map((p, i) => ({
      key: `rubber ${i}`,
      clock: (
        <Clock
          acts={acts}
          title={plan.pours.length === 1 ? "Rubber" : `Rubber, ${p.name.toLowerCase()}`}
          wait={p.wait}
          until={p.wait.until === "recoat" ? "next coat from" : p.kind === "coat" && p !== plan.pours.at(-1) ? "next section after" : "open after"}
          kind="rubber"
          index={i}
          ready={p.batch !== null}
          next={isNext("rubber", i)}
          mouldId={null}
        />
      ),
    })),
    ...jacketPartsOf(plan).map((part, i, parts) => ({
      key: `jacket ${i}`,
      clock: (
        <Clock
          acts={acts}
          title={`${part.name}, ${part.material.toLowerCase()}`}
          wait={part.sets}
          until={i < parts.length - 1 ? "next part after" : "lift after"}
          kind="jacket"
          index={i}
          ready
          next={isNext("jacket", i)}
          mouldId={null}
        />
      ),
    })),
  ];
  const rest = clocks.filter((c) => c.key !== mine);
  return (
    <>
      {acts.dialog}
      {refused && (
        <p className="flex items-center gap-2 font-semibold">
          <VerdictMark verdict={plan.chain.verdict} /> See “Cast & rubber” and “Prepare” before you pour.
        </p>
      )}
      {warnings.length > 0 && (
        <More title="To watch" now={`${warnings.length}`} open={!refused}>
          {warnings.map((r) => (
            <p key={r.message} className="hint font-semibold !text-care">
              {say(r.message)}
            </p>
          ))}
        </More>
      )}
      {plan.pours.length === 0 && !plan.castCure && <p>Times appear once the rubber and the cast are worked out.</p>}
      {/* Each pour is another clock: what was typed for one is not the next one's. */}
      <Fragment key={mine}>{clocks.find((c) => c.key === mine)?.clock}</Fragment>
      {inMould.castCure && inMould.cast && (
        <Casting next={next?.kind === "layer" || next?.kind === "cast" || next === null}>
          {moulds.length > 1 && (
            <Pick
              label="Cast in which mould?"
              value={mouldId ?? moulds[0]?.id ?? null}
              options={moulds.map((m) => ({ value: m.id, label: m.name }))}
              none="The newest"
              onChange={setMouldId}
            />
          )}
          <CutFields cut={cut} set={setCut} melts={inMould.cast !== null && meltsAgain(inMould.cast)} />
          {inMould.layers.map((l, i) => {
            const last = l.next === null;
            return (
              <Clock
                acts={acts}
                key={l.name}
                title={l.coat ? `${l.name}, ${l.cast.name.toLowerCase()}` : l.cast.name}
                wait={l.next ?? inMould.castCure?.demould ?? l.cure.demould}
                until={last ? "open after" : "next layer from"}
                kind={last ? "cast" : "layer"}
                index={last ? 0 : i}
                ready
                next={isNext(last ? "cast" : "layer", last ? 0 : i)}
                mouldId={mouldId}
                cut={cut}
              />
            );
          })}
          {inMould.castCure.finished && (
            <p className="text-[0.95rem]">
              <b>
                {inMould.castCure.finished.name}: <Span wait={inMould.castCure.finished} />.
              </b>{" "}
              <Aside>
                <span className="text-soft">{say(inMould.castCure.finished.reason)}</span>
              </Aside>
            </p>
          )}
        </Casting>
      )}
      {(rest.length > 0 || pours.length > 0) && (
        <More title="All pours" now={pours.length > 0 ? `${pours.length} in the log` : `${rest.length}`}>
          {rest.map((c) => (
            <Fragment key={c.key}>{c.clock}</Fragment>
          ))}
          <History pours={pours} />
        </More>
      )}
      <More title="Before you begin" now={`shop ${fmt(job.shopC, "temperature")}`}>
        <JobField path="shopC" />
        <p>Release on and dry. Board level. Cups, sticks, scale and tools laid out. Gloves and goggles on, and a mask for dust.</p>
        {plan.inside?.inserts.map((i, k) => (
          <p key={k}>
            <b>
              {i.count} × {i.label.toLowerCase()}:
            </b>{" "}
            {INSERT_PRACTICE[i.kind]}
          </p>
        ))}
      </More>
    </>
  );
}

/** The casting's own clocks: seen when it is its turn. */
const Casting = ({ next, children }: { next: boolean; children: ReactNode }) => (next ? <>{children}</> : <More title="The casting">{children}</More>);

function Span({ wait }: { wait: Wait }) {
  const { band } = useUnits();
  return <>{band(wait.hours, "duration")}</>;
}

/** How long one pour takes, until when if poured now, and the tap that logs it. */
function Clock({
  acts: { busy, weigh, log },
  title,
  wait,
  until = "open after",
  kind,
  index,
  ready,
  mouldId,
  cut = NO_CUT,
  next,
}: {
  acts: Acts;
  title: string;
  wait: Wait;
  until?: string;
  kind: PourKind;
  index: number;
  ready: boolean;
  mouldId: string | null;
  cut?: Cut;
  /** It is what comes next: its button is the main one. */
  next: boolean;
}) {
  const { fmt, say, wall } = useUnits();
  const now = useNow();
  const [dating, setDating] = useState(false);
  const [when, setWhen] = useState<{ at: number | null; ok: boolean }>({ at: null, ok: true });
  const todo = { kind, index, title, mouldId, cut };
  return (
    <div className="space-y-2 rounded-xl bg-paper p-3">
      <div className="min-w-0">
        <p className="text-sm text-soft">
          {title}: {until}
        </p>
        {wait.never ? (
          <p className="fault text-lg">{say(wait.never)}</p>
        ) : (
          <>
            <p className="figure text-3xl leading-tight">{fmt(wait.hours.typical, "duration")}</p>
            <p className="text-sm">
              <Span wait={wait} />
              {now !== null && <>; poured now, {wall(now + wait.hours.typical * 3_600_000, now)}</>}
            </p>
            <Aside>
              <p className="hint mt-1">{say(wait.reason)}</p>
            </Aside>
          </>
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className={`btn ${next ? "btn-main" : ""}`}
          disabled={!ready || busy}
          onClick={() => weigh(todo)}
          aria-label={`Weigh in ${title.toLowerCase()}`}
        >
          <Scale size={20} aria-hidden="true" /> Weigh it in
        </button>
        <button
          type="button"
          className="btn"
          disabled={!ready || busy || !when.ok}
          onClick={() => log(todo, when.at)}
          aria-label={`Poured ${title.toLowerCase()}: log it`}
        >
          Poured: log it
        </button>
        {dating ? (
          <WhenField label="When it was" onChange={(at, ok) => setWhen({ at, ok })} />
        ) : (
          <button
            type="button"
            className="btn btn-bare !px-2"
            disabled={!ready}
            onClick={() => setDating(true)}
            aria-label={`Earlier: say when ${title.toLowerCase()} was poured`}
          >
            Earlier …
          </button>
        )}
      </div>
    </div>
  );
}

function History({ pours }: { pours: readonly Pour[] }) {
  if (pours.length === 0) return null;
  return (
    <div>
      <h3 className="font-bold">Poured so far</h3>
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
