import { simplified, type Point } from "../body";
import { treeOf } from "./bvh";
import { boundsOf, diagonalOf, frameOf, moved, sumsOf, type Bounds, type Soup, type Vec } from "./mesh";
import { repaired, type Model, type Told } from "./repair";
import { sliceArea, sliceGirth, slicesOf } from "./slice";
import { closest, type Close } from "./thickness";

/** A level of a model: area, girth as a tape lies, and its outlines. */
export interface ModelLevel {
  /** Above the lowest point along the axis. */
  zMm: number;
  areaMm2: number;
  girthMm: number;
  outlineMm: Point[][];
}

/** Everything a model tells at once. */
export interface Measured {
  /** Read as it is; read, with something to know; or mended first. */
  verdict: "read" | "warn" | "repair";
  volumeMm3: number;
  doubtMm3: number;
  areaMm2: number;
  boundsMm: Bounds;
  centroidMm: Vec;
  thinnestWall: Close | null;
  narrowestGap: Close | null;
  levels: ModelLevel[];
}

/** Reads a soup as a whole model. The unit is the file's own where it says one; otherwise `unitMm`, or mm. */
export const modelOf = (soup: Soup, unitMm: number | null = null, tell?: Told): Model => repaired(soup, unitMm ?? soup.unitMm ?? 1, tell);

/** As many heights as a profile needs, a hair inside both ends so that flat backs count. */
const heightsOf = (height: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => height * Math.min(1 - 1e-6, Math.max(1e-6, i / (count - 1))));

export interface MeasureOptions {
  axis?: Vec;
  /** Above the lowest point, mm; evenly spread ones where none are asked for. */
  heightsMm?: readonly number[];
  levels?: number;
  /** Leaves out what takes longest. */
  quick?: boolean;
}

/** Measures a model along an axis (z where none is said). */
export function measureModel(model: Model, { axis = [0, 0, 1], heightsMm, levels = 33, quick = false }: MeasureOptions = {}, tell: Told = () => {}): Measured {
  const { mesh } = model;
  const sums = sumsOf(mesh);
  const turned = axis[0] === 0 && axis[1] === 0 && axis[2] > 0 ? mesh : moved(mesh, frameOf(axis));
  const { low, high } = boundsOf(turned.positions);
  const height = high[2] - low[2];
  const asked = heightsMm && heightsMm.length > 0 ? [...heightsMm].sort((p, q) => p - q) : heightsOf(height, levels);
  tell(0.2, "Cutting levels");
  const tol = diagonalOf({ low, high }) * 1e-5;
  const sliced = slicesOf(
    turned,
    asked.map((z) => low[2] + Math.min(height * (1 - 1e-9), Math.max(height * 1e-9, z))),
  ).map((s, i): ModelLevel => ({ zMm: asked[i]!, areaMm2: sliceArea(s), girthMm: sliceGirth(s), outlineMm: s.rings.map((r) => simplified(r, tol)) }));
  tell(0.4, "Looking for thin walls");
  const close = quick ? { wall: null, gap: null } : closest(treeOf(mesh));
  tell(1, "Measured");
  return {
    verdict: model.repairs.length > 0 ? "repair" : model.warnings.length > 0 ? "warn" : "read",
    volumeMm3: sums.volumeMm3 - model.overlapMm3,
    doubtMm3: model.doubtMm3,
    areaMm2: sums.areaMm2,
    boundsMm: boundsOf(mesh.positions),
    centroidMm: sums.centroidMm,
    thinnestWall: close.wall,
    narrowestGap: close.gap,
    levels: sliced,
  };
}
