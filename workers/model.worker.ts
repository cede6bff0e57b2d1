import { expose } from "comlink";
import type { Scanned } from "../core/master";
import { pullOf, pullsOf, repaired, scanModel, stoodUp, type Mesh, type Model, type Pull, type Soup, type Told, type Up, type Vec } from "../core/mesh";
import { readModel } from "../shape/model";
import { glanceAtStl } from "../shape/readers/stl";

/** What a file says of itself once it is read. */
export interface Opened {
  format: string;
  triangles: number;
  /** Null where the file does not say its unit. */
  unitMm: number | null;
  /** Size over all in units of the file, before anything is mended; null where that takes as long as the rest. */
  size: [number, number, number] | null;
}

export interface Standing {
  unitMm: number;
  up: Up;
  mirror: boolean;
  /** Size of what is made from it over its own, as a factor. */
  scale: number;
}

let soup: Soup | null = null;
let mended: { unitMm: number; model: Model } | null = null;

const worker = {
  /** Reads a file, away from the page. Throws with a reason where nothing can be made of it. */
  open: (bytes: Uint8Array): Opened => {
    mended = null;
    soup = readModel(bytes);
    const glance = soup.format === "STL" ? glanceAtStl(bytes) : null;
    return {
      format: soup.format,
      triangles: soup.triangles.length / 3,
      unitMm: soup.unitMm,
      size: glance && [glance.high[0] - glance.low[0], glance.high[1] - glance.low[1], glance.high[2] - glance.low[2]],
    };
  },
  /** Makes it whole and measures it as it is to stand. */
  stand: (name: string, { unitMm, up, mirror, scale }: Standing, tell: Told): Scanned => {
    if (!soup) throw new Error("No file has been read.");
    if (mended?.unitMm !== unitMm) mended = { unitMm, model: repaired(soup, unitMm, (share, what) => tell(0.35 * share, what)) };
    const { model } = mended;
    const mesh = stoodUp(model.mesh, up, scale, mirror);
    const cube = scale ** 3;
    const s = scanModel({ ...model, doubtMm3: model.doubtMm3 * cube, overlapMm3: model.overlapMm3 * cube }, mesh, (share, what) =>
      tell(0.35 + 0.15 * share, what),
    );
    const pulls = pullsOf(mesh, 120, (share, what) => tell(0.5 + 0.5 * share, what));
    const [x, y, z] = pulls.best.direction;
    return {
      name: name.slice(0, 200),
      levels: s.levels,
      volumeMl: s.volumeMm3 / 1000,
      errorMl: s.errorMm3 / 1000,
      areaMm2: s.areaMm2,
      says: [...model.repairs.map((r) => r.message), ...model.warnings].map((m) => m.slice(0, 500)).slice(0, 20),
      shots: [],
      opens: {
        direction: [x, y, z],
        trappedShare: Math.min(1, pulls.best.trappedShare),
        deepestMm: pulls.best.deepestMm,
        parts: Math.min(12, pulls.parts.length),
      },
    };
  },
  /** What a straight pull frees of loose triangles: for each of them 1 along it, 2 against it, 3 both, 0 neither. */
  free: (corners: Float32Array, direction: Vec): { free: Uint8Array } & Omit<Pull, "direction"> => {
    const mesh: Mesh = { positions: Float64Array.from(corners), triangles: Uint32Array.from({ length: corners.length / 3 }, (_, i) => i) };
    const { samples, free, areaMm2, freePlusMm2, freeMinusMm2, freeBothMm2, trappedMm2, deepestMm } = pullOf(mesh, direction, 40_000);
    const most = new Float64Array(4 * (corners.length / 9));
    for (let i = 0; i < samples.count; i++) most[4 * samples.triangle[i]! + free[i]!]! += samples.areaMm2[i]!;
    const each = Uint8Array.from({ length: corners.length / 9 }, (_, i) =>
      [1, 2, 3].reduce((best, k) => (most[4 * i + k]! > most[4 * i + best]! ? k : best), 0),
    );
    return { free: each, areaMm2, freePlusMm2, freeMinusMm2, freeBothMm2, trappedMm2, deepestMm };
  },
};
export type ModelWorker = typeof worker;

expose(worker);
