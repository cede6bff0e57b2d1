import type { ClockKind, Equipment } from "../clock";
import type { CureRule } from "../cure";
import { jacketPartsOf } from "./jacket";
import { layerOf } from "./layers";
import type { PourKind } from "../record";
import type { Plan } from "./types";

/** A clock a pour will need, and what sets it going. */
export interface PlannedClock {
  kind: ClockKind;
  label: string;
  rule: CureRule;
  closes: CureRule | null;
  when: "stir" | "pour" | "open";
  equipment: Equipment | null;
}

/** What makers of food-contact silicones usually ask for, hours in an oven; the declaration itself decides. */
const POST_CURE_H = { low: 2, typical: 4, high: 6 };

/** When wax has skinned over and sunk enough to be topped up, as a share of its cooling: a rule of thumb; the hollow round the wick decides. */
const TOP_UP_SHARE = { low: 0.15, typical: 0.25, high: 0.35 };
const shareOf = (h: { low: number; typical: number; high: number }, by: typeof TOP_UP_SHARE) => ({
  low: h.typical * by.low,
  typical: h.typical * by.typical,
  high: h.typical * by.high,
});

/** The clocks of one pour of a plan: what runs from the first stir, from the pour, and from the opening. Empty where it is not worked out. */
export function clocksOf(p: Plan, kind: PourKind, pourIndex: number): PlannedClock[] {
  const { job } = p.dossier;
  const out: PlannedClock[] = [];
  const add = (when: PlannedClock["when"], k: ClockKind, label: string, rule: CureRule, more: Partial<Pick<PlannedClock, "closes" | "equipment">> = {}) =>
    out.push({ kind: k, label: `${job.name}: ${label}`.slice(0, 120), rule, closes: null, when, equipment: null, ...more });
  if (kind === "rubber") {
    const pour = p.pours[pourIndex];
    if (!pour) return out;
    const of = p.pours.length === 1 ? "" : `, ${pour.name.toLowerCase()}`;
    add("stir", "pot-life", `pot life${of}`, pour.cure.potLife.rule);
    const next = p.pours[pourIndex + 1];
    if (pour.wait.until === "recoat") add("pour", "tack", `next coat${of}`, pour.cure.tack.opensRule, { closes: pour.cure.tack.closesRule });
    else if (next?.kind === "block" && next.turned) add("pour", "second-half", `turn it for the next pour${of}`, pour.cure.demould.rule);
    else {
      add("pour", "cure", `rubber cures${of}`, pour.cure.demould.rule);
      if (pour.rubber.foodDeclared) add("open", "post-cure", "post-cure, as its maker says", { kind: "fixed", hours: POST_CURE_H }, { equipment: "oven" });
    }
    return out;
  }
  if (kind === "jacket") {
    const part = jacketPartsOf(p)[pourIndex];
    if (!part) return out;
    add("stir", "working", `${part.name.toLowerCase()}, working time`, part.working.rule);
    add("pour", "cure", `${part.name.toLowerCase()} sets`, part.sets.rule);
    return out;
  }
  if (!p.castCure || !p.cast) return out;
  const layer = layerOf(p.layers, kind, pourIndex);
  if (kind === "layer") {
    if (!layer) return out;
    const of = `${layer.name.toLowerCase()}, ${layer.cast.name.toLowerCase()}`;
    add("stir", "working", `${of}, working time`, layer.cure.working.rule);
    if (layer.next) add("pour", "tack", `next after ${of}`, layer.next.rule);
    return out;
  }
  const what = (layer?.cast ?? p.cast).name.toLowerCase();
  add("stir", "working", `${what}, working time`, (layer?.cure ?? p.castCure).working.rule);
  if (p.cast.family === "wax" && job.use === "burns" && !p.castCure.demould.never)
    add("pour", "top-up", `top up round the wick, ${what}`, { kind: "fixed", hours: shareOf(p.castCure.demould.hours, TOP_UP_SHARE) });
  add("pour", "demould", `demould, ${what}`, p.castCure.demould.rule);
  const { finished } = p.castCure;
  // Concrete gains strength from the pour on; plaster dries from when it leaves the mould.
  if (finished) {
    const dries = finished.name === "Dry";
    add(dries ? "open" : "pour", dries ? "drying" : "post-cure", `${finished.name.toLowerCase()}, ${what}`, finished.rule);
  }
  return out;
}
