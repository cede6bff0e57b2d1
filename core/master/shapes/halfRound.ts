import { perimeterOf, plain, rectangle } from "../../body";
import { len, type Shape } from "./shape";

const RINGS = 48;

export const halfRound: Shape = {
  label: "Half-round",
  when: "A bar with a flat back and a round front.",
  fields: [len("lengthMm", "Length"), len("widthMm", "Width of the back"), len("heightMm", "Height")],
  form: ({ sizes: s }) => {
    const outer = Array.from({ length: RINGS + 1 }, (_, i) => {
      const t = (i / RINGS) * (Math.PI / 2);
      return { zMm: s.heightMm * Math.sin(t), outline: rectangle(s.lengthMm / 2, i === RINGS ? 0 : (s.widthMm / 2) * Math.cos(t)) };
    });
    const end = (Math.PI * s.widthMm * s.heightMm) / 4;
    return {
      ...plain(outer),
      volumeMm3: end * s.lengthMm,
      areaMm2: () => 2 * end + (s.widthMm + perimeterOf({ kind: "ellipse", a: s.widthMm / 2, b: s.heightMm }) / 2) * s.lengthMm,
    };
  },
};
