"use client";

import type { ReactNode } from "react";
import type { NumberField } from "@/core/quantity";
import { QuantityField } from "./QuantityField";

/** What may be said differently here than in the table of fields. */
export interface NumberWords {
  label?: ReactNode;
  help?: ReactNode;
  empty?: string | undefined;
}

/** The field of one number, from what its table says of it. Values are as stored. */
export function NumberInput({
  field,
  value,
  onChange,
  label,
  help,
  empty,
  remark,
  draftKey,
}: NumberWords & {
  field: NumberField;
  value: number | null;
  onChange: (value: number | null) => void;
  remark?: { message: string; severity: "fault" | "warning" } | null;
  draftKey?: string;
}) {
  const times = field.times ?? 1;
  return (
    <QuantityField
      label={label ?? field.label}
      value={value === null ? null : value / times}
      dimension={field.dimension}
      min={field.min / times}
      max={field.max / times}
      whole={field.whole ?? false}
      optional={field.open ?? false}
      usualUnit={field.times === 3600 ? "s" : field.times === 60 ? "min" : "h"}
      help={help ?? field.help}
      {...((empty ?? field.empty) ? { placeholder: empty ?? field.empty } : {})}
      {...(draftKey ? { draftKey } : {})}
      remark={remark}
      onChange={(v) => (v === null ? field.open && onChange(null) : onChange(v * times))}
    />
  );
}

type Value<F extends NumberField> = F extends { open: true } ? number | null : number;

/** The field of one number out of a table, for the thing that holds it. */
export function NumberOf<F extends Record<string, NumberField>, K extends keyof F & string>({
  fields,
  of,
  item,
  change,
  ...words
}: NumberWords & {
  fields: F;
  of: K;
  item: Record<K, Value<F[K]>>;
  change: (patch: Record<K, Value<F[K]>>) => void;
}) {
  return <NumberInput {...words} field={fields[of]!} value={item[of]} onChange={(v) => change({ [of]: v } as Record<K, Value<F[K]>>)} />;
}
