"use client";

import { Plus, Trash2 } from "lucide-react";
import { Choice } from "../../../kit/Choice";
import { Pick } from "../../../kit/Pick";
import { Figure } from "../../../kit/controls";
import { QuantityField } from "../../../form/QuantityField";
import { useUnits } from "../../../kit/units";
import type { Body } from "@/core/body";
import { SHAPE_KINDS, SHAPES, type ProfilePoint } from "@/core/master";
import { useJob, useRemark } from "../JobContext";
import { Fold } from "../../../kit/Fold";
import { JobField } from "../JobField";
import { DataTable } from "../../../kit/DataTable";

/** Most points a turned outline may have. */
const MOST_POINTS = 60;

export function MasterStep() {
  const { job, plan, catalogue, edit } = useJob();
  const { master } = job;
  const info = SHAPES[master.shape];
  const surfaceRemark = useRemark("master.surfaceId");
  return (
    <>
      <Choice
        label="Shape"
        value={master.shape}
        options={SHAPE_KINDS.map((k) => ({ value: k, label: SHAPES[k].label, hint: SHAPES[k].when }))}
        onChange={(shape) => edit((j) => ({ ...j, master: { ...j.master, shape } }))}
      />
      <p className="hint !mt-2">{info.when}</p>
      {master.shape === "turned" ? (
        <Profile />
      ) : (
        <div className="grid grid-cols-2 gap-3">
          {info.fields.map((f) => (
            <JobField key={f.key} path={`master.sizes.${f.key}`} />
          ))}
        </div>
      )}
      {plan.body && <Results m={plan.body} />}
      <div className="grid gap-3 sm:grid-cols-2">
        <Pick
          label="Made of"
          value={master.surfaceId}
          options={catalogue.surfaces.map((s) => ({ value: s.id, label: s.name }))}
          fault={surfaceRemark?.message}
          onChange={(surfaceId) => edit((j) => ({ ...j, master: { ...j.master, surfaceId } }))}
        />
        <JobField path="master.massG" />
        <JobField path="master.readingMm" />
      </div>
      <label className="block space-y-1">
        <span className="label">Notes</span>
        <textarea className="field" rows={2} maxLength={2000} value={job.note} onChange={(e) => edit((j) => ({ ...j, note: e.target.value }))} />
      </label>
    </>
  );
}

function Results({ m }: { m: Body }) {
  const { fmt } = useUnits();
  const levels = [0, 0.25, 0.5, 0.75, 1].map((share) =>
    m.levels.reduce((best, l) => (Math.abs(l.zMm - share * m.heightMm) < Math.abs(best.zMm - share * m.heightMm) ? l : best)),
  );
  return (
    <div className="space-y-3 rounded-xl bg-paper p-3">
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <Figure name="Volume" size="text-3xl" note={m.volumeErrorMl > 0 ? `± ${fmt(m.volumeErrorMl, "volume")}` : undefined}>
          {fmt(m.volumeMl, "volume")}
        </Figure>
        <Figure name={m.unknown.includes("area") ? "Surface, roughly" : "Surface"}>{fmt(m.areaMm2, "area")}</Figure>
        <Figure name="Over all" size="text-lg">
          {fmt(m.lengthMm, "length")} × {fmt(m.widthMm, "length")} × {fmt(m.heightMm, "length")}
        </Figure>
      </div>
      <Fold title="Girth from back to top">
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
      </Fold>
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
  return (
    <div className="space-y-2">
      <p className="hint">Type radius against height from the back up, or drag the points on the drawing.</p>
      {remark && (
        <p role="alert" className="fault">
          {remark.message}
        </p>
      )}
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
              label={`Radius of point ${i + 1}`}
              placeholder="radius"
              value={p.radiusMm}
              dimension="length"
              min={0}
              max={1500}
              draftKey={`${id}:r${i}`}
              onChange={(v) => v !== null && change(i, { radiusMm: v })}
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
    </div>
  );
}
