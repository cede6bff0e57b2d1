export * from "./measure";
export * from "./scanned";
export * from "./parts";
export { Girth, GIRTH_FIELDS } from "./girth";
export { SHAPE_KINDS, SHAPES, type ShapeKind } from "./shapes";
export { LARGEST_MM, SIZE_KEYS, SMALLEST_MM, type FormProblem, type ProfilePoint, type SizeKey, type Sizes } from "./shapes/shape";
