import { glove } from "./glove";
import type { OpeningKind } from "./kind";
import { open } from "./open";
import { panel } from "./panel";
import { plugs } from "./plugs";
import { pourAndCut } from "./pourAndCut";
import { putty } from "./putty";
import { skin } from "./skin";
import { skinCut } from "./skinCut";
import { slit } from "./slit";
import { threePart } from "./threePart";
import { twoPart } from "./twoPart";

/** Every way for a mould to open, one file each. A new one is a file and a line here. */
const ALL = { open, slit, twoPart, threePart, pourAndCut, plugs, glove, skin, skinCut, putty, panel };

export type Opening = keyof typeof ALL;
export const OPENINGS = Object.keys(ALL) as [Opening, ...Opening[]];
export const OPENING: Record<Opening, OpeningKind> = ALL;
