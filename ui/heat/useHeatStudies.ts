"use client";

import { useEffect, useRef, useState } from "react";
import { heatKey, type HeatQuestion, type HeatStudies, type HeatStudy } from "@/core/heat";

/** Wait after the last change before a question is asked, so that dragging a size does not queue a hundred. */
const SETTLE_MS = 120;

interface Answer {
  key: string;
  study: HeatStudy;
}

/** Has a worker work out these questions; returns the answers that are ready. Answers are kept while the screen stands. */
export function useHeatStudies(questions: readonly HeatQuestion[]): HeatStudies {
  const [studies, setStudies] = useState<HeatStudies>(new Map());
  const worker = useRef<Worker | null>(null);
  const asked = useRef(new Set<string>());
  const wanted = JSON.stringify(questions);

  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      asked.current.clear();
    },
    [],
  );

  useEffect(() => {
    const soon = setTimeout(() => {
      for (const question of JSON.parse(wanted) as HeatQuestion[]) {
        const key = heatKey(question);
        if (asked.current.has(key)) continue;
        asked.current.add(key);
        if (!worker.current) {
          worker.current = new Worker(new URL("../../workers/heat.worker.ts", import.meta.url));
          worker.current.addEventListener("message", (e: MessageEvent<Answer>) => setStudies((all) => new Map([...all, [e.data.key, e.data.study]])));
        }
        worker.current.postMessage(question);
      }
    }, SETTLE_MS);
    return () => clearTimeout(soon);
  }, [wanted]);

  return studies;
}
