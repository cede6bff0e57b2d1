import { ellipse, formArea, formVolume, plain, rectangle, type Formed } from "../../body";
import { quote } from "../../quantity";
import type { FormProblem, SizeKey, Told } from "./shape";

/** A body of which only the volume and the outer sizes are known: an oval of that size, or a block where it would not hold it. */
export function outerSizes({ sizes: s }: Told, volumeMm3: number): Formed {
  const upright = (outline: ReturnType<typeof ellipse>): Formed =>
    plain([
      { zMm: 0, outline },
      { zMm: s.heightMm, outline },
    ]);
  const oval = upright(ellipse(s.lengthMm / 2, s.widthMm / 2));
  const roomy = volumeMm3 > formVolume(oval) ? upright(rectangle(s.lengthMm / 2, s.widthMm / 2)) : oval;
  const fill = volumeMm3 / formVolume(roomy);
  const block = s.lengthMm * s.widthMm * s.heightMm;
  return {
    ...roomy,
    volumeMm3,
    areaMm2: () => formArea(roomy) * Math.min(1, volumeMm3 / block) ** (2 / 3),
    fillAt: () => fill,
    unknown: ["form", "area"],
  };
}

/** A volume that the outer sizes cannot hold. */
export function tooMuch({ sizes: s }: Told, ml: number, path: SizeKey): FormProblem[] {
  const most = (s.lengthMm * s.widthMm * s.heightMm) / 1000;
  return ml > most * 1.001
    ? [
        {
          code: "more-than-outer-sizes",
          path: `master.sizes.${path}`,
          message: `That makes ${quote(ml, "volume")}, but the outer sizes hold only ${quote(most, "volume")}: one of them is misread.`,
        },
      ]
    : [];
}
