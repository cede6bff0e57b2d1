"use client";

import { useSyncExternalStore } from "react";

/** What this device shows differently from others; kept on it, not with the workshop. */
const KEYS = { everything: "zesty-everything" } as const;
type DeviceKey = keyof typeof KEYS;

const CHANGED = "zesty-device";
const listen = (heard: () => void) => {
  window.addEventListener("storage", heard);
  window.addEventListener(CHANGED, heard);
  return () => {
    window.removeEventListener("storage", heard);
    window.removeEventListener(CHANGED, heard);
  };
};
const read = (key: DeviceKey): boolean => {
  try {
    return window.localStorage.getItem(KEYS[key]) === "yes";
  } catch {
    return false;
  }
};

/** A yes or no of this device; no until it was said otherwise, and where nothing can be kept. */
export function useDevice(key: DeviceKey): [boolean, (yes: boolean) => void] {
  const yes = useSyncExternalStore(
    listen,
    () => read(key),
    () => false,
  );
  return [
    yes,
    (next) => {
      try {
        if (next) window.localStorage.setItem(KEYS[key], "yes");
        else window.localStorage.removeItem(KEYS[key]);
      } catch {
        // A browser that keeps nothing shows the usual.
      }
      window.dispatchEvent(new Event(CHANGED));
    },
  ];
}

/** Whether a media query holds; what the server drew counts until the page stands. */
export const useMedia = (query: string, onServer: boolean): boolean =>
  useSyncExternalStore(
    (heard) => {
      const media = window.matchMedia(query);
      media.addEventListener("change", heard);
      return () => media.removeEventListener("change", heard);
    },
    () => window.matchMedia(query).matches,
    () => onServer,
  );
