export * from "./pour";
export * from "./patch";
export * from "./mould";
export * from "./begun";
export * from "./stand";
export * from "./doubts";
