import { kept } from "../body";
import type { Network } from "./network";

/** How deep the places of a bar lie in the metal as the section shows it, from its foot up in even steps: 0 at the mould's face, 1 at the deepest of its basin. */
export interface Depths {
  stepMm: number;
  /** For each bar, one figure a step, at the middle of the step. */
  of: readonly Float32Array[];
}

/**
 * Depths of the section's places under the nearest face of the mould [exact distance transform, along bars first, then across them]. A crust that has grown
 * to a share of what its basin can freeze is where this is no more than that share.
 */
export const depthsOf = kept((n: Network): Depths => {
  const stepMm = n.barMm;
  const at = (xMm: number) => Math.round(xMm / n.barMm);
  const byColumn = new Map<number, number[]>();
  n.bars.forEach((b, i) => byColumn.set(at(b.xMm), [...(byColumn.get(at(b.xMm)) ?? []), i]));
  /** Distance up or down to the end of what is open in a column at a height; 0 outside. */
  const upright = (u: number, z: number): number => {
    for (const i of byColumn.get(u) ?? []) {
      const b = n.bars[i]!;
      if (z > b.fromMm && z < b.toMm) return Math.min(z - b.fromMm, b.toMm - z);
    }
    return 0;
  };
  const deepest = new Float64Array(n.basins.length);
  const raw = n.bars.map((b) => {
    const steps = Math.max(1, Math.ceil((b.toMm - b.fromMm) / stepMm));
    const u0 = at(b.xMm);
    return Float64Array.from({ length: steps }, (_, i) => {
      const z = Math.min(b.toMm - 1e-6, b.fromMm + (i + 0.5) * stepMm);
      let best = upright(u0, z);
      for (let d = 1; d * n.barMm - n.barMm / 2 < best; d++)
        for (const u of [u0 - d, u0 + d]) {
          const g = upright(u, z);
          // The face stands half a bar before the next bar that is not open.
          best = Math.min(best, g > 0 ? Math.hypot(d * n.barMm, g) : (d - 0.5) * n.barMm);
        }
      return best;
    });
  });
  const basinAt = (i: number, z: number): number => n.bars[i]!.basins.find((p) => z <= p.toMm)?.basin ?? n.bars[i]!.basins.at(-1)?.basin ?? 0;
  raw.forEach((d, i) =>
    d.forEach((v, k) => {
      const basin = basinAt(i, n.bars[i]!.fromMm + (k + 0.5) * stepMm);
      deepest[basin] = Math.max(deepest[basin]!, v);
    }),
  );
  return {
    stepMm,
    of: raw.map((d, i) => Float32Array.from(d, (v, k) => v / Math.max(1e-9, deepest[basinAt(i, n.bars[i]!.fromMm + (k + 0.5) * stepMm)]!))),
  };
});
