export * from "./cavities";
export * from "./advice";
export * from "./courses";
export * from "./life";
