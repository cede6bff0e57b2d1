import * as z from "zod";
import { POUR_KINDS } from "../record";
import { quote, stored } from "../quantity";

/** Something else that is poured from the same cups: which pour of which job, and what it takes of the batch, g. */
export const Share = z.object({
  jobId: z.string(),
  jobName: z.string(),
  mouldId: z.string().nullable(),
  kind: z.enum(POUR_KINDS),
  pourIndex: stored.count,
  what: z.string(),
  batchG: stored.g,
  needG: stored.g.nullable(),
});
export type Share = z.infer<typeof Share>;

/** How far two mixes may differ in the share of any part and still be one, as a share of the mix: less than a part may be weighed off. */
const SAME_MIX = 0.005;

interface Mix {
  material: string;
  parts: readonly { name: string; targetG: number; volumeMl: number | null }[];
}

/** Why two pours cannot come from one batch, in words; null where they can: the same stuff in the same proportions. */
export function notOneMix(a: Mix, b: Mix): string | null {
  if (a.material !== b.material) return `${a.material} and ${b.material} are not one mix.`;
  const sum = (m: Mix) => m.parts.reduce((s, p) => s + p.targetG, 0);
  const shares = (m: Mix) => m.parts.map((p) => `${p.name}`).join("|");
  const off =
    a.parts.length === b.parts.length && shares(a) === shares(b)
      ? a.parts.findIndex((p, i) => Math.abs(p.targetG / sum(a) - (b.parts[i]?.targetG ?? 0) / sum(b)) > SAME_MIX)
      : 0;
  if (off < 0) return null;
  const name = a.parts[off]?.name ?? "Its parts";
  return `${name} has another share in each: ${quote(a.parts[off]?.targetG ?? 0, "mass")} of ${quote(sum(a), "mass")} here, and ${quote(b.parts[off]?.targetG ?? 0, "mass")} of ${quote(sum(b), "mass")} there. Weigh them apart.`;
}

/** A batch made large enough for what else is poured from it. Grams in all; parts in the proportions of the first. */
export function enlarged<T extends { batchG: number; needG: number | null; parts: readonly { targetG: number; volumeMl: number | null }[] }>(
  own: T,
  shares: readonly Share[],
): T {
  const more = shares.reduce((s, x) => s + x.batchG, 0);
  const by = (own.batchG + more) / own.batchG;
  return {
    ...own,
    batchG: own.batchG + more,
    needG: own.needG === null || shares.some((s) => s.needG === null) ? null : own.needG + shares.reduce((s, x) => s + (x.needG ?? 0), 0),
    parts: own.parts.map((p) => ({ ...p, targetG: p.targetG * by, volumeMl: p.volumeMl === null ? null : p.volumeMl * by })),
  };
}

/** What of a batch goes where: the share of the pour it was begun for, then of each of the others; together 1. */
export function portions(batchG: number, shares: readonly Share[]): number[] {
  const others = shares.map((s) => s.batchG / batchG);
  return [1 - others.reduce((s, x) => s + x, 0), ...others];
}
