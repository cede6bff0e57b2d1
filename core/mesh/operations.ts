import * as z from "zod";
import { narrowCores } from "../air";
import { defineOnFile, fault, type Operation } from "../operation";
import { lengthOf, measureModel, modelOf, MOST_TRIANGLES, outsideOf, pullOf, pullsOf, skinOf, type Soup, type Vec } from ".";

const Direction = z
  .tuple([z.number().finite(), z.number().finite(), z.number().finite()])
  .refine((d) => lengthOf(d) > 0, "a direction of no length points nowhere: give three numbers that are not all 0");
const Point3 = z.tuple([z.number(), z.number(), z.number()]);
const Unit = { unitMm: z.number().gt(0).max(1e6).nullish().describe("how many mm one unit of the file is; where neither this nor the file says it, 1") };
const Close = z.object({ mm: z.number(), atMm: Point3 }).nullable();
const whole = (soup: Soup, { unitMm }: { unitMm?: number | null | undefined }) => modelOf(soup, unitMm ?? null);
const spread = (v: Vec): [number, number, number] => [v[0], v[1], v[2]];
const Way = z.object({ direction: Point3, trappedMm2: z.number(), trappedShare: z.number().describe("of the whole surface, 0 to 1"), shadowMm2: z.number() });

/** What outsiders can ask of a model. */
export const operations: readonly Operation[] = [
  defineOnFile(
    "model.measure",
    `Volume, area, levels and soundness of a model: STL, OBJ, PLY or 3MF of up to ${MOST_TRIANGLES.toLocaleString("en")} triangles`,
    "model",
    z.strictObject({
      ...Unit,
      axis: Direction.default([0, 0, 1]).describe("levels lie across it"),
      heightsMm: z.array(z.number().finite()).max(2000).nullish().describe("heights of levels above the lowest point; evenly spread ones without it"),
    }),
    z.object({
      verdict: z.enum(["read", "warn", "repair"]).describe("read as it is; read with something to know; or mended first"),
      format: z.string(),
      unitMm: z.number(),
      unitTold: z.boolean().describe("false where the file does not say its unit"),
      triangles: z.number().describe("as the file holds them"),
      volumeMm3: z.number(),
      doubtMm3: z.number().describe("how far the volume may be off for what was mended"),
      areaMm2: z.number(),
      boundsMm: z.object({ low: Point3, high: Point3, size: Point3 }),
      centroidMm: Point3,
      shells: z.number(),
      openEdges: z.number().describe("as found, before anything was closed"),
      crowdedEdges: z.number().describe("with more than two faces"),
      throughHoles: z.number(),
      hiddenVoids: z.number(),
      thinnestWall: Close,
      narrowestGap: Close,
      narrowCores: z
        .array(z.object({ deepMm: z.number(), wideMm: z.number(), atMm: Point3, opens: Point3 }))
        .describe("blind holes more than three times as deep as wide"),
      repairs: z.array(z.object({ what: z.string(), count: z.number(), message: z.string() })),
      says: z.array(z.string()),
      levels: z.array(z.object({ zMm: z.number(), areaMm2: z.number(), girthMm: z.number(), outlineMm: z.array(z.array(z.tuple([z.number(), z.number()]))) })),
    }),
    (soup, asked) => {
      const model = whole(soup, asked);
      const m = measureModel(model, { axis: asked.axis, ...(asked.heightsMm ? { heightsMm: asked.heightsMm } : {}) });
      const { low, high } = m.boundsMm;
      const told = asked.unitMm !== undefined || soup.unitMm !== null;
      return {
        verdict: m.verdict,
        format: soup.format,
        unitMm: asked.unitMm ?? soup.unitMm ?? 1,
        unitTold: told,
        triangles: model.found.triangles,
        volumeMm3: m.volumeMm3,
        doubtMm3: m.doubtMm3,
        areaMm2: m.areaMm2,
        boundsMm: { low: spread(low), high: spread(high), size: spread([high[0] - low[0], high[1] - low[1], high[2] - low[2]]) },
        centroidMm: spread(m.centroidMm),
        shells: model.shells,
        openEdges: model.found.openEdges,
        crowdedEdges: model.found.crowdedEdges,
        throughHoles: model.throughHoles,
        hiddenVoids: model.hollow.filter(Boolean).length,
        thinnestWall: m.thinnestWall && { mm: m.thinnestWall.mm, atMm: spread(m.thinnestWall.atMm) },
        narrowestGap: m.narrowestGap && { mm: m.narrowestGap.mm, atMm: spread(m.narrowestGap.atMm) },
        narrowCores: narrowCores(model.mesh).map((c) => ({ ...c, atMm: spread(c.atMm), opens: spread(c.opens) })),
        repairs: [...model.repairs],
        says: [...(told ? [] : ["The file does not say its unit: it was taken as mm."]), ...model.repairs.map((r) => r.message), ...model.warnings],
        levels: m.levels.map((l) => ({ ...l, outlineMm: l.outlineMm.map((r) => r.map(([x, y]): [number, number] => [x, y])) })),
      };
    },
  ),
  defineOnFile(
    "model.pull",
    "What of a model is free along a straight pull, against it, or trapped",
    "model",
    z.strictObject({ ...Unit, direction: Direction }),
    z.object({
      direction: Point3,
      areaMm2: z.number(),
      freePlusMm2: z.number().describe("free along the direction, upright faces among them"),
      freeMinusMm2: z.number().describe("free against it, upright faces among them"),
      freeBothMm2: z.number().describe("counted in both"),
      trappedMm2: z.number(),
      deepestMm: z.number().describe("how far the rubber has to give way sideways before the deepest trapped place is free"),
    }),
    (soup, asked) => {
      const p = pullOf(whole(soup, asked).mesh, asked.direction, 400_000);
      return { ...p, direction: spread(p.direction) };
    },
  ),
  defineOnFile(
    "model.pulls",
    "The straight pull that traps least of a model, others, and the fewest parts that free it",
    "model",
    z.strictObject({ ...Unit, looked: z.int().min(20).max(1000).default(200).describe("directions tried over half the sphere") }),
    z.object({
      best: Way.extend({ deepestMm: z.number() }),
      others: z.array(Way),
      parts: z.number(),
      partDirections: z.array(z.object({ direction: Point3, share: z.number() })),
      hiddenShare: z.number().describe("of the surface that no direction frees"),
    }),
    (soup, asked) => {
      const r = pullsOf(whole(soup, asked).mesh, asked.looked);
      return {
        best: { ...r.best, direction: spread(r.best.direction) },
        others: r.others.map((w) => ({ ...w, direction: spread(w.direction) })),
        parts: r.parts.length,
        partDirections: r.parts.map((p) => ({ ...p, direction: spread(p.direction) })),
        hiddenShare: r.hiddenShare,
      };
    },
  ),
  defineOnFile(
    "model.skin",
    "Volume of a skin of one thickness outside the whole surface of a model",
    "model",
    z.strictObject({
      ...Unit,
      thicknessMm: z.number().gt(0, "a skin has to be thicker than 0 mm").max(1000),
      cells: z.int().min(32).max(512).default(256).describe("smallest cubes along the longest side"),
    }),
    z.object({ volumeMm3: z.number(), thicknessMm: z.number(), areaMm2: z.number() }),
    (soup, asked) => {
      const model = whole(soup, asked);
      const size = measureModel(model, { quick: true, levels: 2 });
      const { low, high } = size.boundsMm;
      const longest = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
      // A skin has to be a few cells thick to be followed at all.
      if (asked.thicknessMm * asked.cells < 1.5 * longest)
        return fault(
          "thicknessMm",
          `${asked.thicknessMm} mm is too thin to follow on a piece of ${Math.round(longest)} mm with ${asked.cells} cells: ask for more cells, or take area times thickness.`,
        );
      return { volumeMm3: skinOf(outsideOf(model), asked.thicknessMm, asked.cells).volumeMm3, thicknessMm: asked.thicknessMm, areaMm2: size.areaMm2 };
    },
  ),
];
