"use client";

import { Plus, Undo2 } from "lucide-react";
import { useState } from "react";
import type { MouldPage } from "@/contract/log";
import { eventWords, isTorn, MOULD_EVENT_KINDS, MOULD_EVENTS, type EventWhat, type MouldEventKind } from "@/core/log/event";
import { call } from "../../data/call";
import { useActKey } from "../../data/key";
import { WhenField } from "../../form/WhenField";
import { Choice } from "../../kit/Choice";
import { Caution } from "../../kit/controls";
import { notice } from "../../kit/notice";
import { useUnits } from "../../kit/units";
import { When } from "../../kit/When";

const whatOf = (kind: MouldEventKind, words: string): EventWhat => (kind === "mended" ? { kind, how: words } : { kind, where: words });

/** What happened to a mould besides being cast in: torn, mended, cut, retired. */
export function MouldEvents({ page, changed }: { page: MouldPage; changed: (page: MouldPage) => void }) {
  const { say } = useUnits();
  const act = useActKey();
  const [kind, setKind] = useState<MouldEventKind>("torn");
  const [words, setWords] = useState("");
  const [when, setWhen] = useState<{ at: number | null; ok: boolean }>({ at: null, ok: true });
  const write = async () => {
    const a = await call("rack", "write", {
      params: { id: page.mould.id },
      body: { key: act.key(), what: whatOf(kind, words), ...(when.at === null ? {} : { at: when.at }) },
    });
    if (!a.ok) return notice.bad(a.message);
    act.answered();
    setWords("");
    changed(a.data);
  };
  const takeBack = async (id: string) => {
    const a = await call("log", "takeBack", { params: { id } });
    if (!a.ok) return notice.bad(a.message);
    changed({ ...page, events: page.events.filter((e) => e.id !== id) });
  };
  return (
    <section aria-labelledby="happened" className="card space-y-3 p-4">
      <h2 id="happened" className="text-xl font-bold">
        What happened to it
      </h2>
      {isTorn(page.events) && (
        <Caution>It is torn. Brush fresh rubber of its own family into the tear, held shut, or retire it before it costs a master or a casting.</Caution>
      )}
      {page.events.length > 0 && (
        <ul className="divide-y divide-line">
          {[...page.events].reverse().map((e) => (
            <li key={e.id} className="flex min-h-11 items-center justify-between gap-3 py-1">
              <span className="min-w-0">
                {say(eventWords(e))}
                <span className="block text-sm text-soft">
                  <When at={e.at} />
                </span>
              </span>
              {MOULD_EVENT_KINDS.some((k) => k === e.what.kind) && (
                <button type="button" className="btn btn-bare !min-h-11" aria-label={`Take back: ${say(eventWords(e))}`} onClick={() => void takeBack(e.id)}>
                  <Undo2 size={18} aria-hidden="true" />
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      <Choice
        label="Write down"
        value={kind}
        options={MOULD_EVENT_KINDS.map((k) => ({ value: k, label: MOULD_EVENTS[k].label }))}
        onChange={(k) => setKind(MOULD_EVENT_KINDS.find((x) => x === k) ?? kind)}
      />
      <div className="flex flex-wrap items-end gap-3">
        <label className="block min-w-0 flex-1 basis-56">
          <span className="label">{MOULD_EVENTS[kind].asks}</span>
          <input className="field" maxLength={300} value={words} onChange={(e) => setWords(e.target.value)} />
        </label>
        <WhenField label="When, if not now" onChange={(at, ok) => setWhen({ at, ok })} />
        <button type="button" className="btn" disabled={words.trim() === "" || !when.ok} onClick={() => void write()}>
          <Plus size={18} aria-hidden="true" /> Write it down
        </button>
      </div>
    </section>
  );
}
