"use client";

import { CUT_FIELDS, HOLLOW_FIELDS, HOLLOW_KINDS, HOLLOW_WAYS, INSERT_FIELDS, INSERT_KINDS, INSERT_PRACTICE, INSERTS, type Inside } from "@/core/mould";
import { Choice } from "../../../kit/Choice";
import { Pick } from "../../../kit/Pick";
import { Figure } from "../../../kit/controls";
import { ListEditor } from "../../../form/ListEditor";
import { NumberOf } from "../../../form/NumberOf";
import { useUnits } from "../../../kit/units";
import { useJob, useRemarks } from "../JobContext";
import { Fold } from "../../../kit/Fold";
import { JobField } from "../JobField";

/** What goes into the casting or is left out of it, and how copies shrink. */
export function InsideFields() {
  const { job, edit } = useJob();
  const put = (patch: Partial<Inside>) => edit((j) => ({ ...j, inside: { ...j.inside, ...patch } }));
  const { inside } = job;
  const used = inside.inserts.length > 0 || inside.hollow !== null || inside.cutsMm.length > 0 || inside.generations > 1 || inside.thenCastId !== null;
  return (
    <Fold title="What goes inside, hollow castings, sections, shrinkage" open={used}>
      <div className="mt-2 space-y-4">
        <Inserts put={put} />
        <Hollow put={put} />
        <Sections put={put} />
        <Shrinkage put={put} />
      </div>
    </Fold>
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

function Hollow({ put }: Put) {
  const { job, plan } = useJob();
  const { hollow } = job.inside;
  const set = (patch: Partial<NonNullable<Inside["hollow"]>>) => hollow && put({ hollow: { ...hollow, ...patch } });
  return (
    <div className="space-y-2">
      <Pick
        label="Solid or hollow"
        value={hollow?.way ?? null}
        options={HOLLOW_KINDS.map((k) => ({ value: k, label: HOLLOW_WAYS[k].label }))}
        none="Cast solid"
        onChange={(v) => {
          const way = HOLLOW_KINDS.find((k) => k === v);
          put({
            hollow: way
              ? {
                  way,
                  shellMm: hollow?.shellMm ?? Math.max(3, Math.round(Math.min(plan.body?.lengthMm ?? 60, plan.body?.widthMm ?? 60) / 12)),
                  coats: hollow?.coats ?? 2,
                  mouthMm: hollow?.mouthMm ?? null,
                }
              : null,
          });
        }}
      />
      {hollow && (
        <div className="grid grid-cols-3 gap-2">
          <NumberOf fields={HOLLOW_FIELDS} of="shellMm" item={hollow} change={set} />
          <NumberOf fields={HOLLOW_FIELDS} of="coats" item={hollow} change={set} />
          <NumberOf fields={HOLLOW_FIELDS} of="mouthMm" item={hollow} change={set} />
        </div>
      )}
      <Doubts path="inside.hollow" />
    </div>
  );
}

/** What a hollow casting takes, coat by coat. */
export function HollowAnswer() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const i = plan.inside;
  const h = i?.hollow;
  if (!i || !h) return null;
  return (
    <div className="grid grid-cols-2 gap-3 rounded-xl bg-paper p-3 sm:grid-cols-4">
      <Figure name="Shell" note={`hollow ${fmt(h.hollowMl, "volume")}`}>
        {fmt(h.shellMl, "volume")}
      </Figure>
      <Figure name={h.coats === 1 ? "One coat" : `Each of ${h.coats} coats`}>{fmt(h.coatMm, "length")}</Figure>
      <Figure name="Goes in, each coat">{fmt(i.chargeG, "mass")}</Figure>
      <Figure name="Comes back out" note={`mouth ${fmt(h.mouthMm, "length")}, wants ${fmt(h.mouthNeedMm, "length")}`}>
        {fmt(i.backG, "mass")}
      </Figure>
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
            <li key={s.fromMm} className="flex justify-between gap-3 border-t border-line py-1">
              <span>
                Section {i + 1}, {fmt(s.fromMm, "length")} to {fmt(s.toMm, "length")}
              </span>
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
