import type { Scanned } from "../scanned";
import { formOfScan } from "../scanned";
import { SMALLEST_MM, type FormProblem, type Shape, type Told } from "./shape";

const NOTHING = { outer: [], hollow: [], volumeMm3: 0, areaMm2: null, fillAt: () => 1, reliefMm: null, unknown: [] };

/** A shape that is read from somewhere, rather than typed. */
const read = (key: "model" | "photographs", label: string, when: string, ask: string): Shape => {
  const mine = (t: Told): Scanned | null => t[key];
  return {
    label,
    when,
    fields: [],
    problems: (t) => {
      const s = mine(t);
      const problem = (code: string, message: string): FormProblem[] => [{ code, path: `master.${key}`, message }];
      if (!s) return problem("not-read", ask);
      const { outer } = formOfScan(s);
      return outer.length < 2 || outer.at(-1)!.zMm - outer[0]!.zMm < SMALLEST_MM
        ? problem("no-height", "What was read has no height: read it again, another way up.")
        : [];
    },
    form: (t) => {
      const s = mine(t);
      return s ? formOfScan(s) : NOTHING;
    },
    errorMl: (t) => mine(t)?.errorMl ?? 0,
  };
};

export const model = read("model", "From a model file", "A 3D file of the piece: STL, OBJ, PLY or 3MF.", "Choose the file of the model.");
export const photographs = read(
  "photographs",
  "From photographs",
  "One to three pictures with a ruler or a sheet of paper beside the piece.",
  "Take the first picture.",
);
