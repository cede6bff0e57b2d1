"use client";

import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import { formatBand, formatQuantity, say as sayIn, type Dimension, type UnitSystem } from "@/core/quantity";
import { call } from "../data/call";

interface Units {
  system: UnitSystem;
  fmt: (value: number | null | undefined, dimension: Dimension) => string;
  band: (r: { low: number; high: number }, dimension: Dimension) => string;
  say: (sentence: string) => string;
  choose: (system: UnitSystem) => Promise<void>;
}

const UnitsContext = createContext<Units | null>(null);

/** Gives every part below the reader's unit system. Switching is remembered for the whole workshop. */
export function UnitsProvider({ initial, children }: { initial: UnitSystem; children: ReactNode }) {
  const [system, setSystem] = useState(initial);
  const choose = useCallback(async (next: UnitSystem) => {
    setSystem(next);
    await call("settings", "change", { body: { units: next } });
  }, []);
  const value = useMemo<Units>(
    () => ({
      system,
      choose,
      fmt: (v, d) => (v === null || v === undefined ? "–" : formatQuantity(v, d, system)),
      band: (r, d) => formatBand(r.low, r.high, d, system),
      say: (s) => sayIn(s, system),
    }),
    [system, choose],
  );
  return <UnitsContext value={value}>{children}</UnitsContext>;
}

export function useUnits(): Units {
  const units = useContext(UnitsContext);
  if (!units) throw new Error("useUnits needs a UnitsProvider above it.");
  return units;
}
