"use client";

import { useEffect, useState } from "react";
import { formatQuantity } from "@/core/quantity";

const MINUTE = 60_000;

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

/** A moment on the reader's wall clock, such as "Tue 14:20" or "3 Oct 2026". */
export function clockTime(at: number, now: number): string {
  const d = new Date(at);
  const near = Math.abs(at - now) < 6 * 24 * 60 * MINUTE;
  const time = d.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  if (near) {
    const sameDay = new Date(now).toDateString() === d.toDateString();
    return sameDay ? `today ${time}` : `${d.toLocaleDateString("en-GB", { weekday: "short" })} ${time}`;
  }
  return d.toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
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
