"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { buildOrder, OPENING, OPENINGS, PLUG_FIELDS, type MouldDecision, type SkinOpening } from "@/core/mould";
import { Choice } from "../../../kit/Choice";
import { Pick } from "../../../kit/Pick";
import { Figure } from "../../../kit/controls";
import { GradeMark, STRETCH_WORDS } from "../../../kit/GradeMark";
import { ListEditor } from "../../../form/ListEditor";
import { NameField } from "../../../form/NameField";
import { NumberOf } from "../../../form/NumberOf";
import { useUnits } from "../../../kit/units";
import { useJob, useRemarks } from "../JobContext";
import { OrderOfWork } from "../OrderOfWork";
import { SIDE_OPTIONS, Undercuts } from "./Undercuts";
import { Tick } from "../../../kit/Tick";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";

/** Fetched only when somebody asks for it. */
const WaysPanel = dynamic(() => import("../WaysPanel").then((m) => m.WaysPanel), { ssr: false });

export function OpeningStep() {
  const { job, plan, edit } = useJob();
  const { mould } = job;
  const [all, setAll] = useState(false);
  const kind = OPENING[mould.opening];
  const { fmt } = useUnits();
  const put = (patch: Partial<MouldDecision>) => edit((j) => ({ ...j, mould: { ...j.mould, ...patch } }));
  return (
    <>
      <Pick
        label="How it opens"
        must
        value={mould.opening}
        options={OPENINGS.map((o) => ({
          value: o,
          label: OPENING[o].label,
          group: OPENING[o].made === "block" ? "Blocks, poured in a box" : "Skins, laid on the master",
        }))}
        help={kind.suits}
        onChange={(v) => put({ opening: OPENINGS.find((o) => o === v) ?? mould.opening })}
      />
      <Remarks path="mould.opening" />
      {plan.layout && (
        <button type="button" className="btn w-full justify-center" onClick={() => setAll(true)}>
          All ways in a row
        </button>
      )}
      {all && <WaysPanel onClose={() => setAll(false)} />}
      {kind.base && <JobField path="mould.partingMm" label={kind.halves ? "Parting above the back" : "Cut above the back"} />}
      {kind.plugs && <Plugs />}
      {kind.made === "skin" && <SkinFields kind={kind} />}
      <Remarks path="inside.layers" />
      <More title="Undercuts" now={mould.undercuts.length === 0 ? "none named" : `${mould.undercuts.length}`}>
        <Undercuts />
        <Remarks path="mould.undercuts" />
      </More>
      <More title="How it lets go" now={plan.strength?.cut ? `cut ${fmt(plan.strength.cut.lengthMm, "length")}` : undefined}>
        <LetsGo />
      </More>
      {plan.layout && (
        <More title="Order of work" now={kind.halves ? (mould.lowerFirst ? "below the parting first" : undefined) : undefined}>
          {kind.halves && (
            <Choice
              label="Poured first"
              value={mould.lowerFirst ? "lower" : "upper"}
              options={[
                { value: "upper", label: "Above the parting" },
                { value: "lower", label: "Below it" },
              ]}
              onChange={(v) => put({ lowerFirst: v === "lower" })}
            />
          )}
          <OrderOfWork order={buildOrder(mould, plan.layout, job.jacket)} />
        </More>
      )}
    </>
  );
}

/** Everything the plan has to say about one value, listed under it. */
function Remarks({ path }: { path: string }) {
  const all = useRemarks(path);
  return all.map((r) => (
    <p key={r.message} className="hint !mt-1 font-semibold !text-care">
      {r.message}
    </p>
  ));
}

function Plugs() {
  const { job, edit } = useJob();
  const put = (plugs: MouldDecision["plugs"]) => edit((j) => ({ ...j, mould: { ...j.mould, plugs } }));
  return (
    <>
      <ListEditor
        label="Loose plugs: one for each hole or deep recess"
        items={job.mould.plugs}
        most={12}
        addLabel="Add a plug"
        blank={() => ({ name: `Plug ${job.mould.plugs.length + 1}`, diameterMm: 20, lengthMm: 20, count: 1, from: "top" as const })}
        nameOf={(p) => p.name}
        onChange={put}
      >
        {(p, change) => (
          <div className="space-y-2">
            <NameField what="plug" value={p.name} onChange={(name) => change({ name })} />
            <div className="grid grid-cols-3 gap-2">
              <NumberOf fields={PLUG_FIELDS} of="diameterMm" item={p} change={change} />
              <NumberOf fields={PLUG_FIELDS} of="lengthMm" item={p} change={change} />
              <NumberOf fields={PLUG_FIELDS} of="count" item={p} change={change} />
            </div>
            <Choice label="Comes out to the" value={p.from} options={SIDE_OPTIONS} onChange={(from) => change({ from })} />
          </div>
        )}
      </ListEditor>
      <Choice
        label="Plugs are cast"
        value={job.mould.plugsLast ? "last" : "first"}
        options={[
          { value: "first", label: "First, into their holes" },
          { value: "last", label: "Last, against the parts" },
        ]}
        onChange={(v) => edit((j) => ({ ...j, mould: { ...j.mould, plugsLast: v === "last" } }))}
      />
      <Remarks path="mould.plugs" />
    </>
  );
}

function SkinFields({ kind }: { kind: SkinOpening }) {
  const { job, edit } = useJob();
  const { skin } = job.mould;
  const { pressed, skirt, sections } = kind;
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        {pressed ? (
          <>
            <JobField path="mould.putty.layers" />
            <JobField path="mould.putty.layerMm" />
          </>
        ) : (
          <>
            <JobField path="mould.skin.coats" />
            {skin.coats > 1 && <JobField path="mould.skin.coatMm" />}
          </>
        )}
        {sections && <JobField path="mould.skin.sections" />}
        {skirt && <JobField path="mould.skin.flangeMm" />}
      </div>
      <Remarks path="mould.skin" />
      <More title="How it is laid on">
        <div className="grid grid-cols-2 gap-3">
          {pressed ? (
            <>
              <JobField path="mould.putty.padMm" />
              <JobField path="mould.putty.pressGMin" />
              <JobField path="mould.putty.hands" />
            </>
          ) : (
            <>
              <JobField path="mould.skin.firstMm" />
              <JobField path="mould.skin.padMm" />
              <JobField path="mould.skin.runOffPct" />
            </>
          )}
        </div>
        <div className="flex flex-wrap gap-2">
          {!pressed && <Thickened />}
          {sections && skin.sections > 1 && (
            <Tick checked={skin.seamWall} onChange={(seamWall) => edit((j) => ({ ...j, mould: { ...j.mould, skin: { ...j.mould.skin, seamWall } } }))}>
              Seams raised in rubber, not in clay
            </Tick>
          )}
        </div>
        <SkinAnswer />
      </More>
    </>
  );
}

/** What the skin comes to: thickness, area, flanges and the keys along them. */
function SkinAnswer() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const l = plan.layout;
  if (l?.kind !== "skin") return null;
  const pressing = plan.pours.flatMap((p) => (p.pressing ? [p.pressing] : []));
  return (
    <div className="grid grid-cols-2 gap-3 rounded-xl bg-paper p-3 sm:grid-cols-4">
      <Figure name="Skin">{fmt(l.skinMm, "length")}</Figure>
      <Figure name="Covers" note={`${Math.round(l.steepShare * 100)} % of it steep`}>
        {fmt(l.exposedMm2, "area")}
      </Figure>
      <Figure name="Rubber">{fmt(l.rubberMl, "volume")}</Figure>
      {pressing.length > 0 && (
        <Figure
          name="Pressing"
          note={`${pressing.reduce((s, p) => s + p.batches, 0)} batches, about ${fmt(Math.max(...pressing.map((p) => p.eachG)), "mass")} each`}
        >
          {fmt(
            pressing.reduce((s, p) => s + p.hours, 0),
            "duration",
          )}
        </Figure>
      )}
      {l.flange && (
        <Figure name="Seams" note={`keys ${l.flange.keysAtMm.map((z) => fmt(z, "length")).join(", ")} along each, near the master`}>
          {fmt(l.flange.lengthMm, "length")}
        </Figure>
      )}
    </div>
  );
}

function Thickened() {
  const { job, edit } = useJob();
  return (
    <Tick
      checked={job.mould.skin.thickened}
      onChange={(checked) => edit((j) => ({ ...j, mould: { ...j.mould, skin: { ...j.mould.skin, thickened: checked } } }))}
    >
      Thickened after the detail coat
    </Tick>
  );
}

/** What it takes to let go: stretch at the narrow place, and where the knife goes. */
function LetsGo() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const h = plan.strength;
  if (!h) return <p className="hint">How far it has to stretch to let go shows once the rubber is chosen.</p>;
  const pct = (v: number) => `${Math.round(v * 100)} %`;
  return (
    <div className="grid grid-cols-2 gap-3 rounded-xl bg-paper p-3">
      <Figure
        name="Stretch to let go"
        note={
          !h.stretch.known
            ? "its outline is not known: name the undercuts"
            : h.stretch.strain > 0
              ? `passing ${fmt(h.stretch.widestAtMm, "length")} up through ${fmt(h.stretch.narrowAtMm, "length")} up`
              : "nothing wider has to pass"
        }
      >
        {h.stretch.known ? pct(h.stretch.strain) : "Not known"}
      </Figure>
      <div className="min-w-0">
        <GradeMark grade={h.stretch.grade} words={h.stretch.known ? STRETCH_WORDS : { ...STRETCH_WORDS, close: "Not known" }} />
        <p className="hint">
          This rubber is good for {pct(h.stretch.safe.low)} to {pct(h.stretch.safe.typical)}, a quarter of what breaks it. Undercuts that do not show in the
          outline come on top.
        </p>
        {h.pullN.typical > 50 && <p className="hint">Held open over its widest it pulls back with about {fmt(h.pullN.typical, "force")} all round.</p>}
        {h.leverage && <p className="hint">A square block has corners to pull at: leverage a wrap does not give.</p>}
      </div>
      {h.cut && (
        <p className="col-span-2">
          <b>Cut {fmt(h.cut.lengthMm, "length")}:</b> {h.cut.where} Zig-zag every {fmt(h.cut.stepMm, "length")}, {fmt(h.cut.depthMm, "length")} deep, so that
          the lips lock.{h.cut.needMm > 0 ? ` The stretch alone asks for ${fmt(h.cut.needMm, "length")}.` : ""}
        </p>
      )}
    </div>
  );
}
