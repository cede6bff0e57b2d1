import { expose } from "comlink";
import type { Scanned } from "../core/master";
import { pullsOf, repaired, scanModel, stoodUp, type Model, type Soup, type Told, type Up } from "../core/mesh";
import { readModel } from "../shape/model";

/** What a file says of itself once it is read. */
export interface Opened {
  format: string;
  triangles: number;
  /** Null where the file does not say its unit. */
  unitMm: number | null;
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
    return { format: soup.format, triangles: soup.triangles.length / 3, unitMm: soup.unitMm };
  },
  /** Makes it whole and measures it as it is to stand. */
  stand: (name: string, { unitMm, up, mirror, scale }: Standing, tell: Told): Scanned => {
    if (!soup) throw new Error("No file has been read.");
    if (mended?.unitMm !== unitMm) mended = { unitMm, model: repaired(soup, unitMm, (share, what) => tell(0.35 * share, what)) };
    const { model } = mended;
    const mesh = stoodUp(model.mesh, up, scale, mirror);
    const s = scanModel(model, mesh, (share, what) => tell(0.35 + 0.15 * share, what));
    const pulls = pullsOf(mesh, 120, (share, what) => tell(0.5 + 0.5 * share, what));
    const [x, y, z] = pulls.best.direction;
    const cube = scale ** 3;
    return {
      name: name.slice(0, 200),
      levels: s.levels,
      volumeMl: s.volumeMm3 / 1000,
      // What mending left in doubt, and as much again as a file of triangles rounds a curve off.
      errorMl: (s.doubtMm3 * cube + 0.002 * s.volumeMm3) / 1000,
      areaMm2: s.areaMm2,
      says: [...model.repairs.map((r) => r.message), ...model.warnings].map((m) => m.slice(0, 500)).slice(0, 20),
      opens: {
        direction: [x, y, z],
        trappedShare: Math.min(1, pulls.best.trappedShare),
        deepestMm: pulls.best.deepestMm,
        parts: Math.min(12, pulls.parts.length),
      },
    };
  },
};
export type ModelWorker = typeof worker;

expose(worker);
