"use client";

import { useState } from "react";
import type { LogEvent, Pour } from "@/core/log";
import { OUTCOME_WORD } from "@/core/plan";
import { call } from "../../data/call";
import { WhenField } from "../../form/WhenField";
import { Fold } from "../../kit/Fold";
import { notice } from "../../kit/notice";
import { When } from "../../kit/When";
import { doubtsOf, type Asked } from "./AskFirst";

const FIRST: Partial<Record<LogEvent["what"]["kind"], true>> = { outcome: true, opened: true, poured: true };

/** When it was poured, to be corrected, and what was written down first of what has been corrected. */
export function Poured({
  pour,
  events,
  moved,
  ask,
}: {
  pour: Pour;
  events: readonly LogEvent[];
  /** It was moved to another time. */
  moved: (pour: Pour) => void;
  ask: (asked: Asked) => void;
}) {
  const [when, setWhen] = useState<{ at: number | null; ok: boolean }>({ at: null, ok: true });
  const first = events.filter((e) => FIRST[e.what.kind]);
  const move = async (at: number, despite: string[] = []) => {
    const a = await call("log", "change", { params: { id: pour.id }, body: { pouredAt: at, despite } });
    if (a.ok) return moved(a.data);
    const doubts = doubtsOf(a);
    if (!doubts) return notice.bad(a.message);
    ask({ doubts, yes: (keys) => void move(at, keys) });
  };
  return (
    <>
      {first.length > 0 && (
        <ul className="text-sm text-soft" aria-label="Written down first">
          {first.map((e) => (
            <li key={e.id}>
              Until <When at={e.at} />:{" "}
              {e.what.kind === "outcome" ? (
                <>came out “{e.what.was === null ? "not judged" : OUTCOME_WORD[e.what.was].toLowerCase()}”</>
              ) : e.what.kind === "opened" || e.what.kind === "poured" ? (
                <>
                  {e.what.kind} <When at={e.what.was} />
                </>
              ) : null}
            </li>
          ))}
        </ul>
      )}
      <Fold title="It was poured at another time" titleClass="min-h-11 text-soft">
        <div className="flex flex-wrap items-end gap-3">
          <WhenField label="When it was" onChange={(at, ok) => setWhen({ at, ok })} />
          <button
            type="button"
            className="btn"
            disabled={!when.ok || when.at === null}
            onClick={() => {
              if (when.at !== null) void move(when.at);
            }}
          >
            Correct it
          </button>
        </div>
        <p className="hint mt-1">Its clocks move with it; what was written first is kept.</p>
      </Fold>
    </>
  );
}
