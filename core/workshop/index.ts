export * from "./settings";
export * from "./fields";
