import { volumeBelow, type Body } from "../body";

/** A part of a casting that freezes after what feeds it: there it sinks, or a pipe runs in. */
export interface Sink {
  /** Height of its thickest place above the back, mm. */
  zMm: number;
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
 * Where a casting fed from one end runs short, by the order its levels freeze in [modulus method]: thick places cut off from the gate by thinner ones, each
 * lacking its own shrinkage. `fromTop` says the gate sits at the top of the body.
 */
export function sinksOf(b: Body, fromTop: boolean, shrinks: number): Sink[] {
  const levels = b.levels.map((l) => ({ zMm: l.zMm, thick: thicknessAt(l.areaMm2, l.perimeterMm) })).filter((l) => l.thick > 0);
  // Where the form closes at its very end the sprue is cut into it.
  const open = levels.filter((l) => (fromTop ? b.heightMm - l.zMm : l.zMm) >= END * b.heightMm);
  const order = fromTop ? open.reverse() : open;
  const found: Sink[] = [];
  let neck = { zMm: order[0]?.zMm ?? 0, thick: Infinity };
  let now: { sink: Sink; from: number; to: number } | null = null;
  const close = () => {
    if (!now) return;
    const [a, c] = [Math.min(now.from, now.to), Math.max(now.from, now.to)];
    now.sink.shortMl = shrinks * (volumeBelow(b, c) - volumeBelow(b, a));
    found.push(now.sink);
    now = null;
  };
  for (const l of order) {
    if (l.thick > neck.thick * THICKER) {
      if (!now) now = { sink: { zMm: l.zMm, thickMm: l.thick, neckMm: neck.thick, shortMl: 0 }, from: neck.zMm, to: l.zMm };
      else if (l.thick > now.sink.thickMm) now.sink = { ...now.sink, zMm: l.zMm, thickMm: l.thick };
      now.to = l.zMm;
    } else {
      close();
      if (l.thick < neck.thick) neck = l;
    }
  }
  close();
  return found.filter((s) => s.shortMl > 0).sort((a, c) => c.shortMl - a.shortMl);
}
