"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect } from "react";
import { Controller, useForm, useFormContext, useWatch, type FieldValues } from "react-hook-form";
import * as z from "zod";
import { BUILT_IN, doubtsAbout, Material } from "@/core/material";
import { call } from "../../data/call";
import { ChoiceInput, Form, FormFault, TextInput, useFault } from "../../form/Form";
import { QuantityField } from "../../form/QuantityField";
import { Dialog } from "../../kit/Dialog";
import { Fault } from "../../kit/controls";
import { notice } from "../../kit/notice";
import { Tick } from "../../kit/Tick";
import { fieldsOf, type FieldSpec, optionalOf, valueAt, withDraft } from "./fields";

/** Empty lines among the cautions do not count. */
const Edited = z
  .custom<FieldValues>()
  .transform((m): unknown => ({ ...m, cautions: (m as Material).cautions.map((c) => c.trim()).filter(Boolean) }))
  .pipe(Material);

const keyOf = (id: string) => `zesty-material-${id}`;

function keptDraft(m: Material): Material {
  try {
    return withDraft(m, JSON.parse(sessionStorage.getItem(keyOf(m.id)) ?? "null"));
  } catch {
    return m;
  }
}

function forget(id: string): void {
  try {
    sessionStorage.removeItem(keyOf(id));
  } catch {
    // Nothing was kept.
  }
}

/** Edits one of the workshop's own materials. What is impossible is refused by name; what is only odd is questioned. */
export function MaterialEditor({ material, onClose, onSaved }: { material: Material; onClose: () => void; onSaved: () => void }) {
  const form = useForm<FieldValues, unknown, Material>({ resolver: zodResolver(Edited), defaultValues: keptDraft(material) });
  const draft = useWatch({ control: form.control }) as Material;
  useEffect(() => {
    try {
      sessionStorage.setItem(keyOf(material.id), JSON.stringify(draft));
    } catch {
      // Without storage the entry stands on the page alone.
    }
  }, [draft, material.id]);
  // A span is judged as a whole: one end changed may put another right, and what was kept from an earlier visit is judged at once.
  const { trigger, setValue } = form;
  useEffect(() => void trigger(), [draft, trigger]);
  const parsed = Edited.safeParse(draft);
  const doubts = parsed.success ? doubtsAbout(parsed.data) : [];
  const traits = [...new Set(BUILT_IN.filter((m) => m.kind === draft.kind).flatMap((m) => m.traits))].sort();
  const put = (path: string, value: unknown) => setValue(path, value, { shouldDirty: true });
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title={`Edit ${material.name}`}
      description="Figures from your own data sheet. Low and high say how sure you are."
    >
      <Form
        form={form}
        className="space-y-4"
        onSubmit={async (body) => {
          const answer = await call("materials", "save", { params: { id: material.id }, body: { ...body, was: { ...material } } });
          if (!answer.ok) return answer.message;
          forget(material.id);
          notice.good(`${body.name} is saved.`);
          onSaved();
          onClose();
        }}
      >
        <TextInput name="name" label="Name" most={80} />
        <TextInput name="provenance" label="Where the figures come from" most={200} />
        <TextInput name="note" label="Note" most={600} />
        {fieldsOf(draft).map((f) => (
          <Property key={f.path} spec={f} doubt={doubts.find((d) => d.path === f.path)?.message ?? null} />
        ))}
        {optionalOf(draft).map((o) => (
          <Tick key={o.path} checked={valueAt(draft, o.path) !== null} onChange={(on) => put(o.path, on ? o.blank : null)}>
            {o.label}
          </Tick>
        ))}
        <label className="block space-y-1">
          <span className="label">Cautions, one a line</span>
          <textarea className="field" rows={3} value={draft.cautions.join("\n")} onChange={(e) => put("cautions", e.target.value.split("\n").slice(0, 12))} />
        </label>
        <fieldset className="space-y-1">
          <legend className="label">What the contact rules look at</legend>
          <div className="flex flex-wrap gap-1.5">
            {traits.map((t) => {
              const on = draft.traits.includes(t);
              return (
                <button
                  key={t}
                  type="button"
                  className="chip !min-h-9 text-sm"
                  aria-pressed={on}
                  onClick={() => put("traits", on ? draft.traits.filter((x) => x !== t) : [...draft.traits, t])}
                >
                  {t}
                </button>
              );
            })}
          </div>
        </fieldset>
        {form.formState.isSubmitted && !parsed.success && <Fault>{`Not saved yet: ${parsed.error.issues.map((i) => i.message).join("; ")}.`}</Fault>}
        <FormFault />
        <div className="flex justify-end gap-2">
          <button
            type="button"
            className="btn btn-bare"
            onClick={() => {
              forget(material.id);
              onClose();
            }}
          >
            Drop these changes
          </button>
          <button type="submit" className="btn btn-main" disabled={form.formState.isSubmitting}>
            Save
          </button>
        </div>
      </Form>
    </Dialog>
  );
}

const ENDS = ["low", "typical", "high"] as const;

function Property({ spec, doubt }: { spec: FieldSpec; doubt: string | null }) {
  switch (spec.kind) {
    case "flag":
      return (
        <Controller
          name={spec.path}
          render={({ field: { value, onChange } }) => (
            <Tick checked={value === true} onChange={onChange}>
              {spec.label}
            </Tick>
          )}
        />
      );
    case "choice":
      return <ChoiceInput name={spec.path} label={spec.label} options={spec.options.map((o) => ({ value: o, label: o }))} />;
    case "text":
      return <TextInput name={spec.path} label={spec.label} most={80} />;
    case "number":
      return (
        <div>
          <Measured name={spec.path} label={spec.label} spec={spec} />
          <Judged path={spec.path} doubt={doubt} />
        </div>
      );
    case "range":
      return (
        <fieldset className="space-y-1">
          <legend className="label">{spec.label}: low, typical, high</legend>
          <div className="grid grid-cols-3 gap-2">
            {ENDS.map((end) => (
              <Measured key={end} name={`${spec.path}.${end}`} label={`${spec.label}, ${end}`} spec={spec} compact />
            ))}
          </div>
          <Judged path={spec.path} doubt={doubt} />
        </fieldset>
      );
  }
}

/** One figure of a property, as its data sheet writes it. */
function Measured({ name, label, spec, compact = false }: { name: string; label: string; spec: FieldSpec & { kind: "number" | "range" }; compact?: boolean }) {
  const { control } = useFormContext();
  const factor = spec.factor ?? 1;
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { value, onChange } }) => (
        <QuantityField
          label={label}
          compact={compact}
          value={typeof value === "number" ? value / factor : null}
          dimension={spec.dimension}
          {...(spec.suffix ? { suffix: spec.suffix } : {})}
          onChange={(q) => q !== null && onChange(q * factor)}
        />
      )}
    />
  );
}

function Judged({ path, doubt }: { path: string; doubt: string | null }) {
  const fault = useFault(path);
  return (
    <>
      <Fault>{fault}</Fault>
      {!fault && doubt && <p className="hint font-semibold !text-care">{doubt}</p>}
    </>
  );
}
