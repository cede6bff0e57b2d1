export * from "./units";
export * from "./parse";
export * from "./range";
export * from "./format";
export * from "./say";
export * from "./field";
export * from "./figure";
export * from "./bounds";
