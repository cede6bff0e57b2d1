"use client";

import { useEffect, useState } from "react";
import { formatQuantity } from "@/core/quantity";
import { useUnits } from "./units";

/** The reader's own clock, ticking every half minute; null until the page has it, so server and page agree. */
export function useNow(): number | null {
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    const tick = () => setNow(Date.now());
    const first = setTimeout(tick, 0);
    const timer = setInterval(tick, 30_000);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, []);
  return now;
}

export function When({ at }: { at: number }) {
  const now = useNow();
  const { wall } = useUnits();
  return <time dateTime={new Date(at).toISOString()}>{now === null ? "…" : wall(at, now)}</time>;
}

/** How far off a moment is, in words: "in 3 h 10 min" or "2 h ago". */
export function fromNow(at: number, now: number): string {
  const hours = (at - now) / 3_600_000;
  if (Math.abs(hours) < 1 / 120) return "now";
  const size = formatQuantity(Math.abs(hours), "duration", "metric");
  return hours > 0 ? `in ${size}` : `${size} ago`;
}
