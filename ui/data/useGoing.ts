"use client";

import { useCallback, useRef, useState } from "react";
import type { Going } from "./useErrand";

/**
 * How far something long has come. What it tells after it has ended, or of a run before this one, is not heard: a worker's last word may
 * come behind its answer.
 */
export function useGoing(): { doing: Going | null; begin: (what: string) => (share: number, what: string) => void; end: () => void } {
  const [doing, setDoing] = useState<Going | null>(null);
  const run = useRef(0);
  const begin = useCallback((what: string) => {
    const mine = ++run.current;
    setDoing({ share: 0, doing: what });
    return (share: number, now: string) => {
      if (run.current === mine) setDoing({ share, doing: now });
    };
  }, []);
  const end = useCallback(() => {
    run.current++;
    setDoing(null);
  }, []);
  return { doing, begin, end };
}
