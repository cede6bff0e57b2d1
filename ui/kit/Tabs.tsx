"use client";

import { Tabs as RTabs } from "radix-ui";
import type { ReactNode } from "react";

/** Views of one thing of which one is shown: the tabs above, the chosen view below. */
export function Tabs<T extends string>({
  label,
  value,
  options,
  onChange,
  listClass = "",
  className,
  contentClass = "",
  children,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (v: T) => void;
  listClass?: string;
  className?: string;
  contentClass?: string;
  children: ReactNode;
}) {
  return (
    <RTabs.Root
      className={className}
      value={value}
      onValueChange={(v) => {
        const chosen = options.find((o) => o.value === v);
        if (chosen) onChange(chosen.value);
      }}
    >
      {options.length > 0 && (
        <RTabs.List aria-label={label} className={`flex flex-wrap gap-2 ${listClass}`}>
          {options.map((o) => (
            <RTabs.Trigger key={o.value} value={o.value} className="chip cursor-pointer max-sm:!px-2.5">
              {o.label}
            </RTabs.Trigger>
          ))}
        </RTabs.List>
      )}
      <RTabs.Content value={value} tabIndex={-1} className={`outline-none ${contentClass}`}>
        {children}
      </RTabs.Content>
    </RTabs.Root>
  );
}
