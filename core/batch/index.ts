export * from "./rubber";
export * from "./cast";
