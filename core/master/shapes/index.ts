import { box } from "./box";
import { cylinder } from "./cylinder";
import { displaced } from "./displaced";
import { dome } from "./dome";
import { frustum } from "./frustum";
import { model, photographs } from "./model";
import { ovalDish } from "./ovalDish";
import { plaque } from "./plaque";
import type { Shape } from "./shape";
import { turned } from "./turned";
import { vessel } from "./vessel";
import { weighed } from "./weighed";

/** Every shape a master can have, one file each. A new one is a file and a line here. */
export const SHAPES = { box, cylinder, frustum, dome, ovalDish, plaque, vessel, turned, displaced, weighed, model, photographs } as const satisfies Record<
  string,
  Shape
>;
export type ShapeKind = keyof typeof SHAPES;
export const SHAPE_KINDS = Object.keys(SHAPES) as [ShapeKind, ...ShapeKind[]];
/** The file of a shape. */
export const shapeOf = (kind: ShapeKind): Shape => SHAPES[kind];
