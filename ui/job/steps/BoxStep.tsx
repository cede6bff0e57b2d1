"use client";

import { BOX_SHAPE_LABEL, BOX_SHAPES, OVERLAP_LABEL, OVERLAPS, THICKEST_MM, type Layout, type MouldDecision } from "@/core/mould";
import { JACKET_KEYS, JACKETS, SEALING_KEYS, SEALINGS } from "@/core/fit";
import { formatPressure } from "@/core/quantity";
import type { PlannedPour } from "@/core/plan";
import { Choice, Figure, Pick } from "../../controls";
import { useUnits } from "../../units";
import { JobQuantity, useJob, useRemark } from "../JobContext";

export function BoxStep() {
  const { job, plan, shelf, edit } = useJob();
  const { mould } = job;
  const put = (patch: Partial<MouldDecision>) => edit((j) => ({ ...j, mould: { ...j.mould, ...patch } }));
  const openingRemark = useRemark("mould.opening");
  const boxRemark = useRemark("boxId");
  const ownRemark = useRemark("mould.ownBox");
  const twoPart = mould.opening === "twoPart";
  const mm = (key: "wallMm" | "baseMm" | "coverMm", label: string) => (
    <JobQuantity
      path={`mould.${key}`}
      label={label}
      value={mould[key]}
      dimension="length"
      min={0.1}
      max={THICKEST_MM}
      set={(j, v) => ({ ...j, mould: { ...j.mould, [key]: v } })}
    />
  );
  const own = mould.ownBox;
  return (
    <>
      <Choice
        label="How it opens"
        value={mould.opening}
        options={[
          { value: "open", label: "Open-faced, flat back" },
          { value: "twoPart", label: "Two parts, clay parting" },
        ]}
        onChange={(opening) => put({ opening })}
      />
      {openingRemark && <p className="hint !mt-1 font-semibold !text-care">{openingRemark.message}</p>}
      <Choice label="Box" value={mould.box} options={BOX_SHAPES.map((s) => ({ value: s, label: BOX_SHAPE_LABEL[s] }))} onChange={(box) => put({ box })} />
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {!own && mm("wallMm", "Wall of rubber, at least")}
        {mm("coverMm", "Cover over the top")}
        {twoPart && mm("baseMm", "Base under it")}
        <JobQuantity
          path="mould.freeboardMm"
          label="Box above the fill line"
          value={mould.freeboardMm}
          dimension="length"
          min={0}
          max={200}
          set={(j, freeboardMm) => ({ ...j, mould: { ...j.mould, freeboardMm } })}
        />
        {twoPart && (
          <JobQuantity
            path="mould.partingMm"
            label="Parting above the back"
            placeholder="at the widest"
            value={mould.partingMm}
            dimension="length"
            min={0}
            max={3000}
            clear={(j) => ({ ...j, mould: { ...j.mould, partingMm: null } })}
            set={(j, partingMm) => ({ ...j, mould: { ...j.mould, partingMm } })}
          />
        )}
      </div>
      <div className="grid gap-3 sm:grid-cols-2">
        <Pick
          label="Built from"
          value={job.boxId}
          options={shelf.boxes.map((b) => ({ value: b.id, label: b.name }))}
          none="Not decided"
          fault={boxRemark?.message}
          onChange={(boxId) => edit((j) => ({ ...j, boxId }))}
        />
        <Pick
          label="Seams sealed with"
          value={job.sealing === "none" ? null : job.sealing}
          options={SEALING_KEYS.filter((k) => k !== "none").map((k) => ({ value: k, label: SEALINGS[k].label }))}
          none={SEALINGS.none.label}
          onChange={(k) => edit((j) => ({ ...j, sealing: SEALING_KEYS.find((s) => s === k) ?? "none" }))}
        />
        <Pick
          label="Jacket behind the rubber"
          value={job.jacket === "none" ? null : job.jacket}
          options={JACKET_KEYS.filter((k) => k !== "none").map((k) => ({ value: k, label: JACKETS[k].label }))}
          none={JACKETS.none.label}
          onChange={(k) => edit((j) => ({ ...j, jacket: JACKET_KEYS.find((s) => s === k) ?? "none" }))}
        />
        {mould.box === "rectangular" && (
          <Pick
            label="Corners"
            value={mould.overlap}
            options={OVERLAPS.map((o) => ({ value: o, label: OVERLAP_LABEL[o] }))}
            onChange={(o) => put({ overlap: OVERLAPS.find((k) => k === o) ?? mould.overlap })}
          />
        )}
      </div>
      <label className="chip cursor-pointer">
        <input
          type="checkbox"
          className="size-5 accent-ink"
          checked={own !== null}
          onChange={(e) =>
            put({
              ownBox: e.target.checked ? { lengthMm: Math.ceil(plan.layout?.box.lengthMm ?? 150), widthMm: Math.ceil(plan.layout?.box.widthMm ?? 150) } : null,
            })
          }
        />{" "}
        I already have a box
      </label>
      {own && (
        <div className="grid grid-cols-2 gap-3">
          <JobQuantity
            path="mould.ownBox"
            label={mould.box === "cylindrical" ? "Inside diameter" : "Inside length"}
            value={own.lengthMm}
            dimension="length"
            min={1}
            max={3000}
            set={(j, lengthMm) => ({ ...j, mould: { ...j.mould, ownBox: { ...own, lengthMm } } })}
          />
          {mould.box !== "cylindrical" && (
            <JobQuantity
              path="mould.ownBox.widthMm"
              label="Inside width"
              value={own.widthMm}
              dimension="length"
              min={1}
              max={3000}
              set={(j, widthMm) => ({ ...j, mould: { ...j.mould, ownBox: { ...own, widthMm } } })}
            />
          )}
        </div>
      )}
      {own && ownRemark?.severity === "fault" && <p className="hint">The drawing shows the last box that held the master.</p>}
      {plan.layout && <Answers layout={plan.layout} pours={plan.pours} />}
    </>
  );
}

function Answers({ layout, pours }: { layout: Layout; pours: readonly PlannedPour[] }) {
  const { fmt, say } = useUnits();
  const { job } = useJob();
  const best = layout.alternatives.find((a) => a.savedMl > 1);
  const firstSeam = pours.reduce((most, p) => Math.max(most, p.seamPa), 0);
  const push = pours.reduce((most, p) => Math.max(most, p.wallPushN ?? 0), 0);
  return (
    <>
      <div className="grid grid-cols-2 gap-3 rounded-xl bg-paper p-3 sm:grid-cols-3">
        <Figure name="Inside" size="text-2xl">
          {layout.box.shape === "cylindrical"
            ? `⌀ ${fmt(layout.box.lengthMm, "length")}`
            : `${fmt(layout.box.lengthMm, "length")} × ${fmt(layout.box.widthMm, "length")}`}
        </Figure>
        <Figure name="Walls high">{fmt(layout.wallHeightMm, "length")}</Figure>
        <Figure name="Rubber">{fmt(layout.rubberMl, "volume")}</Figure>
        {layout.pours.map((p) => (
          <Figure
            key={p.name}
            name={`${p.name}: fill line`}
            note={`from the floor of the box${p.clayMl > 0.5 ? `; clay bed ${fmt(p.fromMm, "length")} deep, ${fmt(p.clayMl, "volume")}` : ""}`}
          >
            {fmt(p.fillLineMm, "length")}
          </Figure>
        ))}
        {firstSeam > 0 && (
          <Figure name="Push on the bottom seam" size="text-lg" note={push > 0 ? `${push.toFixed(1)} N on the longest side` : undefined}>
            {formatPressure(firstSeam)}
          </Figure>
        )}
      </div>
      <div>
        <h3 className="text-lg font-bold">Cut list</h3>
        <table className="mt-1 w-full text-left">
          <thead className="text-sm text-soft">
            <tr>
              <th className="font-normal">Piece</th>
              <th className="font-normal">Length</th>
              <th className="font-normal">Height</th>
            </tr>
          </thead>
          <tbody>
            {layout.panels.map((p) => (
              <tr key={p.name} className="border-t border-line">
                <td className="py-1.5">
                  {p.count > 1 ? `${p.count} × ` : ""}
                  {p.name}
                </td>
                <td className="font-semibold">{fmt(p.lengthMm, "length")}</td>
                <td className="font-semibold">{fmt(p.heightMm, "length")}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="hint mt-1">{say(layout.cutNote)}</p>
      </div>
      <div>
        <h3 className="text-lg font-bold">Other boxes, same least wall</h3>
        <ul className="mt-1 space-y-1">
          {layout.alternatives.map((a) => (
            <li key={a.shape} className="flex justify-between gap-3">
              <span>{BOX_SHAPE_LABEL[a.shape]}</span>
              <span className={a === best ? "font-semibold text-rubber" : "text-soft"}>
                {a.savedMl >= 0 ? `saves ${fmt(a.savedMl, "volume")}` : `takes ${fmt(-a.savedMl, "volume")} more`}
              </span>
            </li>
          ))}
        </ul>
      </div>
      {job.mould.box !== "rectangular" || layout.box.shape !== "rectangular" ? null : (
        <p className="hint">Seal every seam and keep clay at hand; watch it for the first minutes.</p>
      )}
    </>
  );
}
