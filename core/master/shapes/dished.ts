import { ellipse, outlineAt, plain, type Formed } from "../../body";
import { quote } from "../../quantity";
import type { FormProblem, Told } from "./shape";

/** A dish or vessel: straight-sided outside, the hollow a wall's width inside it from the floor up. Half-sizes, mm. */
export function dished(foot: { a: number; b: number }, rim: { a: number; b: number }, { sizes: s }: Told): Formed {
  const outer = [
    { zMm: 0, outline: ellipse(foot.a, foot.b) },
    { zMm: s.heightMm, outline: ellipse(rim.a, rim.b) },
  ];
  const low = outlineAt(outer, s.floorMm);
  const at = low && low.kind === "ellipse" ? low : foot;
  return plain(outer, [
    { zMm: s.floorMm, outline: ellipse(at.a - s.wallMm, at.b - s.wallMm) },
    { zMm: s.heightMm, outline: ellipse(rim.a - s.wallMm, rim.b - s.wallMm) },
  ]);
}

/** Walls and floor that leave no hollow. `leastMm` is what two walls have to fit into. */
export function tooThick({ sizes: s }: Told, leastMm: number, what: string): FormProblem[] {
  const problems: FormProblem[] = [];
  if (2 * s.wallMm >= leastMm)
    problems.push({
      code: "walls-fill-it",
      path: "master.sizes.wallMm",
      message: `Two walls of ${quote(s.wallMm, "length")} fill ${what} of ${quote(leastMm, "length")}: make the wall thinner, or choose a solid shape.`,
    });
  if (s.floorMm >= s.heightMm)
    problems.push({
      code: "floor-fills-it",
      path: "master.sizes.floorMm",
      message: `A floor of ${quote(s.floorMm, "length")} leaves no hollow in a height of ${quote(s.heightMm, "length")}: make the floor thinner, or choose a solid shape.`,
    });
  return problems;
}
