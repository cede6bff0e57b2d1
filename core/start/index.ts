export * from "./kinds";
export * from "./assumed";
