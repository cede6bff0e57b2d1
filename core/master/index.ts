export * from "./shapes";
export * from "./measure";
export type { Ring, Solid } from "./solid";
export { outlineArea, outlinePerimeter } from "./solid";
