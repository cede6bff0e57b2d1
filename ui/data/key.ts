"use client";

import { useCallback, useRef } from "react";

/** A fresh name for something, on any page: the browser's own maker of them is there over secure addresses only. */
export function freshId(): string {
  const b = crypto.getRandomValues(new Uint8Array(16));
  b[6] = ((b[6] ?? 0) & 0x0f) | 0x40;
  b[8] = ((b[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...b].map((x) => x.toString(16).padStart(2, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}

/** The key of an act that makes something: the same however often it is sent, another once it was answered. */
export function useActKey(): { key: () => string; answered: () => void } {
  const kept = useRef<string | null>(null);
  return {
    key: useCallback(() => (kept.current ??= freshId()), []),
    answered: useCallback(() => void (kept.current = null), []),
  };
}
