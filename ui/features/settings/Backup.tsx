"use client";

import type { BackupPreview, RestoreWay } from "@/contract/workshop";
import { Save, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { useUnits } from "../../kit/units";
import { Choice } from "../../kit/Choice";
import { Caution, Fault } from "../../kit/controls";
import { flushAll } from "../../data/savedDocument";
import { useErrand } from "../../data/useErrand";
import { saveFile } from "../../kit/Download";
import { Progress } from "../../kit/Progress";
import { bytesAsRead } from "./bytes";
import { TABLE_WORDS } from "./tableNames";
import { DataTable } from "../../kit/DataTable";

const WAYS: { value: RestoreWay; label: string }[] = [
  { value: "add", label: "Add what is not here" },
  { value: "take", label: "Also take its version of what differs" },
  { value: "replace", label: "Replace everything" },
];

/** The whole workshop out as one open file, and back in after a look at what would change. */
export function Backup() {
  const { wall } = useUnits();
  const input = useRef<HTMLInputElement>(null);
  const errand = useErrand();
  const busy = errand.going !== null;
  const [fault, setFault] = useState<string | null>(null);
  const [preview, setPreview] = useState<{ p: BackupPreview; at: number } | null>(null);
  const [way, setWay] = useState<RestoreWay>("add");
  const [done, setDone] = useState<string | null>(null);
  const [restored, setRestored] = useState(false);
  const [lost, setLost] = useState(0);
  const save = async () => {
    setFault(null);
    setDone(null);
    if (!(await flushAll())) return setFault("Not begun: something on this page could not be saved yet, so the backup would be an old one.");
    const a = await errand.run<"backup">({ do: "backup" });
    if (!a.ok) return setFault(a.message);
    setLost(a.data.lost);
    setDone(`A backup of ${bytesAsRead(a.data.bytes)} was made and read back whole.`);
    saveFile(`/api/backup/file/${a.id}`);
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    setFault(null);
    setDone(null);
    setPreview(null);
    const upload = crypto.randomUUID();
    const sent = await errand.upload(upload, file);
    if (input.current) input.current.value = "";
    if (sent !== true) return setFault(sent === null ? null : `${file.name}: ${sent}`);
    const a = await errand.run<"read">({ do: "read", upload });
    if (!a.ok) return setFault(a.message === null ? null : `${file.name}: ${a.message}`);
    setPreview({ p: a.data, at: Date.now() });
    setWay(a.data.empty ? "replace" : "add");
  };
  const restore = async () => {
    if (!preview) return;
    const a = await errand.run<"restore">({ do: "restore", token: preview.p.token, way });
    if (!a.ok) return setFault(a.message);
    setPreview(null);
    setRestored(true);
    setDone(`Restored: ${a.data.added} rows added, ${a.data.changed} changed. The workshop as it was is among the copies below.`);
  };
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn" disabled={busy} onClick={() => void save()}>
          <Save size={19} aria-hidden="true" /> Save a backup
        </button>
        <label className={`btn cursor-pointer ${busy ? "opacity-60" : ""}`}>
          <Upload size={19} aria-hidden="true" /> Restore from a file
          <input ref={input} type="file" accept=".zip,application/zip" className="sr-only" disabled={busy} onChange={(e) => void read(e.target.files?.[0])} />
        </label>
      </div>
      <p className="hint">One zip of JSON, CSV and your photos, described by the schema inside it. The passphrase of the door is not in it.</p>
      {lost > 0 && (
        <Caution>
          {lost === 1 ? "One picture" : `${lost} pictures`} of the log or of patch tests are missing or damaged on the disk: the backup comes without them. An
          older backup that holds them whole mends them.
        </Caution>
      )}
      {errand.going && <Progress going={errand.going} stop={errand.stop} />}
      <Fault>{fault}</Fault>
      {done && (
        <p role="status" className="font-semibold text-sound">
          {done}{" "}
          {restored && (
            // Everything on every screen may have changed: a fresh load, not a step inside the old one.
            <button type="button" className="underline" onClick={() => window.location.reload()}>
              Load the workshop again
            </button>
          )}
        </p>
      )}
      {preview && (
        <div className="space-y-3 rounded-xl border-2 border-ink p-3">
          <h3 className="text-lg font-bold">Backup of {wall(preview.p.madeAt, preview.at)}: what would change</h3>
          <DataTable
            label="What would change"
            dense
            rows={preview.p.rows.filter((r) => r.inFile + r.here > 0)}
            keyOf={(r) => r.table}
            columns={[
              { id: "kind", header: "Kind", cell: ({ row }) => <b>{TABLE_WORDS[row.original.table] ?? row.original.table}</b> },
              { id: "inFile", header: "In it", cell: ({ row }) => row.original.inFile, meta: { figure: true } },
              { id: "added", header: "New", cell: ({ row }) => row.original.added, meta: { figure: true } },
              { id: "differ", header: "Differ", cell: ({ row }) => row.original.differ, meta: { figure: true } },
              {
                id: "onlyHere",
                header: "Only here",
                cell: ({ row }) => row.original.onlyHere,
                meta: { figure: true, cell: (r) => (way === "replace" && r.onlyHere > 0 ? "font-bold text-no" : "") },
              },
            ]}
          />
          {preview.p.lost.length > 0 && (
            <Caution>
              {preview.p.lost.length === 1 ? "One picture is" : `${preview.p.lost.length} pictures are`} not whole in it: everything else comes in, and an entry
              whose picture is nowhere to be had comes without it.
            </Caution>
          )}
          <Choice<RestoreWay> label="How?" value={way} options={WAYS} onChange={setWay} />
          {way === "replace" && !preview.p.empty && (
            <Caution>What is only here is taken away. The workshop as it is now is kept as a copy first, with its pictures.</Caution>
          )}
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-main" disabled={busy} onClick={() => void restore()}>
              Restore
            </button>
            <button type="button" className="btn" onClick={() => setPreview(null)}>
              Leave it
            </button>
          </div>
        </div>
      )}
    </div>
  );
}
