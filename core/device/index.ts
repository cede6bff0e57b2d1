export * from "./line";
export * from "./simulated";
