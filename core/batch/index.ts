export * from "../mix";
export * from "./rubber";
export * from "./cast";
