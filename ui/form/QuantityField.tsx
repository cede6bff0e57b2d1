"use client";

import { useEffect, useId, useState, type FormEvent, type ReactNode } from "react";
import { defaultUnitLabel, durationUnit, formatForEditing, formatQuantity, parseQuantity, type Dimension } from "@/core/quantity";
import { useBrief } from "../kit/brief";
import { useUnits } from "../kit/units";

export interface QuantityFieldProps {
  label: ReactNode;
  /** Stored value in the dimension's stored unit; null is not answered. */
  value: number | null;
  onChange: (value: number | null) => void;
  dimension: Dimension;
  min?: number;
  max?: number;
  /** Whole numbers only. */
  whole?: boolean;
  /** May be left empty: empties to null. */
  optional?: boolean;
  placeholder?: string;
  help?: ReactNode;
  /** A fault or doubt about this value from outside, such as from the plan. */
  remark?: { message: string; severity: "fault" | "warning" } | null | undefined;
  /** Where an unfinished or wrong entry survives a reload. */
  draftKey?: string;
  compact?: boolean;
  suffix?: string;
  /** Of a time: the unit it is usually told in, such as "min". */
  usualUnit?: string;
}

/**
 * Stops a form that is sent while an entry in it cannot be read: the last good value is no answer there. The entry gets the focus, and keeps
 * what was typed. True where it was stopped.
 */
export function stoppedByUnread(e: FormEvent<HTMLFormElement>): boolean {
  const odd = e.currentTarget.querySelector<HTMLElement>("[data-unread]");
  if (!odd) return false;
  e.preventDefault();
  odd.focus();
  return true;
}

const keep = (key: string | undefined, text: string | null) => {
  if (!key) return;
  try {
    if (text === null) sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, text);
  } catch {
    // Storage may be refused; the entry still stands on the page.
  }
};

const drafted = (key: string): string | null => {
  try {
    return sessionStorage.getItem(key);
  } catch {
    return null;
  }
};

/**
 * A field that reads quantities as people type them. A valid entry is passed on at every keystroke; a wrong one stays as
 * typed, says what is wrong, and leaves the last good value in force.
 */
export function QuantityField(p: QuantityFieldProps) {
  const { system } = useUnits();
  const id = useId();
  // A time is edited in minutes, hours or days, as it is; the unit stands until the field is left.
  const unitFor = (value: number | null) => (p.dimension === "duration" ? durationUnit(value, p.usualUnit ?? "h") : undefined);
  const [unit, setUnit] = useState(unitFor(p.value));
  const shownIn = (value: number | null) => (value === null ? "" : formatForEditing(value, p.dimension, system, unitFor(value)));
  const shown = shownIn(p.value);
  const [text, setText] = useState(shown);
  const help = useBrief() ? undefined : p.help;
  const [seen, setSeen] = useState({ value: p.value, system });
  const [touched, setTouched] = useState(false);

  const limits = {
    dimension: p.dimension,
    system,
    ...(unit === undefined ? {} : { bareUnit: unit }),
    ...(p.min === undefined ? {} : { min: p.min }),
    ...(p.max === undefined ? {} : { max: p.max }),
    describe: (v: number) => formatQuantity(v, p.dimension, system),
  };
  const read = (t: string) => {
    const parsed = parseQuantity(t, limits);
    return parsed.ok && p.whole && !Number.isInteger(parsed.value) ? { ok: false as const, message: `"${t.trim()}" is not a whole number.` } : parsed;
  };

  // Follow changes that come from elsewhere (undo, the drawing, a unit switch) without disturbing what is being typed.
  if (seen.value !== p.value || seen.system !== system) {
    setSeen({ value: p.value, system });
    const now = read(text);
    if (seen.system !== system || !(now.ok && p.value !== null && Math.abs(now.value - p.value) <= 1e-9 * Math.abs(p.value))) {
      setText(shown);
      setUnit(unitFor(p.value));
      setTouched(false);
    }
  }

  // A wrong or half-typed entry comes back after a reload, once the page has its own storage.
  useEffect(() => {
    const draft = p.draftKey ? drafted(p.draftKey) : null;
    if (draft === null) return;
    const later = setTimeout(() => {
      setText(draft);
      setTouched(true);
    }, 0);
    return () => clearTimeout(later);
  }, [p.draftKey]);

  const change = (next: string) => {
    setText(next);
    setTouched(true);
    if (next.trim() === "" && p.optional) {
      keep(p.draftKey, null);
      setSeen({ value: null, system });
      p.onChange(null);
      return;
    }
    const parsed = read(next);
    keep(p.draftKey, parsed.ok ? null : next);
    if (parsed.ok) {
      setSeen({ value: parsed.value, system });
      p.onChange(parsed.value);
    }
  };

  const parsed = read(text);
  const empty = text.trim() === "";
  const wrong = touched && !parsed.ok && !(empty && (p.optional || p.value === null)) ? parsed.message : null;
  const inForce = wrong && p.value !== null ? ` Still using ${formatQuantity(p.value, p.dimension, system)}.` : "";
  const remark = wrong ? { message: wrong + inForce, severity: "fault" as const } : p.remark;
  const suffix = p.suffix ?? unit ?? defaultUnitLabel(p.dimension, system);
  return (
    <div className={p.compact ? "min-w-0" : "min-w-0 space-y-1"}>
      <label htmlFor={id} className={p.compact ? "sr-only" : "label block"}>
        {p.label}
      </label>
      <div className="relative">
        <input
          id={id}
          className={`field ${suffix ? "pr-12" : ""}`}
          inputMode={p.dimension === "count" || p.dimension === "percent" ? "decimal" : "text"}
          autoComplete="off"
          value={text}
          placeholder={p.placeholder}
          aria-invalid={remark?.severity === "fault" ? true : undefined}
          data-unread={wrong ? "" : undefined}
          aria-describedby={remark ? `${id}-r` : help ? `${id}-h` : undefined}
          onChange={(e) => change(e.target.value)}
          onBlur={() => {
            if (!parsed.ok || !touched || p.compact) return;
            setText(shownIn(parsed.value));
            setUnit(unitFor(parsed.value));
          }}
        />
        {suffix && (
          <span className="pointer-events-none absolute right-3 top-1/2 -translate-y-1/2 text-sm text-soft" aria-hidden="true">
            {suffix}
          </span>
        )}
      </div>
      {remark ? (
        <p
          id={`${id}-r`}
          role={remark.severity === "fault" ? "alert" : undefined}
          className={remark.severity === "fault" ? "fault" : "hint font-semibold !text-care"}
        >
          {remark.message}
        </p>
      ) : (
        help && (
          <p id={`${id}-h`} className="hint">
            {help}
          </p>
        )
      )}
    </div>
  );
}
