import { perimeterOf, plain, type Outline, type Point } from "../../body";
import { quote } from "../../quantity";
import type { Girth } from "../girth";
import { SMALLEST_MM, type FormProblem, type Shape } from "./shape";

/** Points round a section; a multiple of four, so that each side's furthest point is one. */
const AROUND = 72;

/** How far a section reaches to each side, mm, so that a tape lies round it as told. */
interface Reaches {
  right: number;
  left: number;
  back: number;
  front: number;
}

const ringOf = ({ right, left, back, front }: Reaches): Point[] =>
  Array.from({ length: AROUND }, (_, i): Point => {
    const t = (2 * Math.PI * i) / AROUND;
    const [c, s] = [Math.cos(t), Math.sin(t)];
    return [c * (c > 0 ? right : left), s * (s > 0 ? back : front)];
  });

/** Length of four quarter ellipses that meet, mm. */
const lengthOf = ({ right, left, back, front }: Reaches): number =>
  [
    [right, back],
    [left, back],
    [left, front],
    [right, front],
  ].reduce((sum, [a, b]) => sum + perimeterOf({ kind: "ellipse", a: a!, b: b! }) / 4, 0);

/** What is not told of a girth follows: round, or as deep as the tape asks for. Null where the tape is shorter than twice the width. */
export function reachesOf(g: Girth): Reaches | null {
  const width = g.leftMm !== null && g.rightMm !== null ? { right: g.rightMm, left: g.leftMm } : null;
  const depth = g.frontMm !== null && g.backMm !== null ? { front: g.frontMm, back: g.backMm } : null;
  if (width && depth) {
    // All four sides give the form, the tape its size.
    const told = { ...width, ...depth };
    const by = g.girthMm / lengthOf(told);
    return { right: told.right * by, left: told.left * by, back: told.back * by, front: told.front * by };
  }
  const half = width ? (width.right + width.left) / 2 : depth ? (depth.front + depth.back) / 2 : null;
  if (half === null) {
    const r = g.girthMm / (2 * Math.PI);
    return { right: r, left: r, back: r, front: r };
  }
  if (g.girthMm < 4 * half * (1 + 1e-9)) return null;
  let [low, high] = [0, g.girthMm];
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    const all = width ? { ...width, back: mid, front: mid } : { ...depth!, right: mid, left: mid };
    if (lengthOf(all) < g.girthMm) low = mid;
    else high = mid;
  }
  return width ? { ...width, back: low, front: low } : { ...depth!, right: low, left: low };
}

export const girths: Shape = {
  label: "Girths by tape",
  when: "Any rounded form: a tape laid round it at a few heights, and how far it reaches to the sides.",
  fields: [],
  problems: ({ girths: rows }) => {
    const problems: FormProblem[] = [];
    const say = (message: string) => problems.push({ code: "girths", path: "master.girths", message });
    if (rows.length < 2) {
      say("Girths are needed at two heights at least: near the back and near the top.");
      return problems;
    }
    if (rows.some((r, i) => i > 0 && r.zMm < rows[i - 1]!.zMm)) say("Heights have to rise from the back to the top: sort the rows.");
    if (rows.at(-1)!.zMm - rows[0]!.zMm < SMALLEST_MM) say("The rows have no height: give at least two different heights.");
    for (const r of rows)
      if (!reachesOf(r))
        say(
          `At ${quote(r.zMm, "length")} a tape of ${quote(r.girthMm, "length")} does not reach round: it has to be longer than twice the width. Measure one of the two again.`,
        );
    return problems;
  },
  form: ({ girths: rows }) =>
    plain(
      rows.map((r) => {
        const reach = reachesOf(r) ?? { right: 0, left: 0, back: 0, front: 0 };
        const outline: Outline = { kind: "polygon", rings: [ringOf(reach)] };
        return { zMm: r.zMm - rows[0]!.zMm, outline };
      }),
    ),
  // A tape is read as well as a ruler; between the rows the form is taken as straight.
  errorMl: (t, volumeMl) => {
    const volume = volumeMl(t);
    const longer = t.girths.map((r) => ({ ...r, girthMm: r.girthMm + t.readingMm }));
    return Math.hypot(volumeMl({ ...t, girths: longer }) - volume, BETWEEN * volume);
  },
};

/** What a form that is rounded between its rows adds or takes: a workshop estimate. */
const BETWEEN = 0.03;
