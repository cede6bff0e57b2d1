export { PhotoFault, type Picture } from "./picture";
export * from "./outline";
export * from "./scale";
export * from "./silhouettes";
export * from "./raised";
