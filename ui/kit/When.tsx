"use client";

import { useEffect, useState } from "react";
import { formatQuantity } from "@/core/quantity";
import { formatIn } from "./zone";

/** Within this, a weekday says which day is meant. */
const NEAR_MS = 6 * 24 * 3_600_000;

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

/** A moment on a wall clock, such as "Tue 14:20" or "3 Oct 2026": that of `zone`, or of the device if it is empty. */
export function clockTime(at: number, now: number, zone = ""): string {
  if (Math.abs(at - now) >= NEAR_MS) return formatIn(at, "d MMM yyyy", zone);
  const today = formatIn(at, "yyyy-MM-dd", zone) === formatIn(now, "yyyy-MM-dd", zone);
  return formatIn(at, today ? "'today' HH:mm" : "EEE HH:mm", zone);
}

export function When({ at }: { at: number }) {
  const now = useNow();
  return <time dateTime={new Date(at).toISOString()}>{now === null ? "…" : clockTime(at, now)}</time>;
}

/** How far off a moment is, in words: "in 3 h 10 min" or "2 h ago". */
export function fromNow(at: number, now: number): string {
  const hours = (at - now) / 3_600_000;
  if (Math.abs(hours) < 1 / 120) return "now";
  const size = formatQuantity(Math.abs(hours), "duration", "metric");
  return hours > 0 ? `in ${size}` : `${size} ago`;
}
