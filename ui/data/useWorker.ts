"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { wrap, type Remote } from "comlink";

/**
 * A worker that is started when it is first asked, and asked by calling its functions. An error in it, or a worker that cannot
 * start, is heard: the answer is null and `fault` says why. `stop` ends what it is doing; the next question starts it anew.
 */
export function useWorker<T>(start: () => Worker): {
  ask: <R>(question: (w: Remote<T>) => Promise<R>) => Promise<R | null>;
  stop: () => void;
  fault: string | null;
} {
  const [fault, setFault] = useState<string | null>(null);
  const running = useRef<{ worker: Worker; remote: Remote<T>; failed: Promise<never> } | null>(null);
  const make = useRef(start);

  const stop = useCallback(() => {
    running.current?.worker.terminate();
    running.current = null;
  }, []);
  useEffect(() => stop, [stop]);

  const ask = useCallback(
    async <R>(question: (w: Remote<T>) => Promise<R>): Promise<R | null> => {
      try {
        if (!running.current) {
          const worker = make.current();
          // What a worker cannot even load, it says on itself and answers nothing.
          const failed = new Promise<never>((_, no) => worker.addEventListener("error", (e) => no(new Error(e.message || "it could not be started"))));
          failed.catch(() => {});
          running.current = { worker, remote: wrap<T>(worker), failed };
        }
        const { remote, failed } = running.current;
        const answer = await Promise.race([question(remote), failed]);
        setFault(null);
        return answer;
      } catch (e) {
        stop();
        setFault(e instanceof Error ? e.message : String(e));
        return null;
      }
    },
    [stop],
  );
  return { ask, stop, fault };
}
