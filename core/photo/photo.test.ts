import { ringArea, type Point } from "../body";
import { agreed, flatOutline, outlineOf, PhotoFault, planeOf, raised, silhouetted, type Scale, type View } from ".";
import { misses, paint, shapes, type Look } from "./fixtures/pictures";
import { lookAt, silhouetteOf } from "./fixtures/camera";

const [W, H] = [320, 240];
const all = shapes(W, H);
const even =
  (c: readonly [number, number, number], fall = 0.4) =>
  (x: number, y: number) =>
    c.map((v) => v * (1 - fall * ((x - W / 2) / W + (y - H / 2) / H))) as [number, number, number];
const looks: Record<string, Pick<Look, "piece" | "round" | "shadow" | "noise">> = {
  "plaster on wood": { piece: even([0.75, 0.73, 0.68]), round: even([0.35, 0.2, 0.1]), shadow: { light: 0.5, dx: 10, dy: 8, soft: 6 } },
  "grey on a white sheet": { piece: even([0.25, 0.26, 0.28], 0.7), round: even([0.8, 0.8, 0.78], 0.2), shadow: { light: 0.6, dx: 12, dy: 10, soft: 8 } },
  "red on grey": { piece: even([0.5, 0.12, 0.08]), round: even([0.4, 0.4, 0.42]), noise: 0.04 },
};
const bad: typeof looks = {
  "hard shadow": { piece: even([0.6, 0.58, 0.5]), round: even([0.7, 0.7, 0.7], 0.1), shadow: { light: 0.3, dx: 20, dy: 15, soft: 1 } },
  "little contrast": { piece: even([0.6, 0.58, 0.55], 0.3), round: even([0.7, 0.7, 0.68], 0.2), shadow: { light: 0.6, dx: 8, dy: 8, soft: 5 } },
  chequered: { piece: even([0.3, 0.35, 0.2]), round: (x, y) => ((Math.floor(x / 16) + Math.floor(y / 16)) % 2 ? [0.7, 0.7, 0.7] : [0.2, 0.15, 0.1]) },
};
const found = (look: Pick<Look, "piece" | "round" | "shadow" | "noise">, outline: Point[], holes: Point[][] = []) => {
  const p = paint({ width: W, height: H, outline, holes, tap: [W / 2 + 35, H / 2 + 6], ...look });
  return { ...outlineOf(p.picture, { tapPx: p.tap }), truth: p.truth };
};

describe("an outline from one tap", () => {
  it.each(Object.keys(looks))("is true on a clear picture: %s", (name) => {
    for (const outline of [name === "red on grey" ? all.star! : all.blob!]) {
      const f = found(looks[name]!, outline);
      const m = misses(f.rings[0]!, f.truth);
      expect(m.rmsPx).toBeLessThan(1.5);
      expect(Math.abs(m.area)).toBeLessThan(0.01);
    }
  });
  it("is close on half of the bad pictures and more", () => {
    const near = Object.values(bad).filter((look) => {
      const f = found(look, all.blob!);
      return misses(f.rings[0]!, f.truth).rmsPx < 4;
    });
    expect(near.length).toBeGreaterThanOrEqual(2);
  });
  it("keeps holes", () => {
    const hole = all.oval!.map(([x, y]): Point => [W / 2 + 0.3 * (x - W / 2), H / 2 + 0.3 * (y - H / 2)]).reverse();
    const f = found(looks["plaster on wood"]!, all.oval!, [hole]);
    expect(f.rings).toHaveLength(2);
    expect(Math.abs(ringArea(f.rings[1]!)) / Math.abs(ringArea(hole))).toBeCloseTo(1, 1);
  });
  it("takes back what was brushed away and adds what was brushed", () => {
    const two = all.block!;
    const p = paint({ width: W, height: H, outline: two, tap: [W / 2, H / 2], ...looks["red on grey"]! });
    const right = { at: [W / 2 + 60, H / 2] as Point, radiusPx: 8 };
    const less = outlineOf(p.picture, {
      tapPx: p.tap,
      removePx: Array.from({ length: 12 }, (_, i) => ({ at: [W / 2 + 45, H / 2 - 60 + 11 * i] as Point, radiusPx: 7 })),
    });
    expect(Math.abs(ringArea(less.rings[0]!))).toBeLessThan(0.97 * Math.abs(ringArea(two)));
    const more = outlineOf(p.picture, { tapPx: p.tap, addPx: [right] });
    expect(misses(more.rings[0]!, two).rmsPx).toBeLessThan(1.5);
  });
  it("is refused where there is nothing to find, with the place", () => {
    const p = paint({ width: W, height: H, outline: all.oval!, tap: [1, 1], ...looks["red on grey"]! });
    expect(() => outlineOf(p.picture, { tapPx: [W + 4, 10] })).toThrow(/324, 10/);
    expect(() => outlineOf({ width: 8, height: 8, rgba: new Uint8Array(256) }, { tapPx: [4, 4] })).toThrow(PhotoFault);
  });
});

describe("a scale", () => {
  it("by two points is the distance over the points between", () => {
    const plane = planeOf(
      {
        pointsPx: [
          [100, 100],
          [400, 500],
        ],
        distanceMm: 250,
      },
      [800, 600],
    );
    expect(plane.toMm([10, 0])[0]).toBeCloseTo(5, 12);
  });
  it("by a sheet takes out a slant, and tells where the camera stood", () => {
    const camera = lookAt({ from: [150, -400, 900], at: [100, 140, 0], focalPx: 1400, sizePx: [1600, 1200] });
    const [w, h] = [210, 297];
    const corners: [number, number][] = [
      [0, h],
      [w, h],
      [w, 0],
      [0, 0],
    ];
    const scale: Scale = { sheetPx: corners.map(([x, y]) => camera([x, y, 0])) as [Point, Point, Point, Point], widthMm: w, heightMm: h };
    const plane = planeOf(scale, [1600, 1200]);
    const got = plane.toMm(camera([63, 111, 0]));
    expect(got[0]).toBeCloseTo(63, 6);
    expect(got[1]).toBeCloseTo(h - 111, 6);
    expect(plane.camera!.distanceMm).toBeCloseTo(900, 3);
    expect(plane.camera!.foot[0]).toBeCloseTo(150, 3);
    expect(plane.camera!.foot[1]).toBeCloseTo(h + 400, 3);
    // A tile 12 mm thick seen so shows its edge: its upper face is drawn back over its foot.
    const tile: Point[] = [
      [20, 20],
      [190, 20],
      [190, 270],
      [20, 270],
    ];
    const seen = silhouetteOf(
      camera,
      tile.flatMap(([x, y]) => [[x, y, 0] as const, [x, y, 12] as const]),
    );
    const dense = seen.flatMap((p, i): Point[] => {
      const q = seen[(i + 1) % seen.length]!;
      return Array.from({ length: 40 }, (_, k): Point => [p[0] + ((q[0] - p[0]) * k) / 40, p[1] + ((q[1] - p[1]) * k) / 40]);
    });
    const plain = Math.abs(ringArea(flatOutline([dense], plane)[0]!));
    const drawnBack = Math.abs(ringArea(flatOutline([dense], plane, 12)[0]!));
    expect(plain / (170 * 250)).toBeGreaterThan(1.03);
    expect(drawnBack / (170 * 250)).toBeCloseTo(1, 2);
  });
  it("is refused where it cannot be", () => {
    expect(() =>
      planeOf(
        {
          pointsPx: [
            [5, 5],
            [5, 5],
          ],
          distanceMm: 100,
        },
        [10, 10],
      ),
    ).toThrow(PhotoFault);
    expect(() =>
      planeOf(
        {
          sheetPx: [
            [0, 0],
            [0, 10],
            [10, 10],
            [10, 0],
          ],
          widthMm: 1,
          heightMm: 1,
        },
        [10, 10],
      ),
    ).toThrow(/clockwise/);
  });
});

/** Views of a body given by its half-sizes against height, seen from a distance, lens at mid-height, scaled in its middle plane. */
function viewsOf(a: (z: number) => number, b: (z: number) => number, height: number, distance: number, square: boolean, tell: boolean): View[] {
  const points = Array.from({ length: 2401 }, (_, i) => (height * i) / 2400).flatMap((z) =>
    Array.from({ length: 48 }, (_, k): [number, number, number] => {
      const t = (2 * Math.PI * k) / 48;
      const s = square ? 1 / Math.max(Math.abs(Math.cos(t)), Math.abs(Math.sin(t))) : 1;
      return [a(z) * s * Math.cos(t), b(z) * s * Math.sin(t), z];
    }),
  );
  return (["front", "side"] as const).map((view): View => {
    const from: [number, number, number] = view === "front" ? [0, -distance, height / 2] : [distance, 0, height / 2];
    const camera = lookAt({ from, at: [0, 0, height / 2], focalPx: 3000, sizePx: [2400, 2400] });
    const rows = new Map<number, [number, number]>();
    for (const p of points) {
      const [x, y] = camera(p);
      const row = Math.round(y);
      const r = rows.get(row) ?? [x, x];
      rows.set(row, [Math.min(r[0], x), Math.max(r[1], x)]);
    }
    const sorted = [...rows].sort(([p], [q]) => p - q);
    const outline: Point[] = [...sorted.map(([y, r]): Point => [r[1], y]), ...sorted.reverse().map(([y, r]): Point => [r[0], y])];
    const ruler =
      view === "front"
        ? ([
            [0, 0, 0],
            [100, 0, 0],
          ] as const)
        : ([
            [0, 0, 0],
            [0, 100, 0],
          ] as const);
    return {
      view,
      outlinePx: [outline],
      scale: { pointsPx: [camera(ruler[0]), camera(ruler[1])], distanceMm: 100 },
      sizePx: [2400, 2400],
      cameraMm: tell ? distance : null,
    };
  });
}

describe("a body from silhouettes", () => {
  const jug = (z: number) => 45 + 18 * Math.sin((z / 180) * Math.PI * 1.6) * (1 - z / 400);
  const truth = (a: (z: number) => number, b: (z: number) => number, height: number, k: number) => {
    let v = 0;
    for (let i = 0; i < 4000; i++) v += k * a(((i + 0.5) * height) / 4000) * b(((i + 0.5) * height) / 4000) * (height / 4000);
    return v;
  };

  it("has the volume of a jug seen from two metres and from two feet, once the distance is told", () => {
    for (const distance of [2000, 600]) {
      const b = silhouetted(viewsOf(jug, jug, 180, distance, false, true));
      expect(b.volumeMm3 / truth(jug, jug, 180, Math.PI)).toBeGreaterThan(0.97);
      expect(b.volumeMm3 / truth(jug, jug, 180, Math.PI)).toBeLessThan(1.03);
    }
  });
  it("says more doubt where nobody told the distance, and the doubt is true", () => {
    const v = truth(jug, jug, 180, Math.PI);
    const untold = silhouetted(viewsOf(jug, jug, 180, 1200, false, false));
    const told = silhouetted(viewsOf(jug, jug, 180, 1200, false, true));
    expect(untold.errorMm3 / untold.volumeMm3).toBeGreaterThan(told.errorMm3 / told.volumeMm3);
    expect(Math.abs(untold.volumeMm3 - v)).toBeLessThan(2 * untold.errorMm3);
    expect(Math.abs(told.volumeMm3 - v)).toBeLessThan(2 * told.errorMm3);
    expect(untold.says.join(" ")).toMatch(/two metres/);
  });
  it("takes a block as square once somebody says so", () => {
    const views = viewsOf(
      () => 40,
      () => 25,
      120,
      1000,
      true,
      true,
    );
    const block = 80 * 50 * 120;
    expect(silhouetted(views, { squareness: 1 }).volumeMm3 / block).toBeCloseTo(1, 1);
    const unsaid = silhouetted(views);
    expect(Math.abs(unsaid.volumeMm3 - block)).toBeLessThan(3 * unsaid.errorMm3);
  });
  it("keeps two legs apart where both views show two, and doubts where one hides the other", () => {
    const ring = (spans: [number, number][]): Point[][] =>
      spans.map(([x0, x1]) => [
        [x0, 0],
        [x1, 0],
        [x1, 100],
        [x0, 100],
      ]);
    const scale: Scale = {
      pointsPx: [
        [0, 0],
        [100, 0],
      ],
      distanceMm: 100,
    };
    const view = (name: View["view"], spans: [number, number][]): View => ({ view: name, outlinePx: ring(spans), scale, sizePx: [200, 200], cameraMm: 5000 });
    const both = silhouetted([
      view("front", [
        [0, 20],
        [60, 80],
      ]),
      view("side", [
        [0, 30],
        [50, 80],
      ]),
    ]);
    expect(both.volumeMm3 / (2 * (Math.PI / 4) * 20 * 30 * 100)).toBeCloseTo(1, 1);
    const hidden = silhouetted([
      view("front", [
        [0, 20],
        [60, 80],
      ]),
      view("side", [[0, 30]]),
    ]);
    const limbs = (b: typeof both) => b.doubts.find((d) => d.what === "limbs")!.share;
    expect(limbs(hidden)).toBeGreaterThan(limbs(both));
  });
  it("from a plan stands straight up to its height", () => {
    const star = shapes(1000, 1000).star!;
    const b = silhouetted(
      [
        {
          view: "top",
          outlinePx: [star],
          scale: {
            pointsPx: [
              [0, 0],
              [1000, 0],
            ],
            distanceMm: 200,
          },
          sizePx: [1000, 1000],
          cameraMm: null,
        },
      ],
      { heightMm: 12 },
    );
    expect(b.volumeMm3).toBeCloseTo(Math.abs(ringArea(star)) * 0.04 * 12, 6);
    expect(() =>
      silhouetted([
        {
          view: "top",
          outlinePx: [star],
          scale: {
            pointsPx: [
              [0, 0],
              [1, 0],
            ],
            distanceMm: 1,
          },
          sizePx: [9, 9],
          cameraMm: null,
        },
      ]),
    ).toThrow(/how high/);
  });
  it("from a plan leans, domes and stands in relief as the closed forms say", () => {
    const square = (h: number): Point[] => [
      [-h, -h],
      [h, -h],
      [h, h],
      [-h, h],
    ];
    // A frustum of a pyramid: sides of 60 lean in 15° over 30.
    const side = 60 - 2 * 30 * Math.tan((15 * Math.PI) / 180);
    expect(raised([square(30)], { heightMm: 30, draftDeg: 15 }).volumeMm3 / ((30 / 3) * (3600 + side * side + 60 * side))).toBeCloseTo(1, 2);
    // A cushion over a square of half a: ∫ dome·(1 − (1 − d/a)²) over lines of length 8·(a − d) is half of dome × area.
    expect(raised([square(30)], { heightMm: 10, domeMm: 8 }).volumeMm3 / (3600 * (10 + 8 / 2))).toBeCloseTo(1, 2);
    const relief = raised([square(30)], { heightMm: 10, reliefMm: 4, reliefShare: 0.3 });
    expect(relief.volumeMm3).toBeCloseTo(3600 * (10 + 0.3 * 4), 6);
    expect(relief.outer.at(-1)!.zMm).toBe(14);
    // A side that leans to the middle ends in a ridge, and no higher.
    expect(raised([square(30)], { heightMm: 100, draftDeg: 45 }).outer.at(-1)!.zMm).toBeLessThan(30);
  });
  it("is pulled into agreement by a weight, with less doubt than either, and not where they disagree", () => {
    const a = agreed(1000, 100, 1080, 20)!;
    expect(a.volumeMm3).toBeGreaterThan(1060);
    expect(a.errorMm3).toBeLessThan(20);
    expect(agreed(1000, 50, 2000, 50)).toBeNull();
  });
});
