import { quote } from "../../quantity";
import type { Plan, StepId } from "../types";

/** One of the small things that are forgotten: where in the work it bites, and what it is, with its sizes. */
export interface Need {
  id: string;
  step: StepId;
  text: string;
  /** Of a casting: done while it stands in the mould, or once it is out; absent for all else. */
  when?: "poured" | "opened";
  /** Nothing goes on until it is done. */
  hold?: boolean;
  /** A step of a person's own. */
  own?: boolean;
}

/** A plan far enough along to say anything: measured and laid out. */
export type Ready = Plan & { body: NonNullable<Plan["body"]>; layout: NonNullable<Plan["layout"]> };

/** What one part of the work calls for. */
export type NeedsOf = (p: Ready) => (Need | false | null)[];

export const mm = (v: number): string => quote(v, "length");
export const grams = (v: number): string => quote(v, "mass");

/** Whether the master's surface has a trait. */
export const surfaceIs = (p: Plan, trait: string): boolean =>
  p.dossier.materials.surfaces.find((s) => s.id === p.dossier.job.master.surfaceId)?.traits.some((t) => t === trait) ?? false;
