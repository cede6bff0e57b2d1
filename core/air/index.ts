export * from "./trapped";
export * from "./tilts";
export * from "./coat";
export { standIn, type Stand } from "./stand";
