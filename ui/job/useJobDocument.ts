"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import { send } from "../send";
import type { JobView } from "../types";
import { JobDocument } from "./jobDocument";

const browserStorage = (): Storage | null => {
  try {
    return window.localStorage;
  } catch {
    return null;
  }
};

/** Keeps one {@link JobDocument} for as long as the screen stands. */
export function useJobDocument(initial: JobView) {
  const [document] = useState(
    () =>
      new JobDocument(initial, {
        send: (method, url, body, options) => send<JobView>(method, url, body, options),
        storage: typeof window === "undefined" ? null : browserStorage(),
      }),
  );
  const state = useSyncExternalStore(document.subscribe, document.getState, document.getState);
  useEffect(() => {
    void document.restore();
    window.addEventListener("pagehide", document.leave);
    return () => {
      window.removeEventListener("pagehide", document.leave);
      document.leave();
    };
  }, [document]);
  return { ...state, document };
}
