export * from "./plan";
