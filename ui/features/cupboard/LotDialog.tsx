"use client";

import { useQuery } from "@tanstack/react-query";
import { Scale } from "lucide-react";
import { useState } from "react";
import type { LotView } from "@/contract/stock";
import { call } from "../../data/call";
import { useActKey } from "../../data/key";
import { read } from "../../data/read";
import { QuantityField } from "../../form/QuantityField";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { More } from "../../kit/More";
import { useUnits } from "../../kit/units";
import { dayEnd, formatIn } from "../../kit/zone";
import { ageWords, dayOf } from "./words";

const MOVES = { bought: "came", drawn: "taken", corrected: "put right by the scale", thrown: "thrown away" } as const;

/** One lot: a tub put on the scale, what is written on it, where it stands, and everything that went out of it. */
export function LotDialog({ lot, onClose, onChanged }: { lot: LotView; onClose: () => void; onChanged: () => Promise<void> }) {
  const { fmt, zone } = useUnits();
  const act = useActKey();
  const [now, setNow] = useState(lot);
  const [part, setPart] = useState(0);
  const [grossG, setGross] = useState<number | null>(null);
  const [tareG, setTare] = useState<number | null>(lot.parts[0]?.tareG ?? null);
  const [takeG, setTake] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const moves = useQuery({ queryKey: ["moves", lot.id, now.leftG.join()], queryFn: () => read("stock", "moves", { params: { id: lot.id } }) });
  const done = async (answer: Awaited<ReturnType<typeof call<"stock", "act">>>) => {
    setFault(answer.ok ? null : answer.message);
    if (!answer.ok) return;
    act.answered();
    setNow(answer.data);
    setGross(null);
    setTake(null);
    await onChanged();
  };
  const change = async (body: Parameters<typeof call<"stock", "changeLot">>[2]["body"]) =>
    void done(await call("stock", "changeLot", { params: { id: lot.id }, body }));
  const p = now.parts[part]!;
  const left = now.leftG[part] ?? 0;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={`${now.name}, ${now.material}`}
      description={`${ageWords(now, zone)}${now.batch ? `. Number ${now.batch}` : ""}`}
    >
      <div className="space-y-4">
        {now.parts.length > 1 && (
          <Choice
            label="Which tub"
            value={String(part)}
            options={now.parts.map((x, i) => ({ value: String(i), label: x.name }))}
            onChange={(v) => {
              setPart(Number(v));
              setTare(now.parts[Number(v)]?.tareG ?? null);
              setGross(null);
            }}
          />
        )}
        <p>
          <span className="figure text-4xl">{fmt(left, "mass")}</span> <span className="text-soft">of {fmt(p.boughtG, "mass")} left by what was taken</span>
        </p>
        {left < -0.5 && <p className="font-semibold text-no">More was weighed than it held. Put the tub on the scale: what that shows counts.</p>}
        <div className="grid grid-cols-2 gap-3">
          <QuantityField label="The tub on the scale" value={grossG} dimension="mass" min={0} max={1_000_000} optional onChange={setGross} />
          <QuantityField label="The tub alone" value={tareG} dimension="mass" min={0} max={100_000} optional onChange={setTare} placeholder="0" />
        </div>
        <button
          type="button"
          className="btn btn-main w-full justify-center"
          disabled={grossG === null}
          onClick={async () =>
            grossG !== null && void done(await call("stock", "act", { params: { id: lot.id }, body: { do: "weigh", key: act.key(), part, grossG, tareG } }))
          }
        >
          <Scale size={18} aria-hidden="true" /> {grossG === null ? "It is this much" : `It is ${fmt(Math.max(0, grossG - (tareG ?? 0)), "mass")}`}
        </button>
        <Fault>{fault}</Fault>
        <More title="Taken without a batch">
          <QuantityField label="Taken" value={takeG} dimension="mass" min={0.1} max={1_000_000} optional onChange={setTake} />
          <button
            type="button"
            className="btn"
            disabled={takeG === null}
            onClick={async () =>
              takeG !== null && void done(await call("stock", "act", { params: { id: lot.id }, body: { do: "take", key: act.key(), part, g: takeG } }))
            }
          >
            Book it
          </button>
        </More>
        <More title="What is written on it" now={now.place}>
          <Words key={now.id} lot={now} zone={zone} change={(body) => void change(body)} />
        </More>
        <More title="What came and went">
          <ul className="space-y-1 text-sm">
            {(moves.data ?? []).map((m) => (
              <li key={m.id} className="flex justify-between gap-3">
                <span>
                  {formatIn(m.at, "d MMM HH:mm", zone)}: {m.part} {MOVES[m.kind]}
                  {m.jobName ? ` for ${m.jobName}` : ""}
                </span>
                <b className="figure">
                  {m.g > 0 ? "+" : "−"}
                  {fmt(Math.abs(m.g), "mass")}
                </b>
              </li>
            ))}
          </ul>
        </More>
        {now.endedAt === null ? (
          <button
            type="button"
            className="btn"
            onClick={async () => done(await call("stock", "act", { params: { id: lot.id }, body: { do: "end", key: act.key() } }))}
          >
            Used up or thrown away
          </button>
        ) : (
          <button
            type="button"
            className="btn"
            onClick={async () => done(await call("stock", "act", { params: { id: lot.id }, body: { do: "back", key: act.key() } }))}
          >
            It still stands there
          </button>
        )}
      </div>
    </Dialog>
  );
}

function Words({ lot, zone, change }: { lot: LotView; zone: string; change: (body: Parameters<typeof call<"stock", "changeLot">>[2]["body"]) => void }) {
  const [place, setPlace] = useState(lot.place);
  const [batch, setBatch] = useState(lot.batch);
  const [note, setNote] = useState(lot.note);
  const [good, setGood] = useState(dayOf(lot.goodUntil, zone));
  const [opened, setOpened] = useState(dayOf(lot.openedAt, zone));
  const day = (text: string) => (text === "" ? null : dayEnd(text, zone));
  return (
    <form
      className="grid grid-cols-2 gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        const { place: p, batch: b, note: n, goodUntil, openedAt } = lot;
        change({ place, batch, note, goodUntil: day(good), openedAt: day(opened), was: { place: p, batch: b, note: n, goodUntil, openedAt } });
      }}
    >
      <Line label="Where it stands" value={place} onChange={setPlace} most={80} />
      <Line label="Number on the tubs" value={batch} onChange={setBatch} most={60} />
      <Line label="Opened on" value={opened} onChange={setOpened} type="date" />
      <Line label="Good until, by its label" value={good} onChange={setGood} type="date" />
      <div className="col-span-2">
        <Line label="Note" value={note} onChange={setNote} most={400} />
      </div>
      <button type="submit" className="btn col-span-2 justify-center">
        Keep that
      </button>
    </form>
  );
}

function Line({
  label,
  value,
  onChange,
  most,
  type = "text",
}: {
  label: string;
  value: string;
  onChange: (v: string) => void;
  most?: number;
  type?: "text" | "date";
}) {
  return (
    <label className="block min-w-0">
      <span className="label">{label}</span>
      <input type={type} className="field" value={value} maxLength={most} onChange={(e) => onChange(e.target.value)} autoComplete="off" />
    </label>
  );
}
