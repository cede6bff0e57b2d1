export * from "./advice";
export * from "./gate";
export * from "./life";
