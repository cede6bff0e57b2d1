import * as z from "zod";
import { defineOnFile, OperationFault, type Operation } from "../operation";
import { lengthOf, modelOf, type Mesh, type Soup, type Vec } from "../mesh";
import { coatMap, tiltsOf, trappedIn } from ".";

const Point3 = z.tuple([z.number().finite(), z.number().finite(), z.number().finite()]);
const Up = Point3.refine((d) => lengthOf(d) > 0, "a direction of no length points nowhere: give three numbers that are not all 0").default([0, 0, 1]);
const Places = z.union([Point3.transform((p) => [p]), z.array(Point3).max(60)]);
const asked = {
  unitMm: z.number().gt(0).max(1e6).nullish().describe("how many mm one unit of the file is; where neither this nor the file says it, 1"),
  up: Up.describe("which way is up in the file's own axes"),
  sprueMm: Places.nullish().describe("where it is filled, on or in the cavity: one place or several; without it at its highest place"),
  ventsMm: Places.nullish().describe("where air may leave besides"),
  cells: z.int().min(16).max(512).default(256).describe("along the longer side seen from above"),
};
const cavity = (soup: Soup, unitMm: number | null | undefined): Mesh => modelOf(soup, unitMm ?? null).mesh;
const spread = (v: Vec): [number, number, number] => [v[0], v[1], v[2]];
const PocketOut = z.object({
  volumeMm3: z.number(),
  topMm: z.number().describe("highest of it, above the lowest of the cavity along up"),
  spillMm: z.number().describe("where it is shut off, above the lowest of the cavity along up"),
  atMm: Point3.describe("its highest place in the file's own axes: where a vent has to be"),
});
const orFault = <T>(path: string, run: () => T): T => {
  try {
    return run();
  } catch (e) {
    if (e instanceof RangeError) throw new OperationFault([{ path, message: e.message }]);
    throw e;
  }
};

/** What outsiders can ask of the air in a cavity. */
export const operations: readonly Operation[] = [
  defineOnFile(
    "air.trapped",
    "Air that stays in a cavity as it fills: every pocket, where it is shut off, and the place of a vent that empties it",
    "model",
    z.strictObject(asked),
    z.object({ cavityMm3: z.number(), trappedMm3: z.number(), pockets: z.array(PocketOut) }),
    (soup, i) => {
      const t = orFault("sprueMm", () => trappedIn(cavity(soup, i.unitMm), { up: i.up, sprueMm: i.sprueMm ?? [], ventsMm: i.ventsMm ?? [], cells: i.cells }));
      return {
        cavityMm3: t.cavityMm3,
        trappedMm3: t.trappedMm3,
        pockets: t.pockets.map(({ volumeMm3, topMm, spillMm, atMm }) => ({ volumeMm3, topMm, spillMm, atMm: spread(atMm) })),
      };
    },
  ),
  defineOnFile(
    "air.tilts",
    "The tilts of a cavity that leave least air in it",
    "model",
    z.strictObject({
      ...asked,
      cells: z.int().min(16).max(512).default(128),
      mostDeg: z.number().min(0).max(180).default(45).describe("as far as it may be tilted from up"),
      looked: z.int().min(20).max(4000).default(400).describe("directions over the whole sphere; those within reach are tried"),
    }),
    z.object({
      level: z.object({ trappedMm3: z.number() }),
      best: z.array(z.object({ up: Point3, tiltDeg: z.number(), trappedMm3: z.number() })),
      looked: z.number(),
    }),
    (soup, i) => {
      const t = orFault("sprueMm", () =>
        tiltsOf(cavity(soup, i.unitMm), { up: i.up, sprueMm: i.sprueMm ?? [], ventsMm: i.ventsMm ?? [], cells: i.cells, mostDeg: i.mostDeg, looked: i.looked }),
      );
      return { level: { trappedMm3: t.level.trappedMm3 }, best: t.best.map((b) => ({ ...b, up: spread(b.up) })), looked: t.looked };
    },
  ),
  defineOnFile(
    "air.coat",
    "Where rubber poured round a master shuts air in: what wants a painted coat, or vacuum",
    "model",
    z.strictObject({
      unitMm: asked.unitMm,
      up: asked.up,
      cells: asked.cells,
      raisedMm: z.number().min(0).max(1e4).default(0).describe("how high it stands off the board"),
    }),
    z.object({
      trappedMm3: z.number(),
      spots: z.array(z.object({ volumeMm3: z.number(), atMm: Point3, deepMm: z.number(), wideMm: z.number(), by: z.enum(["paint", "vacuum"]) })),
    }),
    (soup, i) => {
      const m = coatMap(cavity(soup, i.unitMm), { up: i.up, cells: i.cells, raisedMm: i.raisedMm });
      return { trappedMm3: m.trappedMm3, spots: m.spots.map((s) => ({ ...s, atMm: spread(s.atMm) })) };
    },
  ),
];
