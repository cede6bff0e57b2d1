"use client";

import { useState } from "react";
import type { JobName } from "@/contract/jobs";
import type { ProjectView } from "@/contract/works";
import { call } from "../../data/call";
import { freshId } from "../../data/key";
import { ListEditor } from "../../form/ListEditor";
import { QuantityField, stoppedByUnread } from "../../form/QuantityField";
import { Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { Pick } from "../../kit/Pick";

interface Part {
  jobId: string | null;
  name: string;
  count: number | null;
  joint: string;
}

/** A work: which jobs its parts are cast by, how many of each, how they are joined, and whether it is an edition. */
export function WorkDialog({
  view,
  jobs,
  onClose,
  onChanged,
}: {
  view: ProjectView | null;
  jobs: readonly JobName[];
  onClose: () => void;
  onChanged: () => Promise<void>;
}) {
  const [id] = useState(() => view?.id ?? freshId());
  const [name, setName] = useState(view?.project.name ?? "");
  const [note, setNote] = useState(view?.project.note ?? "");
  const [edition, setEdition] = useState(view?.project.edition ?? null);
  const [parts, setParts] = useState<Part[]>(view ? view.project.parts.map((p) => ({ ...p })) : [{ jobId: null, name: "", count: 1, joint: "" }]);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const nameOf = (p: Part) => p.name.trim() || (jobs.find((j) => j.id === p.jobId)?.name ?? "");
  const save = async () => {
    const told = parts.flatMap((p) =>
      p.jobId !== null && p.count !== null ? [{ jobId: p.jobId, name: nameOf(p).slice(0, 80), count: p.count, joint: p.joint }] : [],
    );
    if (name.trim() === "") return setFault("Give it a name.");
    if (told.length < parts.length || told.length === 0) return setFault("Say for each part which job it is cast by, and how many.");
    const project = { format: 1 as const, name, note, edition, parts: told, castings: view?.project.castings ?? [], doneAt: view?.project.doneAt ?? null };
    const a = view
      ? await call("works", "saveProject", { params: { id: view.id }, body: { project, baseRevision: view.revision } })
      : await call("works", "addProject", { body: { project, id } });
    if (!a.ok) return setFault(a.message);
    await onChanged();
    onClose();
  };
  return (
    <Dialog open onOpenChange={onClose} title={view ? "This work" : "A work or an edition"}>
      <form
        className="space-y-3"
        onSubmit={(e) => {
          if (stoppedByUnread(e)) return;
          e.preventDefault();
          setBusy(true);
          void save().finally(() => setBusy(false));
        }}
      >
        <div className="grid grid-cols-[1fr_8rem] gap-3">
          <label className="block">
            <span className="label">What it is called</span>
            <input className="field" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} autoComplete="off" />
          </label>
          <QuantityField label="Edition of" value={edition} dimension="count" min={1} max={999} whole optional placeholder="none" onChange={setEdition} />
        </div>
        <ListEditor
          label="Parts"
          items={parts}
          blank={(): Part => ({ jobId: null, name: "", count: 1, joint: "" })}
          addLabel="Another part"
          nameOf={(p) => nameOf(p) || "this part"}
          most={40}
          onChange={setParts}
        >
          {(p, change) => (
            <div className="grid grid-cols-[1fr_6rem] gap-2">
              <Pick
                label="Cast by the job"
                value={p.jobId}
                none="Choose"
                options={jobs.map((j) => ({ value: j.id, label: j.name }))}
                onChange={(jobId) => change({ jobId })}
              />
              <QuantityField label="How many" value={p.count} dimension="count" min={1} max={200} whole optional onChange={(count) => change({ count })} />
              <label className="block">
                <span className="label">Part</span>
                <input
                  className="field"
                  maxLength={80}
                  value={p.name}
                  placeholder={nameOf(p)}
                  onChange={(e) => change({ name: e.target.value })}
                  autoComplete="off"
                />
              </label>
              <span />
              <label className="col-span-2 block">
                <span className="label">How it is joined</span>
                <input className="field" maxLength={120} value={p.joint} onChange={(e) => change({ joint: e.target.value })} autoComplete="off" />
              </label>
            </div>
          )}
        </ListEditor>
        <label className="block">
          <span className="label">Note</span>
          <input className="field" maxLength={2000} value={note} onChange={(e) => setNote(e.target.value)} autoComplete="off" />
        </label>
        <Fault>{fault}</Fault>
        <button type="submit" className="btn btn-main w-full justify-center" disabled={busy}>
          Keep it
        </button>
      </form>
    </Dialog>
  );
}
