import * as z from "zod";
import { simplified, type Point } from "../body";
import { define, defineOnFile, fault, type Operation } from "../operation";
import { agreed, areaOfRings, flatOutline, outlineOf, PhotoFault, planeOf, silhouetted } from ".";

const Px = z.tuple([z.number().finite(), z.number().finite()]);
const mm = (what: string) => z.number().gt(0, `${what} has to be more than 0`).max(1e6);
const Scale = z.union([
  z.strictObject({ pointsPx: z.tuple([Px, Px]), distanceMm: mm("the distance between the two points") }),
  z.strictObject({
    sheetPx: z.tuple([Px, Px, Px, Px]).describe("clockwise from the top left"),
    widthMm: mm("the width of the sheet"),
    heightMm: mm("the height of the sheet"),
  }),
]);
const Ring = z.array(Px).min(3);
const cameraMm = z.number().gt(0).max(1e6).nullish().describe("how far the camera stood from the plane of the scale");
const Brush = z.strictObject({ at: Px, radiusPx: z.number().gt(0) });
const spread = (rings: readonly (readonly Point[])[]): [number, number][][] => rings.map((r) => r.map(([x, y]): [number, number] => [x, y]));

const orFault = <T>(path: string, run: () => T): T => {
  try {
    return run();
  } catch (e) {
    if (e instanceof PhotoFault) return fault(path, e.message);
    throw e;
  }
};

/** What outsiders can ask of pictures. */
export const operations: readonly Operation[] = [
  defineOnFile(
    "photo.outline",
    "The outline of what was tapped in a picture, in its points and in mm",
    "picture",
    z.strictObject({
      tapPx: Px,
      scale: Scale.nullish(),
      cameraMm,
      thicknessMm: z.number().min(0).max(10_000).default(0).describe("of a flat thing that lies on the plane of the scale"),
      addPx: z.array(Brush).max(5000).default([]).describe("brushed places that are the piece"),
      removePx: z.array(Brush).max(5000).default([]).describe("brushed places that are not"),
    }),
    z.object({
      sizePx: Px,
      outlinePx: z.array(z.array(Px)).describe("the outer ring first, then holes"),
      outlineMm: z.array(z.array(Px)).nullable().describe("in the plane of the scale, y down"),
      areaMm2: z.number().nullable(),
      sure: z.number().describe("share of the line's neighbourhood that looks like its own side, 0 to 1"),
      cameraMm: z.number().nullable().describe("as told, or as the slant of the sheet tells"),
    }),
    (picture, asked) => {
      const found = orFault("tapPx", () => outlineOf(picture, asked));
      const outlinePx = found.rings.map((r) => simplified(r, 0.15));
      const sizePx: [number, number] = [picture.width, picture.height];
      const { scale } = asked;
      if (!scale) return { sizePx, outlinePx: spread(outlinePx), outlineMm: null, areaMm2: null, sure: found.sure, cameraMm: asked.cameraMm ?? null };
      const plane = orFault("scale", () => planeOf(scale, sizePx, asked.cameraMm ?? null));
      const outlineMm = flatOutline(outlinePx, plane, asked.thicknessMm);
      return {
        sizePx,
        outlinePx: spread(outlinePx),
        outlineMm: spread(outlineMm),
        areaMm2: areaOfRings(outlineMm),
        sure: found.sure,
        cameraMm: plane.camera?.distanceMm ?? null,
      };
    },
  ),
  define(
    "photo.body",
    "A body from one to three silhouettes: its volume, how far that may be off, and its levels",
    z.strictObject({
      views: z
        .array(
          z.strictObject({
            view: z.enum(["front", "side", "top"]),
            outlinePx: z.union([Ring.transform((r) => [r]), z.array(Ring).min(1)]).describe("rings as photo.outline gives them, or one ring"),
            scale: Scale,
            sizePx: Px,
            cameraMm,
          }),
        )
        .min(1)
        .max(3),
      heightMm: z.number().gt(0).max(1e5).nullish().describe("for a plan alone: how high it stands"),
      raising: z
        .strictObject({
          draftDeg: z.number().min(0).max(60).optional().describe("sides lean in by this from upright"),
          domeMm: z.number().min(0).max(1e4).optional().describe("the upper face rises to this in its middle"),
          reliefMm: z.number().min(0).max(1e4).optional(),
          reliefShare: z.number().min(0).max(1).optional().describe("of the upper face"),
        })
        .default({})
        .describe("of a plan alone: how its sides and its upper face run"),
      squareness: z
        .number()
        .min(0)
        .max(1)
        .nullish()
        .describe("of level sections: 0 an ellipse, 1 a rectangle; left out, an ellipse with the doubt that asks for"),
      toldMl: z.number().gt(0).nullish().describe("its volume by a jug or by weight over density"),
      toldErrorMl: z.number().gt(0).nullish(),
    }),
    z.object({
      volumeMl: z.number(),
      uncertaintyMl: z.number().describe("standard uncertainty"),
      heightMm: z.number(),
      agrees: z.boolean().nullable().describe("with the volume told; null where none was"),
      doubts: z.array(z.object({ what: z.string(), share: z.number() })),
      says: z.array(z.string()),
      levels: z.array(z.object({ zMm: z.number(), outlineMm: z.array(z.array(Px)) })),
    }),
    (asked) => {
      const b = orFault("views", () =>
        silhouetted(
          asked.views.map((v) => ({ ...v, cameraMm: v.cameraMm ?? null })),
          { heightMm: asked.heightMm ?? null, squareness: asked.squareness ?? null, raising: asked.raising },
        ),
      );
      const told = asked.toldMl ? agreed(b.volumeMm3, b.errorMm3, asked.toldMl * 1000, (asked.toldErrorMl ?? 0.02 * asked.toldMl) * 1000) : null;
      const by = told?.byLength ?? 1;
      const off =
        asked.toldMl && !told
          ? `The views give ${(b.volumeMm3 / 1000).toFixed(0)} ± ${(b.errorMm3 / 1000).toFixed(0)} mL and the other reading ${asked.toldMl} mL: one of them is wrong. Check the scale of the pictures, and the weight or the jug.`
          : null;
      return {
        volumeMl: (told?.volumeMm3 ?? b.volumeMm3) / 1000,
        uncertaintyMl: (told?.errorMm3 ?? b.errorMm3) / 1000,
        heightMm: b.heightMm * by,
        agrees: asked.toldMl ? told !== null : null,
        doubts: b.doubts,
        says: off ? [...b.says, off] : b.says,
        levels: b.form.outer.map((r) => ({
          zMm: r.zMm * by,
          outlineMm: r.outline.kind === "polygon" ? spread(r.outline.rings.map((ring) => ring.map(([x, y]): Point => [x * by, y * by]))) : [],
        })),
      };
    },
  ),
];
