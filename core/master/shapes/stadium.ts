import { plain, type Point } from "../../body";
import { len, type Shape } from "./shape";

const ARC = 32;

export const stadium: Shape = {
  label: "Stadium",
  when: "Straight sides with round ends, flat back.",
  fields: [len("lengthMm", "Length over the ends"), len("widthMm", "Width"), len("heightMm", "Height")],
  problems: ({ sizes: s }) =>
    s.lengthMm < s.widthMm ? [{ code: "short", path: "master.sizes.lengthMm", message: "It is longer than it is wide: change the two about." }] : [],
  form: ({ sizes: s }) => {
    const r = s.widthMm / 2;
    const straight = s.lengthMm / 2 - r;
    const end = (sign: 1 | -1): Point[] =>
      Array.from({ length: ARC + 1 }, (_, i): Point => {
        const t = (sign === 1 ? -0.5 : 0.5) * Math.PI + (i / ARC) * Math.PI;
        return [sign * straight + r * Math.cos(t), r * Math.sin(t)];
      });
    const outline = { kind: "polygon", rings: [[...end(1), ...end(-1)]] } as const;
    const area = 4 * straight * r + Math.PI * r * r;
    return {
      ...plain([
        { zMm: 0, outline },
        { zMm: s.heightMm, outline },
      ]),
      volumeMm3: area * s.heightMm,
      areaMm2: () => 2 * area + (4 * straight + 2 * Math.PI * r) * s.heightMm,
    };
  },
};
