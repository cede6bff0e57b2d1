"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import type { WeighAct } from "@/core/weigh";
import { send } from "../send";
import type { WeighView } from "../types";

const LOOK_MS = 2000;
const AGAIN_MS = 1500;

/**
 * One batch as the server has it. Acts go out one after another; one that the server has not acknowledged is kept, said so,
 * and sent again until it is. Other pages' acts come in by looking every two seconds.
 */
export function useBatch(initial: WeighView) {
  const [view, setView] = useState(initial);
  const [fault, setFault] = useState<string | null>(null);
  const [waiting, setWaiting] = useState(0);
  const queue = useRef<WeighAct[]>([]);
  const busy = useRef(false);
  const key = `zesty:weigh:${initial.id}`;

  const keep = useCallback(() => {
    setWaiting(queue.current.length);
    try {
      if (queue.current.length === 0) sessionStorage.removeItem(key);
      else sessionStorage.setItem(key, JSON.stringify(queue.current));
    } catch {
      // Storage may be refused; the acts are still sent from this page.
    }
  }, [key]);

  const drain = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (queue.current[0]) {
      const a = await send<WeighView>("POST", `/api/weigh/${initial.id}/acts`, queue.current[0]);
      if (!a.ok && (a.status === 0 || a.status >= 500)) {
        setFault("Not saved yet: the workshop's server does not answer. Leave the cup where it is; this is sent again by itself.");
        await new Promise((done) => setTimeout(done, AGAIN_MS));
        continue;
      }
      queue.current.shift();
      keep();
      if (a.ok) {
        setView((v) => (a.data.revision >= v.revision ? a.data : v));
        setFault(null);
      } else {
        const current = a.detail.current as WeighView | undefined;
        if (current) setView(current);
        setFault(a.message);
      }
    }
    busy.current = false;
  }, [initial.id, keep]);

  const act = useCallback(
    (a: WeighAct) => {
      queue.current.push(a);
      keep();
      void drain();
    },
    [drain, keep],
  );

  useEffect(() => {
    // What an earlier page could not send goes out first.
    let kept: string | null = null;
    try {
      kept = sessionStorage.getItem(key);
    } catch {
      kept = null;
    }
    const later = setTimeout(() => {
      if (kept && queue.current.length === 0) {
        queue.current = JSON.parse(kept) as WeighAct[];
        keep();
        void drain();
      }
    }, 0);
    const timer = setInterval(() => {
      if (queue.current.length > 0) return;
      void send<WeighView>("GET", `/api/weigh/${initial.id}`).then(
        (a) => a.ok && queue.current.length === 0 && setView((v) => (a.data.revision > v.revision || a.data.endedAt !== v.endedAt ? a.data : v)),
      );
    }, LOOK_MS);
    return () => {
      clearTimeout(later);
      clearInterval(timer);
    };
  }, [drain, initial.id, keep, key]);

  return { view, act, fault, setFault, waiting };
}
