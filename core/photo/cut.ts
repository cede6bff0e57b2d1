/** A graph to be cut in two at the least cost. */
export interface Graph {
  /** What it costs to part a node from what is wanted (source), less what it costs to part it from what is not (sink). */
  terminal: (node: number, source: number, sink: number) => void;
  /** What it costs to part two nodes, either way round. */
  edge: (i: number, j: number, cost: number) => void;
  /** Cuts; afterwards `wanted` tells the side of a node. */
  cut: () => void;
  wanted: (node: number) => boolean;
}

const FREE = 0;
const SOURCE = 1;
const SINK = 2;
const NONE = -1;
const ROOT = -2;
const ORPHAN = -3;
const { min } = Math;

/**
 * Least cut of a graph by growing a tree from either end and pushing flow where they meet [Boykov & Kolmogorov 2004].
 * @param nodes how many; @param edges most edges there will be
 */
export function graphOf(nodes: number, edges: number): Graph {
  const head = new Int32Array(2 * edges);
  const next = new Int32Array(2 * edges);
  const rest = new Float32Array(2 * edges);
  const first = new Int32Array(nodes).fill(NONE);
  const term = new Float32Array(nodes);
  const tree = new Uint8Array(nodes);
  // The arc to a node's parent, or ROOT, ORPHAN, NONE.
  const parent = new Int32Array(nodes).fill(NONE);
  const stamp = new Int32Array(nodes);
  const dist = new Int32Array(nodes);
  const queued = new Uint8Array(nodes);
  let arcs = 0;

  const addArc = (from: number, to: number, cost: number) => {
    head[arcs] = to;
    rest[arcs] = cost;
    next[arcs] = first[from]!;
    first[from] = arcs++;
  };

  const cut = () => {
    // Active nodes, in turn.
    let queue: number[] = [];
    let later: number[] = [];
    let at = 0;
    const orphans: number[] = [];
    let time = 0;
    const wake = (i: number) => {
      if (queued[i]) return;
      queued[i] = 1;
      later.push(i);
    };
    for (let i = 0; i < nodes; i++) {
      if (term[i] === 0) continue;
      tree[i] = term[i]! > 0 ? SOURCE : SINK;
      parent[i] = ROOT;
      dist[i] = 1;
      wake(i);
    }
    const nextActive = (): number => {
      for (;;) {
        if (at >= queue.length) {
          if (later.length === 0) return -1;
          queue = later;
          later = [];
          at = 0;
        }
        const i = queue[at++]!;
        queued[i] = 0;
        if (parent[i] !== NONE) return i;
      }
    };

    const augment = (middle: number) => {
      // `middle` runs from the source's tree to the sink's.
      let least = rest[middle]!;
      let i = head[middle ^ 1]!;
      for (;;) {
        const a = parent[i]!;
        if (a === ROOT) break;
        least = min(least, rest[a ^ 1]!);
        i = head[a]!;
      }
      least = min(least, term[i]!);
      i = head[middle]!;
      for (;;) {
        const a = parent[i]!;
        if (a === ROOT) break;
        least = min(least, rest[a]!);
        i = head[a]!;
      }
      least = min(least, -term[i]!);
      rest[middle ^ 1]! += least;
      rest[middle]! -= least;
      i = head[middle ^ 1]!;
      for (;;) {
        const a = parent[i]!;
        if (a === ROOT) break;
        rest[a]! += least;
        rest[a ^ 1]! -= least;
        if (rest[a ^ 1]! <= 0) {
          rest[a ^ 1] = 0;
          parent[i] = ORPHAN;
          orphans.push(i);
        }
        i = head[a]!;
      }
      term[i]! -= least;
      if (term[i]! <= 0) {
        term[i] = 0;
        parent[i] = ORPHAN;
        orphans.push(i);
      }
      i = head[middle]!;
      for (;;) {
        const a = parent[i]!;
        if (a === ROOT) break;
        rest[a ^ 1]! += least;
        rest[a]! -= least;
        if (rest[a]! <= 0) {
          rest[a] = 0;
          parent[i] = ORPHAN;
          orphans.push(i);
        }
        i = head[a]!;
      }
      term[i]! += least;
      if (term[i]! >= 0) {
        term[i] = 0;
        parent[i] = ORPHAN;
        orphans.push(i);
      }
    };

    /** Steps from a node to its tree's end; −1 where the way is broken. Marks the way. */
    const toRoot = (from: number): number => {
      let d = 0;
      let i = from;
      for (;;) {
        if (stamp[i] === time) {
          d += dist[i]!;
          break;
        }
        const a = parent[i]!;
        d++;
        if (a === ROOT) {
          stamp[i] = time;
          dist[i] = 1;
          break;
        }
        if (a === ORPHAN || a === NONE) return -1;
        i = head[a]!;
      }
      let left = d;
      for (let j = from; stamp[j] !== time; j = head[parent[j]!]!) {
        stamp[j] = time;
        dist[j] = left--;
      }
      return d;
    };

    const adopt = (i: number) => {
      const mine = tree[i]!;
      let [best, nearest] = [NONE, Infinity];
      for (let a = first[i]!; a !== NONE; a = next[a]!) {
        const j = head[a]!;
        const open = mine === SOURCE ? rest[a ^ 1]! : rest[a]!;
        if (open <= 0 || tree[j] !== mine || parent[j] === NONE) continue;
        const d = toRoot(j);
        if (d >= 0 && d < nearest) [best, nearest] = [a, d];
      }
      if (best !== NONE) {
        parent[i] = best;
        stamp[i] = time;
        dist[i] = nearest + 1;
        return;
      }
      for (let a = first[i]!; a !== NONE; a = next[a]!) {
        const j = head[a]!;
        if (tree[j] !== mine) continue;
        const p = parent[j]!;
        if (p === NONE) continue;
        const open = mine === SOURCE ? rest[a ^ 1]! : rest[a]!;
        if (open > 0) wake(j);
        if (p >= 0 && head[p] === i) {
          parent[j] = ORPHAN;
          orphans.push(j);
        }
      }
      parent[i] = NONE;
      tree[i] = FREE;
    };

    let current = -1;
    for (;;) {
      if (current < 0 || parent[current] === NONE) current = nextActive();
      if (current < 0) break;
      const i = current;
      const mine = tree[i]!;
      let middle = NONE;
      for (let a = first[i]!; a !== NONE; a = next[a]!) {
        const open = mine === SOURCE ? rest[a]! : rest[a ^ 1]!;
        if (open <= 0) continue;
        const j = head[a]!;
        if (tree[j] === FREE) {
          tree[j] = mine;
          parent[j] = a ^ 1;
          stamp[j] = stamp[i]!;
          dist[j] = dist[i]! + 1;
          wake(j);
        } else if (tree[j] !== mine) {
          middle = mine === SOURCE ? a : a ^ 1;
          break;
        }
      }
      if (middle === NONE) {
        current = -1;
        continue;
      }
      time++;
      augment(middle);
      while (orphans.length > 0) adopt(orphans.pop()!);
    }
  };

  return {
    terminal: (i, source, sink) => {
      term[i]! += source - sink;
    },
    edge: (i, j, cost) => {
      addArc(i, j, cost);
      addArc(j, i, cost);
    },
    cut,
    wanted: (i) => tree[i] === SOURCE,
  };
}
