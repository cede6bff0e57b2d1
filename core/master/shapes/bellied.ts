import { ellipse, plain } from "../../body";
import { len, type Shape } from "./shape";

const RINGS = 48;

/** Size at a share of the height: from the foot to the belly half-way up and on to the top, each along a quarter of a wave. */
export const belliedAt = (u: number, foot: number, belly: number, top: number): number => {
  const end = u < 0.5 ? foot : top;
  return end + (belly - end) * Math.sin(Math.PI * u);
};

export const bellied: Shape = {
  label: "Oval with a belly",
  when: "Widest half-way up, round or oval: an egg, a pebble on end, a barrel.",
  fields: [
    len("lengthMm", "Length at the belly"),
    len("widthMm", "Width at the belly"),
    len("bottomMm", "Length of the foot"),
    len("topMm", "Length of the top"),
    len("heightMm", "Height"),
  ],
  form: ({ sizes: s }) =>
    plain(
      Array.from({ length: RINGS + 1 }, (_, i) => {
        const a = belliedAt(i / RINGS, s.bottomMm, s.lengthMm, s.topMm) / 2;
        return { zMm: (s.heightMm * i) / RINGS, outline: ellipse(a, (a * s.widthMm) / s.lengthMm) };
      }),
    ),
};
