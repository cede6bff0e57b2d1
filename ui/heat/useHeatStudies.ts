"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { heatKey, type HeatQuestion, type HeatStudies, type HeatStudy } from "@/core/heat";

/** Wait after the last change before a question is asked, so that dragging a size does not queue a hundred. */
const SETTLE_MS = 120;

interface Answer {
  key: string;
  study: HeatStudy;
}

/** A worker that answers heat questions: what it has answered so far, and the way to ask. Answers are kept while the screen stands. */
export function useHeatWorker(): { studies: HeatStudies; ask: (questions: readonly HeatQuestion[]) => void } {
  const [studies, setStudies] = useState<HeatStudies>(new Map());
  const worker = useRef<Worker | null>(null);
  const asked = useRef(new Set<string>());
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  useEffect(
    () => () => {
      clearTimeout(soon.current);
      worker.current?.terminate();
      worker.current = null;
      asked.current.clear();
    },
    [],
  );

  const ask = useCallback((questions: readonly HeatQuestion[]) => {
    clearTimeout(soon.current);
    soon.current = setTimeout(() => {
      for (const question of questions) {
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
  }, []);
  return { studies, ask };
}

/** Has the worker answer these questions; returns the answers that are ready. */
export function useHeatStudies(questions: readonly HeatQuestion[]): HeatStudies {
  const { studies, ask } = useHeatWorker();
  const wanted = JSON.stringify(questions);
  useEffect(() => ask(JSON.parse(wanted) as HeatQuestion[]), [ask, wanted]);
  return studies;
}
