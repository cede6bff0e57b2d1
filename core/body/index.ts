export * from "./kept";
export * from "./outline";
export * from "./ring";
export * from "./body";
export * from "./offset";
export * from "./shell";
export * from "./fill";
export * from "./clip";
