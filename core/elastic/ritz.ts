/** Gauss–Legendre nodes and weights on [−1, 1], by Newton's method on the Legendre polynomial of degree n. */
export function gauss(n: number): { x: Float64Array; w: Float64Array } {
  const x = new Float64Array(n);
  const w = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let z = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let k = 0; k < 50; k++) {
      let p0 = 1;
      let p1 = z;
      for (let j = 2; j <= n; j++) [p0, p1] = [p1, ((2 * j - 1) * z * p1 - (j - 1) * p0) / j];
      slope = (n * (z * p1 - p0)) / (z * z - 1);
      const step = p1 / slope;
      z -= step;
      if (Math.abs(step) < 1e-15) break;
    }
    x[i] = z;
    w[i] = 2 / ((1 - z * z) * slope * slope);
  }
  return { x, w };
}

/**
 * Shape functions of degree up to `order` on [−1, 1] at one point: two for the ends, (1 ∓ ξ)/2, then integrated Legendre
 * polynomials, which vanish at both ends [Szabó & Babuška]. Returns values and derivatives.
 */
export function shapes(order: number, xi: number): { n: Float64Array; d: Float64Array } {
  const legendre = new Float64Array(order + 1);
  legendre[0] = 1;
  if (order >= 1) legendre[1] = xi;
  for (let j = 2; j <= order; j++) legendre[j] = ((2 * j - 1) * xi * legendre[j - 1]! - (j - 1) * legendre[j - 2]!) / j;
  const n = new Float64Array(order + 1);
  const d = new Float64Array(order + 1);
  n[0] = (1 - xi) / 2;
  d[0] = -0.5;
  n[1] = (1 + xi) / 2;
  d[1] = 0.5;
  for (let k = 2; k <= order; k++) {
    n[k] = (legendre[k]! - legendre[k - 2]!) / Math.sqrt(2 * (2 * k - 1));
    d[k] = Math.sqrt((2 * k - 1) / 2) * legendre[k - 1]!;
  }
  return { n, d };
}

/**
 * Solves A·x = b for a symmetric positive definite A (n × n, row by row; only its lower half is read), in place, by
 * Cholesky's method. Throws RangeError when A is not positive definite: the body would be free to move.
 */
export function solveSpd(a: Float64Array, b: Float64Array): Float64Array {
  const n = b.length;
  const rows = Array.from({ length: n }, (_, i) => a.subarray(i * n, i * n + n));
  for (let i = 0; i < n; i++) {
    const row = rows[i]!;
    for (let j = 0; j <= i; j++) {
      const other = rows[j]!;
      let sum = row[j]!;
      for (let k = 0; k < j; k++) sum -= row[k]! * other[k]!;
      if (i === j) {
        if (!(sum > 0)) throw new RangeError("The edges leave the plate free to move: hold at least one.");
        row[i] = Math.sqrt(sum);
      } else row[j] = sum / other[j]!;
    }
  }
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= a[i * n + k]! * b[k]!;
    b[i] = sum / a[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = b[i]!;
    for (let k = i + 1; k < n; k++) sum -= a[k * n + i]! * b[k]!;
    b[i] = sum / a[i * n + i]!;
  }
  return b;
}
