export * from "./define";
export * from "./shapes";
