import fc from "fast-check";
import {
  ageOf,
  balances,
  cover,
  drawn,
  drawOrder,
  fillFrom,
  leftBy,
  openedLife,
  openFor,
  partGrams,
  portionList,
  shopping,
  standOfAll,
  together,
  tubsOf,
  type Covered,
  type KeptPack,
  type Lot,
  type Need,
  type Source,
} from ".";
import { catalogueOf, pick } from "../material";

const DAY = 86_400_000;
const NOW = 1_780_000_000_000;
const catalogue = catalogueOf();
const kit = catalogue.rubbers.find((r) => r.family === "platinum" && r.mix.kind === "ratio" && r.mix.partA.parts === r.mix.partB.parts)!;
const tin = catalogue.rubbers.find((r) => r.mix.kind === "catalyst")!;
const [A, B] = tubsOf(kit).map((t) => t.name) as [string, string];

const lot = (id: string, leftG: readonly number[], more: Partial<Lot> = {}): Lot => ({
  id,
  materialId: kit.id,
  name: id,
  batch: "",
  place: "",
  note: "",
  price: null,
  boughtAt: NOW - 100 * DAY,
  openedAt: null,
  goodUntil: null,
  openedDays: null,
  endedAt: null,
  parts: [A, B].slice(0, leftG.length).map((name) => ({ name, boughtG: 1000, tareG: null })),
  leftG,
  ...more,
});
const pack = (id: string, g: number, price: number | null, from = "The shop"): KeptPack => ({
  id,
  materialId: kit.id,
  name: id,
  parts: [A, B].map((name) => ({ name, massG: g, volumeMl: null })),
  price,
  from,
  openedDays: null,
});

/** Every way to take sources, one after another. */
function bruteForce(need: readonly number[], sources: readonly Source[], most: number): { cost: number[]; ok: boolean } {
  let best = { cost: [Infinity], ok: false };
  const look = (i: number, got: number[], cost: number[]): void => {
    if (got.every((g, k) => g >= need[k]! - 1e-9)) {
      const worse = best.cost.findIndex((v, k) => v !== cost[k]);
      if (!best.ok || (worse >= 0 && cost[worse]! < best.cost[worse]!)) best = { cost, ok: true };
    }
    const s = sources[i];
    if (!s) return;
    for (let n = 0; n <= (s.most ?? most); n++)
      look(
        i + 1,
        got.map((g, k) => g + n * (s.bringsG[k] ?? 0)),
        [cost[0]! + n * s.price, cost[1]! + (s.opens ? n : 0), cost[2]! + n * i, cost[3]! + n * s.bringsG.reduce((a, b) => a + b, 0)],
      );
  };
  look(
    0,
    need.map(() => 0),
    [0, 0, 0, 0],
  );
  return best;
}
const costOf = (c: Covered, sources: readonly Source[]): number[] => {
  const of = (f: (s: Source, i: number) => number) =>
    c.picks.reduce(
      (t, p) =>
        t +
        p.count *
          f(
            sources.find((s) => s.key === p.key)!,
            sources.findIndex((s) => s.key === p.key),
          ),
      0,
    );
  return [of((s) => s.price), of((s) => (s.opens ? 1 : 0)), of((_, i) => i), of((s) => s.bringsG.reduce((a, b) => a + b, 0))];
};

describe("what to open and what to buy", () => {
  const source = fc.record({
    bringsG: fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 })),
    price: fc.integer({ min: 0, max: 9 }),
    opens: fc.boolean(),
    most: fc.constantFrom(1, 1, null),
  });
  it("is as good as the best of all ways there are, in every respect in turn, with one part and with two", () => {
    fc.assert(
      fc.property(
        fc.array(source, { minLength: 1, maxLength: 5 }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 0, max: 20 }),
        fc.boolean(),
        (list, a, b, two) => {
          const need = two ? [a, b] : [a];
          const sources = list.map((s, i): Source => ({ ...s, key: `s${i}`, bringsG: two ? s.bringsG : [s.bringsG[0]], family: "one" }));
          const found = cover(need, sources);
          const best = bruteForce(need, sources, 6);
          // Six of each are enough for brute force only where that much does it.
          if (!best.ok) return;
          if (found === null) throw new Error("brute force found one");
          const mine = costOf(found, sources);
          const k = mine.findIndex((v, i) => Math.abs(v - best.cost[i]!) > 1e-6);
          expect(k < 0 || mine[k]! < best.cost[k]!).toBe(true);
        },
      ),
      { numRuns: 150 },
    );
  });
  it("costs no more when a pack gets cheaper, or when there is more in the cupboard", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: 1, max: 90 })), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 6000 }),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 1, max: 3000 }),
        (sold, need, which, here) => {
          const sources = sold.map(([g, price], i): Source => ({ key: `p${i}`, bringsG: [g], price, opens: true, most: null, family: "one" }));
          const before = cover([need], sources)!.price;
          const cheaper = sources.map((s, i) => (i === which % sources.length ? { ...s, price: s.price * 0.6 } : s));
          expect(cover([need], cheaper)!.price).toBeLessThanOrEqual(before + 1e-9);
          const stocked = [{ key: "here", bringsG: [here], price: 0, opens: false, most: 1, family: "one" }, ...sources];
          expect(cover([need], stocked)!.price).toBeLessThanOrEqual(before + 1e-9);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("never mixes two families, leaves the least over when that is asked for, and says when nothing does", () => {
    const two: Source[] = [
      { key: "p", bringsG: [600], price: 0, opens: false, most: 1, family: "platinum" },
      { key: "t", bringsG: [600], price: 0, opens: false, most: 1, family: "tin" },
    ];
    expect(cover([1000], two)).toBeNull();
    expect(cover([500], two)!.picks).toHaveLength(1);
    const sold: Source[] = [
      { key: "big", bringsG: [5000], price: 80, opens: true, most: null, family: "one" },
      { key: "small", bringsG: [1000], price: 30, opens: true, most: null, family: "one" },
    ];
    expect(cover([2900], sold)!.picks).toEqual([{ key: "big", count: 1 }]);
    expect(cover([2900], sold, "leastLeft")!.picks).toEqual([{ key: "small", count: 3 }]);
    expect(cover([2900], sold, "leastLeft")!.leftG).toBeCloseTo(100, 6);
  });
  it("does the planter of four half-used kits: everything old first, one new kit for the rest, and what stays", () => {
    const lots = [
      lot("a", [300, 420], { openedAt: NOW - 90 * DAY, openedDays: 180 }),
      lot("b", [510, 505], { openedAt: NOW - 40 * DAY, openedDays: 180 }),
      lot("c", [250, 250], { openedAt: NOW - 20 * DAY, openedDays: 180 }),
      lot("d", [400, 60], { openedAt: NOW - 200 * DAY, openedDays: 180 }),
    ];
    const o = openFor(kit, [1500, 1500], lots, [pack("2 kg kit", 1000, 62), pack("500 g kit", 250, 24)], NOW);
    // The fourth is past its date; of the first only as much as both tubs give: 300 + 505 + 250 of each, 445 are wanting.
    expect(o.open.map((l) => l.lotId)).toEqual(["a", "b", "c"]);
    expect(o.buy.map((l) => [l.name, l.count])).toEqual([["500 g kit", 2]]);
    expect(o.price).toBe(48);
    expect(o.leftG).toBeCloseTo(2 * (300 + 505 + 250 + 500 - 1500), 1);
    expect(o.uncoveredG).toEqual([0, 0]);
    const bare = openFor(kit, [1500, 1500], lots, [], NOW);
    expect(bare.uncoveredG[0]).toBeCloseTo(445, 6);
  });
});

describe("leftovers", () => {
  it("fill the moulds that waste least, as trying every choice does", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        fc.array(fc.tuple(fc.integer({ min: 1, max: 120 }), fc.integer({ min: 1, max: 5 })), { maxLength: 9 }),
        fc.integer({ min: 1, max: 14 }),
        (rest, list, life) => {
          const fillers = list.map(([needG, pourMin], i) => ({ key: `m${i}`, name: `m${i}`, needG, pourMin }));
          let best = 0;
          for (let bits = 0; bits < 1 << list.length; bits++) {
            const chosen = list.filter((_, i) => bits & (1 << i));
            const [g, min] = [chosen.reduce((s, c) => s + c[0], 0), chosen.reduce((s, c) => s + c[1], 0)];
            if (g <= rest && min <= life) best = Math.max(best, g);
          }
          const found = fillFrom(rest, life, fillers);
          expect(found.usedG).toBeCloseTo(best, 9);
          expect(found.pourMin).toBeLessThanOrEqual(life);
          expect(found.picks.reduce((s, k) => s + fillers.find((f) => f.key === k)!.needG, 0)).toBeCloseTo(found.usedG, 9);
        },
      ),
      { numRuns: 80 },
    );
  });
  it("name what would just fit where nothing does", () => {
    expect(fillFrom(40, null, [{ key: "knob", name: "Knob", needG: 55, pourMin: 1 }]).nearest).toEqual({ key: "knob", shortG: 15 });
  });
});

describe("a lot", () => {
  it("never loses anything: what was bought is what is left, drawn and corrected, over any history", () => {
    const act = fc.oneof(
      fc.record({ do: fc.constant("draw" as const), g: fc.double({ min: 0.1, max: 900, noNaN: true }) }),
      fc.record({ do: fc.constant("weigh" as const), g: fc.double({ min: 0, max: 1000, noNaN: true }) }),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
        const lots = ["a", "b"].map((id) => ({ id, parts: [{ name: A, boughtG: 1000, tareG: null }], moves: [{ part: 0, g: 1000, kind: "bought" }] }));
        const left = (l: (typeof lots)[number]) => leftBy(1, l.moves);
        let weighed = 0;
        for (const a of acts) {
          if (a.do === "draw") {
            weighed += a.g;
            const { draws, shortG } = drawn(
              lots.map((l) => ({ ...l, leftG: left(l) })),
              A,
              a.g,
            );
            // What the scale said is booked to the gram, whatever the cupboard thought there was.
            expect(draws.reduce((s, d) => s + d.g, 0)).toBeCloseTo(a.g, 6);
            const had = lots.reduce((s, l) => s + Math.max(0, left(l)[0]!), 0);
            expect(shortG).toBeCloseTo(Math.max(0, a.g - had), 6);
            for (const d of draws) lots.find((l) => l.id === d.lotId)!.moves.push({ part: 0, g: -d.g, kind: "drawn" });
          } else lots[0]!.moves.push({ part: 0, g: a.g - left(lots[0]!)[0]!, kind: "corrected" });
        }
        const sum = (kind: string) => lots.flatMap((l) => l.moves).reduce((s, m) => s + (m.kind === kind ? m.g : 0), 0);
        const all = lots.reduce((s, l) => s + left(l)[0]!, 0);
        expect(sum("bought") + sum("corrected") + sum("drawn")).toBeCloseTo(all, 6);
        expect(-sum("drawn")).toBeCloseTo(weighed, 6);
      }),
      { numRuns: 100 },
    );
  });
  it("is old by its label or by the day it was opened, whichever ends sooner", () => {
    expect(ageOf({ openedAt: null, goodUntil: NOW + 30 * DAY, openedDays: 10 }, NOW).age).toBe("sealed");
    expect(ageOf({ openedAt: NOW - 11 * DAY, goodUntil: NOW + 30 * DAY, openedDays: 10 }, NOW).age).toBe("past");
    expect(ageOf({ openedAt: NOW - 2 * DAY, goodUntil: NOW + 3 * DAY, openedDays: 100 }, NOW)).toEqual({ age: "soon", days: 3 });
    expect(ageOf({ openedAt: NOW - 2 * DAY, goodUntil: null, openedDays: null }, NOW)).toEqual({ age: "open", days: null });
  });
  it("is drawn from in the order of what ends first, opened before sealed, past ones last", () => {
    const lots = [
      lot("sealed", [1]),
      lot("past", [1], { goodUntil: NOW - DAY }),
      lot("open", [1], { openedAt: NOW - DAY, openedDays: 90 }),
      lot("older", [1], { openedAt: NOW - 60 * DAY, openedDays: 90 }),
    ];
    expect(drawOrder(lots, NOW).map((l) => l.id)).toEqual(["older", "open", "sealed", "past"]);
  });
  it("of a kit gives as much as both tubs give together", () => {
    expect(together([100, 30], [0.5, 0.5])).toEqual([30, 30]);
    expect(together([100, 30], [10 / 11, 1 / 11])).toEqual([100, 10]);
  });
});

describe("materials and their tubs", () => {
  it("have the tubs their mix is made from, water in none, and volumes by each tub's density", () => {
    expect(tubsOf(tin)).toHaveLength(2);
    for (const c of catalogue.casts) {
      expect(tubsOf(c).length).toBeGreaterThan(0);
      expect(tubsOf(c).map((t) => t.name)).not.toContain("Water");
    }
    const [first] = tubsOf(tin);
    expect(partGrams({ name: first!.name, massG: null, volumeMl: 500 }, tubsOf(tin))).toBeCloseTo(500 * first!.densityGMl!, 9);
    expect(openedLife(tin).damp).toBe(true);
  });
});

describe("the cupboard against the jobs", () => {
  const need = (job: string, g: number): Need => ({ materialId: kit.id, jobId: job, jobName: job, what: "Mould", parts: [A, B].map((name) => ({ name, g })) });
  it("says what is good, past, wanted and short, and buys for all jobs together", () => {
    const lots = [lot("new", [200, 200]), lot("old", [500, 500], { goodUntil: NOW - DAY })];
    const [b] = balances([kit], lots, [need("lamp", 300), need("knob", 150)], NOW);
    expect([b!.goodG, b!.pastG, b!.wantedG, b!.shortG]).toEqual([
      [200, 200],
      [500, 500],
      [450, 450],
      [250, 250],
    ]);
    const s = shopping(standOfAll([kit], lots, [pack("500 g kit", 250, 24, "The shop")], [need("lamp", 300), need("knob", 150)], NOW));
    expect(s.lines).toEqual([{ materialId: kit.id, material: kit.name, pack: "500 g kit", from: "The shop", count: 1, price: 24, forJobs: ["lamp", "knob"] }]);
    expect(shopping(standOfAll([kit], lots, [], [need("lamp", 300)], NOW)).unknown[0]!.parts[0]!.g).toBeCloseTo(100, 6);
    expect(pick(catalogue.rubbers, kit.id)).toBe(kit);
  });
  it("fills every tub of a brushing day before the first is mixed", () => {
    const list = portionList([
      {
        name: "First coat",
        parts: [
          { name: A, massG: 100, volumeMl: 95 },
          { name: B, massG: 100, volumeMl: null },
        ],
        cups: 1,
      },
      {
        name: "Second coat",
        parts: [
          { name: A, massG: 300, volumeMl: null },
          { name: B, massG: 300, volumeMl: null },
        ],
        cups: 3,
      },
    ]);
    expect(list).toHaveLength(8);
    expect(list.map((p) => p.mark)).toEqual(["1A", "1B", "2A", "2B", "3A", "3B", "4A", "4B"]);
    expect(list.reduce((s, p) => s + p.g, 0)).toBeCloseTo(800, 9);
    expect(list[2]!.batch).toBe("Second coat, cup 1 of 3");
  });
});
