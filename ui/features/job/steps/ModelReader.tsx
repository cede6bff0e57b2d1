"use client";

import { proxy } from "comlink";
import { FileBox } from "lucide-react";
import { useRef, useState } from "react";
import type { Scanned } from "@/core/master";
import type { Up } from "@/core/mesh";
import type { Opened, Standing } from "@/workers/model.worker";
import { useGoing } from "../../../data/useGoing";
import { useModelWorker } from "../../../data/useModelWorker";
import { QuantityField } from "../../../form/QuantityField";
import { Choice } from "../../../kit/Choice";
import { Fault } from "../../../kit/controls";
import { Pick } from "../../../kit/Pick";
import { Running } from "../../../kit/Progress";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";
import { Leaving } from "./Leaving";

const UNITS = [
  { value: "1", label: "mm" },
  { value: "10", label: "cm" },
  { value: "25.4", label: "inches" },
  { value: "1000", label: "m" },
] as const;
type UnitMm = (typeof UNITS)[number]["value"];
const UPS: readonly { value: Up; label: string }[] = [
  { value: "+z", label: "Z up" },
  { value: "-z", label: "Z down" },
  { value: "+y", label: "Y up" },
  { value: "-y", label: "Y down" },
  { value: "+x", label: "X up" },
  { value: "-x", label: "X down" },
];

interface Choices {
  unit: UnitMm;
  up: Up;
  mirror: boolean;
  scalePct: number;
}

/** Takes the piece from the file of a model: its unit, which way up it is moulded, and its size. */
export function ModelReader() {
  const { id, job, plan, edit } = useJob();
  const { fmt, say } = useUnits();
  const shrink = plan.inside?.shrink ?? null;
  const largerPct = shrink && Math.round(10_000 * shrink.enlarge) / 100;
  const input = useRef<HTMLInputElement>(null);
  const { ask, stop, fault } = useModelWorker();
  const [opened, setOpened] = useState<(Opened & { name: string }) | null>(null);
  const [choices, setChoices] = useState<Choices>({ unit: "1", up: "+z", mirror: false, scalePct: 100 });
  const { doing, begin, end } = useGoing();
  const now = job.master.model;

  const stand = async (name: string, o: Opened, c: Choices) => {
    const how: Standing = { unitMm: o.unitMm ?? Number(c.unit), up: c.up, mirror: c.mirror, scale: c.scalePct / 100 };
    const tell = begin("Making it whole");
    const read = await ask<Scanned>((w) => w.stand(name, how, proxy(tell)));
    end();
    if (read) edit((j) => ({ ...j, master: { ...j.master, model: read } }));
    else setOpened(null);
  };
  const open = async (file: File | undefined) => {
    if (!file) return;
    stop();
    setOpened(null);
    begin("Reading the file");
    const bytes = new Uint8Array(await file.arrayBuffer());
    const read = await ask<Opened>((w) => w.open(bytes));
    if (input.current) input.current.value = "";
    if (!read) return end();
    setOpened({ ...read, name: file.name });
    await stand(file.name, read, choices);
  };
  const change = (patch: Partial<Choices>) => {
    const next = { ...choices, ...patch };
    setChoices(next);
    if (opened) void stand(opened.name, opened, next);
  };

  return (
    <div className="space-y-3">
      <label className="btn btn-main w-full cursor-pointer justify-center focus-within:outline-2">
        <FileBox size={20} aria-hidden="true" /> {now ? "Choose another file" : "Choose the model's file"}
        <input ref={input} type="file" accept=".stl,.obj,.ply,.3mf" className="sr-only" onChange={(e) => void open(e.target.files?.[0])} />
      </label>
      <Running doing={doing} stop={stop} end={end} />
      <Fault>{fault}</Fault>
      {opened && (
        <>
          {doing && opened.size && <p className="hint">It is {opened.size.map((v) => v.toPrecision(3)).join(" × ")} of its own units.</p>}
          {opened.unitMm === null && (
            <Choice label="The file does not say its unit. It is in" value={choices.unit} options={UNITS} onChange={(unit) => change({ unit })} />
          )}
          <div className="grid grid-cols-2 gap-3">
            <Pick
              label="Stands with"
              value={choices.up}
              options={UPS}
              onChange={(v) => {
                const up = UPS.find((u) => u.value === v);
                if (up) change({ up: up.value });
              }}
              must
            />
            <QuantityField
              label="Size, for shrinkage"
              value={choices.scalePct}
              dimension="percent"
              min={1}
              max={1000}
              draftKey={`${id}:modelScale`}
              onChange={(v) => v !== null && change({ scalePct: v })}
            />
          </div>
          {shrink && largerPct !== null && Math.abs(largerPct - 100) >= 0.05 && Math.abs(largerPct - choices.scalePct) >= 0.01 && (
            <p className="text-sm">
              {shrink.links
                .filter((l) => Math.abs(l.shrinkPct.typical) >= 0.005)
                .map((l) => `${l.name} ${l.shrinkPct.typical < 0 ? "grows" : "shrinks"} ${Math.abs(l.shrinkPct.typical).toPrecision(2)} %`)
                .join(", ")}
              .{" "}
              <button type="button" className="btn !min-h-9 !py-0" onClick={() => change({ scalePct: largerPct })}>
                Allow for it: {largerPct} %
              </button>
            </p>
          )}
          <Choice
            label="Seen"
            hideLabel
            value={choices.mirror ? "mirrored" : "straight"}
            options={[
              { value: "straight", label: "As it is" },
              { value: "mirrored", label: "In a mirror" },
            ]}
            onChange={(v) => change({ mirror: v === "mirrored" })}
          />
        </>
      )}
      {now && !doing && (
        <div className="space-y-1 text-sm" aria-live="polite">
          <p>
            <b className="break-all">{now.name}</b>: {fmt(now.volumeMl, "volume")} ± {fmt(now.errorMl, "volume")}
            {opened ? `, ${opened.triangles.toLocaleString("en")} triangles` : ""}.
          </p>
          <Leaving opens={now.opens} lay={opened ? (axis) => change({ up: laid(choices.up, axis) }) : null} />
          {now.says.map((s) => (
            <p key={s} className="hint">
              {say(s)}
            </p>
          ))}
        </div>
      )}
    </div>
  );
}

/** Which way is up once what lies along x or y now stands upright. */
function laid(up: Up, axis: 0 | 1): Up {
  const rows: Record<Up, readonly [Up, Up]> = {
    "+z": ["+x", "+y"],
    "-z": ["+x", "-y"],
    "+x": ["+y", "+z"],
    "-x": ["+z", "+y"],
    "+y": ["+z", "+x"],
    "-y": ["+x", "+z"],
  };
  return rows[up][axis];
}
