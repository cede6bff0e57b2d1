"use client";

import { useDeferredValue, useMemo } from "react";
import {
  backing,
  BOX_SHAPE_LABEL,
  BOX_SHAPES,
  leastPanel,
  OPENING,
  OVERLAP_LABEL,
  OVERLAPS,
  panelBow,
  type BlockLayout,
  type MouldDecision,
} from "@/core/mould";
import { JACKET_KEYS, JACKET_MAKE, JACKET_PRACTICE, JACKETS, SEAL_PRACTICE, SEALING_KEYS, SEALINGS } from "@/core/material";
import type { PlannedPour } from "@/core/plan";
import { Pick } from "../../../kit/Pick";
import { Figure } from "../../../kit/controls";
import { useUnits } from "../../../kit/units";
import { useJob, useRemark, useRemarks } from "../JobContext";
import { MakeFiles } from "./MakeFiles";
import { Fold } from "../../../kit/Fold";
import { Tick } from "../../../kit/Tick";
import { JacketStuff } from "./JacketStuff";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";
import { DataTable } from "../../../kit/DataTable";

export function BoxStep() {
  const { job, plan } = useJob();
  const block = OPENING[job.mould.opening].made === "block";
  const jacketRemark = useRemark("jacket") !== null;
  return (
    <>
      {block ? (
        <BoxFields />
      ) : (
        <p className="text-soft">
          A skin needs no box: a level board larger than its skirt
          {plan.layout?.kind === "skin" && plan.layout.flange && !job.mould.skin.seamWall && ", and a clay fence along each seam"}.
        </p>
      )}
      <More title="Jacket" now={block && !jacketRemark ? JACKETS[job.jacket].label : undefined} open={!block || jacketRemark}>
        <JacketFields />
      </More>
      {plan.layout?.kind === "block" && <Answers layout={plan.layout} pours={plan.pours} />}
      <More title="Files">
        <MakeFiles />
      </More>
    </>
  );
}

function BoxFields() {
  const { job, plan, catalogue, edit } = useJob();
  const { mould } = job;
  const put = (patch: Partial<MouldDecision>) => edit((j) => ({ ...j, mould: { ...j.mould, ...patch } }));
  const boxRemarks = useRemarks("boxId");
  const sealing = useRemarks("sealing");
  const ownRemark = useRemark("mould.ownBox");
  const own = mould.ownBox;
  const inside = plan.layout?.kind === "block" ? plan.layout.box : null;
  return (
    <>
      <Pick
        label="Box"
        must
        value={mould.box}
        options={BOX_SHAPES.map((s) => ({ value: s, label: BOX_SHAPE_LABEL[s] }))}
        onChange={(box) => put({ box: BOX_SHAPES.find((s) => s === box) ?? mould.box })}
      />
      <div className="grid grid-cols-3 items-end gap-2">
        {!own && <JobField path="mould.wallMm" />}
        <JobField path="mould.coverMm" />
        {OPENING[mould.opening].base && <JobField path="mould.baseMm" />}
      </div>
      <Pick
        label="Built from"
        value={job.boxId}
        options={catalogue.boxes.map((b) => ({ value: b.id, label: b.name }))}
        none="Not decided"
        fault={boxRemarks.length > 0 ? boxRemarks.map((r) => r.message).join(" ") : null}
        onChange={(boxId) => edit((j) => ({ ...j, boxId }))}
      />
      <More title="Seams, corners, own box" now={own ? "own box" : SEALINGS[job.sealing].label} open={own !== null || sealing.length > 0}>
        <div className="grid grid-cols-2 gap-3">
          <JobField path="mould.freeboardMm" />
          {mould.box === "rectangular" && <JobField path="mould.kerfMm" />}
        </div>
        <div className="grid gap-3">
          <Pick
            label="Seams sealed with"
            value={job.sealing === "none" ? null : job.sealing}
            options={SEALING_KEYS.filter((k) => k !== "none").map((k) => ({ value: k, label: SEALINGS[k].label }))}
            none={SEALINGS.none.label}
            help={SEAL_PRACTICE[job.sealing] || undefined}
            fault={sealing.length > 0 ? sealing.map((r) => r.message).join(" ") : null}
            onChange={(k) => edit((j) => ({ ...j, sealing: SEALING_KEYS.find((s) => s === k) ?? "none" }))}
          />
          {mould.box === "rectangular" && (
            <Pick
              label="Corners"
              must
              value={mould.overlap}
              options={OVERLAPS.map((o) => ({ value: o, label: OVERLAP_LABEL[o] }))}
              onChange={(o) => put({ overlap: OVERLAPS.find((k) => k === o) ?? mould.overlap })}
            />
          )}
        </div>
        <Tick
          checked={own !== null}
          onChange={(checked) =>
            put({
              ownBox: checked ? { lengthMm: Math.ceil(inside?.lengthMm ?? 150), widthMm: Math.ceil(inside?.widthMm ?? 150) } : null,
            })
          }
        >
          I already have a box
        </Tick>
        {own && (
          <div className="grid grid-cols-2 gap-3">
            <JobField path="mould.ownBox.lengthMm" remarkAt="mould.ownBox" {...(mould.box === "cylindrical" ? { label: "Inside diameter" } : {})} />
            {mould.box !== "cylindrical" && <JobField path="mould.ownBox.widthMm" />}
          </div>
        )}
        {own && ownRemark?.severity === "fault" && <p className="hint">The drawing shows the last box that held the master.</p>}
      </More>
    </>
  );
}

/** The rigid case behind the rubber: what of, how thick, in how many parts, with how many bolts. */
function JacketFields() {
  const { job, plan, edit } = useJob();
  const { fmt, band } = useUnits();
  const remark = useRemark("jacket");
  const kind = OPENING[job.mould.opening];
  const built = plan.layout?.jacket ?? null;
  const make = job.jacket === "none" ? null : { ...JACKET_MAKE[job.jacket], ...JACKET_PRACTICE[job.jacket] };
  const shrink =
    plan.rubber && plan.body
      ? { low: (plan.rubber.shrinkPct.low / 100) * plan.body.lengthMm, high: (plan.rubber.shrinkPct.high / 100) * plan.body.lengthMm }
      : null;
  return (
    <div className="space-y-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <Pick
          label="Jacket behind the rubber"
          value={job.jacket === "none" ? null : job.jacket}
          options={JACKET_KEYS.filter((k) => k !== "none").map((k) => ({ value: k, label: JACKETS[k].label }))}
          none={JACKETS.none.label}
          fault={remark?.message}
          onChange={(k) => edit((j) => ({ ...j, jacket: JACKET_KEYS.find((s) => s === k) ?? "none" }))}
        />
        {make && <JobField path="mould.jacketMm" empty={`usually ${fmt(make.thicknessMm, "length")}`} />}
      </div>
      {make && built && (
        <>
          <div className="grid grid-cols-2 gap-3">
            <Figure name="Parts" note={built.parts > 1 ? "with a notch on one side, so that they cannot be swapped" : undefined}>
              {built.parts}
            </Figure>
            <Figure name="Takes" note={built.timberMm > 0 ? `with ${fmt(built.timberMm, "length")} of rail` : undefined}>
              {fmt(built.volumeMl, "volume")}
            </Figure>
            <Figure name="Weighs" note={band(built.massG, "mass")}>
              {fmt(built.massG.typical, "mass")}
              {built.cost !== null && <span className="block text-base font-normal">costs {fmt(built.cost, "money")}</span>}
            </Figure>
            <Figure
              name="Bolts"
              note={built.bolts > 0 ? `every ${fmt(job.mould.boltEveryMm, "length")} along a ${fmt(built.flangeMm, "length")} flange` : undefined}
            >
              {built.bolts}
            </Figure>
          </div>
          <More title="How it is laid on" now={`${built.parts} ${built.parts === 1 ? "part" : "parts"}`}>
            {kind.made === "skin" && job.jacket !== "timber" && (
              <Tick checked={job.mould.framed} onChange={(framed) => edit((j) => ({ ...j, mould: { ...j.mould, framed } }))}>
                With a timber frame behind it
              </Tick>
            )}
            <JobField path="mould.jacketPricePerKg" />
            {built.parts > 1 && <JobField path="mould.boltEveryMm" />}
            <p>
              <JacketStuff jacket={built} />
            </p>
            <p>
              {built.why}
              {built.anchors.count > 0 &&
                ` ${built.anchors.count} plugs of ${fmt(built.anchors.diameterMm, "length")}, about every ${fmt(built.anchors.everyMm, "length")} (a usual size), take ${fmt(built.anchors.rubberMl, "volume")} of rubber.`}
              {built.parts > 1 && built.fillMl > 1 && plan.layout?.kind === "skin"
                ? ` Filling the waist with ${fmt(built.fillMl, "volume")} of rubber would let it lift off as one.`
                : ""}
            </p>
            <ul className="list-disc space-y-1 pl-5 text-[0.95rem]">
              <li>{make.how}</li>
              {built.parts > 1 && <li>Between the parts: {make.barrier}</li>}
              <li>
                {make.ages}
                {shrink && shrink.high > 0.05
                  ? ` The rubber shrinks ${fmt(shrink.low, "length")} to ${fmt(shrink.high, "length")} over its length while the jacket does not: it goes loose in time.`
                  : ""}
              </li>
              {kind.made === "skin" && <li>The inside of the jacket shows through a thin skin: smooth the rubber before you cover it.</li>}
            </ul>
          </More>
        </>
      )}
    </div>
  );
}

/** Most a side of the box may bow under the rubber before it is worth a strap, mm. */
const STRAIGHT_MM = 1;

function Answers({ layout, pours }: { layout: BlockLayout; pours: readonly PlannedPour[] }) {
  const { fmt, say, band } = useUnits();
  const { job, plan, catalogue } = useJob();
  const panel = plan.strength?.panel;
  const hoop = plan.strength?.hoop;
  // Worked out only where it is shown, and only when there is time.
  const shown = useDeferredValue(panel);
  const remedy = useMemo(
    () =>
      shown && {
        leastMm: leastPanel(shown.panel, shown.modulusMPa, STRAIGHT_MM),
        stocks: catalogue.boxes.flatMap((b) =>
          b.bends || !b.modulusMPa ? [] : [{ id: b.id, name: b.name, bowMm: panelBow(shown.panel, b.thicknessMm, b.modulusMPa).mostMm.typical }],
        ),
        straps:
          shown.mostMm.typical > STRAIGHT_MM ? backing(shown.panel, shown.stock.thicknessMm, shown.modulusMPa, STRAIGHT_MM, job.strength.strapN, 1) : null,
      },
    [shown, job.strength.strapN, catalogue.boxes],
  );
  const best = layout.alternatives.find((a) => a.savedMl > 1);
  const firstSeam = pours.reduce((most, p) => Math.max(most, p.seamPa ?? 0), 0);
  const push = pours.reduce((most, p) => Math.max(most, p.wallPushN ?? 0), 0);
  return (
    <>
      <More title="Cut list" now={layout.panels.map((p) => p.count).reduce((a, b) => a + b, 0) + (layout.panels.length > 0 ? " pieces" : "")}>
        <DataTable
          label="Cut list"
          rows={layout.panels}
          keyOf={(p) => p.name}
          columns={[
            { id: "piece", header: "Piece", cell: ({ row: { original: p } }) => `${p.count > 1 ? `${p.count} × ` : ""}${p.name}` },
            { id: "length", header: "Length", cell: ({ row }) => <b>{fmt(row.original.lengthMm, "length")}</b> },
            { id: "height", header: "Height", cell: ({ row }) => <b>{fmt(row.original.heightMm, "length")}</b> },
          ]}
        />
        <p className="hint mt-1">{say(layout.cutNote)}</p>
      </More>
      <More title="Fill lines, other boxes" now={[...new Set(layout.pours.map((p) => fmt(p.fillLineMm, "length")))].join(", ")}>
        <div className="grid grid-cols-2 gap-3">
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
            <Figure name="Push on the bottom seam" size="text-lg" note={push > 0 ? `${fmt(push, "force")} on the longest side` : undefined}>
              {fmt(firstSeam, "pressure")}
            </Figure>
          )}
        </div>
        {panel && (
          <p>
            <b>Under the rubber its longest side bows {fmt(panel.mostMm.typical, "length")}</b>{" "}
            <span className="text-soft">
              ({band(panel.mostMm, "length")}).{" "}
              {remedy?.straps
                ? remedy.straps.enough
                  ? `${remedy.straps.straps.length === 1 ? "One strap" : `${remedy.straps.straps.length} straps`} over battens, ${remedy.straps.straps.map((z) => fmt(z, "length")).join(" and ")} up, keep it within ${fmt(STRAIGHT_MM, "length")}.`
                  : "Straps alone do not keep it straight: take a stiffer sheet."
                : "It needs no strap."}{" "}
              {typeof remedy?.leastMm === "number" && `Of this stuff ${fmt(remedy.leastMm, "length")} would do without.`}
            </span>
          </p>
        )}
        {remedy && remedy.stocks.length > 1 && (
          <Fold title="The same box of other sheets">
            <ul className="mt-1">
              {remedy.stocks.map((b) => (
                <li key={b.id} className="flex justify-between gap-3 border-t border-line py-1">
                  <span>{b.name}</span>
                  <b className={b.bowMm > STRAIGHT_MM ? "text-care" : ""}>bows {fmt(b.bowMm, "length")}</b>
                </li>
              ))}
            </ul>
          </Fold>
        )}
        {hoop && (
          <p>
            <b>The seam of the wrap carries {fmt(hoop.seamN, "force")}</b>{" "}
            <span className="text-soft">
              along its height, most at the foot
              {hoop.growsMm === null ? "" : `; the sheet gives ${fmt(hoop.growsMm, "length")}`}
              {hoop.used === null ? "" : ` and uses ${hoop.used < 0.01 ? "less than 1" : Math.round(hoop.used * 100)} % of its strength`}. Tape across the seam,
              and two bands of cord round it.
            </span>
          </p>
        )}
        {job.mould.box !== "rectangular" || layout.box.shape !== "rectangular" ? null : (
          <p className="hint">Seal every seam and keep clay at hand; watch it for the first minutes.</p>
        )}
        <h3 className="font-bold">Other boxes, same least wall</h3>
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
      </More>
    </>
  );
}
