"use client";

import { Plus, X } from "lucide-react";
import { useState } from "react";
import type { Shareable, WeighView } from "@/contract/weigh";
import { portions } from "@/core/weigh";
import { call } from "../../data/call";
import { Fold } from "../../kit/Fold";
import { notice } from "../../kit/notice";
import { useUnits } from "../../kit/units";
import { AskFirst, doubtsOf, type Asked } from "../log/AskFirst";

type Which = Pick<Shareable, "jobId" | "kind" | "pourIndex" | "mouldId">;

/** What goes where out of shared cups: never all of it into the first mould. */
export function Shared({ view, remove }: { view: WeighView; remove?: (x: Which) => void }) {
  const { fmt } = useUnits();
  const w = view.weighIn;
  const [own = 1] = portions(w.batchG, w.shares);
  return (
    <ul aria-label="What goes where" className="card flex flex-wrap gap-x-6 gap-y-1 p-3">
      <li>
        <b className="figure text-xl">{fmt(own * w.batchG, "mass")}</b> into {w.what.toLowerCase()}, {w.jobName}
      </li>
      {w.shares.map((s) => (
        <li key={`${s.jobId} ${s.kind} ${s.pourIndex} ${s.mouldId}`} className="flex items-center gap-1">
          <span>
            <b className="figure text-xl">{fmt(s.batchG, "mass")}</b> into {s.what.toLowerCase()}, {s.jobName}
          </span>
          {remove && (
            <button
              type="button"
              className="btn btn-bare !min-h-11"
              aria-label={`No more into ${s.what.toLowerCase()}, ${s.jobName}`}
              onClick={() => remove(s)}
            >
              <X size={18} aria-hidden="true" />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Pours something else from the same cups, while nothing is weighed yet. */
export function SharePanel({ view, take }: { view: WeighView; take: (view: WeighView) => void }) {
  const { fmt } = useUnits();
  const [found, setFound] = useState<Shareable[] | null>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const look = async () => {
    const a = await call("weigh", "shareable", { params: { id: view.id } });
    if (!a.ok) return notice.bad(a.message);
    setFound(a.data);
  };
  const share = async ({ jobId, kind, pourIndex, mouldId }: Which, on: boolean, despite: string[] = []) => {
    const a = await call("weigh", "share", { params: { id: view.id }, body: { jobId, kind, pourIndex, mouldId, on, despite } });
    if (a.ok) {
      take(a.data);
      setFound(null);
      return;
    }
    const doubts = doubtsOf(a);
    if (!doubts) return notice.bad(a.message);
    setAsked({ doubts, yes: (keys) => void share({ jobId, kind, pourIndex, mouldId }, on, keys) });
  };
  return (
    <>
      {view.weighIn.shares.length > 0 && <Shared view={view} remove={(x) => void share(x, false)} />}
      <Fold title="Fill another mould from the same cups">
        {found === null ? (
          <button type="button" className="btn mt-1" onClick={() => void look()}>
            Which take the same mix?
          </button>
        ) : found.length === 0 ? (
          <p className="hint mt-1">No other job in hand wants the same mix next.</p>
        ) : (
          <ul className="mt-1 flex flex-wrap gap-2">
            {found.map((x) => (
              <li key={`${x.jobId} ${x.kind} ${x.pourIndex} ${x.mouldId}`}>
                <button type="button" className="btn" onClick={() => void share(x, true)}>
                  <Plus size={18} aria-hidden="true" /> {x.what}, {x.jobName}: {fmt(x.batchG, "mass")}
                </button>
              </li>
            ))}
          </ul>
        )}
      </Fold>
      <AskFirst asked={asked} act="Share it all the same" close={() => setAsked(null)} />
    </>
  );
}
