import * as library from "polygon-clipping";
import { pointsOf, ringArea, areaOf, type Outline, type Point } from "./outline";
import { hundredth } from "./ring";

// Built as a default export, whatever its types say.
const { union, difference } = (library as { default?: typeof library }).default ?? library;

/** Points round an ellipse: the ring is as large as the ellipse, and so a hair outside it at its corners. */
const AROUND = 72;

/** An outline as polygons of the same area. */
export function polygonOf(o: Outline): Extract<Outline, { kind: "polygon" }> {
  if (o.kind === "polygon") return o;
  const ring = pointsOf(o, AROUND);
  const by = o.kind === "ellipse" && o.a * o.b > 0 ? Math.sqrt(areaOf(o) / ringArea(ring)) : 1;
  return { kind: "polygon", rings: [ring.map(([x, y]): Point => [x * by, y * by])] };
}

/** Each outer ring with the holes that lie in it, as the library wants them; to a hundredth of a millimetre, so that near sides are one. */
function nested(o: Outline): library.MultiPolygon {
  const rings = polygonOf(o).rings.map((r) => r.map(([x, y]): library.Pair => [hundredth(x), hundredth(y)]));
  const outer = rings.filter((r) => ringArea(r) > 0).map((r): library.Polygon => [r]);
  const holes = rings.filter((r) => ringArea(r) < 0).map((r): library.Polygon => [r]);
  return holes.length === 0 ? outer : difference(outer, ...holes);
}

const told = (m: library.MultiPolygon): Outline => ({
  kind: "polygon",
  rings: m.flatMap((polygon) =>
    polygon.map((ring, i) => {
      const open = ring.slice(0, -1);
      return ringArea(open) > 0 === (i === 0) ? open : open.reverse();
    }),
  ),
});

/** All that lies in either of two outlines. */
export const joinedOutline = (p: Outline, q: Outline): Outline => told(union(nested(p), nested(q)));
/** What lies in the first outline and not in the second. */
export const lessOutline = (p: Outline, q: Outline): Outline => told(difference(nested(p), nested(q)));
/** An outline moved sideways. */
export const movedOutline = (o: Outline, dx: number, dy: number): Outline => ({
  kind: "polygon",
  rings: polygonOf(o).rings.map((r) => r.map(([x, y]): Point => [x + dx, y + dy])),
});
