export * from "./part";
export * from "./rubber";
export * from "./cast";
