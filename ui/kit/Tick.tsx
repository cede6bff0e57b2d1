"use client";

import { Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import type { ReactNode } from "react";

/** Yes or no, with the words to tap beside it. */
export function Tick({
  checked,
  onChange,
  children,
  label,
  className = "chip",
  disabled = false,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
  /** What it is called where the words beside it are not enough. */
  label?: string;
  className?: string;
  disabled?: boolean;
}) {
  return (
    <label className={`cursor-pointer ${className}`}>
      <Checkbox.Root
        checked={checked}
        disabled={disabled}
        aria-label={label}
        onCheckedChange={(c) => onChange(c === true)}
        className="flex size-6 shrink-0 items-center justify-center rounded-md border-2 border-ink bg-field data-[state=checked]:bg-ink data-[state=checked]:text-card disabled:opacity-50"
      >
        <Checkbox.Indicator>
          <Check size={18} strokeWidth={3.5} aria-hidden="true" />
        </Checkbox.Indicator>
      </Checkbox.Root>
      {children}
    </label>
  );
}
