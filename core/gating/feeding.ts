import { fillingAlong, sectionsAlong, type Body, type Direction } from "../body";

/** A part of a casting that freezes after what feeds it: there it sinks, or a pipe runs in. */
export interface Sink {
  /** Height of its thickest place above the lowest of the casting, as it stands while it is filled, mm. */
  upMm: number;
  /** Thickness there and at the narrowest place between it and the gate, mm: four times area over girth. */
  thickMm: number;
  neckMm: number;
  /** What it lacks once it is cold, mL. */
  shortMl: number;
}

/** A thick place has to be thicker than its neck by this to run short: thinner necks stay open about as long. */
const THICKER = 1.12;
/** Share of the height at the gate's end that the sprue takes. */
const END = 0.05;

/** Thickness of each level as freezing sees it, mm: 4·A/P, a round bar's own diameter. */
export const thicknessAt = (areaMm2: number, perimeterMm: number): number => (perimeterMm > 0 ? (4 * areaMm2) / perimeterMm : 0);

/**
 * Where a casting fed at its top, as it stands, runs short, by the order its sections freeze in [modulus method]: thick places cut off from the gate by thinner
 * ones, each lacking its own shrinkage, a share of its volume.
 */
export function sinksOf(b: Body, up: Direction, shrinks: number): Sink[] {
  const sections = sectionsAlong(b, up).map((l) => ({ mm: l.mm, thick: thicknessAt(l.areaMm2, l.perimeterMm) }));
  const filled = fillingAlong(b, up);
  const high = filled.at(-1)?.mm ?? 0;
  const below = (mm: number): number => {
    const at = Math.max(0, Math.min(1, mm / high)) * (filled.length - 1);
    const i = Math.min(filled.length - 2, Math.floor(at));
    return filled[i]!.ml + (at - i) * (filled[i + 1]!.ml - filled[i]!.ml);
  };
  // Where the form closes at its very end the sprue is cut into it. From the gate down.
  const order = sections.filter((l) => l.thick > 0 && high - l.mm >= END * high).reverse();
  const found: Sink[] = [];
  let neck = { mm: order[0]?.mm ?? 0, thick: Infinity };
  let now: { sink: Sink; from: number; to: number } | null = null;
  /** How long it is all about a place thinner than so much, mm. */
  const neckLong = (mm: number, thick: number): number => {
    const at = order.findIndex((l) => l.mm === mm);
    let [i, k] = [at, at];
    while (i > 0 && order[i - 1]!.thick < thick) i--;
    while (k + 1 < order.length && order[k + 1]!.thick < thick) k++;
    return order[i]!.mm - order[k]!.mm;
  };
  const close = () => {
    if (!now) return;
    const { sink } = now;
    // A neck no longer than it is thick is kept open by the heat on either side of it: a workshop estimate.
    if (neckLong(now.from, sink.thickMm / THICKER) < sink.neckMm) {
      now = null;
      return;
    }
    const [a, c] = [Math.min(now.from, now.to), Math.max(now.from, now.to)];
    found.push({ ...sink, shortMl: shrinks * (below(c) - below(a)) });
    now = null;
  };
  for (const l of order) {
    if (l.thick > neck.thick * THICKER) {
      if (!now) now = { sink: { upMm: l.mm, thickMm: l.thick, neckMm: neck.thick, shortMl: 0 }, from: neck.mm, to: l.mm };
      else if (l.thick > now.sink.thickMm) now.sink = { ...now.sink, upMm: l.mm, thickMm: l.thick };
      now.to = l.mm;
    } else {
      close();
      if (l.thick < neck.thick) neck = l;
    }
  }
  close();
  return found.filter((s) => s.shortMl > 0).sort((a, c) => c.shortMl - a.shortMl);
}
