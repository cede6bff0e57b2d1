import fc from "fast-check";
import { arrheniusFactor, cureState, forecastC, hoursAt, localMinute, temperatureAt, type CureRule, type Forecast } from "../cure";
import { say } from "../quantity";
import { clockFrom, clockState, dueAt, isNight, lastWaking, nextWaking, riverAdvice, stretchOf, temperatureToEndAt, type Clock, type Stretch } from ".";

const HOUR = 3_600_000;
const flat = (c: number, zone = "UTC"): Forecast => ({ dayC: c, nightC: c, dayFromMin: 480, dayToMin: 1200, zone });
const range = (v: number) => ({ low: v, typical: v, high: v });
const rubber: CureRule = { kind: "arrhenius", hours: { low: 5, typical: 6, high: 16 }, kJ: { low: 40, typical: 52, high: 65 }, referenceC: 23 };
const cement: CureRule = { kind: "maturity", hours: { low: 20, typical: 26, high: 48 }, activationK: { low: 4000, typical: 5000, high: 5500 }, referenceC: 20 };
const T0 = Date.UTC(2026, 5, 1, 8, 0, 0);

describe("a word on how warm the shop is", () => {
  const pot: CureRule = { kind: "arrhenius", hours: range(0.75), kJ: range(52), referenceC: 23 };
  const begun = (typedAt: number | null) =>
    clockFrom(
      "x",
      { kind: "pot-life", label: "pot life", rule: pot, closes: null, equipment: null },
      { jobId: null, pourId: null, weighId: null, at: T0, plannedC: 31, typedAt },
    );
  const ends = (c: Clock, readings: { at: number; c: number }[] = []) => (clockState(c, readings, flat(15), T0).finish.typicalAt - T0) / HOUR;

  it("typed on the job a minute ago outranks a forecast: 31 °C, not 15", () => {
    expect(ends(begun(T0 - 60_000))).toBeCloseTo(hoursAt(pot, 31).typical, 2);
    expect(ends(begun(null))).toBeCloseTo(hoursAt(pot, 15).typical, 2);
    expect(ends(begun(T0 - 5 * HOUR))).toBeCloseTo(hoursAt(pot, 15).typical, 2);
  });

  it("gives way to a thermometer read since", () => {
    const cold = ends(begun(T0 - 60_000), [{ at: T0 - 30_000, c: 20 }]);
    expect(cold).toBeCloseTo(hoursAt(pot, 20).typical, 2);
  });
});

describe("a wait over a temperature that changes", () => {
  it("at one steady temperature ends when the steady reckoning says, to the minute", () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 38, noNaN: true }), fc.constantFrom(rubber, cement), (c, rule) => {
        const h = hoursAt(rule, c);
        const { finish } = cureState(rule, T0, 23, [], flat(c), T0);
        expect((finish.typicalAt - T0) / HOUR).toBeCloseTo(h.typical, 2);
        expect((finish.lowAt - T0) / HOUR).toBeCloseTo(h.low, 2);
        expect((finish.highAt - T0) / HOUR).toBeCloseTo(h.high, 2);
      }),
      { numRuns: 40 },
    );
  });

  it("equivalent age of a day at 10 °C and a day at 30 °C is by ASTM C1074's sum", () => {
    // t_e = Σ exp[−Q(1/T − 1/T_s)]·Δt, worked here by hand: 0.5475 and 1.7554 days at Q = 5000 K, T_s = 20 °C.
    const f = (c: number) => Math.exp(-5000 * (1 / (c + 273.15) - 1 / 293.15));
    expect(f(10)).toBeCloseTo(0.5475, 3);
    expect(f(30)).toBeCloseTo(1.7552, 3);
    const age = 24 * (f(10) + f(30));
    const rule: CureRule = { kind: "maturity", hours: range(age), activationK: range(5000), referenceC: 20 };
    const readings = [10, 30].flatMap((c, day) =>
      Array.from({ length: 25 }, (_, i) => ({ at: T0 + (day * 24 + i) * HOUR - (day === 1 && i === 0 ? -1 : 0), c })),
    );
    const { finish } = cureState(rule, T0, 20, readings, flat(5), T0);
    expect((finish.typicalAt - T0) / HOUR).toBeCloseTo(48, 0);
  });

  it("doubles the time for each 10 °C colder at 52 kJ/mol, and says so as hours later", () => {
    const at13 = cureState(rubber, T0, 23, [], flat(13), T0 + 2 * HOUR);
    expect((at13.finish.typicalAt - T0) / HOUR / 6).toBeCloseTo(arrheniusFactor(13, 23, 52), 2);
    expect(at13.laterH).toBeGreaterThan(5);
    expect(at13.meanC).toBeCloseTo(13, 6);
    expect(at13.measured).toBe(0);
  });

  it("is never ended sooner by a colder hour, nor is its share done ever undone by the future", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 5, max: 35, noNaN: true }), { minLength: 8, maxLength: 8 }),
        fc.nat(7),
        fc.double({ min: 1, max: 8, noNaN: true }),
        (cs, i, colder) => {
          const readings = cs.map((c, k) => ({ at: T0 + k * HOUR, c }));
          const cold = readings.map((r, k) => (k === i ? { ...r, c: r.c - colder } : r));
          const end = (rs: typeof readings) => cureState(rubber, T0, 20, rs, flat(20), T0 + 8 * HOUR);
          expect(end(cold).finish.typicalAt).toBeGreaterThanOrEqual(end(readings).finish.typicalAt - 1);
          expect(end(readings).done).toBeCloseTo(cureState(rubber, T0, 20, readings, flat(9), T0 + 8 * HOUR).done, 6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("dries faster in warm air by vapour pressure: about 1.8 times from 20 to 30 °C", () => {
    const drying: CureRule = { kind: "drying", hours: range(100), referenceC: 20 };
    // Steam tables: 2.339 kPa at 20 °C, 4.247 kPa at 30 °C.
    expect(100 / hoursAt(drying, 30).typical).toBeCloseTo(4.247 / 2.339, 2);
    expect(hoursAt({ kind: "fixed", hours: range(4) }, 3)).toEqual(range(4));
    expect(hoursAt({ kind: "cooling", hours: range(2), hotC: 70, referenceC: 20 }, 45).typical).toBeCloseTo(4, 9);
  });
});

describe("what the shop's temperature was", () => {
  const f: Forecast = { dayC: 20, nightC: 10, dayFromMin: 480, dayToMin: 1200, zone: "UTC" };
  it("is bridged for two hours, and is the forecast beyond", () => {
    const rs = [
      { at: T0, c: 16 },
      { at: T0 + 2 * HOUR, c: 18 },
      { at: T0 + 9 * HOUR, c: 14 },
    ];
    expect(temperatureAt(rs, f, T0 + HOUR)).toEqual({ c: 17, measured: true });
    expect(temperatureAt(rs, f, T0 + 5 * HOUR)).toEqual({ c: 20, measured: false });
    expect(temperatureAt(rs, f, T0 + 8.5 * HOUR)).toEqual({ c: 14, measured: true });
    expect(temperatureAt(rs, f, T0 + 10.9 * HOUR)).toEqual({ c: 14, measured: true });
    expect(temperatureAt(rs, f, T0 + 16 * HOUR)).toEqual({ c: 10, measured: false });
    expect(temperatureAt(rs, f, T0 - 1.9 * HOUR)).toEqual({ c: 16, measured: true });
    expect(temperatureAt([], f, T0)).toEqual({ c: 20, measured: false });
  });

  it("knows day from night by the workshop's own wall clock, through both changes of the clocks", () => {
    const berlin = { ...f, zone: "Europe/Berlin" };
    // 29 March 2026: 01:59 is followed by 03:00. 07:59 summer time is still night, 08:01 day.
    expect(forecastC(berlin, Date.UTC(2026, 2, 29, 5, 59))).toBe(10);
    expect(forecastC(berlin, Date.UTC(2026, 2, 29, 6, 1))).toBe(20);
    expect(localMinute(Date.UTC(2026, 2, 29, 0, 59), "Europe/Berlin")).toBe(119);
    expect(localMinute(Date.UTC(2026, 2, 29, 1, 0), "Europe/Berlin")).toBe(180);
    // 25 October 2026: 03:00 falls back to 02:00.
    expect(localMinute(Date.UTC(2026, 9, 25, 0, 30), "Europe/Berlin")).toBe(150);
    expect(localMinute(Date.UTC(2026, 9, 25, 1, 30), "Europe/Berlin")).toBe(150);
    expect(localMinute(T0 + 12_345, "Asia/Kolkata")).toBeCloseTo(13 * 60 + 30 + 12.345 / 60, 6);
  });
});

const clock = (patch: Partial<Clock> = {}): Clock => ({
  ...clockFrom(
    "c",
    { kind: "demould", label: "Tile: demould", rule: rubber, closes: null, equipment: null },
    { jobId: null, pourId: null, weighId: null, at: T0, plannedC: 23 },
  ),
  ...patch,
});

describe("a clock", () => {
  it("across daylight saving still ends a fixed number of hours after it began", () => {
    for (const [y, m, d] of [
      [2026, 2, 28],
      [2026, 9, 24],
    ] as const) {
      const start = Date.UTC(y, m, d, 20);
      const s = clockState(clock({ startedAt: start, rule: { kind: "fixed", hours: range(10) } }), [], flat(20, "Europe/Berlin"), start);
      expect(dueAt(s) - start).toBe(10 * HOUR);
      const moved = clockState(clock({ startedAt: start }), [], flat(23, "Europe/Berlin"), start);
      expect((dueAt(moved) - start) / HOUR).toBeCloseTo(6, 3);
    }
  });

  it("says the same whatever the moment it is asked, as long as nothing new is read", () => {
    const ends = [0, 1, 3, 5.9].map((h) => dueAt(clockState(clock(), [], flat(18), T0 + h * HOUR)));
    expect(Math.max(...ends) - Math.min(...ends)).toBeLessThan(1);
  });

  it("calls when it is due, is quiet while snoozed, and deadlines call at their short end", () => {
    const at = (h: number, patch: Partial<Clock> = {}) => clockState(clock(patch), [], flat(23), T0 + h * HOUR);
    expect([at(1).phase, at(5.5).phase, at(6.1).phase]).toEqual(["running", "soon", "due"]);
    expect(at(6.1).calls).toBe(true);
    const snoozes = [{ at: T0 + 6 * HOUR, until: T0 + 7 * HOUR, reason: "hands full" }];
    expect(at(6.5, { snoozes })).toMatchObject({ calls: false, snoozedUntil: T0 + 7 * HOUR });
    expect(at(7.1, { snoozes }).calls).toBe(true);
    expect(at(9, { endedAt: T0 + 8 * HOUR })).toMatchObject({ phase: "ended", calls: false });
    expect(at(5.2, { kind: "pot-life" })).toMatchObject({ phase: "closing", calls: true });
    expect(at(20, { kind: "pot-life" }).phase).toBe("past");
    const tack = { kind: "tack" as const, rule: { kind: "fixed" as const, hours: range(1) }, closes: { kind: "fixed" as const, hours: range(3) } };
    expect([at(0.5, tack).phase, at(2, tack).phase, at(3.1, tack).phase]).toEqual(["running", "closing", "past"]);
    expect(at(2, tack).closesAt).toBe(T0 + 3 * HOUR);
  });
});

describe("the river", () => {
  const waking = { fromMin: 7 * 60, toMin: 22 * 60 };
  const stretch = (patch: Partial<Stretch>): Stretch => ({
    id: "a",
    label: "Second coat",
    fromAt: T0,
    handsAt: T0 + HOUR,
    toAt: T0 + 2 * HOUR,
    deadline: false,
    equipment: null,
    planned: false,
    ...patch,
  });
  const night = Date.UTC(2026, 5, 2, 2, 0);

  it("finds morning and evening on the wall clock", () => {
    expect(isNight(night, waking, "UTC")).toBe(true);
    expect(nextWaking(night, waking, "UTC")).toBe(Date.UTC(2026, 5, 2, 7));
    expect(lastWaking(night, waking, "UTC")).toBe(Date.UTC(2026, 5, 1, 21, 45));
    expect(nextWaking(T0, waking, "UTC")).toBe(T0);
    expect(nextWaking(night, { fromMin: 0, toMin: 0 }, "UTC")).toBe(night);
  });

  it("tells a wait that only waits from a window that closes before morning", () => {
    const [wait] = riverAdvice([stretch({ handsAt: night, toAt: night + HOUR })], waking, "UTC", T0);
    expect(say(wait!.suggestion, "metric")).toMatch(/see to it in the morning, 5 h later/);
    const [lost] = riverAdvice([stretch({ handsAt: night, toAt: night + HOUR, deadline: true })], waking, "UTC", T0);
    expect(lost!.message).toMatch(/window is over by morning/);
    expect(lost!.shiftMs).toBeNull();
  });

  it("moves what is only planned to the nearer side of the night, and the move puts it right", () => {
    const s = stretch({ fromAt: Date.UTC(2026, 5, 1, 17), handsAt: Date.UTC(2026, 5, 1, 23), toAt: night, planned: true });
    const [a] = riverAdvice([s], waking, "UTC", T0);
    expect(a!.shiftMs).toBeLessThan(0);
    expect(isNight(s.handsAt + a!.shiftMs!, waking, "UTC")).toBe(false);
    expect(riverAdvice([{ ...s, fromAt: s.fromAt + a!.shiftMs!, handsAt: s.handsAt + a!.shiftMs! }], waking, "UTC", T0)).toEqual([]);
  });

  it("sees two things in one vacuum pot, and not two in a row", () => {
    const pot = (id: string, from: number, planned: boolean) =>
      stretch({ id, label: id, fromAt: T0 + from * HOUR, handsAt: T0 + (from + 1) * HOUR, equipment: "vacuum-pot", planned });
    const [clash] = riverAdvice([pot("one", 0, false), pot("two", 0.5, true)], waking, "UTC", T0);
    expect(clash).toMatchObject({ kind: "clash", shiftMs: 0.5 * HOUR });
    expect(riverAdvice([pot("one", 0, false), pot("two", 1, true)], waking, "UTC", T0)).toEqual([]);
  });

  it("names the temperature that would end a cure at a wanted time", () => {
    const s = clockState(clock(), [], flat(18), T0);
    expect(stretchOf(s).handsAt).toBe(dueAt(s));
    const c = temperatureToEndAt(s, T0 + 6 * HOUR, T0, flat(18))!;
    expect(c).toBe(23);
    expect(temperatureToEndAt(s, T0 + 0.1 * HOUR, T0, flat(18))).toBeNull();
  });
});
