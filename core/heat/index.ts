export * from "./conduction";
export * from "./study";
export * from "./substance";
