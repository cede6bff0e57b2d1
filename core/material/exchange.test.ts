import fc from "fast-check";
import { materialColumns, MaterialFile, materialRows, readMaterialRows, readMaterialsJson, writeMaterialsJson, type Row } from "./exchange";
import { BUILT_IN } from "./library";

/** Rows as a CSV reader hands them over: every column there, every cell text. */
const table = (rows: readonly Row[], columns: readonly string[]) =>
  readMaterialRows(rows.map((r, i) => ({ line: i + 2, cells: Object.fromEntries(columns.map((c) => [c, String(r[c] ?? "")])) })));
const written = (materials = BUILT_IN) => table(materialRows(materials), materialColumns(materials));

describe("materials in open formats", () => {
  it("come back from JSON exactly as they went", () => {
    const text = writeMaterialsJson(BUILT_IN);
    expect(MaterialFile.safeParse(JSON.parse(text)).success).toBe(true);
    const back = readMaterialsJson(text);
    expect(back.faults).toEqual([]);
    expect(back.good.map((g) => g.material)).toEqual(BUILT_IN);
  });

  it("come back from a table exactly as they went, one row each", () => {
    const back = written();
    expect(back.faults).toEqual([]);
    expect(back.good).toHaveLength(BUILT_IN.length);
    for (const [i, g] of back.good.entries()) {
      expect(g.line).toBe(i + 2);
      expect({ ...g.material }).toEqual({ ...BUILT_IN[i]! });
    }
  });

  it("name the line, the column and the value of each bad row, and keep the good ones", () => {
    const rows = materialRows(BUILT_IN.filter((m) => m.kind === "rubber").slice(0, 5));
    const [a, b, c, d, e] = rows;
    const columns = materialColumns(BUILT_IN.filter((m) => m.kind === "rubber"));
    const back = table([a!, { ...b!, "densityGMl.typical": "heavy" }, { ...c!, kind: "ruber" }, { ...d!, name: "" }, { ...e!, "shoreA.low": 90 }], columns);
    expect(back.good.map((g) => g.line)).toEqual([2]);
    expect(back.faults).toEqual(
      expect.arrayContaining([
        { line: 3, column: "densityGMl.typical", message: expect.stringMatching(/^"heavy": /) },
        { line: 4, column: "kind", message: expect.stringMatching(/"ruber" is not a kind of material/) },
        { line: 5, column: "name", message: expect.stringMatching(/is missing/) },
        { line: 6, column: "shoreA", message: expect.stringMatching(/low, typical and high have to be in that order/) },
      ]),
    );
  });

  it("read a decimal comma and yes or no, doubt the odd, and never throw", () => {
    const one = materialRows(BUILT_IN.filter((m) => m.id === "rubber-tin-medium-25"))[0]!;
    const back = readMaterialRows([
      { line: 2, cells: { ...Object.fromEntries(Object.entries(one).map(([k, v]) => [k, String(v)])), "densityGMl.typical": "1,1", foodDeclared: "yes" } },
    ]);
    expect(back.good[0]!.material).toMatchObject({ densityGMl: { typical: 1.1 }, foodDeclared: true });
    expect(back.good[0]!.doubts.map((x) => x.path)).toContain("foodDeclared");
    for (const text of ["", "{", "[]", '{"materials":3}', "[null, 4, {}]", '{"format":"other","materials":[{"kind":"rubber"}]}'])
      expect(() => readMaterialsJson(text)).not.toThrow();
    expect(readMaterialsJson("{").faults[0]!.message).toMatch(/This is not JSON/);
    expect(readMaterialsJson("[null]").faults[0]).toMatchObject({ line: 1, column: "kind" });
  });

  it.each(["__proto__.polluted", "constructor.prototype.polluted", "mix.__proto__.polluted", `${"a.".repeat(40)}b`])(
    "refuse a column that is no property: %s",
    (column) => {
      const back = readMaterialRows([{ line: 2, cells: { kind: "rubber", [column]: "1" } }]);
      expect(back.good).toEqual([]);
      expect(back.faults).toEqual([{ line: 1, column: column.slice(0, 60), message: expect.stringMatching(/[Tt]ake the column out/) }]);
      expect(({} as Record<string, unknown>).polluted).toBeUndefined();
    },
  );

  it("never throw and reach nothing outside themselves, whatever the columns are called", () => {
    const name = fc.oneof(fc.string(), fc.constantFrom("__proto__", "constructor", "prototype", "toString", "hasOwnProperty", "0", "mix", "densityGMl", ""));
    const column = fc.array(name, { minLength: 1, maxLength: 12 }).map((keys) => keys.join("."));
    const before = Object.getOwnPropertyNames(Object.prototype);
    fc.assert(
      fc.property(fc.array(fc.tuple(column, fc.string()), { maxLength: 12 }), fc.constantFrom("rubber", "cast", "box"), (cells, kind) => {
        const { good, faults } = readMaterialRows([{ line: 2, cells: { ...Object.fromEntries(cells), kind } }]);
        expect(good).toEqual([]);
        expect(faults.length).toBeGreaterThan(0);
        expect(readMaterialsJson(JSON.stringify([Object.fromEntries([...cells, ["kind", kind]])])).good).toEqual([]);
        expect(Object.getOwnPropertyNames(Object.prototype)).toEqual(before);
      }),
    );
  });
});
