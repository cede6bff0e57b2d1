export * from "./kinds";
export * from "./clock";
export * from "./river";
export * from "./when";
