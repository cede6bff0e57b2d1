import { plain, type Point } from "../../body";
import { len, type Shape } from "./shape";

const TIPS = 5;

export const star: Shape = {
  label: "Star",
  when: "Five tips, straight sides, flat back.",
  fields: [len("diameterMm", "Circle through the tips"), len("bottomMm", "Circle through the notches"), len("heightMm", "Height")],
  problems: ({ sizes: s }) =>
    s.bottomMm >= s.diameterMm
      ? [{ code: "inside-out", path: "master.sizes.bottomMm", message: "The notches lie inside the tips: their circle is the smaller one." }]
      : [],
  form: ({ sizes: s }) => {
    const points = Array.from({ length: 2 * TIPS }, (_, i): Point => {
      const r = (i % 2 === 0 ? s.diameterMm : s.bottomMm) / 2;
      const t = Math.PI / 2 + (i * Math.PI) / TIPS;
      return [r * Math.cos(t), r * Math.sin(t)];
    });
    const outline = { kind: "polygon", rings: [points] } as const;
    return plain([
      { zMm: 0, outline },
      { zMm: s.heightMm, outline },
    ]);
  },
};
