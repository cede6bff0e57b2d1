import * as z from "zod";
import { buildScene, type SceneQuestion } from "./scene";
import { STUFFS } from "./stuffs";

/** A section small enough for a list: regions only, in mm, rounded to what a small picture can show. */
export const Thumb = z.object({
  regions: z.array(z.object({ stuff: z.enum(STUFFS), path: z.string() })),
  halfMm: z.number(),
  bottomMm: z.number(),
  topMm: z.number(),
});
export type Thumb = z.infer<typeof Thumb>;

/** A small picture has about so many points across. */
const POINTS = 240;

/** Numbers of a path on a grid of `stepMm`; points that fall together are one. */
function coarse(path: string, stepMm: number): string {
  const digits = Math.max(0, Math.ceil(-Math.log10(stepMm)));
  const on = (v: string) => String(Number((Math.round(Number(v) / stepMm) * stepMm).toFixed(digits)));
  const rounded = path.replace(/-?\d+(?:\.\d+)?(?:e-?\d+)?/g, on);
  return rounded.replace(/L(-?[\d.]+ -?[\d.]+)(?:L\1)+(?=[LZ])/g, "L$1");
}

/** The section of a plan as a small picture; null where nothing is measured yet. */
export function thumbOf(q: SceneQuestion): Thumb | null {
  const scene = buildScene(q);
  if (!scene) return null;
  const { regions, halfMm, bottomMm, topMm } = scene;
  const stepMm = Math.max(0.01, Math.max(2 * halfMm, topMm - bottomMm) / POINTS);
  return { regions: regions.map((r) => ({ stuff: r.stuff, path: coarse(r.path, stepMm) })), halfMm, bottomMm, topMm };
}
