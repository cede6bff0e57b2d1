"use client";

import { LIES, MOST_PARTS, Part, PART_FIELDS, PART_FORM_KEYS, PART_FORMS, type Lies, type PartForm } from "@/core/master";
import { Choice } from "../../../kit/Choice";
import { Pick } from "../../../kit/Pick";
import { ListEditor } from "../../../form/ListEditor";
import { NameField } from "../../../form/NameField";
import { NumberOf } from "../../../form/NumberOf";
import { useJob, useRemark } from "../JobContext";

const LIES_OPTIONS = (Object.keys(LIES) as Lies[]).map((value) => ({ value, label: LIES[value] }));

/** Simple bodies joined on to the piece or taken out of it: a handle, feet, a bore, an inset. */
export function PieceParts() {
  const { job, plan, edit } = useJob();
  const { master } = job;
  const remark = useRemark("master.parts");
  const high = plan.body?.heightMm ?? 0;
  const forms = PART_FORM_KEYS.filter((k) => (k !== "model" && k !== "photographs") || master[k]);
  return (
    <>
      <ListEditor
        label="One after another"
        items={master.parts}
        most={MOST_PARTS}
        addLabel="Add a part"
        blank={() => Part.parse({ name: `Part ${master.parts.length + 1}`, joins: true, form: "box", zMm: Math.round(high) })}
        nameOf={(p) => p.name}
        onChange={(parts) => edit((j) => ({ ...j, master: { ...j.master, parts } }))}
      >
        {(p, change) => {
          const { lies, sizes } = PART_FORMS[p.form];
          return (
            <div className="space-y-2">
              <NameField what="part" value={p.name} onChange={(name) => change({ name })} />
              <Choice
                label="What it does"
                hideLabel
                value={p.joins ? "on" : "off"}
                options={[
                  { value: "on", label: "Joined on" },
                  { value: "off", label: "Taken away" },
                ]}
                onChange={(v) => change({ joins: v === "on" })}
              />
              <Pick
                label="It is"
                must
                value={p.form}
                options={forms.map((k) => ({ value: k, label: PART_FORMS[k].label }))}
                onChange={(v) => change({ form: forms.find((k): k is PartForm => k === v) ?? p.form })}
              />
              {lies && (
                <Choice label={p.form === "loop" ? "Its hole runs" : "It runs"} value={p.lies} options={LIES_OPTIONS} onChange={(l) => change({ lies: l })} />
              )}
              <div className="grid grid-cols-3 gap-2">
                {sizes.map((k) => (
                  <NumberOf key={k} fields={PART_FIELDS} of={k} item={p} change={change} />
                ))}
              </div>
              <div className="grid grid-cols-3 gap-2">
                <NumberOf fields={PART_FIELDS} of="xMm" item={p} change={change} />
                <NumberOf fields={PART_FIELDS} of="yMm" item={p} change={change} />
                <NumberOf fields={PART_FIELDS} of="zMm" item={p} change={change} />
              </div>
            </div>
          );
        }}
      </ListEditor>
      <p className="hint">A part that stands clear of the piece goes into the same box beside it.</p>
      {remark && (
        <p role="alert" className="fault">
          {remark.message}
        </p>
      )}
    </>
  );
}
