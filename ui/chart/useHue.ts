"use client";

import { useMemo } from "react";
import { useDark } from "../kit/theme";

type Hue = "ink" | "soft" | "line" | "rubber" | "cast" | "sound" | "care" | "no" | "citrus";

/** The page's colours as a canvas needs them, in the light it is in now. `clear` gives one so much see-through, 0 to 1. */
export function useHue(): { hue: (name: Hue) => string; clear: (name: Hue, share: number) => string } {
  const dark = useDark();
  return useMemo(() => {
    void dark;
    const style = getComputedStyle(document.documentElement);
    const hue = (name: Hue) => style.getPropertyValue(`--color-${name}`).trim();
    return {
      hue,
      clear: (name, share) =>
        `${hue(name)}${Math.round(share * 255)
          .toString(16)
          .padStart(2, "0")}`,
    };
  }, [dark]);
}
