"use client";

import { useState } from "react";
import { BUILT_IN, doubtsAbout, Material } from "@/core/material";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { QuantityField } from "../../form/QuantityField";
import { notice } from "../../kit/notice";
import { call } from "../../data/call";
import { fieldsOf, type FieldSpec, rangeAt, valueAt, withDraft, withValue, optionalOf } from "./fields";
import { Tick } from "../../kit/Tick";

const keyOf = (id: string) => `zesty-material-${id}`;

function keptDraft(m: Material): Material {
  try {
    return withDraft(m, JSON.parse(sessionStorage.getItem(keyOf(m.id)) ?? "null"));
  } catch {
    return m;
  }
}

/** Edits one of the workshop's own materials. What is impossible is refused by name; what is only odd is questioned. */
export function MaterialEditor({ material, onClose, onSaved }: { material: Material; onClose: () => void; onSaved: () => void }) {
  const [draft, setDraft] = useState(() => keptDraft(material));
  const [tried, setTried] = useState(false);
  const [busy, setBusy] = useState(false);
  const put = (path: string, value: unknown) => {
    const next = withValue(draft, path, value);
    setDraft(next);
    try {
      sessionStorage.setItem(keyOf(material.id), JSON.stringify(next));
    } catch {
      // Without storage the entry stands on the page alone.
    }
  };
  const parsed = Material.safeParse({ ...draft, cautions: draft.cautions.map((c) => c.trim()).filter(Boolean) });
  const faults = parsed.success ? [] : parsed.error.issues.map((i) => ({ path: i.path.join("."), message: i.message }));
  const doubts = parsed.success ? doubtsAbout(parsed.data) : [];
  const faultAt = (path: string) => faults.find((f) => f.path === path || f.path.startsWith(`${path}.`))?.message ?? null;
  const doubtAt = (path: string) => doubts.find((d) => d.path === path)?.message ?? null;
  const forget = () => {
    try {
      sessionStorage.removeItem(keyOf(material.id));
    } catch {
      // Nothing was kept.
    }
  };
  const save = async () => {
    setTried(true);
    if (!parsed.success) return;
    setBusy(true);
    const answer = await call("materials", "save", { params: { id: material.id }, body: parsed.data });
    setBusy(false);
    if (!answer.ok) return notice.bad(answer.message);
    forget();
    notice.good(`${parsed.data.name} is saved.`);
    onSaved();
    onClose();
  };
  const traits = [...new Set(BUILT_IN.filter((m) => m.kind === draft.kind).flatMap((m) => m.traits))].sort();
  return (
    <Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      title={`Edit ${material.name}`}
      description="Figures from your own data sheet. Low and high say how sure you are."
    >
      <form
        className="space-y-4"
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <TextBox label="Name" value={draft.name} max={80} fault={faultAt("name")} onChange={(v) => put("name", v)} />
        <TextBox label="Where the figures come from" value={draft.provenance} max={200} fault={faultAt("provenance")} onChange={(v) => put("provenance", v)} />
        <TextBox label="Note" value={draft.note} max={600} fault={faultAt("note")} onChange={(v) => put("note", v)} />
        {fieldsOf(draft).map((f) => (
          <Property key={f.path} spec={f} draft={draft} put={put} fault={faultAt(f.path)} doubt={doubtAt(f.path)} />
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
        {tried && faults.length > 0 && (
          <p role="alert" className="fault">
            Not saved yet: {faults.map((f) => f.message).join("; ")}.
          </p>
        )}
        <div className="flex justify-end gap-2">
          <button
            type="button"
            className="btn btn-bare"
            onClick={() => {
              forget();
              onClose();
            }}
          >
            Drop these changes
          </button>
          <button type="submit" className="btn btn-main" disabled={busy}>
            Save
          </button>
        </div>
      </form>
    </Dialog>
  );
}

function TextBox({ label, value, max, fault, onChange }: { label: string; value: string; max: number; fault: string | null; onChange: (v: string) => void }) {
  return (
    <label className="block space-y-1">
      <span className="label">{label}</span>
      <input className="field" value={value} maxLength={max} aria-invalid={fault ? true : undefined} onChange={(e) => onChange(e.target.value)} />
      {fault && (
        <span role="alert" className="fault block">
          {fault}
        </span>
      )}
    </label>
  );
}

const ENDS = ["low", "typical", "high"] as const;

function Property({
  spec,
  draft,
  put,
  fault,
  doubt,
}: {
  spec: FieldSpec;
  draft: Material;
  put: (path: string, value: unknown) => void;
  fault: string | null;
  doubt: string | null;
}) {
  const value = valueAt(draft, spec.path);
  switch (spec.kind) {
    case "flag":
      return (
        <Tick checked={value === true} onChange={(checked) => put(spec.path, checked)}>
          {spec.label}
        </Tick>
      );
    case "choice":
      return (
        <Choice label={spec.label} value={String(value)} options={spec.options.map((o) => ({ value: o, label: o }))} onChange={(v) => put(spec.path, v)} />
      );
    case "text":
      return <TextBox label={spec.label} value={String(value)} max={80} fault={fault} onChange={(v) => put(spec.path, v)} />;
    case "number":
    case "range": {
      const factor = spec.factor ?? 1;
      const field = (path: string, label: string, v: unknown) => (
        <QuantityField
          label={label}
          compact={spec.kind === "range"}
          value={typeof v === "number" ? v / factor : null}
          dimension={spec.dimension}
          {...(spec.suffix ? { suffix: spec.suffix } : {})}
          onChange={(q) => q !== null && put(path, q * factor)}
        />
      );
      const remarks = (
        <>
          <Fault>{fault}</Fault>
          {!fault && doubt && <p className="hint font-semibold !text-care">{doubt}</p>}
        </>
      );
      if (spec.kind === "number")
        return (
          <div>
            {field(spec.path, spec.label, value)}
            {remarks}
          </div>
        );
      const r = rangeAt(draft, spec.path);
      return (
        <fieldset className="space-y-1">
          <legend className="label">{spec.label}: low, typical, high</legend>
          <div className="grid grid-cols-3 gap-2">
            {ENDS.map((end) => (
              <div key={end}>{field(`${spec.path}.${end}`, `${spec.label}, ${end}`, r?.[end])}</div>
            ))}
          </div>
          {remarks}
        </fieldset>
      );
    }
  }
}
