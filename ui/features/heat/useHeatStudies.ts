"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { heatKey, type HeatQuestion, type HeatStudies } from "@/core/heat";
import type { HeatWorker } from "@/workers/heat.worker";
import { useWorker } from "../../data/useWorker";

/** Wait after the last change before a question is asked, so that dragging a size does not queue a hundred. */
const SETTLE_MS = 120;

/**
 * A worker that answers heat questions: what it has answered so far, the way to ask, and what went wrong where something did.
 * Answers are kept while the screen stands.
 */
export function useHeatWorker(): {
  studies: HeatStudies;
  ask: (questions: readonly HeatQuestion[]) => void;
  /** Ends what is being worked out; what was not answered may be asked again. */
  stop: () => void;
  fault: string | null;
} {
  const [studies, setStudies] = useState<HeatStudies>(new Map());
  const { ask: askWorker, stop: stopWorker, fault } = useWorker<HeatWorker>(() => new Worker(new URL("../../../workers/heat.worker.ts", import.meta.url)));
  const asked = useRef(new Set<string>());
  const known = useRef(new Set<string>());
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => {
    const keys = asked.current;
    return () => {
      clearTimeout(soon.current);
      keys.clear();
    };
  }, []);

  const ask = useCallback(
    (questions: readonly HeatQuestion[]) => {
      clearTimeout(soon.current);
      soon.current = setTimeout(() => {
        for (const question of questions) {
          const key = heatKey(question);
          if (asked.current.has(key) || known.current.has(key)) continue;
          asked.current.add(key);
          void askWorker((w) => w.study(question)).then((study) => {
            if (study) {
              known.current.add(key);
              setStudies((all) => new Map([...all, [key, study]]));
            }
            // What failed may be asked again.
            else asked.current.delete(key);
          });
        }
      }, SETTLE_MS);
    },
    [askWorker],
  );
  const stop = useCallback(() => {
    clearTimeout(soon.current);
    stopWorker();
    asked.current.clear();
  }, [stopWorker]);
  return { studies, ask, stop, fault };
}

/** Has the worker answer these questions: the answers that are ready, and a way to stop and to go on. */
export function useHeatStudies(questions: readonly HeatQuestion[]): { studies: HeatStudies; stopped: boolean; stop: () => void; goOn: () => void } {
  const { studies, ask, stop } = useHeatWorker();
  const [stopped, setStopped] = useState(false);
  const wanted = JSON.stringify(questions);
  useEffect(() => {
    if (!stopped) ask(JSON.parse(wanted) as HeatQuestion[]);
  }, [ask, wanted, stopped]);
  return {
    studies,
    stopped,
    stop: () => {
      setStopped(true);
      stop();
    },
    goOn: () => setStopped(false),
  };
}
