"use client";

import { Dialog as RDialog, ToggleGroup } from "radix-ui";
import { TriangleAlert, X } from "lucide-react";
import { useId, type ReactNode } from "react";

/** One choice out of a few, all visible. */
export function Choice<T extends string>({ label, value, options, onChange, hideLabel = false }: { label: string; value: T; options: readonly { value: T; label: string; hint?: string }[]; onChange: (v: T) => void; hideLabel?: boolean }) {
  const id = useId();
  return (
    <div className="space-y-1">
      <span id={id} className={hideLabel ? "sr-only" : "label block"}>{label}</span>
      <ToggleGroup.Root type="single" aria-labelledby={id} value={value} onValueChange={(v) => v && onChange(v as T)} className="flex flex-wrap gap-2">
        {options.map((o) => (
          <ToggleGroup.Item key={o.value} value={o.value} className="chip max-sm:!px-2.5" title={o.hint}>
            {o.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}

export interface Option {
  value: string;
  label: string;
  group?: string;
}

/** One choice out of many, in the platform's own list: large on a tablet, complete by keyboard. */
export function Pick({ label, value, options, onChange, none, help, fault }: { label: string; value: string | null; options: readonly Option[]; onChange: (v: string | null) => void; none?: string; help?: ReactNode; fault?: string | null | undefined }) {
  const id = useId();
  const groups = [...new Set(options.map((o) => o.group ?? ""))];
  const known = value === null || options.some((o) => o.value === value);
  return (
    <div className="min-w-0 space-y-1">
      <label htmlFor={id} className="label block">{label}</label>
      <select id={id} className="field" value={value ?? ""} aria-invalid={fault ? true : undefined} aria-describedby={fault || help ? `${id}-h` : undefined} onChange={(e) => onChange(e.target.value === "" ? null : e.target.value)}>
        <option value="">{none ?? "Choose…"}</option>
        {!known && <option value={value}>No longer on the shelf</option>}
        {groups.map((g) =>
          g === "" ? options.filter((o) => !o.group).map((o) => <option key={o.value} value={o.value}>{o.label}</option>) : (
            <optgroup key={g} label={g}>
              {options.filter((o) => o.group === g).map((o) => <option key={o.value} value={o.value}>{o.label}</option>)}
            </optgroup>
          ),
        )}
      </select>
      {(fault || help) && <p id={`${id}-h`} className={fault ? "fault" : "hint"}>{fault ?? help}</p>}
    </div>
  );
}

/** A caution at the step where it bites. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex gap-2 rounded-lg border-l-4 border-care bg-[#fff1cf] px-3 py-2 text-sm leading-snug">
      <TriangleAlert size={18} className="mt-0.5 shrink-0 text-care" aria-hidden="true" />
      <span>{children}</span>
    </p>
  );
}

export function Dialog({ open, onOpenChange, title, children, description }: { open: boolean; onOpenChange: (o: boolean) => void; title: string; description?: string; children: ReactNode }) {
  return (
    <RDialog.Root open={open} onOpenChange={onOpenChange}>
      <RDialog.Portal>
        <RDialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <RDialog.Content {...(description ? {} : { "aria-describedby": undefined })} className="card fixed left-1/2 top-1/2 z-50 max-h-[88dvh] w-[min(560px,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto p-5">
          <div className="mb-3 flex items-start justify-between gap-4">
            <RDialog.Title className="text-xl font-bold">{title}</RDialog.Title>
            <RDialog.Close className="btn btn-bare -mr-2 -mt-2 !px-2" aria-label="Close"><X aria-hidden="true" /></RDialog.Close>
          </div>
          {description && <RDialog.Description className="hint mb-3">{description}</RDialog.Description>}
          {children}
        </RDialog.Content>
      </RDialog.Portal>
    </RDialog.Root>
  );
}

/** Name and figure of one result; the figure is what the eye should find. */
export function Figure({ name, children, note, size = "text-2xl" }: { name: ReactNode; children: ReactNode; note?: ReactNode; size?: string }) {
  return (
    <div className="min-w-0">
      <div className="text-sm text-soft">{name}</div>
      <div className={`figure ${size} leading-tight`}>{children}</div>
      {note && <div className="hint">{note}</div>}
    </div>
  );
}
