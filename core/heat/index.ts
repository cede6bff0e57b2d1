export * from "./conduction";
export * from "./question";
export * from "./study";
export * from "./substance";
