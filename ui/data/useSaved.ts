"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import type { DocumentState, DraftStorage, SavedDocument } from "./savedDocument";

export const browserStorage = (): DraftStorage => {
  try {
    return typeof window === "undefined" ? null : window.localStorage;
  } catch {
    return null;
  }
};

interface Keeping<S> {
  getState: () => S;
  subscribe: (listener: () => void) => () => void;
  restore: () => Promise<void>;
  leave: () => void;
}

/** Keeps one document for as long as the screen stands; what is not saved goes out as the screen goes away. */
export function useKept<S, D extends Keeping<S>>(make: () => D): [S, D] {
  const [document] = useState(make);
  const state = useSyncExternalStore(document.subscribe, document.getState, document.getState);
  useEffect(() => {
    void document.restore();
    window.addEventListener("pagehide", document.leave);
    return () => {
      window.removeEventListener("pagehide", document.leave);
      document.leave();
    };
  }, [document]);
  return [state, document];
}

/** The same for a plain saved document. */
export const useSaved = <V, P extends object>(make: () => SavedDocument<V, P>): [DocumentState<V>, SavedDocument<V, P>] =>
  useKept<DocumentState<V>, SavedDocument<V, P>>(make);
