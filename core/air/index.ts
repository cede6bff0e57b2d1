export * from "./trapped";
export * from "./tilts";
export * from "./coat";
export * from "./stand";
export * from "./round";
