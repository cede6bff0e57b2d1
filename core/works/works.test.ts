import { anotherMould, costsOf, makeOrder, nextNumber, parcels, Project, type OrderedPiece } from ".";
import { openings, production } from "../schedule";

const piece = (more: Partial<OrderedPiece> = {}): OrderedPiece => ({
  key: "tile",
  wanted: 12,
  moulds: 2,
  castMin: 20,
  openMin: 15,
  demouldMin: 60,
  buildMin: 0,
  loggedGood: 45,
  logged: 50,
  ...more,
});
const DAYS = Array.from({ length: 30 }, (_, d): [number, number] => [d * 1440 + 420, d * 1440 + 1320]);

describe("an order", () => {
  it("of one piece is what that piece alone takes: as many castings, and done at the same minute", () => {
    const p = piece();
    const alone = production({
      good: 12,
      castMin: 20,
      openMin: 15,
      demouldMin: 60,
      moulds: 2,
      waking: DAYS,
      loggedGood: 45,
      logged: 50,
      mouldCost: null,
      dayWorth: null,
    });
    const [done] = makeOrder([p], DAYS);
    expect(done!.safeCasts).toBe(alone.safeCasts);
    expect(done!.expectedCasts).toBe(alone.expectedCasts);
    expect(Math.abs(done!.safeMin! - openings(2, 20, 15, 60, DAYS)[alone.safeCasts - 1]!)).toBeLessThanOrEqual(60);
  });
  it("keeps one pair of hands at one thing, inside waking hours: never faster than the hands there are", () => {
    const pieces = [piece(), piece({ key: "knob", wanted: 6, demouldMin: 200, moulds: 1 })];
    const done = makeOrder(pieces, DAYS);
    const work = done.reduce((s, d, i) => s + d.safeCasts * (pieces[i]!.castMin + pieces[i]!.openMin), 0);
    const last = Math.max(...done.map((d) => d.safeMin!));
    const awake = DAYS.reduce((s, [a, b]) => s + Math.max(0, Math.min(b, last) - a), 0);
    expect(awake).toBeGreaterThanOrEqual(work - 1e-9);
    // Two pairs are never slower, and a piece that is done asks for nothing.
    expect(Math.max(...makeOrder(pieces, DAYS, { people: 2, pots: 1 }).map((d) => d.safeMin!))).toBeLessThanOrEqual(last);
    expect(makeOrder([piece({ wanted: 0 })], DAYS)[0]).toEqual({ key: "tile", expectedCasts: 0, safeCasts: 0, expectedMin: 0, safeMin: 0 });
  });
  it("waits for a mould that is not made yet, and another one helps only once it is there", () => {
    const at = (more: Partial<OrderedPiece>) => makeOrder([piece(more)], DAYS)[0]!.safeMin!;
    expect(at({ moulds: 0, buildMin: 3000 })).toBeGreaterThan(at({ moulds: 1 }) + 1400);
    expect(at({ moulds: 0, buildMin: 3000 })).toBeGreaterThan(3000);
    expect(at({ moulds: 1, more: 1, buildMin: 0 })).toBe(at({ moulds: 2 }));
    expect(anotherMould([piece({ moulds: 1, buildMin: 60_000 })], DAYS)[0]!.soonerMin).toBe(0);
  });
  it("waits for a box or a pot that a full mould still takes up: one box makes four moulds worth one", () => {
    const at = (more: Partial<OrderedPiece>, pots = 1) => makeOrder([piece(more)], DAYS, { people: 1, pots })[0]!.safeMin!;
    expect(at({ moulds: 4, boxes: 1 })).toBe(at({ moulds: 1 }));
    expect(at({ moulds: 4, boxes: 4 })).toBe(at({ moulds: 4 }));
    expect(at({ moulds: 4, pot: "set" })).toBe(at({ moulds: 1 }));
    expect(at({ moulds: 4, pot: "set" }, 4)).toBe(at({ moulds: 4 }));
    // One pair of hands pours one at a time anyway: a pot taken up only while it pours costs nothing.
    expect(at({ moulds: 4, pot: "pour" })).toBe(at({ moulds: 4 }));
    // Another mould is worth nothing where the one box sets the pace.
    expect(anotherMould([piece({ moulds: 1, boxes: 1, demouldMin: 300 })], DAYS)[0]!.soonerMin).toBe(0);
    expect(anotherMould([piece({ moulds: 1, demouldMin: 300 })], DAYS)[0]!.soonerMin!).toBeGreaterThan(0);
  });
  it("shares one pot between two pieces and four hands: as slow as the pot, twice as fast with two", () => {
    const both = [
      piece({ pot: "pour", castMin: 60, openMin: 1, demouldMin: 1, moulds: 6 }),
      piece({ key: "knob", pot: "pour", castMin: 60, openMin: 1, demouldMin: 1, moulds: 6 }),
    ];
    const last = (people: number, pots: number) => Math.max(...makeOrder(both, [[0, 100_000]], { people, pots }).map((d) => d.safeMin!));
    const casts = makeOrder(both, DAYS).reduce((s, d) => s + d.safeCasts, 0);
    expect(last(4, 1)).toBeGreaterThanOrEqual(casts * 60);
    expect(last(4, 1)).toBeLessThan(casts * 60 + 60);
    expect(last(4, 2)).toBeLessThan(casts * 30 + 120);
  });
  it("says which piece another mould is worth most for: the one that keeps the rest waiting", () => {
    const pieces = [piece({ key: "fast", wanted: 3, demouldMin: 30 }), piece({ key: "slow", wanted: 8, moulds: 1, demouldMin: 1440 })];
    const gain = anotherMould(pieces, DAYS);
    expect(gain.find((g) => g.key === "slow")!.soonerMin!).toBeGreaterThan(gain.find((g) => g.key === "fast")!.soonerMin!);
    expect(anotherMould([piece({ moulds: 1, demouldMin: 30_000 })], DAYS.slice(0, 2))[0]!.soonerMin).toBe(0);
  });
});

describe("what things cost", () => {
  it("carries the bad ones and the mould's share into a good one, and the workshop's rule on top", () => {
    const c = costsOf({
      mould: [{ what: "Rubber", g: 1000, cost: 40 }],
      casting: [{ what: "Plaster", g: 500, cost: 2 }],
      life: { low: 20, typical: 40, high: 80 },
      yield: 0.8,
      castH: 0.5,
      mouldH: 4,
      pricing: { perHour: 20, overheadPct: 10, marginPct: 50 },
    });
    // (2 + 40/40)/0.8 = 3.75; hours (0.5 + 4/40)/0.8 = 0.75; (3.75 + 15)·1.1·1.5
    expect(c.good.typical).toBeCloseTo(3.75, 9);
    expect(c.good.low).toBeCloseTo(2.5 / 0.8, 9);
    expect(c.hours).toBeCloseTo(0.75, 9);
    expect(c.price).toBeCloseTo(18.75 * 1.65, 9);
    expect(c.complete).toBe(true);
  });
  it("names what has no price and asks for nothing", () => {
    const c = costsOf({
      mould: [{ what: "Rubber", g: 900, cost: null }],
      casting: [],
      life: { low: 1, typical: 1, high: 1 },
      yield: 1,
      castH: 0,
      mouldH: 0,
      pricing: null,
    });
    expect([c.complete, c.unpriced, c.price]).toEqual([false, ["Rubber"], null]);
  });
});

describe("a work in parts", () => {
  const work = Project.parse({
    format: 1,
    name: "Orrery",
    parts: [
      { jobId: "ball", name: "Sun", count: 1 },
      { jobId: "arm", name: "Long arm", count: 2, joint: "peg into the sun" },
      { jobId: "arm", name: "Short arm", count: 1 },
    ],
    edition: 3,
    castings: [{ number: 2, pourId: null }],
  });
  const known = [
    { jobId: "ball", demouldedG: 320, dryG: 300, sizeMm: [80, 80, 80] as const, good: 4, hasMould: true },
    { jobId: "arm", demouldedG: 60, dryG: 50, sizeMm: null, good: 7, hasMould: true },
  ];
  it("weighs what its parts weigh, and shares castings of one mould out among them", () => {
    const p = parcels(work, known);
    expect(p.wholeG).toBe(300 + 3 * 50);
    expect(p.parts.map((x) => x.ready)).toEqual([1, 2, 1]);
    expect(p.works).toBe(2);
    expect(parcels(work, known.slice(0, 1)).wholeG).toBeNull();
  });
  it("numbers an edition from the lowest free number, and refuses the same one twice", () => {
    expect(nextNumber(work)).toBe(1);
    expect(nextNumber({ ...work, edition: null })).toBeNull();
    expect(Project.safeParse({ ...work, castings: [...work.castings, { number: 2, pourId: null }] }).success).toBe(false);
  });
});
