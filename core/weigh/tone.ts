import { barShare } from "./rebalance";

/** What one hears while a part is poured. */
export interface Tone {
  /** Pitch, Hz, and how many pulses follow each other. */
  hz: number;
  pulses: 1 | 2 | 3;
  /** Sentence for a voice where a step was passed, in grams still to pour; null between steps. */
  step: "start" | "ninety" | "mark" | "over" | null;
}

/** From the empty cup to the mark the pitch climbs two octaves, most of it over the last part of the pour. */
const LOW_HZ = 220;
const OCTAVES = 2;
/** Over the mark it falls back, lower than it began: unlike anything before it. */
const OVER_HZ = 140;
/** Nothing is heard below this share: the cup has only just been put on. */
const SILENT = 0.02;
const NINETY = 0.9;

/**
 * The tone of a weight on its way to a target, with the step it has just passed: one pulse on the way, two from nine tenths on,
 * three at the mark. Null where there is nothing to hear.
 * @param wasG the weight before this one, g, for the steps
 * @param lowG least weight that is right, g; @param highG the most
 */
export function toneOf(gotG: number, wasG: number, targetG: number, lowG: number, highG: number): Tone | null {
  if (!(targetG > 0) || !(gotG > SILENT * targetG)) return null;
  if (gotG > highG) return { hz: OVER_HZ, pulses: 3, step: wasG <= highG ? "over" : null };
  const hz = LOW_HZ * 2 ** (OCTAVES * Math.min(1, barShare(gotG, targetG)));
  if (gotG >= lowG) return { hz, pulses: 3, step: wasG < lowG ? "mark" : null };
  const near = gotG >= NINETY * targetG;
  return {
    hz,
    pulses: near ? 2 : 1,
    step: near && wasG < NINETY * targetG ? "ninety" : wasG <= SILENT * targetG ? "start" : null,
  };
}
