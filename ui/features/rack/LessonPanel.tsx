"use client";

import { useState } from "react";
import Link from "next/link";
import type { Lesson } from "@/contract/log";
import type { Changed } from "@/core/plan";
import { useUnits } from "../../kit/units";
import { When } from "../../kit/When";

/** What the last casting taught, and the one change it proposes. */
export function LessonLines({ lesson }: { lesson: Lesson }) {
  const { say } = useUnits();
  return (
    <>
      <p className="text-lg">
        <b>Last time</b>{" "}
        <Link href={`/log/${lesson.pourId}`} className="underline">
          <When at={lesson.pouredAt} />
        </Link>
        : {lesson.line} {lesson.sure && <span className="text-soft">{lesson.sure}</span>}
      </p>
      {lesson.change && (
        <p>
          <b>{say(lesson.change.change)}</b> <span className="text-soft">{say(lesson.change.why)}</span>
        </p>
      )}
    </>
  );
}

const CHOICES = { doing: "Doing it", not: "Not this time", other: "Something else" } as const;
type ChoiceKey = keyof typeof CHOICES;

/** The same before a batch is weighed, with what one will do of it: nothing is ticked until somebody says. */
export function LessonPanel({ lesson, changed, put }: { lesson: Lesson; changed: readonly Changed[]; put: (changed: Changed[]) => void }) {
  const proposed = lesson.change;
  const [said, setSaid] = useState<ChoiceKey | null>(proposed && changed.some((c) => c.key === proposed.key) ? "doing" : changed.length > 0 ? "other" : null);
  const [own, setOwn] = useState(() => changed.find((c) => c.key === null)?.text ?? "");
  const told = (choice: ChoiceKey, text: string) => {
    setSaid(choice);
    const mine: Changed[] = choice === "other" && text.trim() !== "" ? [{ key: null, text: text.trim() }] : [];
    put(choice === "doing" && proposed ? [{ key: proposed.key, text: proposed.change.slice(0, 300) }] : mine);
  };
  const also = (text: string) => {
    setOwn(text);
    const first: Changed[] = said === "doing" && proposed ? [{ key: proposed.key, text: proposed.change.slice(0, 300) }] : [];
    put([...first, ...(text.trim() === "" ? [] : [{ key: null, text: text.trim() }])]);
  };
  return (
    <section aria-label="What last time taught" className="card space-y-2 !border-2 !border-ink p-4">
      <LessonLines lesson={lesson} />
      {proposed && (
        <div className="flex flex-wrap gap-2" role="radiogroup" aria-label="What you will do of it">
          {(Object.keys(CHOICES) as ChoiceKey[]).map((k) => (
            <button key={k} type="button" role="radio" aria-checked={said === k} className="chip" onClick={() => told(k, own)}>
              {CHOICES[k]}
            </button>
          ))}
        </div>
      )}
      {(said === "other" || said === "doing") && (
        <label className="block">
          <span className="label">{said === "other" ? "What you change" : "And what else you change, if anything"}</span>
          <input className="field" maxLength={300} value={own} onChange={(e) => also(e.target.value)} />
        </label>
      )}
      {changed.length > 1 && (
        <p className="hint font-semibold !text-care">Two changes at once: whichever way it comes out, nobody can tell which one did it.</p>
      )}
    </section>
  );
}
