import { ellipse, plain } from "../../body";
import { len, type Shape } from "./shape";

const RINGS = 64;

export const dome: Shape = {
  label: "Dome",
  when: "Rounded top on a flat back; round or oval.",
  fields: [len("lengthMm", "Length"), len("widthMm", "Width"), len("heightMm", "Height")],
  form: ({ sizes: s }) => {
    const [a, b] = [s.lengthMm / 2, s.widthMm / 2];
    const outer = Array.from({ length: RINGS + 1 }, (_, i) => {
      const t = (i / RINGS) * (Math.PI / 2);
      return { zMm: s.heightMm * Math.sin(t), outline: i === RINGS ? ellipse(0, 0) : ellipse(a * Math.cos(t), b * Math.cos(t)) };
    });
    return {
      ...plain(outer),
      volumeMm3: (2 / 3) * Math.PI * a * b * s.heightMm,
      areaMm2: () => domeArea(a, b, s.heightMm) + Math.PI * a * b,
    };
  },
};

/** Area of half an ellipsoid without its flat face, mm², by quadrature over its parameters (8 Gauss nodes by 64 angles). */
export function domeArea(a: number, b: number, h: number): number {
  const x = [0.1834346424956498, 0.525532409916329, 0.7966664774136267, 0.9602898564975363];
  const w = [0.362683783378362, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763];
  let sum = 0;
  for (let k = 0; k < 8; k++) {
    const u = k < 4 ? x[k]! : -x[k - 4]!;
    const weight = (w[k % 4]! * Math.PI) / 4;
    const phi = ((u + 1) * Math.PI) / 4;
    const cp = Math.cos(phi);
    const sp = Math.sin(phi);
    for (let i = 0; i < 64; i++) {
      const t = ((i + 0.5) * Math.PI) / 32;
      const nx = b * h * cp * cp * Math.cos(t);
      const ny = a * h * cp * cp * Math.sin(t);
      const nz = a * b * cp * sp;
      sum += weight * Math.hypot(nx, ny, nz) * (Math.PI / 32);
    }
  }
  return sum;
}
