"use client";

import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";
import { formatBand, formatQuantity, say as sayIn, type Dimension, type UnitSystem } from "@/core/quantity";
import { call } from "../data/call";
import { clockTime } from "./zone";

interface Units {
  system: UnitSystem;
  fmt: (value: number | null | undefined, dimension: Dimension) => string;
  band: (r: { low: number; high: number }, dimension: Dimension) => string;
  say: (sentence: string) => string;
  /** IANA name of the workshop's time zone. */
  zone: string;
  /** A moment on the workshop's wall clock. */
  wall: (at: number, now: number) => string;
  choose: (system: UnitSystem) => Promise<void>;
}

const UnitsContext = createContext<Units | null>(null);

/** Gives every part below the workshop's units and its clock. Switching is remembered for the whole workshop. */
export function UnitsProvider({ initial, zone, children }: { initial: UnitSystem; zone: string; children: ReactNode }) {
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
      zone,
      wall: (at, now) => clockTime(at, now, zone),
    }),
    [system, choose, zone],
  );
  return <UnitsContext value={value}>{children}</UnitsContext>;
}

export function useUnits(): Units {
  const units = useContext(UnitsContext);
  if (!units) throw new Error("useUnits needs a UnitsProvider above it.");
  return units;
}
