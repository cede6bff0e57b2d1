export * from "./outline";
export * from "./body";
export * from "./offset";
export * from "./shell";
export * from "./fill";
