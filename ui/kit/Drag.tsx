"use client";

import { Slider } from "radix-ui";
import type { ReactNode } from "react";

/** A number dragged between two ends, or moved with the arrow keys. */
export function Drag({
  label,
  shown,
  value,
  min,
  max,
  step,
  spoken = typeof shown === "string" ? shown : undefined,
  onChange,
}: {
  label: string;
  /** The number in words, large, at the right of the label. */
  shown: ReactNode;
  value: number;
  min: number;
  max: number;
  step: number;
  /** What is read aloud; what is shown where that is words. */
  spoken?: string | undefined;
  onChange: (value: number) => void;
}) {
  return (
    <div>
      <div className="label flex items-baseline justify-between gap-3">
        <span>{label}</span>
        <span className="figure text-2xl">{shown}</span>
      </div>
      <Slider.Root
        className="relative flex h-11 w-full cursor-pointer touch-none select-none items-center"
        min={min}
        max={max}
        step={step}
        value={[Math.min(max, Math.max(min, value))]}
        onValueChange={([v]) => v !== undefined && onChange(v)}
      >
        <Slider.Track className="relative h-2.5 grow overflow-hidden rounded-full bg-line">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} aria-valuetext={spoken} className="block size-8 rounded-full border-[3px] border-onbright bg-citrus" />
      </Slider.Root>
    </div>
  );
}
