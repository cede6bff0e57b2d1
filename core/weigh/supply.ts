import { quote } from "../quantity";
import type { Gauge } from "./gauge";
import type { WeighIn } from "./weighIn";

/** Standard errors by which what is there has to exceed what is wanted before it is called enough: wrong in some 1 of 700. */
const SURE = 3;

export interface Supply {
  /** Mixed and not in the mould yet, and still planned or not weighed, g; the witness is not for pouring. */
  onHandG: number;
  plannedG: number;
  /** To mix beyond that to be sure, g; 0 where it is enough. */
  moreG: number;
  enough: boolean;
  message: string;
}

/**
 * Whether what is in the cups, and what is still planned for them, reaches the line. What has left them is what was poured:
 * left = mixed − poured + cups still planned or not weighed.
 * @param pouredG what has gone in so far, g
 */
export function supplyOf(w: WeighIn, pouredG: number, g: Pick<Gauge, "remainingG" | "remainingErrorG">, atLine: boolean): Supply {
  const factors = w.cups.reduce((s, c) => s + c.factor, 0);
  let mixedG = 0;
  let plannedG = 0;
  for (const c of w.cups)
    c.parts.forEach((p, i) => {
      const targetG = ((w.parts[i]?.targetG ?? 0) * c.factor) / w.cups.length;
      mixedG += p.gotG ?? 0;
      if (c.pouredAt === null && c.stirredAt === null) plannedG += Math.max(0, targetG - (p.gotG ?? 0));
    });
  const witnessG = factors > 0 ? w.handling.witnessG : 0;
  // What else is poured from these cups is not this mould's: it is kept back of what is mixed, then of what is still to be mixed.
  const othersG = w.shares.reduce((s, x) => s + (x.needG ?? x.batchG), 0);
  const onHandG = Math.max(0, mixedG - pouredG - Math.min(witnessG, mixedG) - othersG);
  plannedG = Math.max(0, plannedG - Math.max(0, othersG - Math.max(0, mixedG - pouredG)));
  const sure = g.remainingG + SURE * g.remainingErrorG;
  const enough = atLine || onHandG + plannedG >= sure;
  const moreG = enough ? 0 : sure - onHandG - plannedG;
  const there = [
    ...(onHandG > 0 ? [`${quote(onHandG, "mass")} mixed and not poured`] : []),
    ...(plannedG > 0 ? [`${quote(plannedG, "mass")} still to be mixed`] : []),
  ].join(" and ");
  const left = onHandG + plannedG - g.remainingG;
  return {
    onHandG,
    plannedG,
    moreG,
    enough,
    message: atLine
      ? `It is at the line.${onHandG > 1 ? ` ${quote(onHandG, "mass")} is left over.` : ""}`
      : enough
        ? `Enough: ${there}, some ${quote(Math.max(0, left), "mass")} of it will be left, ± ${quote(g.remainingErrorG, "mass")}.`
        : left > 0
          ? `It may just do: ${there}, ${quote(g.remainingG, "mass")} ± ${quote(g.remainingErrorG, "mass")} to go. To be sure have ${quote(moreG, "mass")} more ready before the cup is empty.`
          : `Not enough: ${there || "nothing is left in the cups"}, and ${quote(g.remainingG, "mass")} ± ${quote(g.remainingErrorG, "mass")} to go. Mix ${quote(moreG, "mass")} more before the cup is empty.`,
  };
}
