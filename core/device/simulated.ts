import { chance, normal } from "./chance";
import type { DeviceReading } from "./line";

export interface ScaleMake {
  capacityG: number;
  /** What its last figure counts in, g. */
  stepG: number;
  /** Deviation of the raw signal, g. */
  noiseG: number;
  /** How fast its zero wanders, g per square root of an hour. */
  driftG: number;
  /** Time its filter takes to get within 1/e of a new load, s. */
  settleS: number;
}

export const KITCHEN_SCALE: ScaleMake = { capacityG: 10_000, stepG: 1, noiseG: 0.15, driftG: 0.6, settleS: 0.35 };
export const POCKET_SCALE: ScaleMake = { capacityG: 500, stepG: 0.05, noiseG: 0.01, driftG: 0.05, settleS: 0.5 };

/** What is done to a simulated scale: by hand on the screen, or by a script in a test. */
export type ScaleDeed =
  | { do: "load"; grams: number }
  | { do: "add"; grams: number }
  | { do: "pour"; gramsPerS: number }
  | { do: "stop" }
  | { do: "tare" }
  | { do: "unplug" }
  | { do: "plug" };

/**
 * A scale made of sums: its display follows the load with a lag, carries noise and a wandering zero, rounds to its step,
 * refuses above its capacity, loses its tare and its display when unplugged. The load itself stays on the pan.
 */
export class SimulatedScale {
  loadG = 0;
  plugged = true;
  private pourGS = 0;
  private shown = 0;
  private zero = 0;
  private drift = 0;
  private lastRaw = 0;
  private calmS = 0;
  private readonly uniform: () => number;

  constructor(
    readonly make: ScaleMake,
    seed: number,
  ) {
    this.uniform = chance(seed);
  }

  act(deed: ScaleDeed): void {
    switch (deed.do) {
      case "load":
        this.loadG = Math.max(0, deed.grams);
        break;
      case "add":
        this.loadG = Math.max(0, this.loadG + deed.grams);
        break;
      case "pour":
        this.pourGS = deed.gramsPerS;
        break;
      case "stop":
        this.pourGS = 0;
        break;
      case "tare":
        this.zero = this.shown + this.drift;
        break;
      case "unplug":
        this.plugged = false;
        break;
      case "plug":
        this.plugged = true;
        // It takes whatever stands on it for nothing, as most kitchen scales do when they are switched on.
        this.shown = this.loadG;
        this.zero = this.loadG + this.drift;
        break;
    }
  }

  /** What it keeps while nobody reads it: a page that comes back finds its scale as it stood. */
  saved(): { loadG: number; zero: number; plugged: boolean } {
    return { loadG: this.loadG, zero: this.zero, plugged: this.plugged };
  }

  restore(s: { loadG: number; zero: number; plugged: boolean }): void {
    this.loadG = s.loadG;
    this.shown = s.loadG;
    this.lastRaw = s.loadG - s.zero;
    this.zero = s.zero;
    this.plugged = s.plugged;
  }

  /** Lets time pass, seconds > 0, and reads the display; null while it is unplugged. */
  step(seconds: number): DeviceReading | null {
    const poured = this.pourGS * seconds;
    this.loadG += poured;
    if (!this.plugged) return null;
    this.shown = this.loadG + (this.shown - this.loadG) * Math.exp(-seconds / this.make.settleS);
    this.drift += this.make.driftG * Math.sqrt(seconds / 3600) * normal(this.uniform);
    if (this.loadG > this.make.capacityG) return { kind: "overload" };
    const raw = this.shown + this.drift - this.zero + this.make.noiseG * normal(this.uniform);
    // Calm for a third of a second counts as stable.
    this.calmS = Math.abs(raw - this.lastRaw) < this.make.stepG + 4 * this.make.noiseG && this.pourGS === 0 ? this.calmS + seconds : 0;
    this.lastRaw = raw;
    const grams = Math.round(raw / this.make.stepG) * this.make.stepG;
    return { kind: "weight", grams: grams === 0 ? 0 : grams, stable: this.calmS >= 0.33 && Math.abs(this.shown - this.loadG) < this.make.stepG };
  }
}

/** A thermometer that lags behind the shop, reads to a tenth of a degree, and is a little off, as cheap ones are. */
export class SimulatedThermometer {
  shopC: number;
  plugged = true;
  private shown: number;
  private readonly offC: number;
  private readonly uniform: () => number;

  constructor(shopC: number, seed: number, offC = 0.3) {
    this.shopC = shopC;
    this.shown = shopC;
    this.offC = offC;
    this.uniform = chance(seed);
  }

  /** Lets time pass, seconds > 0; null while it is unplugged. A bare probe in air takes about a minute. */
  step(seconds: number): DeviceReading | null {
    this.shown = this.shopC + (this.shown - this.shopC) * Math.exp(-seconds / 60);
    if (!this.plugged) return null;
    return { kind: "temperature", celsius: Math.round((this.shown + this.offC + 0.05 * normal(this.uniform)) * 10) / 10 };
  }
}
