import { ellipse, plain, type Ring } from "../../body";
import { belliedAt } from "./bellied";
import { tooThick } from "./dished";
import { len, type Shape } from "./shape";

const RINGS = 48;

export const narrowing: Shape = {
  label: "Vessel that narrows",
  when: "A jar or vase: a belly, and a mouth that is narrower.",
  fields: [
    len("bottomMm", "Diameter at the foot"),
    len("diameterMm", "Diameter at the belly"),
    len("topMm", "Diameter at the mouth"),
    len("heightMm", "Height"),
    len("wallMm", "Wall of the vessel"),
    len("floorMm", "Floor thickness"),
  ],
  problems: (t) => tooThick(t, Math.min(t.sizes.bottomMm, t.sizes.topMm), "the narrower diameter"),
  form: ({ sizes: s }) => {
    const rAt = (z: number) => belliedAt(z / s.heightMm, s.bottomMm, s.diameterMm, s.topMm) / 2;
    const outer = Array.from({ length: RINGS + 1 }, (_, i): Ring => {
      const z = (s.heightMm * i) / RINGS;
      return { zMm: z, outline: ellipse(rAt(z), rAt(z)) };
    });
    const hollow = Array.from({ length: RINGS + 1 }, (_, i): Ring => {
      const z = s.floorMm + ((s.heightMm - s.floorMm) * i) / RINGS;
      // The wall is measured square to itself; where it leans it is wider level.
      const step = s.heightMm / (4 * RINGS);
      const slope = (rAt(Math.min(s.heightMm, z + step)) - rAt(Math.max(0, z - step))) / (2 * step);
      const r = Math.max(0.01, rAt(z) - s.wallMm * Math.hypot(1, slope));
      return { zMm: z, outline: ellipse(r, r) };
    });
    return plain(outer, hollow);
  },
};
