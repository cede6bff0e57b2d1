export * from "./pour";
export * from "./event";
export * from "./patch";
export * from "./mould";
export * from "./begun";
export * from "./stand";
export * from "./nextAct";
export * from "./doubts";
