"use client";

import { RadioGroup } from "radix-ui";
import { useId } from "react";
import { Hint } from "./Hint";

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
  const id = useId();
  return (
    <div className="min-w-0 space-y-1">
      <div id={id} className={hideLabel ? "sr-only" : "label"}>
        {label}
      </div>
      <RadioGroup.Root
        aria-labelledby={id}
        className="flex flex-wrap gap-2"
        value={value}
        onValueChange={(v) => {
          const chosen = options.find((o) => o.value === v);
          if (chosen) onChange(chosen.value);
        }}
      >
        {options.map((o) => (
          <Hint key={o.value} text={o.hint}>
            <RadioGroup.Item value={o.value} className="chip cursor-pointer max-sm:!px-2.5">
              {o.label}
            </RadioGroup.Item>
          </Hint>
        ))}
      </RadioGroup.Root>
    </div>
  );
}
