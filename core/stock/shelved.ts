import type { Shelved } from "../material";
import { ageOf, CLINGS_G, drawOrder, type Lot } from "./lot";

/** How old what is drawn from first is, by material: what pairing, hold-points and advice go by. */
export function shelved(lots: readonly Lot[], now: number): Shelved[] {
  const by = new Map<string, Lot[]>();
  for (const l of lots) if (l.leftG.some((g) => g > CLINGS_G)) by.set(l.materialId, [...(by.get(l.materialId) ?? []), l]);
  return [...by].flatMap(([materialId, list]): Shelved[] => {
    const old = list.filter((l) => ageOf(l, now).age === "past");
    const first = drawOrder(list, now)[0]!;
    const told = old[0] ?? first;
    const { age, days } = ageOf(told, now);
    return [{ materialId, name: told.name, past: age === "past", days, fresher: old.length > 0 && old.length < list.length }];
  });
}
