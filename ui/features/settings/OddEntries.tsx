"use client";

import { FileDown, Trash2 } from "lucide-react";
import { useState } from "react";
import type { OddEntry } from "@/contract/workshop";
import { call } from "../../data/call";
import { Caution, Fault } from "../../kit/controls";
import { TABLE_WORDS } from "./tableNames";

const address = (o: OddEntry): string => `/api/odd/${encodeURIComponent(o.table)}/${encodeURIComponent(o.key)}`;
const idOf = (o: OddEntry): string => `${o.table} ${o.key}`;

/** Stored entries that cannot be read: named, with the reason, to be taken out as files; then, if wanted, removed. */
export function OddEntries({ entries, setEntries }: { entries: readonly OddEntry[]; setEntries: (left: readonly OddEntry[]) => void }) {
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const [fault, setFault] = useState<string | null>(null);
  const remove = async (o: OddEntry) => {
    const a = await call("odd", "remove", { params: { table: o.table, key: o.key } });
    if (!a.ok) return setFault(a.message);
    setFault(null);
    setEntries(entries.filter((e) => idOf(e) !== idOf(o)));
  };
  if (entries.length === 0) return <p className="font-semibold text-sound">Nothing is left that cannot be read.</p>;
  return (
    <div className="space-y-3">
      <Caution>
        These entries cannot be read by this version, so lists, the log and backups stand without them; a backup carries them along as they lie. They may have
        been written by a newer version, or changed by hand. Take each out as a file before you remove it.
      </Caution>
      <ul className="divide-y divide-line">
        {entries.map((o) => (
          <li key={idOf(o)} className="flex flex-wrap items-center gap-2 py-2">
            <span className="min-w-0 flex-1 basis-56">
              <b className="block break-all">
                {TABLE_WORDS[o.table] ?? o.table}: {o.key}
              </b>
              <span className="hint block break-words">{o.why}</span>
            </span>
            <a className="btn" href={address(o)} download aria-label={`Take out ${o.key} as a file`} onClick={() => setTaken(new Set([...taken, idOf(o)]))}>
              <FileDown size={19} aria-hidden="true" /> Take out
            </a>
            <button type="button" className="btn" disabled={!taken.has(idOf(o))} aria-label={`Remove ${o.key}`} onClick={() => void remove(o)}>
              <Trash2 size={19} aria-hidden="true" /> Remove
            </button>
          </li>
        ))}
      </ul>
      <Fault>{fault}</Fault>
    </div>
  );
}
