"use client";

import { useQuery } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import type { BenchView } from "@/contract/bench";
import { read } from "../../data/read";

interface BenchClocks {
  bench: BenchView | null;
  /** The workshop's own time, ms: the server's clock, so that devices with other clocks agree. */
  now: () => number;
  refresh: () => Promise<void>;
}

const Context = createContext<BenchClocks | null>(null);
const EVERY_MS = 5000;

/** What runs, and how far this device's clock is from the server's: half of the way there and back is the answer's age. */
async function readBench(): Promise<{ bench: BenchView; offset: number }> {
  const asked = Date.now();
  const bench = await read("clocks", "bench", {});
  return { bench, offset: bench.now - (asked + Date.now()) / 2 };
}

/** Asks the server every few seconds what runs, for every screen alike. */
export function BenchClocksProvider({ children }: { children: ReactNode }) {
  const { data, refetch } = useQuery({
    queryKey: ["bench"],
    queryFn: readBench,
    refetchInterval: EVERY_MS,
    refetchIntervalInBackground: mayNotify(),
    refetchOnWindowFocus: "always",
  });
  const offset = data?.offset ?? 0;
  const bench = data?.bench ?? null;
  const refresh = useCallback(async () => void (await refetch()), [refetch]);
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
