import { heatKey, heatStudy, type HeatStudy } from "../heat";
import { catalogueOf } from "../material";
import { fitMatrix, meeting, NEEDS, standardHeat, wantsHeat, type Need } from "./matrix";

const catalogue = catalogueOf();
const studied = (): Map<string, HeatStudy> => {
  const studies = new Map<string, HeatStudy>();
  for (const r of catalogue.rubbers.slice(-2))
    for (const c of catalogue.casts) if (wantsHeat(r, c)) studies.set(heatKey(standardHeat(r, c)), heatStudy(standardHeat(r, c)));
  return studies;
};

describe("the matrix of rubbers and casts", () => {
  const bare = fitMatrix(catalogue, new Map());

  it("has a cell for every pair, each judged by what touches", () => {
    expect(bare.map((r) => r.cells.length)).toEqual(catalogue.casts.map(() => catalogue.rubbers.length));
    for (const cell of bare.flatMap((r) => r.cells)) {
      expect(cell.link.contact).toBe("rubber-cast");
      expect(cell.link.findings.length).toBeGreaterThan(0);
    }
  });

  it("asks for heat only where data sheets do not settle it, and then has nothing pending", () => {
    const pending = (m: typeof bare) => m.flatMap((r) => r.cells).filter((c) => c.link.findings.some((f) => f.ruleId === "heat-pending"));
    for (const c of pending(bare)) expect(wantsHeat(c.rubber, c.cast)).toBe(true);
    expect(pending(bare).length).toBeGreaterThan(0);
    const last = new Set(catalogue.rubbers.slice(-2).map((r) => r.id));
    expect(pending(fitMatrix(catalogue, studied())).filter((c) => last.has(c.rubber.id))).toEqual([]);
  });

  it("refuses silver, bronze and aluminium in every rubber, and offers the way round", () => {
    for (const id of ["cast-silver", "cast-bronze", "cast-aluminium"]) {
      const row = bare.find((r) => r.cast.id === id)!;
      for (const c of row.cells) {
        expect(c.link.verdict).toBe("no");
        expect(c.link.findings.map((f) => f.remedy).join(" ")).toMatch(/invest the wax/);
      }
    }
  });

  it("lets food only into what is declared for it", () => {
    for (const r of bare.filter((x) => x.cast.family === "food")) for (const c of r.cells) expect(c.link.verdict === "no").toBe(!c.rubber.foodDeclared);
  });

  it("narrows the rubbers to those that meet every need", () => {
    for (const need of Object.keys(NEEDS) as Need[]) {
      const some = meeting(catalogue.rubbers, [need]);
      expect(some.length).toBeGreaterThan(0);
      expect(some.length).toBeLessThan(catalogue.rubbers.length);
    }
    expect(meeting(catalogue.rubbers, ["soft", "firm"])).toEqual([]);
    expect(meeting(catalogue.rubbers, [])).toHaveLength(catalogue.rubbers.length);
  });
});
