import fc from "fast-check";
import { catalogueOf } from "../material";
import { LAYER_KEYS, LAYER_WAYS, layerDefault, type Layer } from "../mould";
import { dossierOf, jobDocument, newJob, type Job } from "../record";
import { plan } from "./plan";

const catalogue = catalogueOf();
const base = newJob("Comet planter");
const piece = (shape: Job["master"]["shape"], sizes: Job["master"]["sizes"], patch: Partial<Job>): Job => ({
  ...base,
  master: { ...base.master, shape, sizes, surfaceId: "surface-glazed" },
  rubberId: "rubber-platinum-medium-25",
  cast: { ...base.cast, marginPct: 0 },
  ...patch,
});
const layer = (patch: Partial<Layer>): Layer => ({ ...layerDefault, ...patch });
const inside = (layers: Layer[], more: Partial<Job["inside"]> = {}): Job["inside"] => ({ ...base.inside, layers, ...more });
const planned = (job: Job) => plan(dossierOf(job, catalogue));
const dome = (patch: Partial<Job>) => piece("dome", { lengthMm: 150, widthMm: 150, heightMm: 75 }, { castId: "cast-plaster", ...patch });
const codes = (job: Job) => planned(job).remarks.map((r) => r.code);
/** Half a ball less the half ball inside it, mL. */
const halfShell = (r: number, t: number) => ((2 / 3) * Math.PI * (r ** 3 - (r - t) ** 3)) / 1000;

describe("a casting in layers", () => {
  it("five rolled coats take the shell of their thickness between them, each a little less than the one before", () => {
    const p = planned(dome({ inside: inside([layer({ way: "rolled", thicknessMm: 2, coats: 5 })]) }));
    expect(p.layers).toHaveLength(5);
    p.layers.forEach((l, i) => expect(l.staysMl / (halfShell(75 - 2 * i, 2) || 1)).toBeCloseTo(1, 1));
    expect(p.castMl! / halfShell(75, 10)).toBeCloseTo(1, 2);
    // What is mixed for a coat is what stays and three tenths more; the rest is left over.
    expect(p.layers[0]!.batch.mixG / p.layers[0]!.staysG).toBeCloseTo(1.3, 9);
    expect(p.layers[0]!.backG / p.layers[0]!.staysG).toBeCloseTo(0.3, 9);
    expect(p.weights!.castWetG).toBeCloseTo(
      p.layers.reduce((s, l) => s + l.staysG, 0),
      6,
    );
  });

  it("wax poured back: the pot is full of liquid, the wall stays as solid, the rest comes back, and the mould is lifted full", () => {
    const p = planned(
      dome({
        castId: "cast-foundry-wax",
        mould: { ...base.mould, opening: "twoPart" },
        inside: inside([layer({ way: "back", thicknessMm: 5 })], { mouthMm: 30 }),
      }),
    );
    const wax = catalogue.casts.find((c) => c.id === "cast-foundry-wax")!;
    const [l] = p.layers;
    const liquid = wax.mix.kind === "melt" ? wax.mix.liquidDensityGMl.typical : 0;
    expect(l!.batch.mixG).toBeCloseTo(p.body!.volumeMl * liquid, 4);
    expect(l!.staysG).toBeCloseTo(l!.staysMl * wax.densityGMl.typical, 6);
    expect(l!.backG).toBeCloseTo(l!.batch.mixG - l!.staysG, 6);
    expect(l!.serves).toBeNull();
    expect(p.weights!.filledG - p.weights!.rubberG).toBeCloseTo(l!.batch.mixG, 4);
    expect(p.weights!.castWetG).toBeCloseTo(l!.staysG, 6);
  });

  it("an insert takes the place of what fills the hollow after it, and of nothing that only lines the face", () => {
    const rod = { kind: "rod" as const, diameterMm: 20, lengthMm: 50, count: 2, upright: true, fromMm: 5, asideMm: 0 };
    const rodsMl = (2 * Math.PI * 100 * 50) / 1000;
    const two = [layer({ way: "rolled", thicknessMm: 5 }), layer({ way: "poured" })];
    const p = (afterCoat: number | null) => planned(dome({ inside: inside(two, { inserts: [{ ...rod, afterCoat }] }) }));
    const bare = planned(dome({ inside: inside(two) }));
    for (const after of [null, 1]) {
      expect(p(after).layers[0]!.staysMl).toBe(bare.layers[0]!.staysMl);
      expect(bare.layers[1]!.staysMl - p(after).layers[1]!.staysMl).toBeCloseTo(rodsMl, 9);
    }
    const shell = [layer({ way: "rolled", thicknessMm: 5 })];
    expect(planned(dome({ inside: inside(shell, { inserts: [{ ...rod, afterCoat: 1 }] }) })).castMl).toBe(planned(dome({ inside: inside(shell) })).castMl);
  });

  it("a wax wall of 5 mm is open long before the lump of the same outside, and by the same clock everywhere", () => {
    const shell = planned(dome({ castId: "cast-foundry-wax", inside: inside([layer({ way: "back", thicknessMm: 5 })]) }));
    const lump = planned(dome({ castId: "cast-foundry-wax" }));
    expect(shell.castCure!.demould.hours.typical).toBeLessThan(lump.castCure!.demould.hours.typical / 3);
    expect(shell.tally.castOutH).toBe(shell.castCure!.demould.hours.typical);
  });

  it("plaster in a shell of half an inch dries as half an inch does, not as the lump", () => {
    const dry = (t: number) => planned(dome({ inside: inside([layer({ thicknessMm: t })]) })).castCure!.finished!.hours.typical;
    // Five days for 25 mm, by the square, at 21 °C against 20.
    expect(dry(12.7) / 24).toBeGreaterThan(5 * (12.7 / 25) ** 2 * 0.9);
    expect(dry(12.7) / 24).toBeLessThan(5 * (12.7 / 25) ** 2 * 1.05);
    expect(dry(10) / dry(5)).toBeCloseTo(4, 6);
    // Closed all round, only the outside is free: as a wall twice as thick.
    const closed = planned(dome({ inside: inside([layer({ thicknessMm: 5 })], { mouth: "closed" }) })).castCure!.finished!.hours.typical;
    expect(closed / dry(5)).toBeCloseTo(4, 6);
  });

  it("little water dries sooner: at 35 to 100 there is half of what 70 to 100 leaves", () => {
    const tile = (castId: string) => planned(piece("box", { lengthMm: 200, widthMm: 200, heightMm: 25 }, { castId })).castCure!.finished!.hours.typical;
    // (0.35 − 0.186)/(1/2.65 + 0.35) over (0.70 − 0.186)/(1/2.65 + 0.70), g of free water for each mL.
    expect(tile("cast-hard-gypsum") / tile("cast-plaster")).toBeCloseTo(0.164 / (1 / 2.65 + 0.35) / (0.514 / (1 / 2.65 + 0.7)), 2);
  });

  it("a face coat and a backing of another mix are two layers with their own parts, and fibre where it is said", () => {
    const panel = piece(
      "box",
      { lengthMm: 400, widthMm: 300, heightMm: 20 },
      {
        castId: "cast-gfrc-face",
        inside: inside([layer({ way: "sprayed", thicknessMm: 4, fibrePct: 0 }), layer({ way: "laid", thicknessMm: 8, castId: "cast-gfrc-back", fibrePct: 4 })]),
      },
    );
    const p = planned(panel);
    expect(p.layers.map((l) => l.cast.id)).toEqual(["cast-gfrc-face", "cast-gfrc-back"]);
    const shell = (t: number) => (400 * 300 * 20 - (400 - 2 * t) * (300 - 2 * t) * (20 - t)) / 1000;
    expect(p.layers[0]!.staysMl).toBeCloseTo(shell(4), 6);
    expect(p.layers[1]!.staysMl).toBeCloseTo(shell(12) - shell(4), 6);
    const fibre = p.layers[1]!.batch.parts.find((x) => x.role === "fibre")!;
    expect(fibre.massG / p.layers[1]!.batch.mixG).toBeCloseTo(0.04, 9);
    expect(p.layers[0]!.batch.parts.some((x) => x.role === "fibre")).toBe(false);
    expect(p.layers[0]!.next!.hours.typical).toBeGreaterThan(0);
    expect(p.layers[1]!.next).toBeNull();
    expect(p.castBatch!.parts.some((x) => x.name.startsWith("Dry mix, "))).toBe(true);
  });

  it("an edge with one coat more covers only its share, and a frame goes in after the second coat", () => {
    const rod = { kind: "rod" as const, diameterMm: 6, lengthMm: 60, count: 1, upright: false, fromMm: 10, asideMm: 0, afterCoat: 2 };
    const p = planned(
      dome({ inside: inside([layer({ thicknessMm: 3, coats: 3 }), layer({ way: "brushed", thicknessMm: 3, areaPct: 20 })], { inserts: [rod] }) }),
    );
    expect(p.layers[3]!.staysMl / p.layers[2]!.staysMl).toBeLessThan(0.2);
    expect(p.layers.map((l) => l.inserts.length)).toEqual([0, 1, 0, 0]);
  });

  it("a skull of which only water and outer sizes are known takes about what a ball of its water does, and says how it is reckoned", () => {
    const job = piece(
      "displaced",
      { volumeMl: (4 / 3) * Math.PI * 125, readingMl: 5, lengthMm: 100, widthMm: 100, heightMm: 100 },
      {
        castId: "cast-plaster",
        mould: { ...base.mould, opening: "twoPart" },
        inside: inside([layer({ thicknessMm: 8 })], { mouthMm: 50 }),
      },
    );
    const ball = ((4 / 3) * Math.PI * (50 ** 3 - 42 ** 3)) / 1000;
    expect(planned(job).castMl! / ball).toBeGreaterThan(0.95);
    expect(planned(job).castMl! / ball).toBeLessThan(1.05);
    expect(codes(job)).toContain("shell-by-outer-sizes");
    expect(codes(job)).not.toContain("inserts-fill-it");
  });

  it("a weighed figure and a panel in relief have shells too", () => {
    const figure = piece(
      "weighed",
      { massG: 400, densityGMl: 0.6, lengthMm: 120, widthMm: 80, heightMm: 160 },
      {
        castId: "cast-plaster",
        inside: inside([layer({ thicknessMm: 5 })], { mouthMm: 60 }),
      },
    );
    expect(planned(figure).castMl!).toBeGreaterThan(100);
    const panel = piece(
      "plaque",
      { lengthMm: 500, widthMm: 300, heightMm: 10, reliefMm: 20, coveragePct: 50 },
      {
        castId: "cast-plaster",
        inside: inside([layer({ way: "laid", thicknessMm: 6, coats: 2 })]),
      },
    );
    // A slab of 20 mm in the mean, 12 mm of it on every face but the back.
    expect(planned(panel).castMl!).toBeCloseTo((500 * 300 * 20 - 476 * 276 * 8) / 1000, 6);
  });

  it("over random layers: pot is never less than stays, thicker never less, hollow never heavier than solid", () => {
    const some = fc.array(
      fc.record({ way: fc.constantFrom(...LAYER_KEYS), thicknessMm: fc.double({ min: 0.5, max: 30, noNaN: true }), coats: fc.integer({ min: 1, max: 3 }) }),
      { minLength: 1, maxLength: 4 },
    );
    const shapes = fc.constantFrom<[Job["master"]["shape"], Job["master"]["sizes"]]>(
      ["dome", { lengthMm: 180, widthMm: 120, heightMm: 70 }],
      ["box", { lengthMm: 150, widthMm: 90, heightMm: 60 }],
      ["displaced", { volumeMl: 500, readingMl: 5, lengthMm: 130, widthMm: 90, heightMm: 90 }],
      ["frustum", { bottomMm: 120, topMm: 60, heightMm: 140 }],
    );
    fc.assert(
      fc.property(shapes, some, fc.constantFrom("cast-plaster", "cast-beeswax", "cast-gfrc-back"), ([shape, sizes], ls, castId) => {
        const at = (list: typeof ls) => planned(piece(shape, sizes, { castId, inside: inside(list.map(layer)) }));
        const p = at(ls);
        const lump = planned(piece(shape, sizes, { castId }));
        for (const l of p.layers) expect(l.batch.mixG).toBeGreaterThanOrEqual(l.staysG - 1e-6);
        expect(p.castBatch!.wetG).toBeLessThanOrEqual(lump.castBatch!.wetG + 1e-3);
        expect(p.weights!.filledG).toBeGreaterThanOrEqual(p.weights!.mouldG + p.castBatch!.wetG - 1e-3);
        const thicker = at(ls.map((l) => ({ ...l, thicknessMm: l.thicknessMm * 1.1 })));
        // Inner outlines are summed over 120 heights.
        expect(thicker.castMl!).toBeGreaterThanOrEqual(p.castMl! * (1 - 2e-3));
      }),
      { numRuns: 150 },
    );
  });

  it("the face of another material is what meets the rubber: its heat and its contacts are judged, not those of the backing", () => {
    const job = piece(
      "box",
      { lengthMm: 200, widthMm: 150, heightMm: 20 },
      {
        castId: "cast-plaster",
        inside: inside([layer({ way: "poured", thicknessMm: 5, castId: "cast-pewter" }), layer({ way: "poured" })]),
      },
    );
    const p = planned(job);
    expect(p.chain.links.find((l) => l.contact === "rubber-cast")!.between[1]).toBe("Lead-free pewter");
    expect(p.heat[0]!.question.cast.family).toBe("metal");
  });

  it("wax and plaster in one casting: what melts is counted once, what sets each time; it leaves the mould as each of them does", () => {
    const job = dome({
      castId: "cast-foundry-wax",
      inside: inside([layer({ way: "back", thicknessMm: 3, coats: 2 }), layer({ castId: "cast-plaster", thicknessMm: 5, coats: 2 })]),
    });
    const { layers, castBatch } = planned(job);
    const wax = layers.filter((l) => l.serves === null);
    const most = Math.max(wax[0]!.batch.mixG, wax[0]!.staysG + wax[1]!.batch.mixG);
    const plaster = layers.filter((l) => l.serves !== null).reduce((s, l) => s + l.batch.mixG, 0);
    expect(castBatch!.mixG).toBeCloseTo(most + plaster, 6);
    expect(castBatch!.parts.reduce((s, x) => s + x.massG, 0)).toBeCloseTo(castBatch!.mixG, 6);
    expect(castBatch!.demouldedG.low).toBeCloseTo(
      layers.reduce((s, l) => s + l.demouldedG.low, 0),
      9,
    );
    expect(castBatch!.demouldedG.low).toBeGreaterThan(castBatch!.dryG.typical);
  });

  it("layers that leave no room say so, and a material that is gone", () => {
    expect(codes(dome({ inside: inside([layer({ way: "poured" }), layer({ thicknessMm: 4 })]) }))).toContain("no-room-left");
    expect(codes(dome({ inside: inside([layer({ castId: "cast-nobody", thicknessMm: 4 })]) }))).toContain("material-gone");
  });

  it("a job of format 2 with a hollow casting is read as its layers", () => {
    const { inserts, cutsMm, generations, thenCastId } = base.inside;
    const was = { inserts, cutsMm, generations, thenCastId };
    const old = {
      ...base,
      format: 2,
      cast: { ...base.cast, waterPer100: 65, pigmentPct: 2 },
      inside: { ...was, hollow: { way: "tip", shellMm: 9, coats: 3, mouthMm: 25 } },
    };
    const read = jobDocument.parse(old);
    expect(read.inside.layers).toEqual([{ ...layerDefault, way: "back", thicknessMm: 3, coats: 3, waterPer100: 65, pigmentPct: 2 }]);
    expect(read.inside.mouthMm).toBe(25);
    expect(jobDocument.parse({ ...old, inside: { ...old.inside, hollow: null } }).inside.layers).toEqual([]);
    // Putty that was pressed in a brush's coats keeps them as its own.
    const pressed = { ...old, mould: { ...base.mould, opening: "putty", skin: { ...base.mould.skin, coatMm: 6, coats: 3 } } };
    expect(jobDocument.parse(pressed).mould.putty).toMatchObject({ layerMm: 6, layers: 3 });
  });

  it("every way says what mouth it wants", () => {
    for (const k of LAYER_KEYS) expect(LAYER_WAYS[k].mouthMm).toBeGreaterThan(0);
  });
});
