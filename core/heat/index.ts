export * from "./conduction";
export * from "./question";
export * from "./quick";
export * from "./study";
export * from "./substance";
