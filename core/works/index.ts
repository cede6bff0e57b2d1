export * from "./order";
export * from "./project";
export * from "./cost";
