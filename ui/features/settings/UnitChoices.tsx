"use client";

import { systemOf, UNIT_KINDS, type OneSystem, type UnitKind } from "@/core/quantity";
import { Choice } from "../../kit/Choice";
import { useUnits } from "../../kit/units";

const WORDS: Record<UnitKind, { label: string; metric: string; us: string }> = {
  length: { label: "Lengths", metric: "mm, m", us: "in, ft" },
  mass: { label: "Weights", metric: "g, kg", us: "oz, lb" },
  volume: { label: "Volumes", metric: "mL, L", us: "fl oz, qt" },
  temperature: { label: "Temperatures", metric: "°C", us: "°F" },
};

/** Units by kind: inch people weigh in grams. What is stored never changes with them. */
export function UnitChoices() {
  const { system, choose } = useUnits();
  const now = (kind: UnitKind): OneSystem => systemOf(kind, system);
  const put = (kind: UnitKind, to: OneSystem) => {
    const next = { length: now("length"), mass: now("mass"), volume: now("volume"), temperature: now("temperature"), [kind]: to };
    // All alike is one system again.
    void choose(UNIT_KINDS.every((k) => next[k] === to) ? to : next);
  };
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      {UNIT_KINDS.map((kind) => (
        <Choice
          key={kind}
          label={WORDS[kind].label}
          value={now(kind)}
          options={[
            { value: "metric", label: WORDS[kind].metric },
            { value: "us", label: WORDS[kind].us },
          ]}
          onChange={(to) => put(kind, to)}
        />
      ))}
    </div>
  );
}
