import { catalogueOf } from "../material";
import { say } from "../quantity";
import { HABIT, HABIT_KEYS, habitOfCast, habitOfJacket, habitOfRubber, HOLD_KEYS, NO_FACTS, type Facts } from ".";

const { casts, rubbers } = catalogueOf();
const cast = (id: string) => casts.find((c) => c.id === id)!;
const rubber = (id: string) => rubbers.find((r) => r.id === id)!;
const words = (key: (typeof HABIT_KEYS)[number], facts: Partial<Facts> = {}): string => {
  const h = HABIT[key];
  return say([h.begin.says, h.begin.act, h.doing.title, ...h.doing.steps({ ...NO_FACTS, ...facts }), h.doing.done].join(" "), "metric");
};

describe("how stuff is handled", () => {
  it("has a way for every rubber and every casting material there is", () => {
    for (const c of casts) expect(HABIT[habitOfCast(c)].label.length).toBeGreaterThan(2);
    expect([true, false].map((laidOn) => habitOfRubber(rubber("rubber-platinum-brush-30"), laidOn))).toEqual(["brushed", "poured"]);
    expect(habitOfRubber(rubber("rubber-platinum-putty-40"), true)).toBe("putty");
    expect([habitOfCast(cast("cast-fast-urethane")), habitOfCast(cast("cast-slow-epoxy"))]).toEqual(["resinFast", "resinSlow"]);
    expect([true, false].map(habitOfJacket)).toEqual(["jacketResin", "jacketPlaster"]);
  });

  it("asks for points that exist, at least two, and for what goes inside only where something does", () => {
    for (const key of HABIT_KEYS) {
      const asked = HABIT[key].hold(NO_FACTS);
      expect(asked.length).toBeGreaterThanOrEqual(2);
      expect(HOLD_KEYS).toEqual(expect.arrayContaining([...asked]));
      expect(asked).not.toContain("inside");
    }
    expect(HABIT.gypsum.hold({ ...NO_FACTS, inserts: true })).toContain("inside");
    expect(HABIT.brushed.hold({ ...NO_FACTS, first: false })).toContain("tacky");
    expect(HABIT.brushed.hold(NO_FACTS)).toContain("release");
  });

  it("metal: by the thermometer, in one go, the head kept full, what is over back to the pot; nothing of stirring, second containers or bubbles", () => {
    const said = words("metal", { pourC: { low: 270, high: 280 } });
    expect(said).toMatch(/270 °C to 280 °C by the thermometer/);
    expect(said).toMatch(/one go.*head kept full.*back to the pot/i);
    expect(said).not.toMatch(/stir|second container|bubble|tap/i);
    expect(HABIT.metal.hold(NO_FACTS)).toEqual(["dry", "clamped", "enough", "shield"]);
  });

  it("a coat: into every detail, thin; never the lowest corner, never 'in the mould'", () => {
    const said = words("brushed", { goesOn: true, tinted: true });
    expect(said).toMatch(/every detail/);
    expect(said).toMatch(/next coat goes on when this one is tacky/);
    expect(said).not.toMatch(/lowest corner|in the mould/);
  });

  it("poured rubber: to the top of the part, vacuum, then the rest, with its heights", () => {
    const facts = { topMm: 90, fillLineMm: 102 };
    expect(words("poured", { ...facts, degas: true })).toMatch(/to 90 mm, the top of the piece, then vacuum, then top up to 102 mm/);
    expect(words("poured", facts)).toMatch(/high and thin in the lowest corner/);
    expect(words("poured", facts)).toMatch(/Cover it while it cures/);
  });

  it("fast resin is stirred for half a minute, wax is topped up, chocolate never shares its mould", () => {
    expect(HABIT.resinFast.stirMin).toBeLessThanOrEqual(0.5);
    expect(words("resinFast")).toMatch(/in one go/);
    expect(words("wax", { pourC: { low: 70, high: 75 } })).toMatch(/topped up once a skin has formed/);
    expect(words("food")).toMatch(/never meets anything but food/);
  });
});
