"use client";

import { Plus, Trash2 } from "lucide-react";
import dynamic from "next/dynamic";
import { useState } from "react";
import { Choice } from "../../../kit/Choice";
import { Pick } from "../../../kit/Pick";
import { Figure } from "../../../kit/controls";
import { QuantityField } from "../../../form/QuantityField";
import { useUnits } from "../../../kit/units";
import { placesOf, type Body, type Copies } from "@/core/body";
import { OPENING, type Layout } from "@/core/mould";
import { SHAPE_KINDS, SHAPES, type ProfilePoint } from "@/core/master";
import { useJob, useRemark } from "../JobContext";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";
import { DataTable } from "../../../kit/DataTable";

// Fetched only where a piece is read from a file or from pictures.
const ModelReader = dynamic(() => import("./ModelReader").then((m) => m.ModelReader));
const PieceParts = dynamic(() => import("./PieceParts").then((m) => m.PieceParts));
const Girths = dynamic(() => import("./Girths").then((m) => m.Girths));
const PhotoReader = dynamic(() => import("./PhotoReader").then((m) => m.PhotoReader));

/** Most points a turned outline may have. */
const MOST_POINTS = 60;

export function MasterStep() {
  const { job, plan, catalogue, edit } = useJob();
  const { master } = job;
  const info = SHAPES[master.shape];
  const surfaceRemark = useRemark("master.surfaceId");
  const weightDoubted = useRemark("master.massG") !== null;
  const { fmt } = useUnits();
  return (
    <>
      <More title="Shape" now={info.label} open={!plan.body && master.shape !== "model" && master.shape !== "photographs"}>
        <Choice
          label="Shape"
          hideLabel
          value={master.shape}
          options={SHAPE_KINDS.map((k) => ({ value: k, label: SHAPES[k].label, hint: SHAPES[k].when }))}
          onChange={(shape) => edit((j) => ({ ...j, master: { ...j.master, shape } }))}
        />
        <p className="hint !mt-2">{info.when}</p>
      </More>
      {master.shape === "turned" ? (
        <Profile />
      ) : master.shape === "girths" ? (
        <Girths />
      ) : master.shape === "model" ? (
        <ModelReader />
      ) : master.shape === "photographs" ? (
        <PhotoReader />
      ) : (
        <div className="grid grid-cols-2 gap-3">
          {info.fields.map((f) => (
            <JobField key={f.key} path={`master.sizes.${f.key}`} />
          ))}
        </div>
      )}
      <More title="Joined on, taken away" now={master.parts.length === 0 ? "nothing" : master.parts.map((p) => p.name).join(", ")}>
        <PieceParts />
      </More>
      {OPENING[job.mould.opening].made === "block" && (
        <More title="Several in one box" now={plan.pieces === 1 ? "one" : `${plan.pieces}`}>
          <div className="grid grid-cols-3 gap-3">
            <JobField path="master.copies.along" />
            <JobField path="master.copies.across" />
            <JobField path="master.copies.gapMm" />
          </div>
          {plan.piece && plan.pieces > 1 && <Board piece={plan.piece} copies={master.copies} layout={plan.layout} />}
        </More>
      )}
      <Pick
        label="Made of"
        value={master.surfaceId}
        options={catalogue.surfaces.map((s) => ({ value: s.id, label: s.name }))}
        fault={surfaceRemark?.message}
        onChange={(surfaceId) => edit((j) => ({ ...j, master: { ...j.master, surfaceId } }))}
      />
      <More title="Weight, girths, notes" now={plan.masterG === null ? undefined : fmt(plan.masterG, "mass")} open={weightDoubted}>
        <div className="grid gap-3 sm:grid-cols-2">
          <JobField path="master.massG" />
          <JobField path="master.readingMm" />
        </div>
        {plan.piece && <Results m={plan.piece} />}
        <label className="block space-y-1">
          <span className="label">Notes</span>
          <textarea className="field" rows={2} maxLength={2000} value={job.note} onChange={(e) => edit((j) => ({ ...j, note: e.target.value }))} />
        </label>
      </More>
    </>
  );
}

/** Where each stands on the board, from the inside of its front left corner: to be marked before the box goes round them. */
function Board({ piece, copies, layout }: { piece: Body; copies: Copies; layout: Layout | null }) {
  const { fmt } = useUnits();
  const [fromX, fromY] = layout?.kind === "block" ? [layout.box.lengthMm / 2, layout.box.widthMm / 2] : [0, 0];
  return (
    <>
      <p className="hint">
        Each has its own sprue, is judged by itself in the log, and counts by itself in orders. Grams, weights of the box and of the mix are for all of them.
        See it “From above”.
      </p>
      {layout?.kind === "block" && (
        <DataTable
          label="Middles on the board, from the inside of its front left corner"
          dense
          rows={placesOf(piece, copies)}
          keyOf={(_, i) => String(i)}
          columns={[
            { id: "which", header: "Piece", cell: ({ row }) => row.index + 1 },
            { id: "along", header: "Along", cell: ({ row }) => fmt(fromX + row.original[0], "length") },
            { id: "across", header: "Across", cell: ({ row }) => fmt(fromY + row.original[1], "length") },
          ]}
        />
      )}
    </>
  );
}

function Results({ m }: { m: Body }) {
  const { fmt } = useUnits();
  const levels = [0, 0.25, 0.5, 0.75, 1].map((share) =>
    m.levels.reduce((best, l) => (Math.abs(l.zMm - share * m.heightMm) < Math.abs(best.zMm - share * m.heightMm) ? l : best)),
  );
  return (
    <div className="space-y-3">
      <div className="grid grid-cols-2 gap-3">
        <Figure name={m.unknown.includes("area") ? "Surface, roughly" : "Surface"}>{fmt(m.areaMm2, "area")}</Figure>
        <Figure name="Over all" size="text-lg">
          {fmt(m.lengthMm, "length")} × {fmt(m.widthMm, "length")} × {fmt(m.heightMm, "length")}
        </Figure>
      </div>
      <DataTable
        label="Girth from back to top"
        dense
        rows={levels}
        keyOf={(_, i) => String(i)}
        columns={[
          { id: "height", header: "Height", cell: ({ row }) => fmt(row.original.zMm, "length") },
          { id: "girth", header: "Girth", cell: ({ row }) => fmt(row.original.perimeterMm, "length") },
          { id: "area", header: "Cut area", cell: ({ row }) => fmt(row.original.areaMm2, "area") },
        ]}
      />
    </div>
  );
}

/** A starting outline for a turned master, mm: something to drag. */
const FIRST_PROFILE: readonly ProfilePoint[] = [
  { zMm: 0, radiusMm: 40 },
  { zMm: 30, radiusMm: 40 },
  { zMm: 60, radiusMm: 25 },
];

function Profile() {
  const { id, job, edit } = useJob();
  const { profile } = job.master;
  const remark = useRemark("master.profile");
  const [tape, setTape] = useState(false);
  const put = (next: ProfilePoint[]) => edit((j) => ({ ...j, master: { ...j.master, profile: next } }));
  const change = (i: number, patch: Partial<ProfilePoint>) => put(profile.map((p, k) => (k === i ? { ...p, ...patch } : p)));
  if (profile.length === 0) {
    return (
      <button type="button" className="btn btn-main" onClick={() => put([...FIRST_PROFILE])}>
        Draw an outline to change
      </button>
    );
  }
  const last = profile.at(-1) ?? { zMm: 0, radiusMm: 20 };
  // A tape lies round: its length over 2π is the radius.
  const per = tape ? 2 * Math.PI : 1;
  return (
    <div className="space-y-2">
      <p className="hint">Drag the points on the drawing, or type them.</p>
      {remark && (
        <p role="alert" className="fault">
          {remark.message}
        </p>
      )}
      <More title="Points of the outline" now={`${profile.length}`}>
        <Choice
          label="Measured as"
          hideLabel
          value={tape ? "girth" : "radius"}
          options={[
            { value: "radius", label: "Radius" },
            { value: "girth", label: "Girth by tape" },
          ]}
          onChange={(v) => setTape(v === "girth")}
        />
        <ul className="space-y-1.5">
          {profile.map((p, i) => (
            <li key={i} className="grid grid-cols-[1fr_1fr_auto] items-center gap-2">
              <QuantityField
                compact
                label={`Height of point ${i + 1}`}
                placeholder="height"
                value={p.zMm}
                dimension="length"
                min={0}
                max={3000}
                draftKey={`${id}:z${i}`}
                onChange={(v) => v !== null && change(i, { zMm: v })}
              />
              <QuantityField
                compact
                label={`${tape ? "Girth" : "Radius"} of point ${i + 1}`}
                placeholder={tape ? "girth" : "radius"}
                value={p.radiusMm * per}
                dimension="length"
                min={0}
                max={1500 * per}
                draftKey={`${id}:${tape ? "g" : "r"}${i}`}
                onChange={(v) => v !== null && change(i, { radiusMm: tape ? Math.round((100 * v) / per) / 100 : v })}
              />
              <button
                type="button"
                className="btn btn-bare !px-2"
                aria-label={`Remove point ${i + 1}`}
                disabled={profile.length <= 2}
                onClick={() => put(profile.filter((_, k) => k !== i))}
              >
                <Trash2 size={18} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="btn"
          disabled={profile.length >= MOST_POINTS}
          onClick={() => put([...profile, { zMm: last.zMm + 10, radiusMm: last.radiusMm }])}
        >
          <Plus size={18} aria-hidden="true" /> Add a point on top
        </button>
      </More>
    </div>
  );
}
