"use client";

import { Trash2 } from "lucide-react";
import { zodResolver } from "@hookform/resolvers/zod";
import { useFieldArray, useForm, useWatch } from "react-hook-form";
import * as z from "zod";
import { Cup, CUP_FIELDS, CUP_POINT_FIELDS, cupBrimMl } from "@/core/weigh";
import { ChoiceInput, Form, GroupFault, TableInput, TextInput } from "../../form/Form";
import { freshId } from "../../data/key";
import { useUnits } from "../../kit/units";

const KINDS = [
  { value: "tapered", label: "Its inside sizes" },
  { value: "measured", label: "Water weighed in" },
] as const;
const NONE = { mm: null, ml: null };
type Typed = { bottomMm: number | null; topMm: number | null; heightMm: number | null; points: { mm: number | null; ml: number | null }[] };
interface Draft {
  name: string;
  profile: { kind: (typeof KINDS)[number]["value"] } & Typed;
}
const blank: Draft = { name: "", profile: { kind: "tapered", bottomMm: null, topMm: null, heightMm: null, points: [NONE] } };

/** What was typed, as a cup: heights left empty do not count. */
const Made = z
  .custom<Draft>()
  .transform((d): unknown => ({ ...d, profile: { ...d.profile, points: d.profile.points.filter((p) => p.mm !== null || p.ml !== null) } }))
  .pipe(Cup.omit({ id: true }));

/** Cups by three sizes, or by water weighed in at a few heights. */
export function Cups({ cups, save }: { cups: readonly Cup[]; save: (cups: Cup[]) => void }) {
  const { fmt } = useUnits();
  const form = useForm({ resolver: zodResolver(Made), defaultValues: blank });
  const points = useFieldArray({ control: form.control, name: "profile.points" });
  const kind = useWatch({ control: form.control, name: "profile.kind" });
  return (
    <>
      {cups.length > 0 && (
        <ul className="divide-y divide-line">
          {cups.map((c) => (
            <li key={c.id} className="flex min-h-12 items-center justify-between gap-3">
              <span className="font-semibold">{c.name}</span>
              <span className="text-soft">{fmt(cupBrimMl(c.profile), "volume")} to the brim</span>
              <button type="button" className="btn btn-bare !px-2" aria-label={`Remove ${c.name}`} onClick={() => save(cups.filter((x) => x.id !== c.id))}>
                <Trash2 size={18} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
      )}
      <Form
        form={form}
        onSubmit={async (cup) => {
          save([...cups, { id: freshId(), ...cup }]);
          form.reset(blank);
        }}
      >
        <TextInput name="name" label="Name of the cup" most={60} placeholder="White litre tub" />
        <ChoiceInput name="profile.kind" label="How do you know it?" options={KINDS} />
        {kind === "tapered" ? (
          <div className="grid grid-cols-3 items-end gap-3">
            {(["bottomMm", "topMm", "heightMm"] as const).map((k) => (
              <TableInput key={k} name={`profile.${k}`} field={CUP_FIELDS[k]} />
            ))}
          </div>
        ) : (
          <div className="space-y-2">
            <p className="hint">Pour water in, weigh it (1 g is 1 mL), and read the height from the inside bottom; from low to high.</p>
            {points.fields.map((p, i) => (
              <div key={p.id} className="grid grid-cols-2 gap-3">
                {(["mm", "ml"] as const).map((k) => (
                  <TableInput key={k} name={`profile.points.${i}.${k}`} field={CUP_POINT_FIELDS[k]} label={`${CUP_POINT_FIELDS[k].label} ${i + 1}`} />
                ))}
              </div>
            ))}
            <GroupFault name="profile.points" />
            <button type="button" className="btn" onClick={() => points.append(NONE)}>
              Another height
            </button>
          </div>
        )}
        <button type="submit" className="btn btn-main">
          Keep this cup
        </button>
      </Form>
    </>
  );
}
