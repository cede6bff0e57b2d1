export { buildScene, STUFFS, type Scene, type Region, type Stuff } from "./scene";
export * from "./sheet";
export * from "./stages";
export * from "./answers";
export * from "./contacts";
export * from "./labels";
export * from "./measures";
export * from "./thumb";
export * from "./views";
