"use client";

import { useEffect, useRef, useState } from "react";
import type { ErrandAsk, ErrandKind, ErrandResult, ErrandView } from "@/contract/workshop";
import { call } from "./call";

/** How far something long has come. */
export interface Going {
  doing: string;
  share: number;
}
export type Came<T> = { ok: true; id: string; data: T } | { ok: false; message: string | null };

/** How often a page asks how far something is, ms. */
const LOOK_MS = 250;
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/**
 * Something long that runs beside the server: how far it is, and a way to stop it. `run` ends with what came of it, or with why
 * it was refused; null where it was stopped.
 */
export function useErrand() {
  const [going, setGoing] = useState<Going | null>(null);
  const running = useRef<string | null>(null);
  const stopped = useRef(false);
  const there = useRef(true);
  useEffect(() => {
    there.current = true;
    return () => void (there.current = false);
  }, []);

  async function run<K extends ErrandKind>(ask: ErrandAsk<K>): Promise<Came<ErrandResult<K>>> {
    stopped.current = false;
    setGoing({ doing: "Starting", share: 0 });
    try {
      const begun = await call("errands", "start", { body: ask });
      if (!begun.ok) return { ok: false, message: begun.message };
      let e: ErrandView = begun.data;
      running.current = e.id;
      while (e.state === "running" && there.current) {
        setGoing({ doing: e.doing, share: e.share });
        await pause(LOOK_MS);
        const seen = await call("errands", "see", { params: { id: e.id } });
        // A server that does not answer for a moment is asked again; one that has forgotten is not.
        if (seen.ok) e = seen.data;
        else if (seen.status !== 0) return { ok: false, message: seen.message };
      }
      if (e.state !== "done") return { ok: false, message: e.message };
      const { ERRANDS } = await import("@/contract/workshop");
      return { ok: true, id: e.id, data: ERRANDS[ask.do].result.parse(e.result) as ErrandResult<K> };
    } finally {
      running.current = null;
      setGoing(null);
    }
  }

  /** Sends a file in pieces; false where it was stopped, or the words of the refusal. */
  async function upload(key: string, file: Blob): Promise<true | string | null> {
    const { PIECE_BYTES } = await import("@/contract/limits");
    stopped.current = false;
    try {
      for (let at = 0; at === 0 || at < file.size; at += PIECE_BYTES) {
        setGoing({ doing: "Taking the file in", share: at / Math.max(1, file.size) });
        const a = await call("backup", "piece", { params: { upload: key, at: String(at) }, bytes: file.slice(at, at + PIECE_BYTES) });
        if (!a.ok) return a.message;
        if (stopped.current || !there.current) return null;
      }
      return true;
    } finally {
      setGoing(null);
    }
  }

  const stop = () => {
    stopped.current = true;
    if (running.current !== null) void call("errands", "stop", { params: { id: running.current } });
  };
  return { going, run, upload, stop };
}
