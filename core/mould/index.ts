export * from "./choices";
export * from "./decision";
export * from "./layout";
export { boxAround, leastWall, type BoxPlan, type Footprint } from "./box";
