import * as z from "zod";
/** A step of work on the calendar. Minutes. */
export const Task = z.object({
  id: z.string(),
  label: z.string(),
  /** The piece of work it belongs to; each is to be finished as early as can be. */
  group: z.string(),
  /** How long it needs hands. */
  handsMin: z.number(),
  /** What has to be over first: it may start from `min` after the other's hands leave it, and up to `max`, where there is a window. */
  after: z.array(z.object({ id: z.string(), minMin: z.number(), maxMin: z.number().nullable() })).readonly(),
  /** Single things it holds while hands are on it and for `holdMin` after. */
  uses: z.array(z.string()).readonly(),
  holdMin: z.number(),
});
export type Task = z.infer<typeof Task>;

export interface Question {
  tasks: readonly Task[];
  /** Spans in which hands are there, minutes from the start of the calendar, in order and apart. */
  waking: readonly (readonly [number, number])[];
  /** How many pairs of hands. */
  hands: number;
  /** Steps a person has put at a time, by id, minutes; also what has already begun. They may lie in the night. */
  pinned: ReadonlyMap<string, number>;
  /** Nodes the search may open before it gives its best so far. */
  most?: number;
}

export type Solved =
  | {
      ok: true;
      /** Start of each task, minutes. */
      startMin: Map<string, number>;
      endMin: number;
      /** True where nothing better exists; false where the search was stopped. */
      proved: boolean;
      nodes: number;
    }
  | { ok: false; message: string; about: readonly string[]; nodes: number };

interface Order {
  before: number;
  after: number;
}

const MOST_NODES = 20_000;
/** Past this a task would start beyond the calendar. */
const NEVER = 1e9;

/**
 * Finds when to do each step: hands in waking hours, one thing in one piece of equipment at a time, no more tasks at once
 * than hands, every wait kept and every window met. Minimises the sum of when the groups are done, and then of all starts.
 *
 * Branch and bound over orders [the disjunctive scheme for scheduling with minimal and maximal time lags, De Reyck and
 * Herroelen 1998]: waits, windows, pins and the calendar alone have a single earliest solution, found as a least fixed
 * point; where two steps then want the same hands or thing, the search tries each order. Exact unless it is stopped.
 */
export function solve(q: Question): Solved {
  const n = q.tasks.length;
  const at = new Map(q.tasks.map((t, i) => [t.id, i]));
  const bad = q.tasks.find((t) => t.after.some((a) => !at.has(a.id)));
  if (bad) return { ok: false, message: `${bad.label} waits for a step that is not on the calendar.`, about: [bad.id], nodes: 0 };
  const longest = Math.max(0, ...q.waking.map(([a, b]) => b - a));
  const tooLong = q.tasks.find((t) => t.handsMin > longest && !q.pinned.has(t.id));
  if (tooLong)
    return {
      ok: false,
      message: `${tooLong.label} needs hands for longer than anybody is up at a time: split it, or change the waking hours.`,
      about: [tooLong.id],
      nodes: 0,
    };
  const edges = q.tasks.flatMap((t, j) => t.after.map((a) => ({ i: at.get(a.id)!, j, min: a.minMin, max: a.maxMin })));
  const pin = q.tasks.map((t) => q.pinned.get(t.id) ?? null);
  const groups = [...new Set(q.tasks.map((t) => t.group))].map((g) => q.tasks.flatMap((t, i) => (t.group === g ? [i] : [])));

  /** Earliest start at or after `s` that leaves the hands inside one waking span. */
  const fit = (i: number, s: number): number => {
    if (pin[i] !== null) return s;
    const hands = q.tasks[i]!.handsMin;
    let [low, high] = [0, q.waking.length];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (q.waking[mid]![1] < s + hands) low = mid + 1;
      else high = mid;
    }
    for (let k = low; k < q.waking.length; k++) {
      const [a, b] = q.waking[k]!;
      const start = Math.max(a, s);
      if (start + hands <= b) return start;
    }
    return NEVER;
  };

  let stuck: number[] = [];
  /** Least starts that keep waits, windows, pins, calendar and the orders chosen so far, from below; null where there are none. */
  const earliest = (from: readonly number[], orders: readonly Order[]): number[] | null => {
    const s = [...from];
    for (let round = 0; round <= 50 * (n + 1); round++) {
      let moved = false;
      const raise = (i: number, to: number, why: number): boolean => {
        if (to <= s[i]! + 1e-9) return true;
        if (pin[i] !== null) {
          stuck = [i, why];
          return false;
        }
        const next = fit(i, to);
        if (next >= NEVER) {
          stuck = [i, why];
          return false;
        }
        s[i] = next;
        moved = true;
        return true;
      };
      for (const e of edges) {
        const end = s[e.i]! + q.tasks[e.i]!.handsMin;
        if (!raise(e.j, end + e.min, e.i)) return null;
        // A window that would be missed pulls the step before it later.
        if (e.max !== null && !raise(e.i, s[e.j]! - e.max - q.tasks[e.i]!.handsMin, e.j)) return null;
      }
      for (const o of orders) {
        const t = q.tasks[o.before]!;
        const shared = t.uses.some((u) => q.tasks[o.after]!.uses.includes(u));
        if (!raise(o.after, s[o.before]! + t.handsMin + (shared ? t.holdMin : 0), o.before)) return null;
      }
      if (!moved) return s;
    }
    return null;
  };

  const costOf = (s: readonly number[]): number =>
    groups.reduce((sum, g) => sum + Math.max(...g.map((i) => s[i]! + q.tasks[i]!.handsMin)), 0) + 1e-4 * s.reduce((a, b) => a + b, 0);

  /** Tasks that want more of something at once than there is; null where all is well. */
  const clash = (s: readonly number[]): number[] | null => {
    const order = [...s.keys()].sort((a, b) => s[a]! - s[b]!);
    for (let x = 0; x < n; x++) {
      const i = order[x]!;
      const t = q.tasks[i]!;
      if (t.handsMin > 0) {
        const now = order.filter((k) => q.tasks[k]!.handsMin > 0 && s[k]! <= s[i]! + 1e-9 && s[k]! + q.tasks[k]!.handsMin > s[i]! + 1e-9);
        if (now.length > q.hands && now.some((k) => pin[k] === null))
          return now.slice(0, q.hands + 1).includes(i) ? now.slice(0, q.hands + 1) : [...now.slice(0, q.hands), i];
      }
      for (const k of order) {
        const o = q.tasks[k]!;
        if (k === i || !o.uses.some((u) => t.uses.includes(u)) || (pin[k] !== null && pin[i] !== null)) continue;
        if (s[k]! <= s[i]! && s[k]! + o.handsMin + o.holdMin > s[i]! + 1e-9 && (s[k]! < s[i]! || k < i)) return [k, i];
      }
    }
    return null;
  };

  let nodes = 0;
  const most = q.most ?? MOST_NODES;
  let best: number[] | null = null;
  let bestCost = Infinity;
  let stopped = false;
  const start = q.tasks.map((_, i) => pin[i] ?? fit(i, 0));
  if (start.some((v) => v >= NEVER)) return { ok: false, message: "There are no waking hours in this calendar: set when somebody is up.", about: [], nodes };

  const open: { s: number[]; orders: Order[]; cost: number }[] = [];
  const push = (from: readonly number[], orders: Order[]): void => {
    const s = earliest(from, orders);
    if (!s) return;
    const cost = costOf(s);
    if (cost < bestCost - 1e-9) open.push({ s, orders, cost });
  };
  push(start, []);
  const first = open.length > 0;
  while (open.length > 0) {
    // Depth first, the cheaper order first: a good calendar early cuts the rest.
    const node = open.pop()!;
    if (node.cost >= bestCost - 1e-9) continue;
    if (++nodes > most) {
      stopped = true;
      break;
    }
    const c = clash(node.s);
    if (!c) {
      best = node.s;
      bestCost = node.cost;
      continue;
    }
    const before = open.length;
    for (const i of c) for (const j of c) if (i !== j) push(node.s, [...node.orders, { before: i, after: j }]);
    const added = open.splice(before).sort((a, b) => b.cost - a.cost);
    open.push(...added);
  }
  if (best) {
    const startMin = new Map(q.tasks.map((t, i) => [t.id, best![i]!]));
    return { ok: true, startMin, endMin: Math.max(0, ...best.map((s, i) => s + q.tasks[i]!.handsMin)), proved: !stopped, nodes };
  }
  const about = stuck.map((i) => q.tasks[i]!);
  return {
    ok: false,
    message: first
      ? stopped
        ? "No calendar was found in the time allowed: put one step by hand, or take a job off."
        : `${about[0]?.label ?? "A step"} cannot be put anywhere: what is set by hand, or its window, leaves no room.`
      : `${about[0]?.label ?? "A step"} cannot keep its place: ${about[1]?.label ?? "another step"} would come too late or too early for it. Move one of them.`,
    about: about.map((t) => t.id),
    nodes,
  };
}
