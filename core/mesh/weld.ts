/** A table of as many places as make few meet: a power of two, twice what goes in. */
export function roomFor(n: number): number {
  let size = 16;
  while (size < 2 * n) size *= 2;
  return size;
}

/**
 * For each point the first point at exactly the same place: itself where it is the first. −0 counts as 0. Works on the bits, three
 * or six words a point.
 */
export function sameExactly(positions: Float32Array | Float64Array): Uint32Array {
  const n = positions.length / 3;
  const per = positions.BYTES_PER_ELEMENT === 4 ? 3 : 6;
  for (let i = 0; i < positions.length; i++) if (positions[i] === 0) positions[i] = 0;
  const words = new Int32Array(positions.buffer, positions.byteOffset, n * per);
  const first = new Uint32Array(n);
  const mask = roomFor(n) - 1;
  const table = new Int32Array(mask + 1).fill(-1);
  for (let v = 0; v < n; v++) {
    const at = v * per;
    let hash = 0;
    for (let k = 0; k < per; k++) {
      hash = Math.imul(hash ^ words[at + k]!, 0x9e3779b1);
      hash ^= hash >>> 15;
    }
    let slot = hash & mask;
    for (;;) {
      const other = table[slot]!;
      if (other < 0) {
        table[slot] = v;
        first[v] = v;
        break;
      }
      const from = other * per;
      let same = true;
      for (let k = 0; k < per && same; k++) same = words[from + k] === words[at + k];
      if (same) {
        first[v] = other;
        break;
      }
      slot = (slot + 1) & mask;
    }
  }
  return first;
}

/**
 * For each point the first point no further than `nearMm`: a grid of cells that wide, the 27 round a point looked through. Points are
 * taken in their order, so a chain of near points gathers at its first.
 */
export function sameNearly(positions: Float64Array, nearMm: number, which: (v: number) => boolean): Uint32Array {
  const n = positions.length / 3;
  const first = new Uint32Array(n);
  const cells = new Map<string, number[]>();
  const cell = (v: number, k: number) => Math.floor(positions[3 * v + k]! / nearMm);
  for (let v = 0; v < n; v++) {
    first[v] = v;
    if (!which(v)) continue;
    const [cx, cy, cz] = [cell(v, 0), cell(v, 1), cell(v, 2)];
    let [nearest, best] = [v, nearMm * nearMm];
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (let dz = -1; dz <= 1; dz++)
          for (const u of cells.get(`${cx + dx},${cy + dy},${cz + dz}`) ?? []) {
            const d =
              (positions[3 * u]! - positions[3 * v]!) ** 2 +
              (positions[3 * u + 1]! - positions[3 * v + 1]!) ** 2 +
              (positions[3 * u + 2]! - positions[3 * v + 2]!) ** 2;
            if (d <= best) [nearest, best] = [u, d];
          }
    if (nearest !== v) first[v] = nearest;
    else {
      const key = `${cx},${cy},${cz}`;
      const list = cells.get(key);
      if (list) list.push(v);
      else cells.set(key, [v]);
    }
  }
  return first;
}

/** Triangles over the first of like points; those that lost a side are left out. */
export function rewired(triangles: Uint32Array, first: Uint32Array): { triangles: Uint32Array; lost: number } {
  const out = new Uint32Array(triangles.length);
  let n = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [first[triangles[i]!]!, first[triangles[i + 1]!]!, first[triangles[i + 2]!]!];
    if (a === b || b === c || c === a) continue;
    out[n++] = a;
    out[n++] = b;
    out[n++] = c;
  }
  return { triangles: n === out.length ? out : out.slice(0, n), lost: (triangles.length - n) / 3 };
}
