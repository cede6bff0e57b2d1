export * from "./plan";
export * from "./snapshot";
export * from "./outcome";
export * from "./held";
