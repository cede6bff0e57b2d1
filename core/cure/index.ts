export * from "./cure";
export * from "./rule";
export * from "./state";
export * from "./track";
export * from "./drying";
