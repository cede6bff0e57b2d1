export * from "./measure";
export { SHAPE_KINDS, SHAPES, shapeOf, type ShapeKind } from "./shapes";
export { LARGEST_MM, SIZE_KEYS, SMALLEST_MM, type FormProblem, type ProfilePoint, type SizeField, type SizeKey, type Sizes } from "./shapes/shape";
