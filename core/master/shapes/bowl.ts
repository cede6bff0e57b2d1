import { ellipse, formArea, formVolume, plain, type Ring } from "../../body";
import { len, type Shape, type Told } from "./shape";

const RINGS = 40;

/** Nobody can measure a bowl's wall half-way down: an eighteenth of the rim, from 4 to 14 mm, is usual. */
export const usualWall = (rimMm: number): number => Math.max(4, Math.min(14, rimMm / 18));
const WALL_OFF = 0.3;

const walled = ({ sizes: s }: Told, wallMm: number) => {
  const t = Math.min(wallMm, s.bottomMm / 3, s.heightMm / 3);
  const curve = (z: number, foot: number, rim: number, high: number) => foot + (rim - foot) * Math.sin((Math.PI / 2) * Math.min(1, z / high));
  const rings = (from: number, shift: number): Ring[] =>
    Array.from({ length: RINGS + 1 }, (_, i): Ring => {
      const z = from + ((s.heightMm - from) * i) / RINGS;
      const r = Math.max(0.01, curve(z, s.bottomMm / 2, s.topMm / 2, s.heightMm) - shift);
      return { zMm: z, outline: ellipse(r, r) };
    });
  return plain(rings(0, 0), rings(t, t));
};

export const bowl: Shape = {
  label: "Bowl",
  when: "Open on top, rounded sides: three sizes, and a wall as bowls usually have.",
  fields: [len("topMm", "Across the rim"), len("bottomMm", "Across the foot"), len("heightMm", "Height")],
  form: (t) => walled(t, usualWall(t.sizes.topMm)),
  errorMl: (t, volumeMl) => {
    const at = (wallMm: number) => formVolume(walled(t, wallMm)) / 1000;
    const wall = usualWall(t.sizes.topMm);
    const byWall = (at(wall * (1 + WALL_OFF)) - at(wall * (1 - WALL_OFF))) / 2;
    return Math.hypot(byWall, (formArea(walled(t, wall)) * t.readingMm) / 2000, volumeMl(t) * 0.002);
  },
};
