import { BUILT_IN, Material } from "@/core/material";
import { fieldsOf, rangeAt, valueAt, withDraft, withValue } from "./fields";

describe("the fields of a material", () => {
  it("exist in every built-in entry, and each is of the kind it says", () => {
    for (const m of BUILT_IN) {
      for (const f of fieldsOf(m)) {
        const v = valueAt(m, f.path);
        const where = `${m.id} ${f.path}`;
        if (f.kind === "range") expect([where, rangeAt(m, f.path)]).toEqual([where, expect.objectContaining({ typical: expect.any(Number) })]);
        else expect([where, typeof v]).toEqual([where, { number: "number", flag: "boolean", choice: "string", text: "string" }[f.kind]]);
        if (f.kind === "choice") expect(f.options).toContain(v);
      }
    }
  });

  it("reach every number and flag the schema holds, but for what is fixed by the kind", () => {
    const leaves = (v: unknown, path = ""): string[] =>
      typeof v === "number" || typeof v === "boolean"
        ? [path]
        : typeof v === "object" && v !== null
          ? Object.entries(v).flatMap(([k, w]) => leaves(w, path ? `${path}.${k}` : k))
          : [];
    // What a recipe's parts displace, and how much of an extra is solid, follow from the named ingredient.
    const fixed = /^mix\.(per100|extras)\.\d+\.(densityGMl|solidsFraction)$/;
    for (const m of BUILT_IN) {
      const reached = fieldsOf(m).map((f) => f.path);
      expect(leaves(m).filter((l) => !fixed.test(l) && !reached.some((r) => l === r || l.startsWith(`${r}.`)))).toEqual([]);
    }
  });

  it("can be changed one at a time without touching the original", () => {
    const m = BUILT_IN.find((e) => e.id === "cast-polymer-gypsum")!;
    const changed = withValue(m, "mix.extras.0.per100Powder", 40);
    expect(Material.parse(changed)).toMatchObject({ mix: { extras: [{ per100Powder: 40 }, { per100Powder: 10 }] } });
    expect(valueAt(m, "mix.extras.0.per100Powder")).toBe(34);
    expect(rangeAt(m, "name")).toBeNull();
    expect(valueAt(m, "no.such.path")).toBeUndefined();
  });

  it("take up a draft as far as it fits, and nothing else of it", () => {
    const m = BUILT_IN.find((e) => e.id === "rubber-platinum-medium-25")!;
    const draft = {
      ...m,
      name: "Ours",
      densityGMl: { low: 9, typical: 2, high: 1 },
      shoreA: "soft",
      traits: ["tin", 4],
      kind: "cast",
      extra: 1,
    };
    expect(withDraft(m, draft)).toEqual({ ...m, name: "Ours", densityGMl: { low: 9, typical: 2, high: 1 } });
    expect(withDraft(m, null)).toEqual(m);
  });
});
