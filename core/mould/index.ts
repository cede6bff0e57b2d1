export * from "./decision";
export * from "./layout";
export { boxAround, depthInEllipse, type BoxPlan, type Footprint } from "./box";
