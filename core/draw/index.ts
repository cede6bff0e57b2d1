export { buildScene, STAGES, STUFFS, type Scene, type Stage, type Stuff } from "./scene";
export * from "./thumb";
