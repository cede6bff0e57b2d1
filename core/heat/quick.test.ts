import fc from "fast-check";
import { catalogueOf } from "../material";
import { everSets, heatQuestionFor, opensAt } from "./question";
import { quickOpenS } from "./quick";
import { heatStudy } from "./study";

const { casts, rubbers } = catalogueOf();
const freezing = casts.filter(
  (c) =>
    c.peakC.low < 400 &&
    opensAt(heatQuestionFor(c, rubbers[0]!, { dimensions: 1, coreMm: null, halfMm: 5, wallMm: 10, jacket: null, shopC: 20, pours: 1, everyMin: 60 })),
);
const some = fc
  .record({
    cast: fc.constantFrom(...freezing),
    rubber: fc.constantFrom(...rubbers),
    dimensions: fc.double({ min: 1, max: 3, noNaN: true }),
    coreMm: fc.option(fc.double({ min: 2, max: 20, noNaN: true })),
    halfMm: fc.double({ min: 2, max: 40, noNaN: true }),
    wallMm: fc.double({ min: 2, max: 35, noNaN: true }),
    shopC: fc.double({ min: 5, max: 30, noNaN: true }),
    openFace: fc.option(fc.double({ min: 0.1, max: 1, noNaN: true })),
    shared: fc.constantFrom(0, 0, 0.5),
  })
  .map(({ cast, rubber, openFace, ...rest }) => ({ cast, rubber, body: { ...rest, ...(openFace && rest.coreMm === null ? { openFace, dimensions: 1 } : {}) } }))
  .map(({ cast, rubber, body }) => ({
    // What has a core is a wall.
    q: heatQuestionFor(cast, rubber, { ...body, ...(body.coreMm === null ? {} : { dimensions: 1 }), jacket: null, pours: 1, everyMin: 600 }),
    metal: cast.family === "metal",
  }));

describe("the quick form", () => {
  it("is never sooner than the study's worse edge, an independent method, and for what takes long not three times as late", () => {
    fc.assert(
      fc.property(some, ({ q, metal }) => {
        const quick = quickOpenS(q);
        if (!everSets(q)) return void expect(quick).toBeNull();
        const { openS, unended } = heatStudy(q);
        if (!openS || unended) return;
        expect(quick!.low).toBeGreaterThanOrEqual(openS.high * 0.995);
        // What the air takes is left out, and late by that.
        if (!metal && q.coreMm === null && !q.openFace && openS.high > 1800) expect(quick!.low).toBeLessThan(openS.high * 3);
      }),
      { numRuns: 30, interruptAfterTimeLimit: 40_000 },
    );
  }, 300_000);

  it("grows with the casting and with the warmth of the shop, and with the wall where the rubber only holds it in; never in a step", () => {
    fc.assert(
      fc.property(some, ({ q, metal }) => {
        if (!everSets(q)) return;
        const of = (patch: object) => quickOpenS({ ...q, ...patch })?.typical ?? Infinity;
        expect(of({ halfMm: q.halfMm * 1.1 })).toBeGreaterThanOrEqual(of({}));
        expect(of({ shopC: q.shopC + 1 })).toBeGreaterThanOrEqual(of({}));
        expect(of({ halfMm: q.halfMm * 1.001 }) / of({})).toBeLessThan(1.05);
        if (q.dimensions < 1.01 && !metal) expect(of({ wallMm: q.wallMm * 1.1 })).toBeGreaterThanOrEqual(of({}));
      }),
    );
  });
});

describe("a heat study", () => {
  it("follows a thick casting until it is firm, however long that takes", () => {
    const wax = casts.find((c) => c.id === "cast-paraffin")!;
    const s = heatStudy(
      heatQuestionFor(wax, rubbers[0]!, { dimensions: 1, coreMm: null, halfMm: 35, wallMm: 27, jacket: null, shopC: 21, pours: 1, everyMin: 600 }),
    );
    expect(s.unended).toBe(false);
    expect(s.openS!.typical).toBeGreaterThan(10 * 3600);
  });

  it("that never sets says so, and is not followed for a fortnight", () => {
    const soap = casts.find((c) => c.id === "cast-soap")!;
    const q = heatQuestionFor(soap, rubbers[0]!, { dimensions: 1, coreMm: null, halfMm: 10, wallMm: 10, jacket: null, shopC: 44, pours: 1, everyMin: 60 });
    expect([everSets(q), heatStudy(q).openS, quickOpenS(q)]).toEqual([false, null, null]);
  });
});
