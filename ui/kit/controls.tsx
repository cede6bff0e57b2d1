"use client";

import { TriangleAlert } from "lucide-react";
import { useId, type ReactNode } from "react";

/** One choice out of a few, all visible. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel = false,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string; hint?: string }[];
  onChange: (v: T) => void;
  hideLabel?: boolean;
}) {
  const name = useId();
  return (
    <fieldset className="min-w-0 space-y-1">
      <legend className={hideLabel ? "sr-only" : "label"}>{label}</legend>
      <div className="flex flex-wrap gap-2">
        {options.map((o) => (
          <label key={o.value} className="chip relative cursor-pointer max-sm:!px-2.5" title={o.hint}>
            <input
              type="radio"
              name={name}
              value={o.value}
              checked={o.value === value}
              onChange={() => onChange(o.value)}
              className="absolute inset-0 cursor-pointer appearance-none rounded-full"
            />
            {o.label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

export interface Option {
  value: string;
  label: string;
  group?: string;
}

/** One choice out of many, in the platform's own list: large on a tablet, complete by keyboard. */
export function Pick({
  label,
  value,
  options,
  onChange,
  none,
  help,
  fault,
}: {
  label: string;
  value: string | null;
  options: readonly Option[];
  onChange: (v: string | null) => void;
  none?: string;
  help?: ReactNode;
  fault?: string | null | undefined;
}) {
  const id = useId();
  const groups = [...new Set(options.map((o) => o.group ?? ""))];
  const known = value === null || options.some((o) => o.value === value);
  return (
    <div className="min-w-0 space-y-1">
      <label htmlFor={id} className="label block">
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value ?? ""}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault || help ? `${id}-h` : undefined}
        onChange={(e) => onChange(e.target.value === "" ? null : e.target.value)}
      >
        <option value="">{none ?? "Choose…"}</option>
        {!known && <option value={value}>No longer among the materials</option>}
        {groups.map((g) =>
          g === "" ? (
            options
              .filter((o) => !o.group)
              .map((o) => (
                <option key={o.value} value={o.value}>
                  {o.label}
                </option>
              ))
          ) : (
            <optgroup key={g} label={g}>
              {options
                .filter((o) => o.group === g)
                .map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.label}
                  </option>
                ))}
            </optgroup>
          ),
        )}
      </select>
      {(fault || help) && (
        <p id={`${id}-h`} className={fault ? "fault" : "hint"}>
          {fault ?? help}
        </p>
      )}
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

/** What went wrong, said aloud; nothing while nothing did. Large where it is about the whole screen. */
export function Fault({ children, large = false }: { children: string | null | undefined; large?: boolean }) {
  return children ? (
    <p role="alert" className={large ? "card !border-2 !border-no p-3 font-semibold" : "fault"}>
      {children}
    </p>
  ) : null;
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
