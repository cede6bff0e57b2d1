export { buildScene, STAGES, STUFFS, type Region, type Scene, type SceneQuestion, type Stage, type Stuff } from "./scene";
