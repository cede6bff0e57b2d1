import { gauss, shapes, solveSpd } from "./ritz";

/** How an edge of a plate is kept: held against turning too, hinged, or not at all. */
export type Edge = "held" | "hinged" | "free";

/** A flat wall. Lengths mm, modulus MPa; its width runs level, its height upwards from the bottom edge. */
export interface Plate {
  widthMm: number;
  heightMm: number;
  thicknessMm: number;
  youngMPa: number;
  poisson: number;
  bottom: Edge;
  top: Edge;
  /** Both upright edges alike. */
  sides: Edge;
}

/** Pressure that falls in a straight line from the bottom to the surface of what presses, MPa. */
export interface Pressure {
  bottomMPa: number;
  /** At `toMm`; 0 for a liquid's surface. */
  topMPa: number;
  /** Height above the bottom edge up to which it presses, mm; and from which, 0 unless said: `bottomMPa` is the pressure there. */
  toMm: number;
  fromMm?: number;
}

export interface Bow {
  /** Greatest deflection, mm, and the height it lies at, mm above the bottom edge. */
  mostMm: number;
  atMm: number;
  /** Deflection up the middle at `PROFILE_STEPS` + 1 equal heights, mm. */
  profile: readonly number[];
}

export const PROFILE_STEPS = 24;
/** Shear correction of a plate of one material [Reissner, Mindlin]. */
export const SHEAR_FACTOR = 5 / 6;
/** Highest degree of the polynomials up the height and, mirrored, across the width. */
const ORDER = 24;
/**
 * Degrees that settle a plate so many times longer one way than the other to within 0.2 % (0.3 % past ten times): what its edges do
 * to it dies out within its shorter side, and the longer way has to follow that.
 */
const degreeFor = (ratio: number, least: number): number => (ratio < 1.8 ? least : ratio < 3.5 ? 11 : ratio < 8 ? 15 : 23);
/** Lengths of its height that a wall is at most taken for where an edge below or above holds it: longer, its middle feels no more of its sides. */
const LONGEST = 16;

/** Value and slope of one basis function at every quadrature point. */
interface Fn {
  n: Float64Array;
  d: Float64Array;
}

const POINTS = gauss(ORDER + 3);
const AT_POINTS = Array.from(POINTS.x, (xi) => shapes(ORDER, xi));
const column = (k: number): Fn => ({ n: Float64Array.from(AT_POINTS, (s) => s.n[k]!), d: Float64Array.from(AT_POINTS, (s) => s.d[k]!) });
const combine = (p: Fn, q: Fn, by: number): Fn => ({ n: p.n.map((v, i) => v + by * q.n[i]!), d: p.d.map((v, i) => v + by * q.d[i]!) });
const COLUMNS = Array.from({ length: ORDER + 1 }, (_, k) => column(k));
/** Across the width everything is mirrored: even functions, of which the first is 1, and odd ones, of which the first is ξ. */
const EVEN: readonly Fn[] = [combine(COLUMNS[0]!, COLUMNS[1]!, 1), ...COLUMNS.filter((_, k) => k >= 2 && k % 2 === 0)];
const ODD: readonly Fn[] = [combine(COLUMNS[1]!, COLUMNS[0]!, -1), ...COLUMNS.filter((_, k) => k >= 3 && k % 2 === 1)];

/** Integrals of products of two families of functions: ∫nn, ∫dd, and ∫n·d (first times the slope of the second). */
interface Products {
  nn: Float64Array;
  dd: Float64Array;
  nd: Float64Array;
  dn: Float64Array;
  columns: number;
}
const cache = new Map<string, Products>();
function products(name: string, p: readonly Fn[], q: readonly Fn[]): Products {
  const known = cache.get(name);
  if (known) return known;
  const size = p.length * q.length;
  const out: Products = { nn: new Float64Array(size), dd: new Float64Array(size), nd: new Float64Array(size), dn: new Float64Array(size), columns: q.length };
  p.forEach((f, i) =>
    q.forEach((g, j) => {
      const at = i * q.length + j;
      for (let k = 0; k < POINTS.x.length; k++) {
        const w = POINTS.w[k]!;
        out.nn[at]! += w * f.n[k]! * g.n[k]!;
        out.dd[at]! += w * f.d[k]! * g.d[k]!;
        out.nd[at]! += w * f.n[k]! * g.d[k]!;
        out.dn[at]! += w * f.d[k]! * g.n[k]!;
      }
    }),
  );
  cache.set(name, out);
  return out;
}

/** Which functions a field keeps up the height: an end function goes where an edge stops it. */
const upright = (degree: number, stopBottom: boolean, stopTop: boolean): number[] =>
  Array.from({ length: degree + 1 }, (_, k) => k).filter((k) => !(k === 0 && stopBottom) && !(k === 1 && stopTop));

interface Field {
  family: "even" | "odd";
  across: readonly number[];
  up: readonly number[];
  from: number;
}

/**
 * Deflection of a rectangular plate of any thickness under a linear pressure: Mindlin's plate (shear factor 5/6), solved by
 * Ritz's method over polynomials mirrored about the middle of the width. Small deflections. Checked against the published
 * coefficients of thin and thick plates in the tests.
 *
 * Throws RangeError for sizes that are not positive, or edges that leave the plate free to move.
 */
export function plateBow(p: Plate, q: Pressure): Bow {
  // Deflections go inversely with the modulus and in proportion to the pressure: one solve serves every fill and rubber.
  const unit = q.bottomMPa > 0 ? q.bottomMPa : 1;
  const key = [p.widthMm, p.heightMm, p.thicknessMm, p.poisson, p.bottom, p.top, p.sides, q.topMPa / unit, q.toMm, q.fromMm ?? 0].join(" ");
  let bow = solved.get(key);
  if (!bow) {
    bow = solvePlate({ ...p, youngMPa: 1 }, { ...q, bottomMPa: q.bottomMPa / unit, topMPa: q.topMPa / unit });
    if (solved.size >= MOST_SOLVED) solved.delete(solved.keys().next().value ?? "");
    solved.set(key, bow);
  }
  if (!(p.youngMPa > 0 && Number.isFinite(p.youngMPa)))
    throw new RangeError(`A plate's modulus of ${p.youngMPa} cannot be reckoned with: it has to be more than 0.`);
  const scale = unit / p.youngMPa;
  return { mostMm: bow.mostMm * scale, atMm: bow.atMm, profile: bow.profile.map((v) => v * scale) };
}

/** Plates solved lately; may be emptied at any time. */
const solved = new Map<string, Bow>();
const MOST_SOLVED = 2000;

function solvePlate(p: Plate, q: Pressure): Bow {
  const { heightMm: h, thicknessMm: t } = p;
  const a = p.bottom === "free" && p.top === "free" ? p.widthMm : Math.min(p.widthMm, LONGEST * h);
  for (const [name, v] of [
    ["width", a],
    ["height", h],
    ["thickness", t],
  ] as const) {
    if (!(v > 0 && Number.isFinite(v))) throw new RangeError(`A plate's ${name} of ${v} cannot be reckoned with: it has to be more than 0.`);
  }
  const nu = p.poisson;
  const D = (p.youngMPa * t ** 3) / (12 * (1 - nu * nu));
  const shear = (SHEAR_FACTOR * p.youngMPa * t) / (2 * (1 + nu));

  const stops = (e: Edge) => e !== "free";
  const wide = degreeFor(a / h, 7);
  const high = degreeFor(h / a, 8);
  // Even functions are of degrees 0, 2, 4 …, odd ones of 1, 3, 5 …
  const evens = EVEN.map((_, i) => i).filter((i) => 2 * i <= wide);
  const odds = ODD.map((_, i) => i).filter((i) => 2 * i + 1 <= wide);
  const across = {
    w: stops(p.sides) ? evens.slice(1) : evens,
    // Turning about the upright edge: stopped only when held.
    x: p.sides === "held" ? odds.slice(1) : odds,
    // Turning along the edge: stopped by a held and by a hinged edge alike.
    y: stops(p.sides) ? evens.slice(1) : evens,
  };
  const up = {
    w: upright(high, stops(p.bottom), stops(p.top)),
    x: upright(high, stops(p.bottom), stops(p.top)),
    y: upright(high, p.bottom === "held", p.top === "held"),
  };
  const w: Field = { family: "even", across: across.w, up: up.w, from: 0 };
  const bx: Field = { family: "odd", across: across.x, up: up.x, from: w.across.length * w.up.length };
  const by: Field = { family: "even", across: across.y, up: up.y, from: bx.from + bx.across.length * bx.up.length };
  const n = by.from + by.across.length * by.up.length;

  const sx = 2 / a;
  const sy = 2 / h;
  const area = (a * h) / 4;
  const K = new Float64Array(n * n);
  const Y = products("up", COLUMNS, COLUMNS);
  /** Adds c·∫∫ of (one product across)·(one product up) between two fields, lower half only. */
  const add = (f: Field, g: Field, c: number, px: "nn" | "dd" | "nd" | "dn", py: "nn" | "dd" | "nd" | "dn") => {
    const X = products(`${f.family} ${g.family}`, f.family === "even" ? EVEN : ODD, g.family === "even" ? EVEN : ODD);
    const mx = X[px];
    const my = Y[py];
    const scale = c * area * (px === "dd" ? sx * sx : px === "nn" ? 1 : sx) * (py === "dd" ? sy * sy : py === "nn" ? 1 : sy);
    const [fu, gu] = [f.up.length, g.up.length];
    f.across.forEach((i, fi) => {
      g.across.forEach((j, gi) => {
        const v = scale * mx[i * X.columns + j]!;
        if (v === 0) return;
        for (let k = 0; k < fu; k++) {
          const row = (f.from + fi * fu + k) * n + g.from + gi * gu;
          const y = f.up[k]! * Y.columns;
          for (let l = 0; l < gu; l++) K[row + l]! += v * my[y + g.up[l]!]!;
        }
      });
    });
  };
  const twist = (D * (1 - nu)) / 2;
  add(w, w, shear, "dd", "nn");
  add(w, w, shear, "nn", "dd");
  add(bx, w, -shear, "nd", "nn");
  add(bx, bx, D, "dd", "nn");
  add(bx, bx, twist, "nn", "dd");
  add(bx, bx, shear, "nn", "nn");
  add(by, w, -shear, "nn", "nd");
  add(by, bx, D * nu, "nd", "dn");
  add(by, bx, twist, "dn", "nd");
  add(by, by, D, "nn", "dd");
  add(by, by, twist, "dd", "nn");
  add(by, by, shear, "nn", "nn");

  // The load is integrated over the wetted height only, so a fill line below the rim is exact.
  const dry = Math.min(1, Math.max(0, (q.fromMm ?? 0) / h));
  const wet = Math.min(1, Math.max(dry, q.toMm / h)) - dry;
  const deep = q.toMm - (q.fromMm ?? 0);
  const load = new Float64Array(n);
  const lift = new Float64Array(ORDER + 1);
  for (let k = 0; k < POINTS.x.length; k++) {
    const s = (POINTS.x[k]! + 1) / 2;
    const pressure = q.bottomMPa + (q.topMPa - q.bottomMPa) * (deep > 0 ? (s * wet * h) / deep : 0);
    const f = shapes(ORDER, 2 * (dry + s * wet) - 1);
    for (let j = 0; j <= ORDER; j++) lift[j]! += POINTS.w[k]! * (wet * h) * 0.5 * pressure * f.n[j]!;
  }
  w.across.forEach((i, fi) => {
    let sum = 0;
    for (let k = 0; k < POINTS.x.length; k++) sum += POINTS.w[k]! * EVEN[i]!.n[k]!;
    w.up.forEach((j, k) => (load[fi * w.up.length + k] = (sum / sx) * lift[j]!));
  });

  const found = solveSpd(K, load);
  const middle = evens.map((i) => evenAtMiddle(i));
  const profile: number[] = [];
  for (let s = 0; s <= PROFILE_STEPS; s++) {
    const f = shapes(ORDER, (2 * s) / PROFILE_STEPS - 1);
    let v = 0;
    w.across.forEach((i, fi) => w.up.forEach((j, k) => (v += found[fi * w.up.length + k]! * middle[i]! * f.n[j]!)));
    profile.push(v);
  }
  const most = profile.reduce((m, v, i) => (v > profile[m]! ? i : m), 0);
  return { mostMm: profile[most]!, atMm: (most / PROFILE_STEPS) * h, profile };
}

const MIDDLE = shapes(ORDER, 0);
const evenAtMiddle = (i: number): number => (i === 0 ? MIDDLE.n[0]! + MIDDLE.n[1]! : MIDDLE.n[2 * i]!);
