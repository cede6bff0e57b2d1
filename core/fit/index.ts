export * from "./verdict";
export * from "./chain";
export { RULES, type Rule } from "./rules";
export * from "./changes";
export * from "./matrix";
export * from "./patch";
