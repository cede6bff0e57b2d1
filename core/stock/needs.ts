import type { Material } from "../material";
import { ageOf, CLINGS_G, drawOrder, together, type Lot } from "./lot";
import { cover, type Aim, type Covered, type Source } from "./cover";
import { openedLife, partGrams, tubsOf, type Pack } from "./pack";

/** What one piece of work still takes of a material, g of each part by name. */
export interface Need {
  materialId: string;
  jobId: string;
  jobName: string;
  /** What it is for: "First half", "4 castings". */
  what: string;
  parts: readonly { name: string; g: number }[];
}

/** A pack by its id. */
export interface KeptPack extends Pack {
  id: string;
}

/** How a material stands against all that wants it. Grams of each tub, in its order. */
export interface Balance {
  materialId: string;
  tubs: readonly string[];
  /** Good in the cupboard; past its date; wanted by the jobs in hand; and what is not covered. */
  goodG: readonly number[];
  pastG: readonly number[];
  wantedG: readonly number[];
  shortG: readonly number[];
  needs: readonly Need[];
}

/** One line to be bought or opened. */
export interface Line {
  key: string;
  name: string;
  count: number;
  /** Each, in the workshop's money; null where nobody said a price. */
  price: number | null;
  from: string;
  /** Set for a lot that is here. */
  lotId: string | null;
  /** How long what is left of it is good once it is opened, days; null where it does not spoil. */
  days: number | null;
  damp: boolean;
}

/** What to open and what to buy for a material. */
export interface Opening {
  open: Line[];
  buy: Line[];
  /** What is to be bought costs; null where a price is missing. */
  price: number | null;
  /** Left over of everything that is opened for it, g. */
  leftG: number;
  /** Grams that no lot and no pack covers: no pack of it is known. */
  uncoveredG: readonly number[];
}

const byTub = (tubs: readonly string[], parts: Need["parts"]): number[] => tubs.map((t) => parts.reduce((s, p) => s + (p.name === t ? p.g : 0), 0));
const added = (a: readonly number[], b: readonly number[]): number[] => a.map((v, i) => v + (b[i] ?? 0));
const tubsLeft = (tubs: readonly string[], l: Pick<Lot, "parts" | "leftG">): number[] =>
  tubs.map((t) => {
    const i = l.parts.findIndex((p) => p.name === t);
    return i < 0 ? 0 : Math.max(0, l.leftG[i] ?? 0);
  });

/** How each material that is wanted or here stands, by what is wanted first. */
export function balances(materials: readonly Material[], lots: readonly Lot[], needs: readonly Need[], now: number): Balance[] {
  const ids = [...new Set([...needs.map((n) => n.materialId), ...lots.map((l) => l.materialId)])];
  return ids.flatMap((id): Balance[] => {
    const m = materials.find((x) => x.id === id);
    const mine = lots.filter((l) => l.materialId === id);
    const tubs = m ? tubsOf(m).map((t) => t.name) : [...new Set(mine.flatMap((l) => l.parts.map((p) => p.name)))];
    const zero = tubs.map(() => 0);
    const left = (past: boolean) => mine.filter((l) => (ageOf(l, now).age === "past") === past).reduce((s, l) => added(s, tubsLeft(tubs, l)), zero);
    const wanting = needs.filter((n) => n.materialId === id);
    const wantedG = wanting.reduce((s, n) => added(s, byTub(tubs, n.parts)), zero);
    const goodG = left(false);
    return [{ materialId: id, tubs, goodG, pastG: left(true), wantedG, shortG: wantedG.map((w, i) => Math.max(0, w - goodG[i]!)), needs: wanting }];
  });
}

/** Free packs of a price nobody knows are taken as dear, so that they are bought last. */
const UNPRICED = 1e6;

/**
 * What to open and what to buy so that a need is covered: the cheapest way, or what leaves the least over. Lots that are past their date are
 * left alone. What is wanted of a kit is wanted of both its tubs, and they stay together.
 */
export function openFor(m: Material, needG: readonly number[], lots: readonly Lot[], packs: readonly KeptPack[], now: number, aim: Aim = "cheapest"): Opening {
  const tubs = tubsOf(m);
  const names = tubs.map((t) => t.name);
  const whole = needG.reduce((a, b) => a + b, 0);
  const share = needG.map((g) => (whole > 0 ? g / whole : 0));
  const here = drawOrder(
    lots.filter((l) => l.materialId === m.id && l.endedAt === null && ageOf(l, now).age !== "past"),
    now,
  );
  const kit = (bringsG: number[]): number[] => (bringsG.filter((g) => g > 0).length > 1 ? together(bringsG, share) : bringsG);
  const brings = (p: KeptPack) =>
    kit(
      names.map((n) => {
        const part = p.parts.find((x) => x.name === n);
        return (part && partGrams(part, tubs)) ?? 0;
      }),
    );
  const sold = packs.filter((p) => p.materialId === m.id && brings(p).some((g) => g > 0));
  const sources: Source[] = [
    ...here.map((l) => ({ key: `lot ${l.id}`, bringsG: kit(tubsLeft(names, l)), price: 0, opens: l.openedAt === null, most: 1, family: m.id })),
    ...sold.map((p) => ({ key: `pack ${p.id}`, bringsG: brings(p), price: p.price ?? UNPRICED, opens: true, most: null, family: m.id })),
  ];
  const found = cover(needG, sources, aim) ?? mostOf(needG, sources);
  const life = openedLife(m);
  const lines = (found?.picks ?? []).flatMap(({ key, count }): Line[] => {
    const lot = here.find((l) => key === `lot ${l.id}`);
    const pack = sold.find((p) => key === `pack ${p.id}`);
    if (lot) return [{ key, name: lot.name, count, price: 0, from: lot.place, lotId: lot.id, days: lot.openedDays ?? life.days, damp: life.damp }];
    if (pack) return [{ key, name: pack.name, count, price: pack.price, from: pack.from, lotId: null, days: pack.openedDays ?? life.days, damp: life.damp }];
    return [];
  });
  const buy = lines.filter((l) => l.lotId === null);
  const got = names.map((_, i) => (found?.picks ?? []).reduce((s, p) => s + p.count * (sources.find((x) => x.key === p.key)?.bringsG[i] ?? 0), 0));
  return {
    open: lines.filter((l) => l.lotId !== null),
    buy,
    price: buy.some((l) => l.price === null) ? null : buy.reduce((s, l) => s + l.count * (l.price ?? 0), 0),
    leftG: Math.max(0, got.reduce((a, b) => a + b, 0) - whole),
    uncoveredG: needG.map((g, i) => (g - got[i]! > CLINGS_G ? g - got[i]! : 0)),
  };
}

/** Everything that is here, where nothing covers it all: no pack of it is known to be bought. */
function mostOf(needG: readonly number[], sources: readonly Source[]): Covered | null {
  const here = sources.filter((s) => s.most !== null);
  return here.length === 0 ? null : { picks: here.map((s) => ({ key: s.key, count: 1 })), family: here[0]!.family, price: 0, opened: 0, leftG: -sumOf(needG) };
}
const sumOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

/** A line of the shopping list. */
export interface Wanted {
  materialId: string;
  material: string;
  pack: string;
  from: string;
  count: number;
  price: number | null;
  forJobs: string[];
}

/** A material that is wanted or here, how it stands, and what to open and buy for it where it is wanted. */
export interface Stand {
  material: Material;
  balance: Balance;
  opening: Opening | null;
}

/** How everything stands against all that wants it. */
export function standOfAll(
  materials: readonly Material[],
  lots: readonly Lot[],
  packs: readonly KeptPack[],
  needs: readonly Need[],
  now: number,
  aim: Aim = "cheapest",
): Stand[] {
  return balances(materials, lots, needs, now).flatMap((balance): Stand[] => {
    const material = materials.find((m) => m.id === balance.materialId);
    if (!material) return [];
    return [{ material, balance, opening: balance.needs.length > 0 ? openFor(material, balance.wantedG, lots, packs, now, aim) : null }];
  });
}

/** What to buy for all jobs in hand, in packs, grouped by where it is bought; and what is wanted but no pack is known of. */
export function shopping(stands: readonly Stand[]): {
  lines: Wanted[];
  price: number | null;
  unknown: { materialId: string; material: string; parts: { name: string; g: number }[] }[];
} {
  const lines: Wanted[] = [];
  const unknown: { materialId: string; material: string; parts: { name: string; g: number }[] }[] = [];
  for (const { material: m, balance: b, opening: o } of stands) {
    if (!o) continue;
    const forJobs = [...new Set(b.needs.map((n) => n.jobName))];
    for (const l of o.buy) lines.push({ materialId: m.id, material: m.name, pack: l.name, from: l.from, count: l.count, price: l.price, forJobs });
    if (o.uncoveredG.some((g) => g > 0))
      unknown.push({ materialId: m.id, material: m.name, parts: b.tubs.flatMap((name, i) => (o.uncoveredG[i]! > 0 ? [{ name, g: o.uncoveredG[i]! }] : [])) });
  }
  lines.sort((a, b) => a.from.localeCompare(b.from) || a.material.localeCompare(b.material));
  return { lines, price: lines.some((l) => l.price === null) ? null : lines.reduce((s, l) => s + l.count * (l.price ?? 0), 0), unknown };
}
