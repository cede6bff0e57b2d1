/** Cells of one layer in order outward: their thicknesses, m. */
export interface GridRules {
  /** Thickness of the cell at an interface, m. */
  firstM: number;
  /** How much each cell is thicker than its neighbour nearer the interface. */
  growth: number;
}

/** Fine at the interface, or the first step overshoots: 0.02 mm, growing by an eighth from cell to cell. */
export const DEFAULT_GRID: GridRules = { firstM: 0.02e-3, growth: 1.125 };

/** Splits a layer into cells that are thin where `fineAtStart` or `fineAtEnd` says it meets another layer or the air. */
export function splitLayer(thicknessM: number, fineAtStart: boolean, fineAtEnd: boolean, rules: GridRules = DEFAULT_GRID): number[] {
  const oneSided = (length: number): number[] => {
    const n = Math.max(4, Math.ceil(Math.log(1 + (length * (rules.growth - 1)) / rules.firstM) / Math.log(rules.growth)));
    const raw = Array.from({ length: n }, (_, i) => rules.growth ** i);
    const sum = raw.reduce((a, b) => a + b, 0);
    return raw.map((v) => (v / sum) * length);
  };
  if (fineAtStart && fineAtEnd) {
    const half = oneSided(thicknessM / 2);
    return [...half, ...[...half].reverse()];
  }
  const cells = oneSided(thicknessM);
  return fineAtStart ? cells : cells.reverse();
}
