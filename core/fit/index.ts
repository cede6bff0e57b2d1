export * from "./verdict";
export * from "./chain";
export { RULES } from "./rules";
export * from "./changes";
export * from "./matrix";
export * from "./patch";
