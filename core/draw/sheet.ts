import type { Verdict } from "../fit";
import type { Scene } from "./scene";

/** One thing on a printed job sheet, from top to bottom. Sizes in its words are quoted. */
export type SheetBlock =
  | { kind: "head"; text: string }
  | { kind: "text"; text: string; soft?: boolean; strong?: boolean }
  | { kind: "caution"; text: string }
  | { kind: "bullet"; text: string }
  | { kind: "verdict"; verdict: Verdict }
  | { kind: "scene"; label: string; scene: Scene }
  /** A figure with its name; `large` is read from the bench, `write` has a line to write on. */
  | { kind: "row"; name: string; value: string; large?: boolean; write?: boolean }
  /** Something to tick when it is done, with small print under it. */
  | { kind: "tick"; text: string; below: readonly string[] }
  /** What follows begins on a page of its own. */
  | { kind: "page" };

export interface Sheet {
  title: string;
  under: string;
  blocks: readonly SheetBlock[];
}
