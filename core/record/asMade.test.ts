import { catalogueOf } from "../material";
import { dossierOf, madeOtherwise, newJob, type Job } from ".";

const catalogue = catalogueOf();
const base: Job = { ...newJob("x"), rubberId: "rubber-platinum-medium-25" };
const of = (job: Job, cat = catalogue) => dossierOf(job, cat);
const made = { rubber: of(base), jacket: null };

describe("a mould that exists beside what its job says now", () => {
  it("is the same as long as nothing of it is otherwise: neither what its rubber costs, nor how its boxes were held, is in it", () => {
    expect(madeOtherwise(of(base), made)).toEqual([]);
    const dearer = { ...catalogue, rubbers: catalogue.rubbers.map(({ pricePerKg: _, ...r }) => ({ pricePerKg: 99, ...r })) };
    expect(madeOtherwise(of(base, dearer), made)).toEqual([]);
    const stands = [{ part: "whole" as const, leanDeg: 15, towardsDeg: 0, backPct: 50, atMm: null }];
    expect(madeOtherwise(of({ ...base, mould: { ...base.mould, stands, onHead: true } }), made)).toEqual([]);
  });

  it("is told by what differs: walls, rubber, or the figures of that rubber", () => {
    expect(madeOtherwise(of({ ...base, mould: { ...base.mould, wallMm: 19 } }), made)).toEqual(["its walls, cuts or coats are others"]);
    expect(madeOtherwise(of({ ...base, rubberId: "rubber-platinum-firm-40" }), made)[0]).toMatch(/^it is of .*, and the job says/);
    const thicker = { ...catalogue, rubbers: catalogue.rubbers.map((r) => ({ ...r, shrinkPct: { low: 1, typical: 1, high: 1 } })) };
    expect(madeOtherwise(of(base, thicker), made)).toEqual(["the figures of its rubber were others"]);
  });
});
