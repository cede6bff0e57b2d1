"use client";

import {
  CUT_FIELDS,
  INSERT_FIELDS,
  INSERT_KINDS,
  INSERT_PRACTICE,
  INSERTS,
  LAYER_FIELDS,
  LAYER_KEYS,
  LAYER_WAYS,
  layerDefault,
  MOUTHS,
  type Inside,
  type Layer,
} from "@/core/mould";
import { castKind } from "@/core/cast";
import { pick } from "@/core/material";
import { Tick } from "../../../kit/Tick";
import { Choice } from "../../../kit/Choice";
import { Pick } from "../../../kit/Pick";
import { ListEditor } from "../../../form/ListEditor";
import { NumberOf } from "../../../form/NumberOf";
import { useUnits } from "../../../kit/units";
import { useJob, useRemarks } from "../JobContext";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";

/** What goes into the casting or is left out of it, and how copies shrink. */
export function InsideFields() {
  const { job, edit } = useJob();
  const put = (patch: Partial<Inside>) => edit((j) => ({ ...j, inside: { ...j.inside, ...patch } }));
  const { inside } = job;
  const used = inside.inserts.length > 0 || inside.layers.length > 0 || inside.cutsMm.length > 0 || inside.generations > 1 || inside.thenCastId !== null;
  return (
    <More title="Layers, inserts, sections" now={used ? "some" : "none"}>
      <Layers put={put} />
      <Inserts put={put} />
      <Sections put={put} />
      <Shrinkage put={put} />
    </More>
  );
}

type Put = { put: (patch: Partial<Inside>) => void };

function Doubts({ path }: { path: string }) {
  return useRemarks(path).map((r) => (
    <p key={r.message} className="hint font-semibold !text-care">
      {r.message}
    </p>
  ));
}

function Inserts({ put }: Put) {
  const { job, plan } = useJob();
  const { fmt } = useUnits();
  const placed = plan.inside?.inserts ?? [];
  return (
    <>
      <ListEditor
        label="Rods, hangers, tubes, wicks, inserts"
        items={job.inside.inserts}
        most={20}
        addLabel="Add something that goes inside"
        blank={() => ({
          kind: "rod" as const,
          diameterMm: 6,
          lengthMm: Math.max(1, Math.round((plan.body?.heightMm ?? 60) * 0.7)),
          count: 1,
          upright: true,
          fromMm: 10,
          asideMm: 0,
          afterCoat: null,
        })}
        nameOf={(i) => INSERTS[i.kind].label.toLowerCase()}
        onChange={(inserts) => put({ inserts })}
      >
        {(i, change, at) => (
          <div className="space-y-2">
            <Pick
              label="What"
              value={i.kind}
              options={INSERT_KINDS.map((k) => ({ value: k, label: INSERTS[k].label }))}
              onChange={(v) => change({ kind: INSERT_KINDS.find((k) => k === v) ?? i.kind })}
            />
            <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
              <NumberOf fields={INSERT_FIELDS} of="diameterMm" item={i} change={change} />
              <NumberOf fields={INSERT_FIELDS} of="lengthMm" item={i} change={change} />
              <NumberOf fields={INSERT_FIELDS} of="count" item={i} change={change} />
              <NumberOf fields={INSERT_FIELDS} of="fromMm" item={i} change={change} />
              <NumberOf fields={INSERT_FIELDS} of="asideMm" item={i} change={change} />
              {job.inside.layers.length > 0 && <NumberOf fields={INSERT_FIELDS} of="afterCoat" item={i} change={change} />}
            </div>
            <Choice
              label="It"
              value={i.upright ? "up" : "level"}
              options={[
                { value: "up", label: "stands upright" },
                { value: "level", label: "lies level" },
              ]}
              onChange={(v) => change({ upright: v === "up" })}
            />
            {placed[at] && (
              <p className="hint">
                Takes the place of {fmt(placed[at].volumeMl, "volume")} of mix and weighs {fmt(placed[at].massG, "mass")}. {INSERT_PRACTICE[i.kind]}
              </p>
            )}
            <Doubts path={`inside.inserts.${at}`} />
          </div>
        )}
      </ListEditor>
      <Doubts path="inside.inserts" />
      <Doubts path="inside" />
    </>
  );
}

/** A casting made of layers, each with its material and its way; none is one lump. */
function Layers({ put }: Put) {
  const { job, plan, catalogue } = useJob();
  const { layers } = job.inside;
  const thin = Math.max(2, Math.round(Math.min(plan.body?.lengthMm ?? 60, plan.body?.widthMm ?? 60) / 24));
  const starts: { label: string; layers: Layer[] }[] = [
    { label: "Cast in one lump", layers: [] },
    { label: "Rolled round in coats", layers: [{ ...layerDefault, thicknessMm: thin, coats: 2 }] },
    { label: "Filled, then poured back", layers: [{ ...layerDefault, way: "back", thicknessMm: thin }] },
    {
      label: "Face coat, then a backing",
      layers: [
        { ...layerDefault, way: "brushed", thicknessMm: thin },
        { ...layerDefault, way: "laid", thicknessMm: 2 * thin },
      ],
    },
    {
      label: "Face poured, then filled up",
      layers: [
        { ...layerDefault, way: "poured", thicknessMm: 2 * thin },
        { ...layerDefault, way: "poured" },
      ],
    },
  ];
  return (
    <div className="space-y-2">
      {layers.length === 0 ? (
        <Pick
          label="Made of"
          value="0"
          options={starts.map((s, i) => ({ value: String(i), label: s.label }))}
          help="rolled, poured back, face and backing: each layer with its own mix, weight and wait"
          onChange={(v) => put({ layers: starts[Number(v)]?.layers ?? [] })}
        />
      ) : (
        <>
          <ListEditor
            label="Made of layers, from the face inwards"
            items={layers}
            most={12}
            addLabel="Add a layer"
            blank={() => ({ ...layerDefault, thicknessMm: thin })}
            nameOf={(l, i) => `layer ${i + 1}, ${LAYER_WAYS[l.way].label.toLowerCase()}`}
            onChange={(to) => put({ layers: to })}
          >
            {(l, change, at) => {
              const cast = pick(catalogue.casts, l.castId) ?? plan.cast;
              const asks = cast ? castKind(cast.mix).asks(cast.mix) : {};
              return (
                <div className="space-y-2">
                  <div className="grid gap-2 sm:grid-cols-2">
                    <Pick
                      label="How"
                      value={l.way}
                      options={LAYER_KEYS.map((k) => ({ value: k, label: LAYER_WAYS[k].label }))}
                      onChange={(v) => change({ way: LAYER_KEYS.find((k) => k === v) ?? l.way })}
                    />
                    <Pick
                      label="Of"
                      value={l.castId}
                      options={catalogue.casts.map((c) => ({ value: c.id, label: c.name }))}
                      none={plan.cast ? `${plan.cast.name}, as the casting` : "What the casting is of"}
                      onChange={(castId) => change({ castId })}
                    />
                  </div>
                  <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
                    <NumberOf fields={LAYER_FIELDS} of="thicknessMm" item={l} change={change} />
                    {l.thicknessMm === null && <NumberOf fields={LAYER_FIELDS} of="volumeMl" item={l} change={change} />}
                    <NumberOf fields={LAYER_FIELDS} of="coats" item={l} change={change} />
                    <NumberOf fields={LAYER_FIELDS} of="areaPct" item={l} change={change} />
                    {asks.water && <NumberOf fields={LAYER_FIELDS} of="waterPer100" item={l} change={change} empty={String(asks.water.usual.typical)} />}
                    {asks.pigment && <NumberOf fields={LAYER_FIELDS} of="pigmentPct" item={l} change={change} />}
                    {asks.fibre && <NumberOf fields={LAYER_FIELDS} of="fibrePct" item={l} change={change} />}
                    <NumberOf fields={LAYER_FIELDS} of="waitMin" item={l} change={change} />
                  </div>
                  <Doubts path={`inside.layers.${at}`} />
                </div>
              );
            }}
          </ListEditor>
          <div className="grid grid-cols-2 gap-3">
            <Pick
              label="Open at"
              value={job.inside.mouth}
              options={MOUTHS.map((m) => ({ value: m, label: m === "back" ? "its whole back" : "a mouth only: the shell goes all round" }))}
              none="as the mould has it"
              onChange={(v) => put({ mouth: MOUTHS.find((m) => m === v) ?? null })}
            />
            <JobField path="inside.mouthMm" />
          </div>
        </>
      )}
      <Doubts path="inside.layers" />
    </div>
  );
}

function Sections({ put }: Put) {
  const { job, plan } = useJob();
  const { fmt } = useUnits();
  const sections = plan.inside?.sections ?? [];
  return (
    <div className="space-y-2">
      <ListEditor
        label="Cut into sections, cast apart and joined"
        items={job.inside.cutsMm.map((z) => ({ z }))}
        most={6}
        addLabel="Add a cut"
        blank={() => ({ z: Math.round((plan.body?.heightMm ?? 100) / 2) })}
        nameOf={(_, i) => `cut ${i + 1}`}
        onChange={(cuts) => put({ cutsMm: cuts.map((c) => c.z) })}
      >
        {(c, change) => <NumberOf fields={CUT_FIELDS} of="z" item={c} change={change} />}
      </ListEditor>
      {sections.length > 1 && (
        <ul className="space-y-1">
          {sections.map((s, i) => (
            <li key={s.fromMm} className="flex flex-wrap justify-between gap-3 border-t border-line py-1">
              <span>
                Section {i + 1}, {fmt(s.fromMm, "length")} to {fmt(s.toMm, "length")}
              </span>
              {job.inside.layers.length > 0 && (
                <Tick
                  label={`Section ${i + 1} is cast solid`}
                  checked={s.solid}
                  onChange={(on) => put({ solidSections: on ? [...job.inside.solidSections, i] : job.inside.solidSections.filter((k) => k !== i) })}
                >
                  solid
                </Tick>
              )}
              <b>
                {fmt(s.volumeMl, "volume")}
                {plan.castBatch ? `, ${fmt(s.volumeMl * plan.castBatch.wetDensityGMl, "mass")}` : ""}
                {s.jointMm2 === null ? "" : `, joint ${fmt(s.jointMm2, "area")}`}
              </b>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Shrinkage({ put }: Put) {
  const { job, plan, catalogue } = useJob();
  const { fmt } = useUnits();
  const chain = plan.inside?.shrink;
  const pct = (f: number) => `${((f - 1) * 100).toFixed(2).replace("-", "−")} %`;
  return (
    <div className="space-y-2">
      <div className="grid grid-cols-2 gap-3">
        <JobField path="inside.generations" />
        <Pick
          label="Then cast again in"
          value={job.inside.thenCastId}
          options={catalogue.casts.map((c) => ({ value: c.id, label: c.name }))}
          none="Nothing: it stays"
          help="such as metal in the place of a wax"
          onChange={(thenCastId) => put({ thenCastId })}
        />
      </div>
      {chain && plan.body && (
        <p>
          <b>The last copy is {pct(chain.factor.typical)} of the master&apos;s size</b>{" "}
          <span className="text-soft">
            ({pct(chain.factor.low)} to {pct(chain.factor.high)}): {fmt(plan.body.lengthMm, "length")} comes out{" "}
            {fmt(plan.body.lengthMm * chain.factor.typical, "length")}.{" "}
            {chain.links.map((l) => `${l.name} shrinks ${l.shrinkPct.typical} %${l.times > 1 ? `, ${l.times} times` : ""}`).join("; ")}. For a true copy make
            the master {fmt(plan.body.lengthMm * chain.enlarge, "length")} long.
          </span>
        </p>
      )}
    </div>
  );
}
