import { measureModel, ModelFault, modelOf } from "../core/mesh";
import { block, ring } from "../core/mesh/fixtures/solids";
import { binaryPly, binaryStl, hostileFiles, modelXml, obj, package3mf, textPly, textStl } from "./fixtures/files";
import { readModel } from "./model";
import { glanceAtStl } from "./readers/stl";

const piece = ring(40, 12, 40, 20);
const want = measureModel(modelOf({ ...piece, unitMm: 1, format: "STL" }), { quick: true });

describe("a file of a model", () => {
  it.each([
    ["STL", binaryStl(piece)],
    ["STL", textStl(piece)],
    ["OBJ", obj(piece)],
    ["PLY", textPly(piece)],
    ["PLY", binaryPly(piece, true)],
    ["PLY", binaryPly(piece, false)],
    ["3MF", package3mf(modelXml(piece))],
  ])("is read as %s", (format, bytes) => {
    const soup = readModel(bytes);
    expect(soup.format).toBe(format);
    const model = modelOf(soup);
    expect(model).toMatchObject({ throughHoles: 1, shells: 1, repairs: [], warnings: [] });
    const m = measureModel(model, { quick: true });
    expect(m.volumeMm3 / want.volumeMm3).toBeCloseTo(1, 5);
    expect(m.areaMm2 / want.areaMm2).toBeCloseTo(1, 5);
  });

  it("may begin a binary STL with the word solid", () => {
    const bytes = binaryStl(piece);
    bytes.set([..."solid by some program"].map((c) => c.charCodeAt(0)));
    expect(measureModel(modelOf(readModel(bytes)), { quick: true }).volumeMm3 / want.volumeMm3).toBeCloseTo(1, 5);
  });

  it("says its unit where it can, and is asked for where it cannot", () => {
    expect(readModel(binaryStl(piece)).unitMm).toBeNull();
    const inches = readModel(package3mf(modelXml(block(1, 2, 3), { unit: "inch" })));
    expect(measureModel(modelOf(inches), { quick: true }).volumeMm3).toBeCloseTo(6 * 25.4 ** 3, 3);
    expect(measureModel(modelOf(readModel(binaryStl(block(1, 2, 3))), 10), { quick: true }).volumeMm3).toBeCloseTo(6000, 6);
  });

  it("shows its first measures in one look, before it is made whole", () => {
    const glance = glanceAtStl(binaryStl(piece))!;
    expect(glance.volumeMm3 / want.volumeMm3).toBeCloseTo(1, 5);
    expect(glance.areaMm2 / want.areaMm2).toBeCloseTo(1, 5);
    glance.low.forEach((v, k) => expect(v).toBeCloseTo(want.boundsMm.low[k]!, 4));
    glance.centroidMm.forEach((v, k) => expect(v).toBeCloseTo(want.centroidMm[k]!, 3));
    expect(glanceAtStl(textStl(piece))).toBeNull();
  });

  it("may place its parts turned, moved and twice over", () => {
    const twice = package3mf(modelXml(block(1, 2, 3), { build: '<item objectid="1"/><item objectid="1" transform="0 1 0 -1 0 0 0 0 1 50 0 0"/>' }));
    const m = modelOf(readModel(twice));
    expect(m.shells).toBe(2);
    expect(measureModel(m, { quick: true })).toMatchObject({ volumeMm3: expect.closeTo(12, 9), boundsMm: { low: [0, 0, 0], high: [50, 2, 3] } });
  });

  it("cuts faces of many corners, and counts points from the end where they are negative", () => {
    const square = (z: number) => `v 0 0 ${z}\nv 1 0 ${z}\nv 1 1 ${z}\nv 0 1 ${z}\n`;
    const text = `${square(0)}${square(1)}f 4 3 2 1\nf -4 -3 -2 -1\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\n`;
    expect(measureModel(modelOf(readModel(new TextEncoder().encode(text))), { quick: true }).volumeMm3).toBeCloseTo(1, 12);
  });

  const hostile = hostileFiles(ring(40, 12, 12, 8));
  it("is one of sixty that nobody should trust", () => expect(hostile).toHaveLength(60));
  it.each(hostile.map((f) => [f.name, f.bytes] as const))("is measured or refused with a reason: %s", (_, bytes) => {
    try {
      const m = measureModel(modelOf(readModel(bytes)));
      expect(m.volumeMm3).toBeGreaterThan(0);
      expect(Number.isFinite(m.doubtMm3)).toBe(true);
    } catch (e) {
      expect(e).toBeInstanceOf(ModelFault);
      expect((e as Error).message.length).toBeGreaterThan(20);
    }
  });
});
