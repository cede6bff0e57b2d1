/** Something a need can be covered from: a lot that is here, or a pack that can be bought. Grams of each part. */
export interface Source {
  key: string;
  /** What it brings of each part. */
  bringsG: readonly number[];
  /** What it costs now: nothing for what is here. */
  price: number;
  /** It would have to be opened for this. */
  opens: boolean;
  /** How many of them there are: 1 for a lot; none said for what a shop sells. */
  most: number | null;
  /** Sources of different families never go into one mixing. */
  family: string;
}

export const AIMS = ["cheapest", "leastLeft"] as const;
export type Aim = (typeof AIMS)[number];

export interface Covered {
  picks: { key: string; count: number }[];
  family: string;
  price: number;
  /** How many sealed things are opened for it. */
  opened: number;
  /** What is left over of what was opened or bought, all parts together, g. */
  leftG: number;
}

/** How many amounts are told apart for all sources together, at most. */
const MOST_STEPS = 1_000_000;
/**
 * Units to a gram: tenths of a gram, what a scale tells; coarser where hundreds of sources are set against tens of kilograms, never more than a
 * share of the need that no scale tells either. What is brought is rounded down and what is needed up, so that an answer always covers.
 */
const unitsOf = (g: number, sources: number): number => Math.min(10, MOST_STEPS / Math.max(1, g * sources));

interface State {
  /** Covered of each part, in units, never more than is needed. */
  got: readonly number[];
  /** What is wanted least first: compared in this order, number by number. */
  cost: readonly number[];
  before: State | null;
  key: string | null;
}

const worse = (a: readonly number[], b: readonly number[]): number => {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! < b[i]! ? -1 : 1;
  return 0;
};

/**
 * The best way to cover a need from what is here and what can be bought: the cheapest, then what opens least, then the oldest, then the least
 * left over; or the least left over first. Exact: dynamic programming over the sources, keeping of each amount covered only what no other way
 * covers at less [what is added later adds the same to both, so the better of two stays the better]. One family only in each answer. Null
 * where everything together does not do.
 * @param needG of each part, g; @param sources oldest first
 */
export function cover(needG: readonly number[], sources: readonly Source[], aim: Aim = "cheapest"): Covered | null {
  const unit = unitsOf(Math.max(0, ...needG), sources.length);
  const need = needG.map((g) => Math.max(0, Math.ceil(g * unit - 1e-6)));
  let best: { covered: Covered; cost: readonly number[] } | null = null;
  for (const family of new Set(sources.map((s) => s.family))) {
    const mine = sources.filter((s) => s.family === family).map((s, age): Item => itemOf(s, age, need, unit, aim));
    const found = level(need, mine) ?? coverWithin(need, mine);
    if (found.end && (!best || worse(found.end.cost, best.cost) < 0))
      best = { covered: { ...read(found.end, need, mine, unit), family }, cost: found.end.cost };
  }
  return best?.covered ?? null;
}

/** A source in units, with what taking one of it adds to each cost. */
interface Item {
  source: Source;
  brings: readonly number[];
  adds: readonly number[];
  times: number;
}

function itemOf(source: Source, age: number, need: readonly number[], unit: number, aim: Aim): Item {
  const brings = need.map((_, i) => Math.max(0, Math.floor((source.bringsG[i] ?? 0) * unit + 1e-6)));
  const left = brings.reduce((t, b) => t + b, 0);
  const { price, opens } = source;
  const enough = Math.max(...need.map((n, i) => (brings[i]! > 0 ? Math.ceil(n / brings[i]!) : 0)));
  return {
    source,
    brings,
    adds: aim === "cheapest" ? [price, opens ? 1 : 0, age, left] : [left, price, opens ? 1 : 0, age],
    times: Math.min(enough, source.most ?? enough),
  };
}

const NOTHING: readonly number[] = [0, 0, 0, 0];

/**
 * One amount to be covered, or several that every source brings in the same proportion: the best cost of each amount covered, in one list.
 * Null where the sources differ in what they bring.
 */
function level(need: readonly number[], items: readonly Item[]): { end: State | null } | null {
  const main = need.reduce((m, n, i) => (n > need[m]! ? i : m), 0);
  const most = need[main]!;
  if (most === 0) return { end: { got: need, cost: NOTHING, before: null, key: null } };
  // How far the least brought part gets: within a unit the same of all.
  const reach = (b: readonly number[], of: "min" | "max") => Math[of](...need.flatMap((n, i) => (n > 0 ? [((b[i] ?? 0) * most) / n] : [])));
  if (items.some((x) => reach(x.brings, "max") - reach(x.brings, "min") > 1 + most / Math.min(...need.filter((n) => n > 0)))) return null;
  // Best cost of each amount covered, and by which way: a way is its last source and the way before it. Ways never change once they are made.
  const cost = Array.from({ length: 4 }, () => new Float64Array(most + 1).fill(Infinity));
  const [c0, c1, c2, c3] = cost as [Float64Array, Float64Array, Float64Array, Float64Array];
  for (const c of cost) c[0] = 0;
  const way = new Int32Array(most + 1).fill(-1);
  const before: number[] = [];
  const by: number[] = [];
  items.forEach((x, item) => {
    const step = Math.floor(reach(x.brings, "min") + 1e-6);
    if (step <= 0) return;
    const [a0, a1, a2, a3] = x.adds as [number, number, number, number];
    const put = (c: number) => {
      if (c0[c] === Infinity) return;
      const to = c + step < most ? c + step : most;
      const [n0, n1, n2, n3] = [c0[c]! + a0, c1[c]! + a1, c2[c]! + a2, c3[c]! + a3];
      const d = n0 - c0[to]! || n1 - c1[to]! || n2 - c2[to]! || n3 - c3[to]!;
      if (!(d < 0) && c0[to] !== Infinity) return;
      c0[to] = n0;
      c1[to] = n1;
      c2[to] = n2;
      c3[to] = n3;
      before.push(way[c]!);
      by.push(item);
      way[to] = before.length - 1;
    };
    // Downwards each is taken once, upwards as often as it helps.
    if (x.source.most === null) for (let c = 0; c < most; c++) put(c);
    else for (let k = 0; k < x.times; k++) for (let c = most - 1; c >= 0; c--) put(c);
  });
  if (c0[most] === Infinity) return { end: null };
  const picked: number[] = [];
  for (let w = way[most]!; w >= 0; w = before[w]!) picked.push(by[w]!);
  const end = picked.reduceRight<State>((st, item) => ({ got: st.got, cost: st.cost, before: st, key: items[item]!.source.key }), {
    got: [0],
    cost: NOTHING,
    before: null,
    key: null,
  });
  return { end: { ...end, cost: cost.map((c) => c[most]!) } };
}

function coverWithin(need: readonly number[], items: readonly Item[]): { end: State | null } {
  let states: State[] = [{ got: need.map(() => 0), cost: NOTHING, before: null, key: null }];
  for (const x of items) {
    if (x.brings.every((b) => b === 0)) continue;
    let layer = states;
    for (let k = 0; k < x.times && layer.length > 0; k++) {
      // What covers everything already needs no more.
      const more = layer.flatMap((st): State[] =>
        st.got.every((g, i) => g >= need[i]!)
          ? []
          : [
              {
                got: st.got.map((g, i) => Math.min(need[i]!, g + x.brings[i]!)),
                cost: st.cost.map((c, i) => c + x.adds[i]!),
                before: st,
                key: x.source.key,
              },
            ],
      );
      states = kept([...states, ...more]);
      const alive = new Set(states);
      layer = more.filter((st) => alive.has(st));
    }
  }
  return {
    end: states.filter((st) => st.got.every((g, i) => g >= need[i]!)).reduce<State | null>((b, st) => (!b || worse(st.cost, b.cost) < 0 ? st : b), null),
  };
}

/** States that no other beats: as much of everything at no more cost. */
function kept(states: State[]): State[] {
  states.sort((a, b) => worse(a.cost, b.cost) || sum(b.got) - sum(a.got));
  const out: State[] = [];
  for (const s of states) if (!out.some((o) => o.got.every((g, i) => g >= s.got[i]!))) out.push(s);
  return out;
}

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

function read(end: State, need: readonly number[], items: readonly Item[], unit: number): Omit<Covered, "family"> {
  const counts = new Map<string, number>();
  for (let s: State | null = end; s; s = s.before) if (s.key !== null) counts.set(s.key, (counts.get(s.key) ?? 0) + 1);
  const picked = items.flatMap(({ source, brings }) => {
    const count = counts.get(source.key) ?? 0;
    return count > 0 ? [{ source, count, units: count * sum(brings) }] : [];
  });
  const total = (of: (p: (typeof picked)[number]) => number) => picked.reduce((t, p) => t + of(p), 0);
  return {
    picks: picked.map(({ source, count }) => ({ key: source.key, count })),
    price: total((p) => p.count * p.source.price),
    opened: total((p) => (p.source.opens ? p.count : 0)),
    leftG: (total((p) => p.units) - sum(need)) / unit,
  };
}
