"use client";

import { DoorOpen, Scale } from "lucide-react";
import Link from "next/link";
import { useMemo } from "react";
import { standOf } from "@/core/log/stand";
import { useUnits } from "../../kit/units";
import { fromNow, useNow } from "../../kit/When";
import type { Lesson } from "@/contract/log";
import type { Pour } from "@/core/log";
import { More } from "../../kit/More";
import { LessonLines } from "../rack/LessonPanel";
import { VerdictMark } from "../../kit/VerdictMark";
import { useJob } from "./JobContext";
import { useActs } from "./useActs";

/** Where one part stands: not begun, poured, curing until, ready, opened. */
const partWords = (pour: Pour | null, now: number, wall: (at: number, now: number) => string): string =>
  pour === null
    ? "not begun"
    : pour.openedAt !== null
      ? `poured ${wall(pour.pouredAt, now)}, opened ${wall(pour.openedAt, now)}`
      : pour.readyAt > now
        ? `poured ${wall(pour.pouredAt, now)}, cures until ${wall(pour.readyAt, now)}`
        : `poured ${wall(pour.pouredAt, now)}, ready`;

const useStand = () => {
  const { inMould, pours } = useJob();
  return useMemo(() => standOf(inMould, pours), [inMould, pours]);
};

/** Where the mould stands, in one line, and the next act as the one main button of the page. */
export function StandLine() {
  const { wall } = useUnits();
  const now = useNow();
  const { busy, weigh, dialog } = useActs();
  const s = useStand();
  const done = s.parts.filter((p) => p.pour).length;
  if (!s.next && !s.inside && done === 0) return null;
  const waits = s.fromAt !== null && now !== null && s.fromAt > now;
  const at = (t: number) => (now === null ? "…" : `${wall(t, now)}, ${fromNow(t, now)}`);
  return (
    <section aria-label="Where it stands" className="flex min-w-0 flex-1 basis-80 items-center justify-end gap-3 max-sm:justify-between">
      <p className="min-w-0 leading-tight sm:text-right">
        {s.inside ? (
          <>
            <b>{s.inside.snapshot.what}</b> is in the mould, {waits && s.fromAt !== null ? `to open ${at(s.fromAt)}.` : "ready to open."}
          </>
        ) : s.next ? (
          <>
            {!s.made && done > 0 && (
              <span className="text-soft">
                {done} of {s.parts.length} done.{" "}
              </span>
            )}
            Next: <b>{s.next.name}</b>
            {waits && s.fromAt !== null ? `, from ${at(s.fromAt)}` : s.after ? ", now" : ""}
            {s.toAt !== null && now !== null && `, no later than ${wall(s.toAt, now)}`}.
          </>
        ) : (
          "Its mould is made."
        )}
      </p>
      {s.inside ? (
        <Link className={`btn shrink-0 ${waits ? "" : "btn-main"}`} href={`/log/${s.inside.id}`}>
          <DoorOpen size={20} aria-hidden="true" /> Open it
        </Link>
      ) : (
        s.next && (
          <button
            type="button"
            className={`btn shrink-0 ${waits ? "" : "btn-main"}`}
            disabled={busy}
            onClick={() => s.next && weigh({ kind: s.next.kind, index: s.next.index, title: s.next.name })}
            aria-label={`Weigh it in, next: ${s.next.name}`}
          >
            <Scale size={20} aria-hidden="true" /> Weigh it in
          </button>
        )
      )}
      {dialog}
    </section>
  );
}

/** What the mould that is there says: what its last casting taught, how far each part is, and in what it differs from the job. */
export function StandMore({ lesson }: { lesson: Lesson | null }) {
  const { inMould, otherwise, moulds } = useJob();
  const { fmt, wall } = useUnits();
  const now = useNow();
  const s = useStand();
  const begun = s.parts.some((p) => p.pour);
  return (
    <>
      {lesson && s.made && (lesson.change || lesson.sure) && (
        <More title="Last time" now={lesson.line}>
          <section aria-label="What last time taught">
            <LessonLines lesson={lesson} />
          </section>
        </More>
      )}
      {otherwise.length > 0 && (
        <section aria-label="The mould that is there" className="rounded-xl bg-paper p-3 text-[0.95rem]">
          <p>
            <b>{moulds[0]?.name ?? "Its mould"} was made otherwise than the job says now:</b> {otherwise.join("; ")}. It is weighed as it was made
            {inMould.tally.castG === null ? "" : `, ${fmt(inMould.tally.castG, "mass")} to mix`}. <VerdictMark verdict={inMould.chain.verdict} size={17} />
          </p>
        </section>
      )}
      {begun && s.parts.length > 1 && (
        <More title="Each part of it" now={`${s.parts.filter((p) => p.pour).length} of ${s.parts.length} done`}>
          <ul>
            {s.parts.map((p) => (
              <li key={`${p.act.kind} ${p.act.index}`} className="flex flex-wrap justify-between gap-x-3 border-b border-line py-1">
                <b>{p.act.name}</b>
                <span className="text-soft">{now === null ? "…" : partWords(p.pour, now, wall)}</span>
              </li>
            ))}
          </ul>
        </More>
      )}
    </>
  );
}
