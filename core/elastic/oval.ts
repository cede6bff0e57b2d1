import { gauss, shapes, solveSpd } from "./ritz";
import { PROFILE_STEPS, SHEAR_FACTOR, type Bow, type Pressure } from "./plate";

/** An upright wall of even thickness round an ellipse. Lengths mm, modulus MPa; held at its base. */
export interface OvalWall {
  /** Half of its inside, the longer way and the shorter. */
  aMm: number;
  bMm: number;
  heightMm: number;
  thicknessMm: number;
  youngMPa: number;
  poisson: number;
  top: "free" | "held";
}

/** Waves round the quarter that are followed: none round a ring, 5 settle an oval twice as long as wide to half a percent, 8 one of three times. */
const wavesFor = (slender: number): number => (slender < 1 + 1e-9 ? 0 : slender < 2.2 ? 5 : 8);
/** Degree up the wall. */
const DEGREE = 8;
const ROUND_POINTS = gauss(26);
const UP_POINTS = gauss(DEGREE + 3);

/** Fields of a shell that bends and shears: along the wall, round it, outwards, and the two turnings. Mirrored about both axes. */
type FieldName = "u" | "v" | "w" | "bs" | "bz";
const EVEN_FIELDS: readonly FieldName[] = ["u", "w", "bz"];

/** A part of a strain: a field, maybe differentiated round or up, times a function of where it is round the wall. */
interface Op {
  field: FieldName;
  round: 0 | 1;
  up: 0 | 1;
  by?: (kappa: number) => number;
}

interface At {
  ds: number;
  kappa: number;
  /** s as an angle that runs from 0 to π/2 over the quarter. */
  angle: number;
}

/** The middle surface of the wall over a quarter, from the end of the longer axis to that of the shorter: arc lengths and curvatures. */
function middleLine(a: number, b: number, t: number): { quarterMm: number; points: At[] } {
  const steps = 720;
  const speed = (th: number): { ds: number; kappa: number } => {
    const g = Math.hypot(a * Math.sin(th), b * Math.cos(th));
    const inner = (a * b) / g ** 3;
    // A parallel curve, half a wall outside.
    return { ds: g * (1 + (inner * t) / 2), kappa: inner / (1 + (inner * t) / 2) };
  };
  const s = [0];
  for (let i = 0; i < steps; i++) {
    const d = Math.PI / 2 / steps;
    const [p, q, r] = [speed(i * d), speed((i + 0.5) * d), speed((i + 1) * d)];
    s.push(s[i]! + ((p.ds + 4 * q.ds + r.ds) * d) / 6);
  }
  const quarterMm = s[steps]!;
  const points: At[] = [];
  for (let k = 0; k < ROUND_POINTS.x.length; k++) {
    const u = (ROUND_POINTS.x[k]! + 1) / 2;
    const target = u * quarterMm;
    let i = 1;
    while (i < steps && s[i]! < target) i++;
    const th = ((i - 1 + (target - s[i - 1]!) / (s[i]! - s[i - 1]!)) * Math.PI) / 2 / steps;
    points.push({ ds: (ROUND_POINTS.w[k]! / 2) * quarterMm, kappa: speed(th).kappa, angle: (u * Math.PI) / 2 });
  }
  return { quarterMm, points };
}

/**
 * How far an oval wall full of liquid bulges, in the middle of its longer side: a closed shell of any thickness against its radius
 * that stretches, bends and shears, by Ritz's method over waves round it and polynomials up it; the thickness is integrated with the
 * curvature [Flügge's shell with Mindlin's shear]. The wall's own squeezing is left out, some 10 % for thick rings and less for what
 * bends. Throws RangeError for sizes that are not positive.
 */
export function ovalBow(o: OvalWall, q: Pressure): Bow {
  // As for plates, one solve serves every fill and rubber.
  const unit = q.bottomMPa > 0 ? q.bottomMPa : 1;
  const key = [o.aMm, o.bMm, o.heightMm, o.thicknessMm, o.poisson, o.top, q.topMPa / unit, q.toMm].join(" ");
  let bow = solved.get(key);
  if (!bow) {
    bow = solveOval({ ...o, youngMPa: 1 }, { ...q, bottomMPa: 1, topMPa: q.topMPa / unit });
    if (solved.size >= MOST_SOLVED) solved.delete(solved.keys().next().value ?? "");
    solved.set(key, bow);
  }
  if (!(o.youngMPa > 0 && Number.isFinite(o.youngMPa)))
    throw new RangeError(`An oval wall's modulus of ${o.youngMPa} cannot be reckoned with: it has to be more than 0.`);
  const scale = unit / o.youngMPa;
  return { mostMm: bow.mostMm * scale, atMm: bow.atMm, profile: bow.profile.map((v) => v * scale) };
}

/** Walls solved lately; may be emptied at any time. */
const solved = new Map<string, Bow>();
const MOST_SOLVED = 500;

function solveOval(o: OvalWall, q: Pressure): Bow {
  for (const [name, v] of [
    ["length", o.aMm],
    ["width", o.bMm],
    ["height", o.heightMm],
    ["thickness", o.thicknessMm],
  ] as const)
    if (!(v > 0 && Number.isFinite(v))) throw new RangeError(`An oval wall's ${name} of ${v} cannot be reckoned with: it has to be more than 0.`);
  const { heightMm: h, thicknessMm: t, poisson: nu } = o;
  const { quarterMm, points } = middleLine(o.aMm, o.bMm, t);
  const wave = Math.PI / quarterMm;
  const waves = wavesFor(o.aMm / o.bMm);

  // Up the wall every field is held at the base; at a held rim what moves is stopped too, and so is turning along it.
  const upFrom = (f: FieldName): number[] =>
    Array.from({ length: DEGREE + 1 }, (_, k) => k).filter((k) => k !== 0 && !(k === 1 && o.top === "held" && f !== "u"));
  const roundOf = (f: FieldName): number[] => Array.from({ length: waves + 1 }, (_, n) => n).filter((n) => n > 0 || EVEN_FIELDS.includes(f));
  const fields = new Map<FieldName, { round: number[]; up: number[]; from: number }>();
  let n = 0;
  for (const f of ["u", "v", "w", "bs", "bz"] as const) {
    const [round, up] = [roundOf(f), upFrom(f)];
    fields.set(f, { round, up, from: n });
    n += round.length * up.length;
  }
  /** A field's waves, or their slopes along the wall, at the points of the quarter. */
  const tables = new Map<string, Float64Array[]>();
  const waveAt = (f: FieldName, d: 0 | 1): Float64Array[] => {
    const even = EVEN_FIELDS.includes(f);
    const key = `${even ? "even" : "odd"} ${d}`;
    const known = tables.get(key);
    if (known) return known;
    const made = Array.from({ length: waves + 1 }, (_, k) =>
      Float64Array.from(points, (at) => {
        const x = 2 * k * at.angle;
        if (d === 0) return even ? Math.cos(x) : Math.sin(x);
        return (even ? -Math.sin(x) : Math.cos(x)) * k * wave;
      }),
    );
    tables.set(key, made);
    return made;
  };

  // Products up the wall, once.
  const size = DEGREE + 1;
  const Z = {
    "00": new Float64Array(size * size),
    "11": new Float64Array(size * size),
    "01": new Float64Array(size * size),
    "10": new Float64Array(size * size),
  };
  for (let k = 0; k < UP_POINTS.x.length; k++) {
    const { n: v, d } = shapes(DEGREE, UP_POINTS.x[k]!);
    const weight = (UP_POINTS.w[k]! * h) / 2;
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++) {
        const [di, dj] = [(d[i]! * 2) / h, (d[j]! * 2) / h];
        Z["00"][i * size + j]! += weight * v[i]! * v[j]!;
        Z["11"][i * size + j]! += weight * di * dj;
        Z["01"][i * size + j]! += weight * v[i]! * dj;
        Z["10"][i * size + j]! += weight * di * v[j]!;
      }
  }

  const K = new Float64Array(n * n);
  /** Adds ∫∫ c(s)·p·q to the stiffness: its lower half, which is all that is read. */
  const add = (c: (kappa: number) => number, ps: readonly Op[], qs: readonly Op[]): void => {
    for (const p of ps)
      for (const r of qs) {
        const [f, g] = [fields.get(p.field)!, fields.get(r.field)!];
        if (f.from < g.from) continue;
        const z = Z[`${p.up}${r.up}`];
        const weights = points.map((at) => at.ds * c(at.kappa) * (p.by?.(at.kappa) ?? 1) * (r.by?.(at.kappa) ?? 1));
        const [left, right] = [waveAt(p.field, p.round), waveAt(r.field, r.round)];
        f.round.forEach((i, fi) =>
          g.round.forEach((j, gi) => {
            if (f === g && fi < gi) return;
            let s = 0;
            const [u, v] = [left[i]!, right[j]!];
            for (let x = 0; x < weights.length; x++) s += weights[x]! * u[x]! * v[x]!;
            if (s === 0) return;
            for (let k = 0; k < f.up.length; k++)
              for (let l = 0; l < g.up.length; l++)
                K[(f.from + fi * f.up.length + k) * n + g.from + gi * g.up.length + l]! += s * z[f.up[k]! * size + g.up[l]!]!;
          }),
        );
      }
  };
  const both = (c: (kappa: number) => number, ps: readonly Op[], qs: readonly Op[]): void => {
    add((k) => c(k) / 2, ps, qs);
    add((k) => c(k) / 2, qs, ps);
  };

  // Integrals through the thickness of 1, ζ and ζ² over and times (1 + ζκ).
  const over = (power: 0 | 1 | 2) => (k: number) => {
    const x = (k * t) / 2;
    // Series where the wall is thin against its radius: ∫ζ^p/(1+ζκ).
    const log = Math.log((1 + x) / (1 - x));
    const i0 = x < 1e-4 ? t : log / k;
    const i1 = x < 1e-3 ? (-k * t ** 3) / 12 : (t - i0) / k;
    return power === 0 ? i0 : power === 1 ? i1 : x < 1e-3 ? t ** 3 / 12 : -i1 / k;
  };
  const [A0, A1, A2] = [over(0), over(1), over(2)];
  const flat = t ** 3 / 12;
  const C = o.youngMPa / (1 - nu * nu);
  const G = (SHEAR_FACTOR * o.youngMPa) / (2 * (1 + nu));
  const e: Op[] = [
    { field: "v", round: 1, up: 0 },
    { field: "w", round: 0, up: 0, by: (k) => k },
  ];
  const b: Op[] = [{ field: "bs", round: 1, up: 0 }];
  const uz: Op[] = [{ field: "u", round: 0, up: 1 }];
  const bzz: Op[] = [{ field: "bz", round: 0, up: 1 }];
  const [p, qz, r, m]: Op[][] = [
    [{ field: "u", round: 1, up: 0 }],
    [{ field: "bz", round: 1, up: 0 }],
    [{ field: "v", round: 0, up: 1 }],
    [{ field: "bs", round: 0, up: 1 }],
  ] as [Op[], Op[], Op[], Op[]];
  const times = (by: number, f: (k: number) => number) => (k: number) => by * f(k);
  const even = (v: number) => () => v;
  // Stretching and bending round it, up it, and both together.
  add(times(C, A0), e, e);
  both(times(2 * C, A1), e, b);
  add(times(C, A2), b, b);
  add(even(C * t), uz, uz);
  both((k) => 2 * C * k * flat, uz, bzz);
  add(even(C * flat), bzz, bzz);
  both(even(2 * nu * C * t), e, uz);
  both(even(2 * nu * C * flat), b, bzz);
  // Shearing in its own plane.
  const S = (C * (1 - nu)) / 2;
  add(times(S, A0), p!, p!);
  both(times(2 * S, A1), p!, qz!);
  add(times(S, A2), qz!, qz!);
  both(even(2 * S * t), p!, r!);
  both(even(2 * S * flat), qz!, m!);
  add(even(S * t), r!, r!);
  both((k) => 2 * S * k * flat, r!, m!);
  add(even(S * flat), m!, m!);
  // Shearing through its thickness.
  const sn: Op[] = [
    { field: "w", round: 1, up: 0 },
    { field: "v", round: 0, up: 0, by: (k) => -k },
    { field: "bs", round: 0, up: 0 },
  ];
  const zn: Op[] = [
    { field: "w", round: 0, up: 1 },
    { field: "bz", round: 0, up: 0 },
  ];
  add(times(G, A0), sn, sn);
  add(even(G * t), zn, zn);

  // The liquid presses on the inside, which is shorter than the middle.
  const load = new Float64Array(n);
  const w = fields.get("w")!;
  const wet = Math.min(h, Math.max(0, q.toMm));
  const lift = new Float64Array(size);
  for (let k = 0; k < UP_POINTS.x.length; k++) {
    const zMm = ((UP_POINTS.x[k]! + 1) / 2) * wet;
    const pressure = q.bottomMPa + (q.topMPa - q.bottomMPa) * (q.toMm > 0 ? zMm / q.toMm : 0);
    const f = shapes(DEGREE, (2 * zMm) / h - 1).n;
    for (let j = 0; j < size; j++) lift[j]! += ((UP_POINTS.w[k]! * wet) / 2) * pressure * f[j]!;
  }
  w.round.forEach((i, fi) => {
    const s = points.reduce((sum, at, x) => sum + at.ds * (1 - (at.kappa * t) / 2) * waveAt("w", 0)[i]![x]!, 0);
    w.up.forEach((j, k) => (load[w.from + fi * w.up.length + k] = s * lift[j]!));
  });

  const found = solveSpd(K, load);
  // The end of the shorter axis, in the middle of the longer side: cos(kπ).
  const profile = Array.from({ length: PROFILE_STEPS + 1 }, (_, s) => {
    const f = shapes(DEGREE, (2 * s) / PROFILE_STEPS - 1).n;
    return w.round.reduce((v, i, fi) => v + (i % 2 === 0 ? 1 : -1) * w.up.reduce((x, j, k) => x + found[w.from + fi * w.up.length + k]! * f[j]!, 0), 0);
  });
  const most = profile.reduce((best, v, i) => (v > profile[best]! ? i : best), 0);
  return { mostMm: profile[most]!, atMm: (most / PROFILE_STEPS) * h, profile };
}
