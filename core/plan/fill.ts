import * as z from "zod";
import { boxFilling, cavityFilling, fillingAlong, hollowBelow, volumeBelow } from "../body";
import { OPENING } from "../mould";
import type { PourKind } from "../record";
import type { Plan } from "./types";

/** How something fills, for gauging: volume in mL up to heights in mm above the floor of this pour. */
export const FillCurve = z.object({
  fillLineMm: z.number(),
  points: z.array(z.object({ mm: z.number(), ml: z.number() })),
  /** The same up the low wall of a box that leans first; null for one that stands level. */
  lowWall: z.array(z.object({ mm: z.number(), ml: z.number() })).nullable(),
  /** How well the volume was known beforehand, as a share. */
  planShare: z.number(),
});
export type FillCurve = z.infer<typeof FillCurve>;

/** Nobody knows a volume better than this share. */
const BEST_SHARE = 0.01;

/** How one pour of a plan fills its box, or its cavity; null where nothing fills it level. */
export function fillCurve(p: Plan, kind: PourKind, pourIndex: number): FillCurve | null {
  const { body, layout } = p;
  if (kind === "jacket") return null;
  if (!body || layout?.kind !== "block") return null;
  // What is rolled, brushed or poured back is not gauged by how high it stands.
  if (kind !== "rubber" && p.layers.some((l) => l.coat)) return null;
  const planShare = Math.max(BEST_SHARE, body.volumeErrorMl / Math.max(1, kind === "cast" ? body.volumeMl : layout.rubberMl));
  // An open-faced mould is turned over to be filled: its floor is the top of the master. One of parts stands as it was laid out.
  if (kind !== "rubber") {
    const { opening, filling } = p.dossier.job.mould;
    const points = OPENING[opening].base ? fillingAlong(body, filling?.up ?? [0, 0, 1]) : cavityFilling(body, true);
    return { fillLineMm: points.at(-1)?.mm ?? body.heightMm, points, lowWall: null, planShare };
  }
  const pour = layout.pours[pourIndex];
  if (!pour || pour.plug) return null;
  const { masterFromMm: base, fillHeightMm: total } = layout;
  // What lies below the parting is poured with the master on its head: its floor was the top.
  // Round an open vessel rubber rises on the outside first; only past its rim does it run in.
  const keptOut = (mm: number) => (mm < base + body.heightMm ? hollowBelow(body, mm - base) : 0);
  const bodyTo = (mm: number) => (pour.upsideDown ? body.volumeMl - volumeBelow(body, total - mm - base) : volumeBelow(body, mm - base) + keptOut(mm));
  return {
    fillLineMm: pour.fillLineMm,
    points: boxFilling(layout.box.areaMm2, pour.fromMm, pour.fillLineMm, bodyTo),
    lowWall: pour.leant && [...pour.leant.lowWall],
    planShare,
  };
}
