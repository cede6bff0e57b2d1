export * from "./pour";
export * from "./patch";
export * from "./mould";
