/** A small mould, or a pour of a job, that a rest could fill. */
export interface Filler {
  key: string;
  name: string;
  /** Mix it takes, g, and minutes it takes to pour. */
  needG: number;
  pourMin: number;
  /** What it is worth against others: grams unless said. */
  worth?: number;
}

export interface Filled {
  picks: string[];
  usedG: number;
  restG: number;
  pourMin: number;
  /** What would just fit in a rest that nothing fits; null where something does, or nothing ever would. */
  nearest: { key: string; shortG: number } | null;
}

/**
 * Which of the moulds that stand ready a rest is poured into, so that the least of it is thrown away: the exact knapsack over grams with
 * the minutes it stays pourable as a second limit. Of answers that use the same, the one poured sooner.
 * @param restG left in the cups, g; @param lifeMin until it no longer runs, minutes; null where nothing runs out
 */
export function fillFrom(restG: number, lifeMin: number | null, fillers: readonly Filler[]): Filled {
  // In tenths of a gram, or whole grams of more than 5 kg; what a mould takes is rounded up, so that it always fits.
  const unit = restG > 5000 ? 1 : 0.1;
  const room = Math.floor(restG / unit + 1e-6);
  interface State {
    min: number;
    worth: number;
    before: State | null;
    filler: Filler | null;
  }
  /** By units used: ways of which none is both worth less and slower than another. */
  const at = new Map<number, State[]>([[0, [{ min: 0, worth: 0, before: null, filler: null }]]]);
  for (const f of fillers) {
    const takes = Math.ceil(f.needG / unit - 1e-6);
    if (!(takes > 0) || takes > room) continue;
    const more: [number, State][] = [];
    for (const [used, states] of at)
      if (used + takes <= room)
        for (const s of states)
          if (lifeMin === null || s.min + f.pourMin <= lifeMin + 1e-9)
            more.push([used + takes, { min: s.min + f.pourMin, worth: s.worth + (f.worth ?? f.needG), before: s, filler: f }]);
    for (const [used, s] of more) {
      const there = at.get(used) ?? [];
      if (there.some((o) => o.worth >= s.worth && o.min <= s.min)) continue;
      at.set(used, [...there.filter((o) => !(s.worth >= o.worth && s.min <= o.min)), s]);
    }
  }
  const best = [...at.values()].flat().reduce((b, s) => (s.worth > b.worth + 1e-9 || (Math.abs(s.worth - b.worth) <= 1e-9 && s.min < b.min) ? s : b));
  const picked: Filler[] = [];
  for (let s: State | null = best; s; s = s.before) if (s.filler) picked.unshift(s.filler);
  const usedG = picked.reduce((t, f) => t + f.needG, 0);
  const over = fillers.filter((f) => f.needG > restG).reduce<Filler | null>((b, f) => (!b || f.needG < b.needG ? f : b), null);
  return {
    picks: picked.map((f) => f.key),
    usedG,
    restG: restG - usedG,
    pourMin: best.min,
    nearest: picked.length === 0 && over ? { key: over.key, shortG: over.needG - restG } : null,
  };
}
