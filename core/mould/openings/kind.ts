import type { Body } from "../../body";
import type { RubberForm } from "../../material";
import type { BoxPlan } from "../box";

/** A box that leans while the first of a pour goes in, and is set down level after. Lengths mm, volumes mL. */
export interface Leant {
  leanDeg: number;
  /** Which of the piece's directions lies low: degrees from its right towards its back. */
  towardsDeg: number;
  /** Rubber in it when it is set down level, and how high that stands up the low wall then, from the floor along the wall. */
  backMl: number;
  lowWallMm: number;
  /** Height of its surface then over the lowest edge of the floor, straight up: what presses there. */
  deepMm: number;
  /** The same over the middle of the floor. */
  levelMm: number;
  /** What is in it when it stands so high up the low wall, from nothing to the rim, rising. */
  lowWall: readonly { mm: number; ml: number }[];
  /** Share of the pour, %, from which it would run over the low wall; null where all of it has room. */
  overPct: number | null;
}

/** One pour of rubber into a box, or of a loose plug into its hole. Heights are from the floor as it stands for that pour, mm. */
export interface BlockPour {
  kind: "block";
  /** What it makes: "plug", "whole", or one of the parts of its way of opening. */
  part: string;
  name: string;
  rubberMl: number;
  /** Where the rubber starts: the top of the clay bed, the board, or the part before. */
  fromMm: number;
  fillLineMm: number;
  /** Clay under this pour, mL. */
  clayMl: number;
  /** Share of the master's volume this pour covers, mL. */
  coversMl: number;
  /** Cast into a hole of the master before the rest. */
  plug: boolean;
  /** Poured against rubber that is there already, after the block was turned over. */
  turned: boolean;
  /** The master stands on its head for this pour. */
  upsideDown: boolean;
  /** Null where its box stands level all along. */
  leant: Leant | null;
}

/** What the pours of a block are worked out from. Lengths mm, volumes mL. */
export interface BlockRoom {
  body: Body;
  box: BoxPlan;
  /** Rubber under the master, the parting above its back, and how high rubber and master fill the box. */
  baseMm: number;
  partingMm: number;
  fillHeightMm: number;
  /** The master with its holes plugged. */
  pluggedMl: number;
  /** The part below the parting is poured first, with the master on its head. */
  lowerFirst: boolean;
  /** One that is poured whole is, with the master on its head. */
  onHead: boolean;
}

/** What holds a master while rubber rises round it: the board under its back, its sprue former from below, from a bar above or from the side, or the clay or rubber it lies in. */
export type HeldBy = "board" | "former" | "bar" | "wall" | "clay" | "rubber";

/** What is done before a pour and said with it. */
export interface PourWords {
  before: { id: string; what: string } | null;
  what: string;
  release: readonly string[];
}

interface Common {
  label: string;
  /** What it suits, and its price, in a sentence. */
  suits: string;
  jacket: "needed" | "optional";
  /** Rubber under the master as well; the mould stands as it was laid out, and is filled through a sprue. */
  base: boolean;
  /** Parts poured against a clay bed, and so rubber against rubber. */
  halves: boolean;
  /** Loose plugs fill holes of the master. */
  plugs: boolean;
  /** Laid on in sections with a flange between. */
  sections: boolean;
  /** Form of rubber it is made with, and what one does with it. */
  wants: RubberForm;
  /** It lets go by stretching over the widest place; sections of a skin are lifted off sideways instead. */
  stretches: boolean;
  /** What helps where it has to stretch too far, as the end of a sentence. */
  ifTooTight: string;
  /** It cannot be made to let go in any other way: too much stretch is trouble and not only a warning. */
  onlyStretches: boolean;
  /** A knife goes down one side, all round at the parting, or a little way down from the rim where it is too tight. */
  cut: "down" | "around" | "reliefs" | null;
  /** Last step: how the master comes out. */
  free: (plugs: boolean) => { id: string; what: string };
}

/** A mould poured in a box. */
export interface BlockOpening extends Common {
  made: "block";
  pours: (room: BlockRoom) => BlockPour[];
  boxStep: (held: HeldBy) => string;
  words: (p: BlockPour, plugFaces: readonly string[]) => PourWords;
}

/** A mould laid on by brush or hand. */
export interface SkinOpening extends Common {
  made: "skin";
  /** Pressed on in layers by hand, not brushed. */
  pressed: boolean;
  /** Rubber lies on the board round the foot. */
  skirt: boolean;
  /** Cloth may be laid into its middle coats: not where it has to turn inside out. */
  cloth: boolean;
  /** It lies flat in one tray, held by plugs of rubber through it. */
  tray: boolean;
  /** Laid on in one and cut open along a drawn line. */
  cutOpen: boolean;
  boardStep: (flangeMm: string | null) => string;
}

/** A way for a mould to open: one file each in this folder. */
export type OpeningKind = BlockOpening | SkinOpening;
