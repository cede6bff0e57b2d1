export * from "./cavities";
export * from "./advice";
export * from "./courses";
export * from "./gate";
export * from "./life";
