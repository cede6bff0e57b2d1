export * from "./shore";
export { plateBow, PROFILE_STEPS, SHEAR_FACTOR, type Bow, type Edge, type Plate } from "./plate";
export { ovalBow } from "./oval";
export { lameGrowth, tubeBulge, type TubeLevel } from "./tube";
