import { expose } from "comlink";
import { simplified, type Point } from "../core/body";
import { outlineOf, type Hints, type Picture } from "../core/photo";

const worker = {
  /** Finds the outline of what was tapped, away from the page. Throws with a reason where there is none. */
  outline: (picture: Picture, hints: Hints, tell: (share: number, what: string) => void): { rings: Point[][]; sure: number } => {
    const found = outlineOf(picture, hints, tell);
    return { rings: found.rings.map((r) => simplified(r, 0.4)), sure: found.sure };
  },
};
export type PhotoWorker = typeof worker;

expose(worker);
