import * as z from "zod";
import type { CureRule } from "./rule";
import { forecastC, temperatureAt, type Forecast, type TemperatureReading } from "./track";
import { stored } from "../quantity";

/** Gas constant, J/(mol·K). */
const R = 8.314462618;
const KELVIN = 273.15;
const HOUR = 3_600_000;

type Which = "low" | "typical" | "high";

/** Saturation vapour pressure of water, relative [Magnus form, 17.62 and 243.12 °C]. */
const magnus = (c: number): number => Math.exp((17.62 * c) / (243.12 + c));
/** Least difference a cooling is reckoned with, K: nearer than that to the air it would never end. */
const LEAST_DRIVE_K = 3;

/** How much faster than at its reference a wait runs at a temperature; 1 at the reference. `which` picks the activation energy. */
export function cureRate(rule: CureRule, c: number, which: Which): number {
  switch (rule.kind) {
    case "arrhenius":
      return Math.exp(((rule.kJ[which] * 1000) / R) * (1 / (rule.referenceC + KELVIN) - 1 / (c + KELVIN)));
    case "maturity":
      return Math.exp(rule.activationK[which] * (1 / (rule.referenceC + KELVIN) - 1 / (c + KELVIN)));
    case "cooling":
      return Math.max(LEAST_DRIVE_K, rule.hotC - c) / Math.max(LEAST_DRIVE_K, rule.hotC - rule.referenceC);
    case "drying":
      return magnus(c) / magnus(rule.referenceC);
    case "fixed":
      return 1;
  }
}

const CORNERS: readonly Which[] = ["low", "typical", "high"];

export const Finish = z.object({ lowAt: stored.moment, typicalAt: stored.moment, highAt: stored.moment });
export type Finish = z.infer<typeof Finish>;

export interface CureState {
  finish: Finish;
  /** Share of the typical wait that is done at `now`, 0 to 1. */
  done: number;
  /** Mean temperature from the start to now, °C; null before anything has passed. */
  meanC: number | null;
  /** Share of that time for which there were readings. */
  measured: number;
  /** Hours later (positive) or earlier than at the temperature it was planned for. */
  laterH: number;
}

/** Longest a wait is followed, ms: half a year. What has not ended by then ends there. */
const LONGEST = 183 * 24 * HOUR;
/** Step of the integration: five minutes at first, longer as the wait grows. */
const stepAt = (since: number): number => (since < 12 * HOUR ? 300_000 : since < 96 * HOUR ? 1_200_000 : since < 21 * 24 * HOUR ? HOUR : 4 * HOUR);

/**
 * Runs a wait over what the shop's temperature was and is expected to be, by the midpoint rule in time. Absolute time
 * throughout: neither a wall clock put forward nor a second device with another clock moves the end.
 * @param startAt ms; @param plannedC what it was planned for, °C; @param now ms
 */
export function cureState(
  rule: CureRule,
  startAt: number,
  plannedC: number,
  readings: readonly TemperatureReading[],
  forecast: Forecast,
  now: number,
): CureState {
  if (rule.kind === "fixed") {
    const end = (k: Which) => startAt + rule.hours[k] * HOUR;
    return {
      finish: { lowAt: end("low"), typicalAt: end("typical"), highAt: end("high") },
      done: Math.min(1, Math.max(0, (now - startAt) / Math.max(1, rule.hours.typical * HOUR))),
      meanC: null,
      measured: 0,
      laterH: 0,
    };
  }
  // The three energies and the three spans; the earliest and the latest of them are the band.
  const runs = CORNERS.map((k) => ({ k, age: 0, low: NaN, typical: NaN, high: NaN, doneAtNow: 0 }));
  let at = startAt;
  let heat = 0;
  let known = 0;
  let passed = 0;
  while (runs.some((r) => Number.isNaN(r.high)) && at - startAt < LONGEST) {
    const dt = stepAt(at - startAt);
    const { c, measured } = temperatureAt(readings, forecast, at + dt / 2);
    const before = Math.max(0, Math.min(dt, now - at));
    heat += c * before;
    passed += before;
    if (measured) known += before;
    for (const r of runs) {
      const rate = cureRate(rule, c, r.k) / HOUR;
      const next = r.age + rate * dt;
      for (const end of CORNERS) if (Number.isNaN(r[end]) && next >= rule.hours[end]) r[end] = at + (rule.hours[end] - r.age) / rate;
      if (now > at) r.doneAtNow = r.age + rate * before;
      r.age = next;
    }
    at += dt;
  }
  const of = (k: Which, end: Which): number => {
    const v = runs.find((r) => r.k === k)?.[end] ?? NaN;
    return Number.isNaN(v) ? startAt + LONGEST : v;
  };
  const typicalAt = of("typical", "typical");
  const doneNow = runs.find((r) => r.k === "typical")?.doneAtNow ?? 0;
  return {
    finish: {
      lowAt: Math.min(...CORNERS.map((k) => of(k, "low"))),
      typicalAt,
      highAt: Math.max(...CORNERS.map((k) => of(k, "high"))),
    },
    done: Math.min(1, Math.max(0, now >= typicalAt ? 1 : doneNow / rule.hours.typical)),
    meanC: passed > 0 ? heat / passed : null,
    measured: passed > 0 ? known / passed : 0,
    laterH: (typicalAt - startAt) / HOUR - rule.hours.typical / cureRate(rule, plannedC, "typical"),
  };
}

/** Temperature a shop would be reckoned at now: the last reading if fresh, else the forecast. */
export const shopNow = (readings: readonly TemperatureReading[], f: Forecast, now: number): { c: number; measured: boolean } => {
  const t = temperatureAt(readings, f, now);
  return t.measured ? t : { c: forecastC(f, now), measured: false };
};

/** Hours a wait takes at one steady temperature: over all energies, the least of the shortest, the typical, the most of the longest. */
export function hoursAt(rule: CureRule, c: number): { low: number; typical: number; high: number } {
  const times = CORNERS.map((k) => 1 / cureRate(rule, c, k));
  return { low: rule.hours.low * Math.min(...times), typical: rule.hours.typical / cureRate(rule, c, "typical"), high: rule.hours.high * Math.max(...times) };
}
