"use client";

import { Plus, X } from "lucide-react";
import type { ReactNode } from "react";

/** A short list that is added to and taken from; every entry shows its own fields. */
export function ListEditor<T>({
  label,
  items,
  blank,
  addLabel,
  nameOf,
  most,
  onChange,
  children,
}: {
  label: string;
  items: readonly T[];
  blank: () => T;
  addLabel: string;
  nameOf: (item: T, index: number) => string;
  most: number;
  onChange: (items: T[]) => void;
  children: (item: T, change: (patch: Partial<T>) => void, index: number) => ReactNode;
}) {
  return (
    <fieldset className="min-w-0 space-y-2">
      <legend className="label">{label}</legend>
      <ul className="space-y-2">
        {items.map((item, i) => (
          <li key={i} className="relative rounded-xl bg-paper p-3 pr-14">
            {children(item, (patch) => onChange(items.map((o, k) => (k === i ? { ...o, ...patch } : o))), i)}
            <button
              type="button"
              className="btn btn-bare absolute right-1 top-1 !px-2.5"
              aria-label={`Remove ${nameOf(item, i)}`}
              onClick={() => onChange(items.filter((_, k) => k !== i))}
            >
              <X size={20} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="btn" disabled={items.length >= most} onClick={() => onChange([...items, blank()])}>
        <Plus size={18} aria-hidden="true" /> {addLabel}
      </button>
    </fieldset>
  );
}
