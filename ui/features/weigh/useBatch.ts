"use client";

import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { WeighView } from "@/contract/weigh";
import { weighStep, type WeighAct } from "@/core/weigh";
import { call } from "../../data/call";
import { read } from "../../data/read";

const LOOK_MS = 2000;
const AGAIN_MS = 1500;

/** Acts that only write down a choice: the last one says it all, and it shows before the server has it. */
const isChoice = (a: WeighAct): boolean => a.do === "cut" || a.do === "handle" || a.do === "change";

/** Choices not yet acknowledged, laid over the batch: what is typed next starts from them. */
const laid = (view: WeighView, acts: readonly WeighAct[]): WeighView =>
  acts.filter(isChoice).reduce((v, act) => {
    const done = weighStep(v.weighIn, act, 0);
    return done.ok ? { ...v, weighIn: done.next } : v;
  }, view);

/**
 * One batch as the server has it. Acts go out one after another; one that the server has not acknowledged is kept, said so,
 * and sent again until it is. Other pages' acts come in by looking every two seconds.
 */
export function useBatch(initial: WeighView) {
  const [server, setServer] = useState(initial);
  const [fault, setFault] = useState<string | null>(null);
  const [acts, setActs] = useState<readonly WeighAct[]>([]);
  const queue = useRef<WeighAct[]>([]);
  const busy = useRef(false);
  const params = useMemo(() => ({ id: initial.id }), [initial.id]);
  const key = `zesty:weigh:${initial.id}`;

  const keep = useCallback(() => {
    setActs([...queue.current]);
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
      const a = await call("weigh", "act", { params, body: queue.current[0] });
      if (!a.ok && (a.status === 0 || a.status >= 500)) {
        setFault("Not saved yet: the workshop's server does not answer. Leave the cup where it is; this is sent again by itself.");
        await new Promise((done) => setTimeout(done, AGAIN_MS));
        continue;
      }
      queue.current.shift();
      if (a.ok) {
        setServer((v) => (a.data.revision >= v.revision ? a.data : v));
        setFault(null);
      } else {
        if (a.current) setServer(a.current);
        setFault(a.message);
      }
      keep();
    }
    busy.current = false;
  }, [params, keep]);

  const act = useCallback(
    (a: WeighAct) => {
      const last = queue.current.at(-1);
      // A choice typed letter by letter goes out once; the one under way is left alone.
      if (queue.current.length > 1 && last && isChoice(a) && last.do === a.do)
        queue.current[queue.current.length - 1] = a.do === "handle" && last.do === "handle" ? { ...a, handling: { ...last.handling, ...a.handling } } : a;
      else queue.current.push(a);
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
    return () => clearTimeout(later);
  }, [drain, keep, key]);

  const looked = useQuery({
    queryKey: ["weigh", initial.id],
    queryFn: () => read("weigh", "read", { params }),
    refetchInterval: LOOK_MS,
    enabled: acts.length === 0,
  }).data;
  // What another page did is newer by its revision, or by having ended.
  const newest = looked && (looked.revision > server.revision || (looked.revision === server.revision && looked.endedAt !== server.endedAt)) ? looked : server;
  const view = useMemo(() => laid(newest, acts), [newest, acts]);
  return { view, act, take: setServer, fault, setFault, waiting: acts.length };
}
