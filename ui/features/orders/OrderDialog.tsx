"use client";

import { useState } from "react";
import type { JobName } from "@/contract/jobs";
import type { OrderView } from "@/contract/works";
import { call } from "../../data/call";
import { freshId } from "../../data/key";
import { ListEditor } from "../../form/ListEditor";
import { QuantityField, stoppedByUnread } from "../../form/QuantityField";
import { Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { More } from "../../kit/More";
import { Pick } from "../../kit/Pick";
import { Tick } from "../../kit/Tick";
import { useUnits } from "../../kit/units";
import { dayEnd, formatIn } from "../../kit/zone";

interface Line {
  jobId: string | null;
  good: number | null;
  sent: number;
  boxes: number | null;
  inPot: boolean;
}
const BLANK: Line = { jobId: null, good: null, sent: 0, boxes: null, inPot: false };

/** How boxes and pots stand, in a few words. */
function held(lines: readonly Line[], pots: number): string {
  const few = lines.filter((l) => l.boxes !== null || l.inPot).length;
  return `${pots} ${pots === 1 ? "pot" : "pots"}${few === 0 ? "" : ", boxes as told"}`;
}

/** An order: for whom, by when, and how many good ones of which pieces. */
export function OrderDialog({
  view,
  jobs,
  onClose,
  onChanged,
}: {
  view: OrderView | null;
  jobs: readonly JobName[];
  onClose: () => void;
  onChanged: () => Promise<void>;
}) {
  const { zone } = useUnits();
  const [id] = useState(() => view?.id ?? freshId());
  const [name, setName] = useState(view?.order.name ?? "");
  const [note, setNote] = useState(view?.order.note ?? "");
  const [by, setBy] = useState(view ? formatIn(view.order.dueAt, "yyyy-MM-dd", zone) : "");
  const [price, setPrice] = useState(view?.order.price ?? null);
  const [lines, setLines] = useState<Line[]>(view ? view.order.lines.map((l) => ({ ...l })) : [BLANK]);
  const [pots, setPots] = useState(view?.order.pots ?? 1);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const save = async () => {
    const dueAt = dayEnd(by, zone);
    const told = lines.flatMap((l) => (l.jobId !== null && l.good !== null ? [{ ...l, jobId: l.jobId, good: l.good, sent: Math.min(l.sent, l.good) }] : []));
    if (name.trim() === "") return setFault("Say for whom, or what for.");
    if (Number.isNaN(dueAt)) return setFault("Say by which day.");
    if (!view && dueAt < Date.now()) return setFault("That day is over: choose one to come.");
    if (told.length < lines.length || told.length === 0) return setFault("Say for each piece how many good ones.");
    if (new Set(told.map((l) => l.jobId)).size < told.length) return setFault("The same piece stands there twice: put both numbers together.");
    const order = { format: 1 as const, name, note, dueAt, lines: told, pots, price, doneAt: view?.order.doneAt ?? null };
    const a = view
      ? await call("works", "saveOrder", { params: { id: view.id }, body: { order, baseRevision: view.revision } })
      : await call("works", "addOrder", { body: { order, id } });
    if (!a.ok) return setFault(a.message);
    await onChanged();
    onClose();
  };
  return (
    <Dialog open onOpenChange={onClose} title={view ? "This order" : "An order"}>
      <form
        className="space-y-3"
        onSubmit={(e) => {
          if (stoppedByUnread(e)) return;
          e.preventDefault();
          setBusy(true);
          void save().finally(() => setBusy(false));
        }}
      >
        <label className="block">
          <span className="label">For whom, or what for</span>
          <input className="field" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} autoComplete="off" />
        </label>
        <div className="grid grid-cols-2 items-end gap-3">
          <label className="block">
            <span className="label">By the end of</span>
            <input className="field" type="date" value={by} onChange={(e) => setBy(e.target.value)} />
          </label>
          <QuantityField label="Taken for, in all" value={price} dimension="money" min={0} max={1e7} optional onChange={setPrice} />
        </div>
        <ListEditor
          label="Pieces"
          items={lines}
          blank={() => BLANK}
          addLabel="Another piece"
          nameOf={(l) => jobs.find((j) => j.id === l.jobId)?.name ?? "this piece"}
          most={30}
          onChange={setLines}
        >
          {(l, change) => (
            <div className="grid gap-2 sm:grid-cols-[1fr_7rem]">
              <Pick
                label="Which piece"
                value={l.jobId}
                none="Choose"
                options={jobs.map((j) => ({ value: j.id, label: j.name }))}
                onChange={(jobId) => change({ jobId })}
              />
              <QuantityField label="Good ones" value={l.good} dimension="count" min={1} max={500} whole optional onChange={(good) => change({ good })} />
            </div>
          )}
        </ListEditor>
        <More title="Boxes and pots" now={held(lines, pots)} open={lines.some((l) => l.boxes !== null || l.inPot) || pots > 1}>
          <QuantityField
            label="Pots, to melt in or for pressure"
            value={pots}
            dimension="count"
            min={1}
            max={20}
            whole
            onChange={(n) => n !== null && setPots(n)}
          />
          {lines.map((l, i) => {
            const change = (c: Partial<Line>) => setLines((all) => all.map((x, k) => (k === i ? { ...x, ...c } : x)));
            const name = jobs.find((j) => j.id === l.jobId)?.name ?? `Piece ${i + 1}`;
            return (
              <fieldset key={i} className="space-y-1">
                <legend className="font-semibold">{name}</legend>
                <QuantityField
                  label="Boxes or jackets for its moulds, if fewer than moulds"
                  value={l.boxes}
                  dimension="count"
                  min={1}
                  max={100}
                  whole
                  optional
                  onChange={(boxes) => change({ boxes })}
                />
                <Tick checked={l.inPot} onChange={(inPot) => change({ inPot })}>
                  It sets under pressure, one casting in a pot
                </Tick>
              </fieldset>
            );
          })}
        </More>
        <label className="block">
          <span className="label">Note</span>
          <input className="field" maxLength={1000} value={note} onChange={(e) => setNote(e.target.value)} autoComplete="off" />
        </label>
        <Fault>{fault}</Fault>
        <button type="submit" className="btn btn-main w-full justify-center" disabled={busy}>
          Keep the order
        </button>
      </form>
    </Dialog>
  );
}
