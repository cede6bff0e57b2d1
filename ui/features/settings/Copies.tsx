"use client";

import { Archive, FilePlus2, ShieldCheck, Trash2 } from "lucide-react";
import { useState } from "react";
import type { KeptCopy, KeptWhy, OddEntry, WorkshopCheck } from "@/contract/workshop";
import { call } from "../../data/call";
import { useErrand } from "../../data/useErrand";
import { Progress } from "../../kit/Progress";
import { Caution, Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { Tick } from "../../kit/Tick";
import { useUnits } from "../../kit/units";
import { bytesAsRead } from "./bytes";

const WHY: Record<KeptWhy, string> = {
  "before-restore": "before a restore",
  "before-opening": "before another copy was opened",
  daily: "of the day",
  asked: "kept by hand",
  empty: "an empty workshop",
};
const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

/** Whole copies of the workshop beside it, to go back to; and a look through it all. */
export function Copies({
  initial,
  now,
  daily,
  onDaily,
  onOdd,
}: {
  initial: readonly KeptCopy[];
  now: number;
  daily: boolean;
  onDaily: (on: boolean) => void;
  onOdd: (found: readonly OddEntry[]) => void;
}) {
  const { wall } = useUnits();
  const [copies, setCopies] = useState(initial);
  const [asked, setAsked] = useState<{ copy: KeptCopy; what: "open" | "drop" } | null>(null);
  const errand = useErrand();
  const [changing, setChanging] = useState(false);
  const busy = changing || errand.going !== null;
  const [beginning, setBeginning] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [checked, setChecked] = useState<WorkshopCheck | null>(null);
  const during = async (work: () => Promise<string | null>) => {
    setChanging(true);
    setFault(await work());
    setChanging(false);
  };
  const keep = () =>
    during(async () => {
      const made = await errand.run<"keep">({ do: "keep" });
      if (!made.ok) return made.message;
      const a = await call("kept", "list", {});
      if (a.ok) setCopies(a.data);
      return a.ok ? null : a.message;
    });
  const begin = () =>
    during(async () => {
      setBeginning(false);
      const a = await call("kept", "begin", {});
      if (a.ok) window.location.assign("/");
      return a.ok ? null : a.message;
    });
  const look = () =>
    during(async () => {
      const a = await errand.run<"check">({ do: "check" });
      setChecked(a.ok ? a.data : null);
      if (a.ok) onOdd(a.data.odd);
      return a.ok ? null : a.message;
    });
  const go = () =>
    during(async () => {
      if (!asked) return null;
      const params = { name: asked.copy.name };
      setAsked(null);
      if (asked.what === "open") {
        const a = await call("kept", "open", { params });
        // Everything on every screen may be another now: a fresh load, not a step inside the old one.
        if (a.ok) window.location.reload();
        return a.ok ? null : a.message;
      }
      const a = await call("kept", "drop", { params });
      if (a.ok) setCopies(a.data);
      return a.ok ? null : a.message;
    });
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn" disabled={busy} onClick={() => void keep()}>
          <Archive size={19} aria-hidden="true" /> Keep a copy now
        </button>
        <button type="button" className="btn" disabled={busy} onClick={() => void look()}>
          <ShieldCheck size={19} aria-hidden="true" /> Check this workshop
        </button>
        <button type="button" className="btn" disabled={busy} onClick={() => setBeginning(true)}>
          <FilePlus2 size={19} aria-hidden="true" /> Begin an empty workshop
        </button>
      </div>
      <Tick checked={daily} onChange={onDaily}>
        Keep a copy every day, the last five
      </Tick>
      {errand.going && <Progress going={errand.going} stop={errand.stop} />}
      <Fault>{fault}</Fault>
      {checked && <Found check={checked} />}
      {copies.length === 0 ? (
        <p className="hint">No copy yet. One is kept by itself before every restore, with its pictures.</p>
      ) : (
        <ul className="max-h-96 divide-y divide-line overflow-y-auto">
          {copies.map((c) => (
            <li key={c.name} className="flex flex-wrap items-center gap-2 py-2">
              <span className="min-w-0 flex-1 basis-48">
                <b className="block">{wall(c.at, now)}</b>
                <span className="hint block">
                  {WHY[c.why]}, {bytesAsRead(c.bytes)} and {many(c.pictures, "picture", "pictures")}
                </span>
              </span>
              <button type="button" className="btn" disabled={busy} onClick={() => setAsked({ copy: c, what: "open" })}>
                Open this one
              </button>
              <button
                type="button"
                className="btn btn-bare !px-2.5"
                disabled={busy}
                aria-label={`Take away the copy of ${wall(c.at, now)}`}
                onClick={() => setAsked({ copy: c, what: "drop" })}
              >
                <Trash2 size={19} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
      )}
      <p className="hint">
        They lie in the folder “kept” beside the workshop’s file, and share its pictures with it. A backup elsewhere is still needed: one disk fails as one.
      </p>
      {beginning && (
        <Dialog open onOpenChange={(o) => !o && setBeginning(false)} title="Put this workshop aside?" description="Jobs, materials, log, pictures: all of it.">
          <p className="mb-4">An empty one begins. This one is kept whole as a copy: open it here, under “Open this one”, and you are back where you were.</p>
          <div className="flex justify-end gap-2">
            <button type="button" className="btn btn-bare" onClick={() => setBeginning(false)}>
              Stay here
            </button>
            <button type="button" className="btn btn-main" onClick={() => void begin()}>
              Begin an empty one
            </button>
          </div>
        </Dialog>
      )}
      {asked && (
        <Dialog
          open
          onOpenChange={(o) => !o && setAsked(null)}
          title={asked.what === "open" ? "Open this copy?" : "Take this copy away?"}
          description={`${wall(asked.copy.at, now)}, ${WHY[asked.copy.why]}`}
        >
          <p className="mb-4">
            {asked.what === "open"
              ? "The workshop goes back to how it was then. How it is now is kept as a copy first, so you can come back."
              : "It cannot be brought back. Pictures that only this copy had go with it."}
          </p>
          <div className="flex justify-end gap-2">
            <button type="button" className="btn btn-bare" onClick={() => setAsked(null)}>
              Leave it
            </button>
            <button type="button" className="btn btn-main" onClick={() => void go()}>
              {asked.what === "open" ? "Open it" : "Take it away"}
            </button>
          </div>
        </Dialog>
      )}
    </div>
  );
}

function Found({ check }: { check: WorkshopCheck }) {
  const faults = [
    ...check.damage.map((d) => `The file itself is damaged: ${d}. Open the newest copy below that is sound, or restore a backup.`),
    ...(check.broken > 0 ? [`${many(check.broken, "entry speaks", "entries speak")} of others that are not there.`] : []),
    ...(check.lost.length > 0
      ? [
          `${many(check.lost.length, "picture", "pictures")} of the log or of patch tests are missing or damaged on the disk. A backup that holds them whole mends them.`,
        ]
      : []),
    ...(check.odd.length > 0 ? [`${many(check.odd.length, "entry", "entries")} cannot be read; see below.`] : []),
  ];
  return (
    <div role="status" className="space-y-2">
      {faults.length === 0 ? (
        <p className="font-semibold text-sound">Sound: the file, its entries and every picture.</p>
      ) : (
        faults.map((f) => <Caution key={f}>{f}</Caution>)
      )}
      {check.loose > 0 && <p className="hint">{many(check.loose, "picture", "pictures")} no entry speaks of lie in the folder “photos-loose”.</p>}
    </div>
  );
}
