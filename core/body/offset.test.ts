import fc from "fast-check";
import { exposedArea, growOver, hollowOut, seamLength, steepShare, type Body } from ".";
import { measureMaster, type ShapeKind, type Sizes } from "../master";

const measure = (shape: ShapeKind, sizes: Sizes, profile: { zMm: number; radiusMm: number }[] = []): Body => {
  const m = measureMaster({ shape, sizes, profile, readingMm: 0.5 });
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body;
};
const mL = (mm3: number) => mm3 / 1000;
const close = (value: number, expected: number, share: number) => expect(Math.abs(value / expected - 1)).toBeLessThan(share);

describe("a layer over a master standing on the board", () => {
  it("box: faces, quarter-round edges, eighths of a ball at the corners [Steiner]", () => {
    fc.assert(
      fc.property(
        fc.record({
          l: fc.integer({ min: 20, max: 300 }),
          w: fc.integer({ min: 20, max: 300 }),
          h: fc.integer({ min: 10, max: 300 }),
          t: fc.integer({ min: 1, max: 30 }),
        }),
        ({ l, w, h, t }) => {
          const expected = mL((l * w + 2 * (l + w) * h) * t + (Math.PI / 4) * t * t * 2 * (l + w) + Math.PI * t * t * h + (2 / 3) * Math.PI * t ** 3);
          return Math.abs(growOver(measure("box", { lengthMm: l, widthMm: w, heightMm: h }), t).addedMl / expected - 1) < 0.002;
        },
      ),
      { numRuns: 60 },
    );
  });

  it("cylinder and half a ball, in closed form", () => {
    const t = 8;
    const wall = Math.PI * (58 ** 2 - 50 ** 2) * 60;
    const rim = 2 * Math.PI * (50 + (4 * t) / (3 * Math.PI)) * ((Math.PI / 4) * t * t);
    close(growOver(measure("cylinder", { diameterMm: 100, heightMm: 60 }), t).addedMl, mL(wall + rim + Math.PI * 2500 * t), 0.001);
    close(growOver(measure("dome", { lengthMm: 100, widthMm: 100, heightMm: 50 }), t).addedMl, mL((2 / 3) * Math.PI * (58 ** 3 - 50 ** 3)), 0.001);
  });

  it("a long oval dome agrees with its own points counted, within 3 %", () => {
    const [a, b, c, t] = [60, 30, 40, 8];
    let inside = 0;
    const s = 1;
    for (let x = s / 2; x < a + t; x += s)
      for (let y = s / 2; y < b + t; y += s)
        for (let z = s / 2; z < c + t; z += s) {
          if ((x / a) ** 2 + (y / b) ** 2 + (z / c) ** 2 <= 1) continue;
          // The nearest point of an ellipsoid, by Newton's method on its multiplier.
          let k = 0;
          for (let i = 0; i < 40; i++) {
            const [X, Y, Z] = [(a * x) / (a * a + k), (b * y) / (b * b + k), (c * z) / (c * c + k)];
            k -= (X * X + Y * Y + Z * Z - 1) / (-2 * ((X * X) / (a * a + k) + (Y * Y) / (b * b + k) + (Z * Z) / (c * c + k)));
          }
          if (Math.hypot(x - (a * a * x) / (a * a + k), y - (b * b * y) / (b * b + k), z - (c * c * z) / (c * c + k)) <= t) inside++;
        }
    close(growOver(measure("dome", { lengthMm: 2 * a, widthMm: 2 * b, heightMm: c }), t).addedMl, mL(4 * inside * s ** 3), 0.03);
  });

  it.each([
    [200, 100, 50, 6],
    [300, 100, 25, 10],
    [400, 80, 40, 10],
  ])("a long oval dome of %s × %s × %s under %s mm is A·t + ∫H·t² + ∫K·t³/3 over its surface, within half a percent", (L, W, c, t) => {
    const [a, b, n] = [L / 2, W / 2, 300];
    let v = 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        const [th, ph] = [((i + 0.5) / n) * (Math.PI / 2), ((j + 0.5) / n) * (Math.PI / 2)];
        const [s, sx, sy] = [Math.sin(th), Math.sin(th) * Math.cos(ph), Math.sin(th) * Math.sin(ph)];
        const [x, y, z] = [a * sx, b * sy, c * Math.cos(th)];
        const dA = s * Math.hypot(b * c * sx, a * c * sy, a * b * Math.cos(th)) * (Math.PI / 2 / n) ** 2;
        const q = (x * x) / a ** 4 + (y * y) / b ** 4 + (z * z) / c ** 4;
        // Gaussian and mean curvature of an ellipsoid [differential geometry of quadrics].
        const K = 1 / ((a * b * c) ** 2 * q ** 2);
        const H = Math.abs(x * x + y * y + z * z - a * a - b * b - c * c) / (2 * (a * b * c) ** 2 * q ** 1.5);
        v += dA * (t + H * t * t + (K * t ** 3) / 3);
      }
    close(growOver(measure("dome", { lengthMm: L, widthMm: W, heightMm: c }), t).addedMl, mL(4 * v), 0.005);
  });

  it("a turned waist agrees with rings counted on a fine grid", () => {
    const profile = [
      [0, 40],
      [30, 22],
      [60, 22],
      [90, 45],
      [100, 45],
    ].map(([zMm, radiusMm]) => ({ zMm: zMm!, radiusMm: radiusMm! }));
    const t = 6;
    const seg = (r: number, z: number, p: (typeof profile)[number], q: (typeof profile)[number]) => {
      const [dr, dz] = [q.radiusMm - p.radiusMm, q.zMm - p.zMm];
      const u = Math.min(1, Math.max(0, ((r - p.radiusMm) * dr + (z - p.zMm) * dz) / (dr * dr + dz * dz)));
      return Math.hypot(r - p.radiusMm - u * dr, z - p.zMm - u * dz);
    };
    const radiusAt = (z: number) => {
      const i = profile.findIndex((p, k) => k > 0 && p.zMm >= z);
      const [p, q] = [profile[i - 1]!, profile[i]!];
      return p.radiusMm + ((q.radiusMm - p.radiusMm) * (z - p.zMm)) / (q.zMm - p.zMm);
    };
    let sum = 0;
    const s = 0.25;
    for (let z = s / 2; z < 100 + t; z += s)
      for (let r = s / 2; r < 45 + t; r += s) {
        if (z < 100 && r < radiusAt(z)) continue;
        const side = Math.min(...profile.slice(1).map((q, i) => seg(r, z, profile[i]!, q)));
        const cap = r <= 45 ? Math.abs(z - 100) : Infinity;
        if (Math.min(side, z > 100 ? cap : Infinity) <= t) sum += 2 * Math.PI * r * s * s;
      }
    close(growOver(measure("turned", {}, profile), t).addedMl, mL(sum), 0.01);
  });

  it("grows with its thickness, and by its area when thin", () => {
    const m = measure("frustum", { bottomMm: 90, topMm: 50, heightMm: 70 });
    close(growOver(m, 0.2).addedMl, mL(exposedArea(m) * 0.2), 0.01);
    const volumes = [1, 2, 4, 8].map((t) => growOver(m, t).addedMl);
    expect(volumes).toEqual([...volumes].sort((a, b) => a - b));
  });

  it("lines a hollow on its walls and floor", () => {
    const m = measure("vessel", { bottomMm: 80, topMm: 80, heightMm: 90, wallMm: 10, floorMm: 10 });
    close(growOver(m, 5).liningMl, mL(Math.PI * (30 ** 2 * 80 - 25 ** 2 * 75)), 0.02);
  });
});

describe("a hollow casting", () => {
  it("keeps its wall on sides and top: box, cylinder, half a ball", () => {
    close(hollowOut(measure("box", { lengthMm: 100, widthMm: 60, heightMm: 30 }), 10, "back").hollowMl, 64, 1e-6);
    close(hollowOut(measure("cylinder", { diameterMm: 100, heightMm: 60 }), 10, "back").hollowMl, mL(Math.PI * 1600 * 50), 1e-6);
    close(hollowOut(measure("dome", { lengthMm: 100, widthMm: 100, heightMm: 50 }), 10, "back").hollowMl, mL((2 / 3) * Math.PI * 40 ** 3), 0.001);
  });
  it("is solid when its wall meets itself", () => {
    const h = hollowOut(measure("cylinder", { diameterMm: 40, heightMm: 60 }), 25, "back");
    expect(h.hollowMl).toBe(0);
    expect(h.shellMl).toBeCloseTo(mL(Math.PI * 400 * 60), 9);
  });
});

describe("where a brushed coat runs", () => {
  it("is the walls of a cylinder and not its top, and the steeper part of a dome", () => {
    const cylinder = measure("cylinder", { diameterMm: 100, heightMm: 100 });
    expect(steepShare(cylinder)).toBeCloseTo(4 / 5, 6);
    expect(steepShare(measure("dome", { lengthMm: 100, widthMm: 100, heightMm: 50 }))).toBeCloseTo(Math.SQRT1_2, 2);
    expect(seamLength(cylinder)).toBeCloseTo(150, 6);
  });
});
