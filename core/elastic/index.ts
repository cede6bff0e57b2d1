export * from "./shore";
export { plateBow, PROFILE_STEPS, SHEAR_FACTOR, type Bow, type Edge, type Plate, type Pressure } from "./plate";
export { lameGrowth, tubeBulge, type TubeLevel } from "./tube";
