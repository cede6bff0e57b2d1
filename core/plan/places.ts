import type { Body } from "../body";
import type { Layout } from "../mould";
import { quote } from "../quantity";
import type { Job } from "../record";
import type { Place, PlannedPour, Weights } from "./types";

/** Rubber froths up to this many times its height before it falls back. */
const HEAD_ROOM = 4;

/** Whether the filled mould goes on its shelf, and the cup into its pot. */
export function placesOf(job: Job, m: Body, layout: Layout, weights: Weights | null, pours: readonly PlannedPour[]): Place[] {
  const places: Place[] = [];
  const jacket = layout.jacket?.thicknessMm ?? 0;
  const outer =
    layout.kind === "block"
      ? [layout.box.lengthMm + 2 * jacket, layout.box.widthMm + 2 * jacket, layout.fillHeightMm + jacket]
      : [
          m.lengthMm + 2 * (layout.skinMm + jacket + (layout.flange?.widthMm ?? 0)),
          m.widthMm + 2 * (layout.skinMm + jacket + (layout.flange?.widthMm ?? 0)),
          layout.fillHeightMm + jacket,
        ];
  const [length = 0, width = 0, height = 0] = outer;
  const sizes = `${quote(length, "length")} × ${quote(width, "length")} × ${quote(height, "length")}`;
  const { stand, chamber } = job.strength;
  if (stand) {
    const flat = Math.max(length, width) <= Math.max(stand.lengthMm, stand.widthMm) && Math.min(length, width) <= Math.min(stand.lengthMm, stand.widthMm);
    const load = weights === null || weights.filledG <= stand.loadG;
    places.push({
      name: "Shelf",
      fits: flat && height <= stand.heightMm && load,
      why: !flat
        ? `The mould is ${sizes}: it does not go on the shelf.`
        : height > stand.heightMm
          ? `The mould is ${quote(height, "length")} high: more than the shelf leaves.`
          : !load
            ? `Filled it weighs ${quote(weights?.filledG ?? 0, "mass")}: more than the shelf may carry.`
            : `${sizes}${weights ? ` and ${quote(weights.filledG, "mass")}` : ""}: it goes.`,
    });
  }
  if (chamber) {
    const most = Math.max(0, ...pours.map((p) => p.batch?.mixMl ?? 0));
    const potMl = ((Math.PI / 4) * chamber.diameterMm ** 2 * chamber.heightMm) / 1000;
    const cup = most * HEAD_ROOM <= potMl * 0.8;
    const block = Math.hypot(length, width) <= chamber.diameterMm && height <= chamber.heightMm;
    places.push({
      name: "Vacuum or pressure pot",
      fits: cup,
      why: cup
        ? `The largest mix, ${quote(most, "volume")}, has room to froth to ${HEAD_ROOM} times its height. ${block ? "The whole mould goes in too" : "The mould itself does not go in"}; only masters known to be solid go under vacuum or pressure, and only rated pots.`
        : `The largest mix, ${quote(most, "volume")}, would froth over: degas it in ${Math.ceil((most * HEAD_ROOM) / (potMl * 0.8))} cups.`,
    });
  }
  return places;
}
