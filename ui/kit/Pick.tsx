"use client";

import { Check, ChevronDown, ChevronUp } from "lucide-react";
import { Select } from "radix-ui";
import { useBrief } from "./brief";
import { useId, useState, type ReactNode } from "react";

export interface Option {
  value: string;
  label: string;
  group?: string;
}

/** Stands for no answer: a list's entry cannot be empty. */
const NONE = "(none)";

/** One choice out of many: large enough for a tablet, complete by keyboard, found by typing its first letters. */
export function Pick({
  label,
  value,
  options,
  onChange,
  none,
  must = false,
  help: words,
  fault,
}: {
  label: string;
  value: string | null;
  options: readonly Option[];
  onChange: (v: string | null) => void;
  none?: string;
  /** There is always an answer: no entry for none. */
  must?: boolean;
  help?: ReactNode;
  fault?: string | null | undefined;
}) {
  const id = useId();
  const help = useBrief() ? undefined : words;
  // Entries exist only while the list is open: a job has many lists, and each would be drawn anew at every change.
  const [open, setOpen] = useState(false);
  const groups = [...new Set(options.map((o) => o.group ?? ""))];
  const lost = value !== null && !options.some((o) => o.value === value);
  const shown = value === null ? (none ?? "Choose…") : lost ? "No longer among the materials" : options.find((o) => o.value === value)!.label;
  return (
    <div className="min-w-0 space-y-1">
      <label htmlFor={id} className="label block">
        {label}
      </label>
      <Select.Root value={value ?? NONE} open={open} onOpenChange={setOpen} onValueChange={(v) => onChange(v === NONE ? null : v)}>
        <Select.Trigger
          id={id}
          className="field flex items-center justify-between gap-2 text-left"
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault || help ? `${id}-h` : undefined}
        >
          <span className="min-w-0 truncate">
            <Select.Value>{shown}</Select.Value>
          </span>
          <Select.Icon>
            <ChevronDown size={18} aria-hidden="true" />
          </Select.Icon>
        </Select.Trigger>
        {open && (
          <Select.Portal>
            <Select.Content
              position="popper"
              sideOffset={4}
              collisionPadding={8}
              className="card z-50 max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) max-w-[94vw] overflow-hidden !border-2 !border-ink"
            >
              <Select.ScrollUpButton className="flex justify-center">
                <ChevronUp size={18} aria-hidden="true" />
              </Select.ScrollUpButton>
              <Select.Viewport className="p-1">
                {!must && <Entry value={NONE} label={none ?? "Choose…"} />}
                {lost && <Entry value={value} label="No longer among the materials" />}
                {groups.map((g) => {
                  const entries = options.filter((o) => (o.group ?? "") === g).map((o) => <Entry key={o.value} value={o.value} label={o.label} />);
                  return g === "" ? (
                    entries
                  ) : (
                    <Select.Group key={g}>
                      <Select.Label className="px-2 pb-1 pt-2 text-sm font-semibold text-soft">{g}</Select.Label>
                      {entries}
                    </Select.Group>
                  );
                })}
              </Select.Viewport>
              <Select.ScrollDownButton className="flex justify-center">
                <ChevronDown size={18} aria-hidden="true" />
              </Select.ScrollDownButton>
            </Select.Content>
          </Select.Portal>
        )}
      </Select.Root>
      {(fault || help) && (
        <p id={`${id}-h`} className={fault ? "fault" : "hint"}>
          {fault ?? help}
        </p>
      )}
    </div>
  );
}

const Entry = ({ value, label }: { value: string; label: string }) => (
  <Select.Item
    value={value}
    className="flex min-h-11 cursor-pointer items-center justify-between gap-3 rounded-lg px-3 outline-none data-[highlighted]:bg-peel data-[state=checked]:font-semibold"
  >
    <Select.ItemText>{label}</Select.ItemText>
    <Select.ItemIndicator>
      <Check size={18} aria-hidden="true" />
    </Select.ItemIndicator>
  </Select.Item>
);
