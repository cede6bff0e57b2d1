import { plain, type Outline, type Point } from "../../body";
import { len, type Shape } from "./shape";

const RINGS = 32;
const TURN = 72;

const circle = (r: number, way: 1 | -1): Point[] =>
  Array.from({ length: TURN }, (_, i): Point => [r * Math.cos((way * 2 * Math.PI * i) / TURN), r * Math.sin((way * 2 * Math.PI * i) / TURN)]);

export const ring: Shape = {
  label: "Ring",
  when: "A round ring lying flat, of round section.",
  fields: [len("diameterMm", "Across, over all"), len("heightMm", "Thickness of the ring")],
  problems: ({ sizes: s }) =>
    s.heightMm * 2 >= s.diameterMm
      ? [{ code: "no-hole", path: "master.sizes.heightMm", message: "A ring this thick has no hole: measure its thickness, not its width." }]
      : [],
  form: ({ sizes: s }) => {
    const r = s.heightMm / 2;
    const middle = s.diameterMm / 2 - r;
    const outer = Array.from({ length: RINGS + 1 }, (_, i) => {
      const t = (i / RINGS - 0.5) * Math.PI;
      const half = Math.max(r * 0.02, r * Math.cos(t));
      const outline: Outline = { kind: "polygon", rings: [circle(middle + half, 1), circle(middle - half, -1)] };
      return { zMm: r + r * Math.sin(t), outline };
    });
    // Pappus: the section's area and girth, times the way its middle goes.
    return { ...plain(outer), volumeMm3: 2 * Math.PI ** 2 * middle * r * r, areaMm2: () => 4 * Math.PI ** 2 * middle * r };
  },
};
