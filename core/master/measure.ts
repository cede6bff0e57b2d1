import { bodyOf, formVolume, kept, type Body } from "../body";
import { quote } from "../quantity";
import type { Girth } from "./girth";
import { partsErrorMm3, withParts, type Part } from "./parts";
import type { Scanned } from "./scanned";
import { shapeOf, type ShapeKind } from "./shapes";
import type { AllSizes, FormProblem, ProfilePoint, SizeKey, Sizes, Told } from "./shapes/shape";

/** What a person told about a master's form. */
export interface MasterForm {
  shape: ShapeKind;
  sizes: Sizes;
  profile: readonly ProfilePoint[];
  girths?: readonly Girth[];
  /** How well the ruler was read, ± mm. */
  readingMm: number;
  model?: Scanned | null;
  photographs?: Scanned | null;
  /** Joined on and taken away, one after another. */
  parts?: readonly Part[];
}

export type Measured = { ok: true; body: Body } | { ok: false; missing: SizeKey[]; problems: FormProblem[] };

/** Sizes that cannot be, field by field, and then as a whole. */
function problemsOf(kind: ShapeKind, told: Told): FormProblem[] {
  const shape = shapeOf(kind);
  const problems: FormProblem[] = [];
  for (const f of shape.fields) {
    const v = told.sizes[f.key];
    const path = `master.sizes.${f.key}`;
    if (!Number.isFinite(v)) problems.push({ code: "not-a-number", path, message: `${f.label} is not a number: measure it again.` });
    else if (v < f.min)
      problems.push({ code: "too-small", path, message: `${f.label} is ${quote(v, f.dimension)}: it has to be ${quote(f.min, f.dimension)} or more.` });
    else if (v > f.max)
      problems.push({
        code: "too-large",
        path,
        message: `${f.label} is ${quote(v, f.dimension)}: it can be at most ${quote(f.max, f.dimension)}. Check the unit.`,
      });
  }
  return [...problems, ...(shape.problems?.(told) ?? [])];
}

/** Share of relief that an estimate by eye may be off, percentage points. */
const BY_EYE_PCT = 10;

/**
 * How far the volume may be off, ± mL: each reading moved by its own uncertainty, effects added in quadrature (GUM, first
 * order). Ruler sizes by `readingMm`; a shape whose volume is read otherwise says so in its own file.
 */
function errorMl(kind: ShapeKind, told: Told): number {
  const shape = shapeOf(kind);
  const volumeMl = (t: Told): number => {
    const f = shape.form(t);
    return (f.volumeMm3 ?? formVolume(f)) / 1000;
  };
  if (shape.errorMl) return shape.errorMl(told, volumeMl);
  const moved = (key: SizeKey, by: number) => {
    const at = (v: number) => volumeMl({ ...told, sizes: { ...told.sizes, [key]: v } });
    return (at(told.sizes[key] + by) - at(Math.max(1e-9, told.sizes[key] - by))) / 2;
  };
  return Math.hypot(
    ...shape.fields.map((f) => (f.dimension === "length" ? moved(f.key, told.readingMm) : f.dimension === "percent" ? moved(f.key, BY_EYE_PCT) : 0)),
  );
}

/**
 * Measures a master: the body of its shape, its volume with how far that may be off. Lists what is still missing or wrong
 * instead of throwing; a partly filled form is the normal case.
 */
export const measureMaster = kept((form: MasterForm): Measured => {
  const shape = shapeOf(form.shape);
  const missing = shape.fields.map((f) => f.key).filter((k) => form.sizes[k] === undefined);
  if (missing.length > 0) return { ok: false, missing, problems: [] };
  const told: Told = {
    sizes: { ...(Object.fromEntries(shape.fields.map((f) => [f.key, 0])) as AllSizes), ...form.sizes },
    profile: form.profile,
    girths: form.girths ?? [],
    readingMm: form.readingMm,
    model: form.model ?? null,
    photographs: form.photographs ?? null,
  };
  const problems = problemsOf(form.shape, told);
  if (problems.length > 0) return { ok: false, missing: [], problems };
  const parts = form.parts ?? [];
  if (parts.length === 0) return { ok: true, body: bodyOf(shape.form(told), errorMl(form.shape, told)) };
  const whole = withParts(shape.form(told), parts, told);
  const highMm = (whole.outer.at(-1)?.zMm ?? 0) - (whole.outer[0]?.zMm ?? 0);
  if (!(highMm > 0) || !((whole.volumeMm3 ?? formVolume(whole)) > 0))
    return {
      ok: false,
      missing: [],
      problems: [{ code: "nothing-left", path: "master.parts", message: "The parts taken away leave nothing of the piece: look at their sizes and places." }],
    };
  return { ok: true, body: bodyOf(whole, Math.hypot(errorMl(form.shape, told), partsErrorMm3(parts, form.readingMm) / 1000)) };
});
