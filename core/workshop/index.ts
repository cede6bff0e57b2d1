export * from "./settings";
