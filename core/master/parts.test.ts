import fc from "fast-check";
import { measureMaster, Part, volumeOfPart, type MasterForm } from ".";

const part = (p: Partial<Part> & Pick<Part, "form">): Part => Part.parse({ name: "part", joins: true, ...p });
const block: MasterForm = { shape: "box", sizes: { lengthMm: 80, widthMm: 60, heightMm: 40 }, profile: [], readingMm: 0.5 };
const ml = (form: MasterForm): number => {
  const m = measureMaster(form);
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body.volumeMl * 1000;
};
const gain = (parts: Part[], base = block) => ml({ ...base, parts }) - ml(base);
/** Relative to what it should be. */
const near = (got: number, want: number, share = 2e-3) => expect(Math.abs(got / want - 1)).toBeLessThan(share);

describe("parts of a piece", () => {
  it("take a bore out of a block, whichever way it runs", () => {
    const bore = { form: "rod", joins: false, diameterMm: 12 } as const;
    near(gain([part({ ...bore, lengthMm: 40 })]), -Math.PI * 36 * 40);
    near(gain([part({ ...bore, lengthMm: 200, lies: "across", zMm: 10 })]), -Math.PI * 36 * 80);
    near(gain([part({ ...bore, lengthMm: 200, lies: "deep", zMm: 10 })]), -Math.PI * 36 * 60);
  });

  it("count once what two rods share where they cross", () => {
    // Two round bars of one radius at right angles share 16·r³/3 [Steinmetz].
    const post: MasterForm = { shape: "cylinder", sizes: { diameterMm: 30, heightMm: 100 }, profile: [], readingMm: 0.5 };
    const crossing = part({ form: "rod", diameterMm: 30, lengthMm: 90, lies: "across", zMm: 35 });
    near(gain([crossing], post), Math.PI * 225 * 90 - (16 / 3) * 15 ** 3);
  });

  it("add half a ball that is half sunk, and a loop that stands clear", () => {
    near(gain([part({ form: "ball", lengthMm: 30, widthMm: 30, heightMm: 30, zMm: 25 })]), (2 / 3) * Math.PI * 15 ** 3);
    for (const lies of ["up", "across", "deep"] as const) {
      const loop = part({ form: "loop", diameterMm: 40, thickMm: 8, lies, zMm: 60 });
      near(gain([loop]), 2 * Math.PI ** 2 * 16 * 16, 5e-3);
    }
  });

  it("give a closed form of each part that its sections add up to", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("box" as const, "rod" as const, "ball" as const, "loop" as const),
        fc.constantFrom("up" as const, "across" as const, "deep" as const),
        fc.double({ min: 5, max: 60, noNaN: true }),
        fc.double({ min: 5, max: 60, noNaN: true }),
        fc.double({ min: 5, max: 60, noNaN: true }),
        (form, lies, a, b, c) => {
          const p = part({ form, lies, lengthMm: a, widthMm: b, heightMm: c, diameterMm: b, thickMm: b * 0.25, zMm: 50 });
          near(gain([p]), volumeOfPart(p), 6e-3);
        },
      ),
      { numRuns: 30 },
    );
  });

  it("leave the piece as it was once what was joined on is taken away again", () => {
    const foot = { form: "rod" as const, diameterMm: 10, lengthMm: 8, zMm: -8, xMm: 20 };
    const m = measureMaster({ ...block, parts: [part(foot), part({ ...foot, joins: false })] });
    if (!m.ok) throw new Error("it should measure");
    expect(m.body.volumeMl).toBeCloseTo(192, 6);
    expect(m.body.heightMm).toBe(40);
    expect(m.body.areaMm2).toBeCloseTo(2 * (80 * 60 + 80 * 40 + 60 * 40), 0);
  });

  it("stand it on its feet: what reaches below the back lifts the piece", () => {
    const feet = [-30, 30].map((xMm) => part({ form: "rod", diameterMm: 10, lengthMm: 8, zMm: -8, xMm }));
    const m = measureMaster({ ...block, parts: feet });
    if (!m.ok) throw new Error("it should measure");
    expect(m.body.heightMm).toBeCloseTo(48, 9);
    near(m.body.volumeMl * 1000, 192_000 + 2 * Math.PI * 25 * 8);
    // Between its feet there is nothing.
    const low = m.body.levels.find((l) => l.zMm > 1 && l.zMm < 7)!;
    expect(low.outline.kind === "polygon" && low.outline.rings).toHaveLength(2);
    // Each foot hides as much of the block's face as its own end shows: only its side comes to it.
    near(m.body.areaMm2, 2 * (80 * 60 + 80 * 40 + 60 * 40) + 2 * Math.PI * 10 * 8, 1e-2);
  });

  it("keep a vessel's hollow unless a joined part stands in it", () => {
    const vessel: MasterForm = { shape: "vessel", sizes: { bottomMm: 80, topMm: 90, heightMm: 70, wallMm: 8, floorMm: 10 }, profile: [], readingMm: 0.5 };
    const handle = part({ form: "loop", diameterMm: 40, thickMm: 9, lies: "deep", xMm: 55, zMm: 15 });
    const drained = part({ form: "rod", joins: false, diameterMm: 14, lengthMm: 10 });
    const held = measureMaster({ ...vessel, parts: [handle, drained] });
    if (!held.ok) throw new Error("it should measure");
    expect(held.body.hollow.length).toBeGreaterThan(0);
    near(ml({ ...vessel, parts: [drained] }) - ml(vessel), -Math.PI * 49 * 10);
    const pin = part({ form: "rod", diameterMm: 10, lengthMm: 60, zMm: 10 });
    const pinned = measureMaster({ ...vessel, parts: [pin] });
    if (!pinned.ok) throw new Error("it should measure");
    expect(pinned.body.hollow).toEqual([]);
    near(pinned.body.volumeMl * 1000 - ml(vessel), Math.PI * 25 * 60, 0.02);
  });

  it("say so where nothing is left, and are no trouble where they lie elsewhere", () => {
    expect(measureMaster({ ...block, parts: [part({ form: "box", joins: false, lengthMm: 200, widthMm: 200, heightMm: 200 })] })).toMatchObject({
      ok: false,
      problems: [{ path: "master.parts" }],
    });
    expect(gain([part({ form: "box", joins: false, zMm: 500 })])).toBeCloseTo(0, 9);
    // A part read from a file that is not there yet is left out.
    expect(gain([part({ form: "model" })])).toBe(0);
  });

  it("make the volume less sure by how well their sizes are read", () => {
    const plain = measureMaster(block);
    const more = measureMaster({ ...block, parts: [part({ form: "ball", lengthMm: 60, widthMm: 60, heightMm: 60, zMm: 30 })] });
    expect(plain.ok && more.ok && more.body.volumeErrorMl > plain.body.volumeErrorMl).toBe(true);
  });
});
