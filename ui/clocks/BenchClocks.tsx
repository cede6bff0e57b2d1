"use client";

import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import { send } from "../send";
import type { BenchView } from "../types";

interface BenchClocks {
  bench: BenchView | null;
  /** The workshop's own time, ms: the server's clock, so that devices with other clocks agree. */
  now: () => number;
  refresh: () => Promise<void>;
}

const Context = createContext<BenchClocks | null>(null);
const EVERY_MS = 5000;

/** Asks the server every few seconds what runs, for every screen alike. */
export function BenchClocksProvider({ children }: { children: ReactNode }) {
  const [bench, setBench] = useState<BenchView | null>(null);
  const [offset, setOffset] = useState(0);
  const refresh = useCallback(async () => {
    const asked = Date.now();
    const a = await send<BenchView>("GET", "/api/clocks");
    if (!a.ok) return;
    // Half of the way there and back is the server's answer's age.
    setOffset(a.data.now - (asked + Date.now()) / 2);
    setBench(a.data);
  }, []);
  useEffect(() => {
    const first = setTimeout(() => void refresh(), 0);
    const timer = setInterval(() => {
      if (document.visibilityState === "visible" || mayNotify()) void refresh();
    }, EVERY_MS);
    const seen = () => document.visibilityState === "visible" && void refresh();
    document.addEventListener("visibilitychange", seen);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [refresh]);
  const now = useCallback(() => Date.now() + offset, [offset]);
  const value = useMemo(() => ({ bench, now, refresh }), [bench, now, refresh]);
  return <Context value={value}>{children}</Context>;
}

/** A page nobody sees keeps asking only if it may call out. */
const mayNotify = (): boolean => typeof Notification !== "undefined" && Notification.permission === "granted";

export function useBenchClocks(): BenchClocks {
  const c = useContext(Context);
  if (!c) throw new Error("useBenchClocks needs a BenchClocksProvider above it.");
  return c;
}

/** The workshop's time, told anew each second; null until the server has said it. */
export function useTicking(everyMs = 1000): number | null {
  const { bench, now } = useBenchClocks();
  const [t, setT] = useState<number | null>(null);
  const known = bench !== null;
  useEffect(() => {
    if (!known) return;
    const tick = () => setT(now());
    const first = setTimeout(tick, 0);
    const timer = setInterval(tick, everyMs);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [known, now, everyMs]);
  return t;
}
