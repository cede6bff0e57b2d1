import { unzipSync, strFromU8 } from "fflate";
import { newJob } from "../core/record";
import { growOver, type Body } from "../core/body";
import { ell, star, towers } from "../core/body/fixtures/polygons";
import { measureMaster, type ShapeKind, type Sizes } from "../core/master";
import { layOutMould, makeDefault, type Make, type MouldDecision } from "../core/mould";
import { stlOf, threeMfOf } from "./meshfiles";
import { printedBox, printedJacket, printedFormers, printedKeys, type Print } from "./solids";

const measure = (shape: ShapeKind, sizes: Sizes, profile: { zMm: number; radiusMm: number }[] = []): Body => {
  const m = measureMaster({ shape, sizes, profile, readingMm: 0.5 });
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body;
};
const decide = (patch: Partial<MouldDecision> = {}): MouldDecision => ({ ...newJob("x").mould, ...patch });
async function box(m: Body, patch: Partial<MouldDecision> = {}, make: Partial<Make> = {}): Promise<Print> {
  const laid = layOutMould(m, decide(patch), null);
  if (!laid.ok || laid.layout.kind !== "block") throw new Error("not a block");
  return printedBox(laid.layout, m, decide(patch), { ...makeDefault, ...make });
}
async function jacket(m: Body, patch: Partial<MouldDecision> = {}, make: Partial<Make> = {}): Promise<Print> {
  const d = decide({ opening: "skin", ...patch });
  const laid = layOutMould(m, d, null, "epoxy-putty");
  if (!laid.ok || laid.layout.kind !== "skin") throw new Error("not a skin");
  return printedJacket(laid.layout, m, d, { ...makeDefault, ...make });
}

type Triangle = [[number, number, number], [number, number, number], [number, number, number]];
/** Triangles of a binary STL file. */
function readStl(bytes: Uint8Array): Triangle[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const n = view.getUint32(80, true);
  expect(bytes.length).toBe(84 + 50 * n);
  const corner = (at: number): [number, number, number] => [view.getFloat32(at, true), view.getFloat32(at + 4, true), view.getFloat32(at + 8, true)];
  return Array.from({ length: n }, (_, i): Triangle => {
    const at = 84 + 50 * i + 12;
    return [corner(at), corner(at + 12), corner(at + 24)];
  });
}
/** Triangles of every object of a 3MF package, moved to where the build puts them. */
function read3mf(bytes: Uint8Array): { names: string[]; triangles: Triangle[] } {
  const files = unzipSync(bytes);
  expect(Object.keys(files).sort()).toEqual(["3D/3dmodel.model", "[Content_Types].xml", "_rels/.rels"]);
  const xml = strFromU8(files["3D/3dmodel.model"]!);
  expect(xml).toContain('unit="millimeter"');
  const moves = new Map([...xml.matchAll(/<item objectid="(\d+)" transform="1 0 0 0 1 0 0 0 1 ([-\d.e]+) 0 0"/g)].map((m) => [m[1]!, Number(m[2])]));
  const names: string[] = [];
  const triangles: Triangle[] = [];
  for (const [, id, name, body] of xml.matchAll(/<object id="(\d+)" type="model" name="([^"]*)">(.*?)<\/object>/gs)) {
    names.push(name!);
    const dx = moves.get(id!)!;
    const v = [...body!.matchAll(/<vertex x="([^"]+)" y="([^"]+)" z="([^"]+)"/g)].map((m): [number, number, number] => [
      Number(m[1]) + dx,
      Number(m[2]),
      Number(m[3]),
    ]);
    for (const m of body!.matchAll(/<triangle v1="(\d+)" v2="(\d+)" v3="(\d+)"/g)) triangles.push([v[Number(m[1])]!, v[Number(m[2])]!, v[Number(m[3])]!]);
  }
  return { names, triangles };
}
/** Volume inside closed triangles, mL, by the divergence theorem. */
const volumeOf = (all: Triangle[]): number =>
  all.reduce((s, [a, b, c]) => s + (a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0])) / 6, 0) /
  1000;
/** Edges that are not shared by two triangles running opposite ways: none in a watertight solid. */
function openEdges(all: Triangle[]): number {
  const edges = new Map<string, number>();
  const key = (p: readonly number[]) => p.map((v) => v.toFixed(4)).join(",");
  for (const t of all) {
    const [a, b, c] = t.map(key) as [string, string, string];
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      if (p === q) continue;
      const back = `${q}|${p}`;
      if ((edges.get(back) ?? 0) > 0) edges.set(back, edges.get(back)! - 1);
      else edges.set(`${p}|${q}`, (edges.get(`${p}|${q}`) ?? 0) + 1);
    }
  }
  return [...edges.values()].reduce((s, n) => s + n, 0);
}
const within = (value: number, expected: number, share: number) => expect(Math.abs(value / expected - 1)).toBeLessThan(share);

const tray = measure("box", { lengthMm: 100, widthMm: 60, heightMm: 40 });

describe("printed boxes, read back from their files", () => {
  it("are watertight in both formats and hold the volume that is stated", async () => {
    const print = await box(tray);
    const stl = readStl(stlOf(print));
    const mf = read3mf(threeMfOf(print));
    expect(openEdges(stl)).toBe(0);
    expect(openEdges(mf.triangles)).toBe(0);
    within(volumeOf(stl), print.volumeMl, 0.001);
    within(volumeOf(mf.triangles), print.volumeMl, 0.001);
    expect(mf.names).toEqual(["Box 1 of 2", "Box 2 of 2"]);
  });

  it("are walls, foot, two pairs of flanges, less their bolt holes, by hand", async () => {
    const make = { printWallMm: 3, printFlangeMm: 16, boltMm: 4 };
    const print = await box(tray, {}, make);
    // Inside 124 × 84, walls 3 mm and 60 high; tf = 4.5.
    const ring = (g: number) => (124 + 2 * g) * (84 + 2 * g) - 124 * 84;
    const walls = ring(3) * 60;
    const foot = (ring(19) - ring(3)) * 9;
    const flanges = 2 * (9 * 16 * (60 - 9));
    const holes = print.holes * Math.PI * 2.2 ** 2 * 9;
    expect(print.holes).toBe(4);
    within(print.volumeMl, (walls + foot + flanges - holes) / 1000, 0.01);
  });

  it("every part fits the bed, however small it is", async () => {
    const tall = measure("box", { lengthMm: 260, widthMm: 150, heightMm: 200 });
    for (const bed of [
      { bedXMm: 220, bedYMm: 220, bedZMm: 220 },
      { bedXMm: 120, bedYMm: 140, bedZMm: 90 },
    ]) {
      const print = await box(tall, { wallMm: 15 }, bed);
      for (const p of print.parts) {
        expect(p.sizeMm[0]).toBeLessThanOrEqual(bed.bedXMm + 1e-6);
        expect(p.sizeMm[1]).toBeLessThanOrEqual(bed.bedYMm + 1e-6);
        expect(p.sizeMm[2]).toBeLessThanOrEqual(bed.bedZMm + 1e-6);
      }
      expect(openEdges(readStl(stlOf(print)))).toBe(0);
    }
  });

  it.each([["cylindrical"], ["oval"], ["outline"]] as const)("come out right for a %s wrap too", async (shape) => {
    const print = await box(measure("dome", { lengthMm: 120, widthMm: 90, heightMm: 50 }), { box: shape });
    expect(print.parts).toHaveLength(2);
    expect(openEdges(readStl(stlOf(print)))).toBe(0);
    within(volumeOf(readStl(stlOf(print))), print.volumeMl, 0.001);
  });
});

describe("printed jackets", () => {
  const bust = measure(
    "turned",
    {},
    [
      [0, 60],
      [40, 62],
      [80, 35],
      [120, 50],
      [160, 40],
      [180, 15],
    ].map(([zMm, radiusMm]) => ({ zMm: zMm!, radiusMm: radiusMm! })),
  );

  it("are the shell between two layers, in as many parts as pull away", async () => {
    const print = await jacket(bust);
    expect(print.parts).toHaveLength(2);
    const stl = readStl(stlOf(print));
    expect(openEdges(stl)).toBe(0);
    within(volumeOf(stl), print.volumeMl, 0.001);
    const shell = growOver(bust, 5.6 + makeDefault.printWallMm).addedMl - growOver(bust, 5.6).addedMl;
    expect(print.volumeMl).toBeGreaterThan(shell);
    expect(print.volumeMl).toBeLessThan(4 * shell);
  });

  it("without a cut are that shell and the foot round it", async () => {
    const drum = measure("cylinder", { diameterMm: 80, heightMm: 60 });
    const print = await jacket(drum);
    expect(print.parts).toHaveLength(1);
    const shell = growOver(drum, 5.6 + 2.4).addedMl - growOver(drum, 5.6).addedMl;
    const foot = (Math.PI * ((48 + 16) ** 2 - 48 ** 2) * 7.2) / 1000;
    within(print.volumeMl, shell + foot, 0.02);
  });
});

describe("keys and sprue formers", () => {
  it("are half balls on a disc, a cone with its sprue on it, and a rod for each vent", async () => {
    const keys = await printedKeys(3, 6);
    within(keys.volumeMl, (3 * ((2 / 3) * Math.PI * 216 + Math.PI * 36 * 1.2)) / 1000, 0.02);
    expect(openEdges(readStl(stlOf(keys)))).toBe(0);
    const ways = await printedFormers([
      { name: "Funnel", count: 1, acrossMm: 10, topMm: 20, lengthMm: 30 },
      { name: "Sprue", count: 1, acrossMm: 10, topMm: 10, lengthMm: 15 },
      { name: "Vent", count: 2, acrossMm: 3, topMm: 3, lengthMm: 40 },
    ]);
    expect(ways.parts.map((p) => p.name)).toEqual(["Sprue former", "Vent 1 of 2", "Vent 2 of 2"]);
    within(ways.parts[0]!.volumeMl, ((Math.PI * 30 * (100 + 25 + 50)) / 3 + Math.PI * 25 * 15) / 1000, 0.01);
    within(ways.parts[1]!.volumeMl, (Math.PI * 2.25 * 40) / 1000, 0.01);
    expect(openEdges(readStl(stlOf(ways)))).toBe(0);
  });
});

describe("bodies of any outline", () => {
  it.each([
    ["a star", star()],
    ["an L", ell()],
    ["two towers", towers()],
  ])("%s gets a box that follows it and a jacket round its skin, closed and in parts that fit the bed", async (_, body) => {
    const wrapped = await box(body, { box: "outline", wallMm: 12 });
    const round = await jacket(body);
    for (const print of [wrapped, round]) {
      expect(print.parts.length).toBeGreaterThan(0);
      for (const p of print.parts) {
        expect(p.volumeMl).toBeGreaterThan(0);
        expect(Math.max(...p.sizeMm)).toBeLessThanOrEqual(makeDefault.bedXMm + 0.01);
      }
    }
    // Wall by wall: the printed wall stands 12 mm outside the body's convex outline, as high as the box.
    const laid = layOutMould(body, decide({ box: "outline", wallMm: 12 }), null);
    if (!laid.ok || laid.layout.kind !== "block") throw new Error("not a block");
    const ring = laid.layout.box.perimeterMm * makeDefault.printWallMm + Math.PI * makeDefault.printWallMm ** 2;
    expect(wrapped.volumeMl).toBeGreaterThan(((ring * laid.layout.wallHeightMm) / 1000) * 0.97);
  });
});
