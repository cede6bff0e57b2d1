export * from "./part";
export * from "./ratio";
