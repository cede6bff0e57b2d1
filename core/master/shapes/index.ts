import { bellied } from "./bellied";
import { bowl } from "./bowl";
import { box } from "./box";
import { cylinder } from "./cylinder";
import { displaced } from "./displaced";
import { dome } from "./dome";
import { frustum } from "./frustum";
import { girths } from "./girths";
import { halfRound } from "./halfRound";
import { model, photographs } from "./model";
import { narrowing } from "./narrowing";
import { ovalDish } from "./ovalDish";
import { plaque } from "./plaque";
import { ring } from "./ring";
import type { Shape } from "./shape";
import { stadium } from "./stadium";
import { star } from "./star";
import { turned } from "./turned";
import { vessel } from "./vessel";
import { weighed } from "./weighed";

/** Every shape a master can have, one file each. A new one is a file and a line here. */
export const SHAPES = {
  box,
  stadium,
  halfRound,
  cylinder,
  frustum,
  dome,
  bellied,
  bowl,
  ovalDish,
  plaque,
  star,
  ring,
  vessel,
  narrowing,
  turned,
  girths,
  displaced,
  weighed,
  model,
  photographs,
} as const satisfies Record<string, Shape>;
export type ShapeKind = keyof typeof SHAPES;
export const SHAPE_KINDS = Object.keys(SHAPES) as [ShapeKind, ...ShapeKind[]];
/** The file of a shape. */
export const shapeOf = (kind: ShapeKind): Shape => SHAPES[kind];
