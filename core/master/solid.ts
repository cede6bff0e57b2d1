/** A level of a solid of stacked rings: half-axes of its outline at a height, mm. */
export interface Ring {
  zMm: number;
  /** Half-length (x) and half-width (y), mm ≥ 0. */
  a: number;
  b: number;
}

/** A solid between its lowest and highest outer ring, less an open-topped hollow. Rings rise in z and are joined by straight lines. */
export interface Solid {
  section: "rect" | "oval";
  outer: readonly Ring[];
  /** The hollow, open at its top ring; empty for none. */
  inner: readonly Ring[];
}

const areaFactor = (section: Solid["section"]): number => (section === "rect" ? 4 : Math.PI);

/** Area of one level's outline, mm². */
export const outlineArea = (section: Solid["section"], r: Pick<Ring, "a" | "b">): number => areaFactor(section) * r.a * r.b;

/**
 * Perimeter of one level's outline, mm. Ellipses by Ramanujan's second approximation (1914), good to 1e-4 even for flat
 * ellipses.
 */
export function outlinePerimeter(section: Solid["section"], { a, b }: Pick<Ring, "a" | "b">): number {
  if (section === "rect") return 4 * (a + b);
  if (a + b === 0) return 0;
  const h = ((a - b) / (a + b)) ** 2;
  return Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
}

/** Volume of a stack of rings, mm³: exact for straight-sided pieces, since area is then quadratic in height. */
export function stackVolume(section: Solid["section"], rings: readonly Ring[]): number {
  let sum = 0;
  for (let i = 1; i < rings.length; i++) {
    const p = rings[i - 1]!;
    const q = rings[i]!;
    const da = q.a - p.a;
    const db = q.b - p.b;
    sum += (q.zMm - p.zMm) * (p.a * p.b + (p.a * db + p.b * da) / 2 + (da * db) / 3);
  }
  return areaFactor(section) * sum;
}

/** Lateral area of a stack of rings, mm². Flat steps (two rings at one height) count as the annulus between them. */
export function stackLateralArea(section: Solid["section"], rings: readonly Ring[]): number {
  let sum = 0;
  for (let i = 1; i < rings.length; i++) {
    const p = rings[i - 1]!;
    const q = rings[i]!;
    const h = q.zMm - p.zMm;
    if (section === "rect") {
      // Two trapezia with slant height over y, two over x.
      sum += 2 * (p.a + q.a) * Math.hypot(h, q.b - p.b) + 2 * (p.b + q.b) * Math.hypot(h, q.a - p.a);
      if (h === 0)
        sum += Math.abs(outlineArea("rect", p) - outlineArea("rect", q)) - (2 * (p.a + q.a) * Math.abs(q.b - p.b) + 2 * (p.b + q.b) * Math.abs(q.a - p.a));
    } else {
      sum += ellipticBandArea(p, q);
    }
  }
  return sum;
}

/** Area of the ruled band between two coaxial ellipses, mm²: closed form when round, else quadrature over angle and height. */
function ellipticBandArea(p: Ring, q: Ring): number {
  const h = q.zMm - p.zMm;
  if (p.a === p.b && q.a === q.b) return Math.PI * (p.a + q.a) * Math.hypot(h, q.a - p.a);
  const angles = 64;
  // Two-point Gauss–Legendre along the height.
  const nodes = [0.5 - Math.sqrt(3) / 6, 0.5 + Math.sqrt(3) / 6];
  let sum = 0;
  for (let i = 0; i < angles; i++) {
    const t = ((i + 0.5) * Math.PI * 2) / angles;
    const c = Math.cos(t);
    const s = Math.sin(t);
    for (const u of nodes) {
      const a = p.a + (q.a - p.a) * u;
      const b = p.b + (q.b - p.b) * u;
      // |∂r/∂u × ∂r/∂t| for r = (a cos t, b sin t, h u)
      const ux = (q.a - p.a) * c;
      const uy = (q.b - p.b) * s;
      const tx = -a * s;
      const ty = b * c;
      sum += Math.hypot(h * ty, h * tx, ux * ty - uy * tx);
    }
  }
  return (sum / 2 / angles) * Math.PI * 2;
}

/** Volume of the material, mm³. */
export const solidVolume = (s: Solid): number => stackVolume(s.section, s.outer) - stackVolume(s.section, s.inner);

/** Area of every face a rubber or cast would touch, the back included, mm². */
export function solidArea(s: Solid): number {
  const first = s.outer[0];
  const last = s.outer.at(-1);
  if (!first || !last) return 0;
  const caps = outlineArea(s.section, first) + outlineArea(s.section, last);
  const floor = s.inner[0] ? outlineArea(s.section, s.inner[0]) : 0;
  const mouth = s.inner.length > 0 ? outlineArea(s.section, s.inner.at(-1)!) : 0;
  return caps + floor - mouth + stackLateralArea(s.section, s.outer) + stackLateralArea(s.section, s.inner);
}

/** The ring at a height, by straight lines between neighbours; null outside the stack. At a flat step the wider ring counts. */
export function ringAt(rings: readonly Ring[], zMm: number): Ring | null {
  const first = rings[0];
  const last = rings.at(-1);
  if (!first || !last || zMm < first.zMm || zMm > last.zMm) return null;
  let best: Ring | null = null;
  for (let i = 1; i < rings.length; i++) {
    const p = rings[i - 1]!;
    const q = rings[i]!;
    if (zMm < p.zMm || zMm > q.zMm) continue;
    const u = q.zMm === p.zMm ? (q.a > p.a ? 1 : 0) : (zMm - p.zMm) / (q.zMm - p.zMm);
    const r = { zMm, a: p.a + (q.a - p.a) * u, b: p.b + (q.b - p.b) * u };
    if (!best || r.a * r.b > best.a * best.b) best = r;
  }
  return best ?? first;
}

/** Area of half an ellipsoid without its flat face, mm², by quadrature over its parameters (8 Gauss nodes by 64 angles). */
export function domeArea(a: number, b: number, h: number): number {
  const x = [0.1834346424956498, 0.525532409916329, 0.7966664774136267, 0.9602898564975363];
  const w = [0.362683783378362, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763];
  let sum = 0;
  for (let k = 0; k < 8; k++) {
    const u = k < 4 ? x[k]! : -x[k - 4]!;
    const weight = (w[k % 4]! * Math.PI) / 4;
    const phi = ((u + 1) * Math.PI) / 4;
    const cp = Math.cos(phi);
    const sp = Math.sin(phi);
    for (let i = 0; i < 64; i++) {
      const t = ((i + 0.5) * Math.PI) / 32;
      const nx = b * h * cp * cp * Math.cos(t);
      const ny = a * h * cp * cp * Math.sin(t);
      const nz = a * b * cp * sp;
      sum += weight * Math.hypot(nx, ny, nz) * (Math.PI / 32);
    }
  }
  return sum;
}
