import { sectionAt, shellVolume, type Body } from "./body";
import { exposedArea, meridianOf, parallelAt, radiusAt } from "./offset";
import { insetArea, shifted, type Outline } from "./outline";

/** What is left inside a casting with a wall of even thickness. */
export interface Hollowed {
  hollowMl: number;
  shellMl: number;
  /** Outline of the hollow at each height above the back; null where the shell closes it. Empty where nobody knows the form. */
  rows: readonly { zMm: number; outline: Outline | null }[];
}

/** Where a shell has its mouth: the whole back is open, or rubber goes all round and so does the shell. */
export type Mouth = "back" | "closed";

/**
 * The hollow of a casting whose wall is `t` mm thick on every face of its mould.
 *
 * A body measured as a whole knows its walls by distance. Where the form is known: inner outlines summed over the height; where an outline leans, the wall is measured square to it.
 * A relief is spread over its slab. Where only volume, area and outer sizes are known: V·(1 − (1 − t/w)^n) with w half the least
 * width and n = w·A/V, which is exact for slabs, bars, balls and cubes, has the slope A at the face, and never takes more than
 * there is.
 */
export function hollowOut(m: Body, t: number, mouth: Mouth): Hollowed {
  if (t <= 0) return { hollowMl: m.volumeMl, shellMl: 0, rows: [] };
  if (m.unknown.includes("form")) return { ...split(m, roundShell(m, t, mouth)), rows: [] };
  if (m.reliefMm !== null) return reliefShell(m, t, mouth);
  const line = meridianOf(m);
  const steps = 120;
  const from = mouth === "closed" ? t : 0;
  const step = (m.heightMm - t - from) / steps;
  const rows: { zMm: number; outline: Outline | null }[] = [];
  let hollow = 0;
  for (let i = 0; i < steps && step > 0; i++) {
    const z = from + (i + 0.5) * step;
    const r = radiusAt(line, z);
    const depth = r - parallelAt(line, z, t, -1);
    const outline = sectionAt(m, z);
    const left = shifted(outline, -depth);
    if (left) hollow += insetArea(outline, depth) * step;
    rows.push({ zMm: z, outline: left });
  }
  const shell = m.layers && shellVolume(m.layers, t, (l) => (mouth === "back" ? l.openMm2 : l.closedMm2));
  const hollowMl = shell === null ? Math.min(m.volumeMl, hollow / 1000) : Math.max(0, m.volumeMl - shell / 1000);
  return { hollowMl, shellMl: m.volumeMl - hollowMl, rows };
}

const split = (m: Body, shellMl: number): Pick<Hollowed, "hollowMl" | "shellMl"> => ({ hollowMl: m.volumeMl - shellMl, shellMl });

function roundShell(m: Body, t: number, mouth: Mouth): number {
  const areaMm2 = mouth === "back" ? exposedArea(m) : m.areaMm2;
  // Through an open back the hollow comes from one side only.
  const w = Math.min(m.lengthMm / 2, m.widthMm / 2, mouth === "back" ? m.heightMm : m.heightMm / 2);
  const n = Math.max(1, (w * areaMm2) / (m.volumeMl * 1000));
  return t >= w ? m.volumeMl : m.volumeMl * (1 - (1 - t / w) ** n);
}

/** A relief on its slab: the slab of the same volume, hollow from its back. */
function reliefShell(m: Body, t: number, mouth: Mouth): Hollowed {
  const [a, b] = [m.lengthMm / 2, m.widthMm / 2];
  const high = (m.volumeMl * 1000) / (4 * a * b);
  const from = mouth === "closed" ? t : 0;
  const deep = high - t - from;
  const outline = shifted({ kind: "rect", a, b }, -t);
  if (deep <= 0 || !outline || outline.kind === "polygon") return { ...split(m, m.volumeMl), rows: [] };
  const rows = [from, from + deep].map((zMm) => ({ zMm, outline }));
  return { ...split(m, m.volumeMl - (4 * outline.a * outline.b * deep) / 1000), rows };
}

/** The wall that takes so much, mm, by halving: a shell of known volume. The whole depth where it takes all there is. */
export function wallFor(m: Body, shellMl: number, mouth: Mouth): number {
  let [low, high] = [0, Math.max(m.lengthMm, m.widthMm, m.heightMm)];
  if (shellMl >= m.volumeMl) return high;
  for (let i = 0; i < 40; i++) {
    const mid = (low + high) / 2;
    if (hollowOut(m, mid, mouth).shellMl < shellMl) low = mid;
    else high = mid;
  }
  return high;
}
