import { BUILT_IN, doubtsAbout, isBuiltIn, Material, pick, catalogueOf, type Range, type Rubber } from ".";

const ranges = (value: unknown): Range[] => {
  if (value === null || typeof value !== "object") return [];
  if ("low" in value && "typical" in value && "high" in value) return [value as Range];
  return Object.values(value).flatMap(ranges);
};

describe("the built-in library", () => {
  it("parses whole through its own schema and has no two entries alike", () => {
    for (const m of BUILT_IN) expect(Material.parse(m)).toEqual(m);
    expect(new Set(BUILT_IN.map((m) => m.id)).size).toBe(BUILT_IN.length);
    expect(new Set(BUILT_IN.map((m) => m.name)).size).toBe(BUILT_IN.length);
  });

  it("covers at least what a first workshop needs", () => {
    const catalogue = catalogueOf();
    expect(catalogue.rubbers.length).toBeGreaterThanOrEqual(10);
    expect(catalogue.casts.length).toBeGreaterThanOrEqual(16);
    expect(catalogue.surfaces.length).toBeGreaterThanOrEqual(12);
    expect(catalogue.releases.some((r) => r.role === "sealer")).toBe(true);
    expect(catalogue.boxes.some((b) => b.bends)).toBe(true);
  });

  it("gives every figure as a range, tells people to check, and doubts none of its own entries", () => {
    for (const m of BUILT_IN) {
      expect(m.provenance).toMatch(/check your data sheet/);
      expect(doubtsAbout(m)).toEqual([]);
      for (const r of ranges(m)) expect(r.low <= r.typical && r.typical <= r.high).toBe(true);
    }
    for (const m of BUILT_IN) if (m.kind === "rubber" || m.kind === "cast") expect(m.cautions.length).toBeGreaterThan(0);
  });

  it("puts a workshop's own entries first and finds entries by id", () => {
    const own = { ...catalogueOf().rubbers[0]!, id: "own-1", name: "Our soft" };
    expect(catalogueOf([own]).rubbers[0]?.id).toBe("own-1");
    expect(pick(catalogueOf([own]).rubbers, "own-1")?.name).toBe("Our soft");
    expect(pick(catalogueOf().rubbers, "nothing")).toBeNull();
    expect(isBuiltIn("own-1")).toBe(false);
    expect(isBuiltIn("cast-beeswax")).toBe(true);
  });
});

describe("doubts about figures", () => {
  const rubber = catalogueOf().rubbers[0] as Rubber;
  it.each<[string, Partial<Rubber>, RegExp]>([
    ["density 11", { densityGMl: { low: 10, typical: 11, high: 12 } }, /11 g\/mL is unusual/],
    ["900 °C silicone", { heatShortC: { low: 900, typical: 900, high: 900 } }, /900 °C is unusual/],
    ["pot life beyond cure", { potLifeMin: { low: 400, typical: 400, high: 400 }, cureH: { low: 1, typical: 1, high: 1 } }, /wrong unit/],
    ["limits swapped", { heatShortC: { low: 150, typical: 150, high: 150 } }, /swapped/],
    ["food-declared tin", { family: "tin", foodDeclared: true }, /only for some platinum/],
  ])("are raised for %s", (_, patch, message) => {
    expect(
      doubtsAbout({ ...rubber, ...patch })
        .map((d) => d.message)
        .join(" "),
    ).toMatch(message);
  });

  it("are raised for a cast far from its family", () => {
    const wax = catalogueOf().casts.find((c) => c.id === "cast-beeswax")!;
    expect(doubtsAbout({ ...wax, densityGMl: { low: 9, typical: 9.6, high: 10 } })[0]?.message).toMatch(/unusual for wax/);
  });

  it("rejects ranges out of order and impossible values with words", () => {
    const bad = Material.safeParse({ ...rubber, densityGMl: { low: 2, typical: 1, high: 3 }, name: " " });
    expect(bad.success).toBe(false);
    expect(JSON.stringify(bad.error?.issues)).toMatch(/in that order/);
    expect(JSON.stringify(bad.error?.issues)).toMatch(/give it a name/);
  });
});
