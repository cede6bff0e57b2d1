import type { Job } from "../record";
import type { Plan } from "../plan";
import type { Scene } from "./scene";
import type { Stage } from "./stages";
import type { View } from "./views";

export type Point = readonly [number, number];

/** A number of the job that can be typed or dragged where it stands: its path, and between what it may be, mm. */
export interface Setting {
  path: string;
  min: number;
  max: number;
}

/** One way a grip moves: by so many mm of its number for each mm along the axis of the picture. */
export interface Pull extends Setting {
  valueMm: number;
  per: number;
  /** What it goes by where a ruler is too coarse for it, mm. */
  fineMm?: number;
  /** What it goes by where no ruler tells it, in its own unit. */
  stepMm?: number;
  /** Degrees, where it is no length. */
  unit?: "deg";
}

/** Something on the drawing that can be taken hold of. */
export interface Grip {
  key: string;
  name: string;
  at: Point;
  x: Pull | null;
  z: Pull | null;
}

/** A picture, and what it was made of. */
export interface Pictured {
  job: Job;
  plan: Plan;
  scene: Scene;
  stage: Stage;
  view: View;
}
