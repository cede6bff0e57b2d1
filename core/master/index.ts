export * from "./shapes";
export * from "./measure";
export type { Ring, Solid } from "./solid";
export { outlineArea, outlinePerimeter, ringAt } from "./solid";
export * from "./offset";
