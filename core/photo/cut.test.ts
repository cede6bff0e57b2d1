import fc from "fast-check";
import { graphOf } from "./cut";

describe("the least cut", () => {
  it("costs what the best of all cuts costs, on every small graph", () => {
    const graphs = fc.record({
      terms: fc.array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 })), { minLength: 2, maxLength: 8 }),
      edges: fc.array(fc.tuple(fc.nat(7), fc.nat(7), fc.integer({ min: 0, max: 9 })), { maxLength: 20 }),
    });
    fc.assert(
      fc.property(graphs, ({ terms, edges }) => {
        const n = terms.length;
        const mine = edges.filter(([i, j]) => i < n && j < n && i !== j);
        const cost = (wanted: (i: number) => boolean) =>
          terms.reduce((s, [source, sink], i) => s + (wanted(i) ? sink : source), 0) + mine.reduce((s, [i, j, c]) => s + (wanted(i) !== wanted(j) ? c : 0), 0);
        const g = graphOf(n, mine.length);
        terms.forEach(([source, sink], i) => g.terminal(i, source, sink));
        for (const [i, j, c] of mine) g.edge(i, j, c);
        g.cut();
        let best = Infinity;
        for (let bits = 0; bits < 1 << n; bits++)
          best = Math.min(
            best,
            cost((i) => (bits >> i) % 2 === 1),
          );
        expect(cost(g.wanted)).toBe(best);
      }),
      { numRuns: 500 },
    );
  });
});
