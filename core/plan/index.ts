export * from "./plan";
export * from "./snapshot";
