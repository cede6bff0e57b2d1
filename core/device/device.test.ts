import fc from "fast-check";
import { KITCHEN_SCALE, LineBuffer, POCKET_SCALE, readLine, SimulatedScale, SimulatedThermometer, type DeviceReading } from ".";

/** A reading as a device would say it. */
function writeLine(r: DeviceReading): string {
  switch (r.kind) {
    case "weight":
      return `weight ${Number(r.grams.toFixed(3))} g ${r.stable ? "stable" : "moving"}`;
    case "overload":
      return "weight over";
    case "temperature":
      return `temp ${Number(r.celsius.toFixed(2))} C`;
    case "hello":
      return `hello ${r.name}`;
  }
}

const read = (line: string): DeviceReading | null | string => {
  const r = readLine(line);
  return r.ok ? r.reading : r.message;
};

describe("the device line protocol", () => {
  it.each<[string, DeviceReading | null]>([
    ["weight 123.4 g stable", { kind: "weight", grams: 123.4, stable: true }],
    ["WEIGHT 1.5 kg moving", { kind: "weight", grams: 1500, stable: false }],
    ["weight -2.5 g stable", { kind: "weight", grams: -2.5, stable: true }],
    ["weight over", { kind: "overload" }],
    ["temp 21.5 C", { kind: "temperature", celsius: 21.5 }],
    ["temp 70.7 F", { kind: "temperature", celsius: expect.closeTo(21.5, 6) as number }],
    ["hello bench scale", { kind: "hello", name: "bench scale" }],
    ["# a note", null],
    ["   ", null],
  ])("%s", (line, expected) => expect(read(line)).toEqual(expected));

  it.each(["weight 12 g", "weight lots stable", "temp warm", "temp 9000 C", "grams 4", "weight 5 m stable", `weight ${"9".repeat(200)} g stable`])(
    "refuses %s in words",
    (line) => expect(typeof read(line)).toBe("string"),
  );

  it("reads back every line it writes, in whatever pieces they come", () => {
    const reading = fc.oneof(
      fc.record({ kind: fc.constant("weight" as const), grams: fc.integer({ min: -5000, max: 900_000 }).map((n) => n / 10), stable: fc.boolean() }),
      fc.record({ kind: fc.constant("temperature" as const), celsius: fc.integer({ min: -400, max: 9000 }).map((n) => n / 10) }),
      fc.constant({ kind: "overload" as const }),
    );
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 12 }), fc.integer({ min: 1, max: 9 }), (rs, piece) => {
        const text = rs.map((r) => `${writeLine(r)}\r\n`).join("");
        const buffer = new LineBuffer();
        const lines: string[] = [];
        for (let i = 0; i < text.length; i += piece) lines.push(...buffer.push(text.slice(i, i + piece)));
        expect(lines.filter((l) => l !== "").map(read)).toEqual(rs);
      }),
    );
  });

  it("never keeps more of an endless line than it would read", () => {
    const b = new LineBuffer();
    for (let i = 0; i < 1000; i++) expect(b.push("x".repeat(1000))).toEqual([]);
    expect(b.push("\n")[0]!.length).toBeLessThan(200);
  });
});

describe("the simulated scale", () => {
  const run = (s: SimulatedScale, seconds: number): DeviceReading | null => {
    let r: DeviceReading | null = null;
    for (let t = 0; t < seconds; t += 0.1) r = s.step(0.1);
    return r;
  };
  const grams = (r: DeviceReading | null) => (r?.kind === "weight" ? r.grams : NaN);

  it("settles on its load within a step or two, and says when it has", () => {
    const s = new SimulatedScale(KITCHEN_SCALE, 3);
    s.act({ do: "load", grams: 842 });
    const soon = s.step(0.1);
    expect(soon?.kind === "weight" && soon.stable).toBe(false);
    expect(grams(soon)).toBeLessThan(800);
    const later = run(s, 4);
    expect(Math.abs(grams(later) - 842)).toBeLessThanOrEqual(2);
    expect(later?.kind === "weight" && later.stable).toBe(true);
  });

  it("reads to its step, with noise on a fine one, and wanders in hours", () => {
    const s = new SimulatedScale(POCKET_SCALE, 5);
    s.act({ do: "load", grams: 20 });
    run(s, 5);
    const seen = new Set<number>();
    for (let i = 0; i < 50; i++) seen.add(grams(s.step(0.1)));
    for (const g of seen) expect(Math.abs(g / 0.05 - Math.round(g / 0.05))).toBeLessThan(1e-6);
    const start = grams(s.step(0.1));
    let far = 0;
    for (let i = 0; i < 400; i++) far = Math.max(far, Math.abs(grams(s.step(60)) - start));
    expect(far).toBeGreaterThan(0.04);
    expect(far).toBeLessThan(2);
  });

  it("tares, pours, refuses too much, and forgets its zero when the plug is pulled", () => {
    const s = new SimulatedScale(KITCHEN_SCALE, 8);
    s.act({ do: "load", grams: 90 });
    run(s, 3);
    s.act({ do: "tare" });
    expect(Math.abs(grams(run(s, 1)))).toBeLessThanOrEqual(1);
    s.act({ do: "pour", gramsPerS: 50 });
    expect(run(s, 2)).toMatchObject({ stable: false });
    s.act({ do: "stop" });
    expect(Math.abs(grams(run(s, 3)) - 100)).toBeLessThanOrEqual(8);
    s.act({ do: "unplug" });
    expect(s.step(0.1)).toBeNull();
    s.act({ do: "plug" });
    expect(Math.abs(grams(run(s, 2)))).toBeLessThanOrEqual(1);
    s.act({ do: "add", grams: 20_000 });
    expect(s.step(0.1)).toEqual({ kind: "overload" });
  });

  it("comes back as it stood, and gives the same run for the same seed", () => {
    const a = new SimulatedScale(KITCHEN_SCALE, 4);
    a.act({ do: "load", grams: 500 });
    run(a, 3);
    const b = new SimulatedScale(KITCHEN_SCALE, 4);
    b.restore(a.saved());
    expect(Math.abs(grams(run(b, 1)) - 500)).toBeLessThanOrEqual(2);
    const [c, d] = [new SimulatedScale(POCKET_SCALE, 1), new SimulatedScale(POCKET_SCALE, 1)];
    for (let i = 0; i < 30; i++) expect(c.step(0.1)).toEqual(d.step(0.1));
  });
});

it("the simulated thermometer lags by about a minute and reads a little off", () => {
  const t = new SimulatedThermometer(20, 2);
  t.shopC = 30;
  const first = t.step(6);
  expect(first?.kind === "temperature" ? first.celsius : NaN).toBeLessThan(22);
  const later = t.step(600);
  expect(later?.kind === "temperature" ? Math.abs(later.celsius - 30.3) : NaN).toBeLessThan(0.4);
  t.plugged = false;
  expect(t.step(1)).toBeNull();
});
