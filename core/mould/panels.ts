import { plateBow, type Edge } from "../elastic";
import type { BoxStock, Range } from "../material";
import { GRAVITY } from "./constants";
import type { BlockLayout, Panel } from "./layout";

/** Poisson's ratio taken for sheet stock of every kind; its effect on bowing is a few percent. */
const SHEET_POISSON = 0.3;

/** A rectangular side of a box, or a board behind rubber, pressed by a liquid. */
export interface PressedPanel {
  lengthMm: number;
  heightMm: number;
  /** Depth of liquid against it, the height it stands on (clay, or rubber that has cured; 0 unless said), and its density, g/mL. */
  depthMm: number;
  fromMm?: number;
  liquidGMl: number;
}

export interface PanelBow {
  /** Furthest the panel bows, mm: typical, and from stiff sheet with held corners to soft with hinged ones. */
  mostMm: Range;
  atMm: number;
}

const pressure = (gMl: number, depthMm: number) => (gMl * GRAVITY * Math.max(0, depthMm)) / 1e6;

function bay(p: PressedPanel, fromMm: number, toMm: number, thicknessMm: number, top: Edge, sides: Edge): number {
  const base = p.fromMm ?? 0;
  const surface = base + p.depthMm;
  const [low, wet] = [Math.max(fromMm, base), Math.min(toMm, surface)];
  if (wet <= low) return 0;
  return plateBow(
    { widthMm: p.lengthMm, heightMm: toMm - fromMm, thicknessMm, youngMPa: 1, poisson: SHEET_POISSON, bottom: "hinged", top, sides },
    {
      bottomMPa: pressure(p.liquidGMl, surface - low),
      topMPa: pressure(p.liquidGMl, surface - wet),
      fromMm: low - fromMm,
      toMm: wet - fromMm,
    },
  ).mostMm;
}

/**
 * How far a panel bows with straps at the given heights, mm: between straps it is a plate hinged on them, above the last
 * its rim is free. Straps need a batten behind them, or they only hold the corners.
 */
export function panelBow(p: PressedPanel, thicknessMm: number, modulusMPa: Range, strapsMm: readonly number[] = []): PanelBow {
  const heights = [0, ...strapsMm.filter((z) => z > 0 && z < p.heightMm), p.heightMm];
  let most = { held: 0, hinged: 0 };
  let atMm = 0;
  for (let i = 1; i < heights.length; i++) {
    const [from, to] = [heights[i - 1]!, heights[i]!];
    const top: Edge = i === heights.length - 1 ? "free" : "hinged";
    const hinged = bay(p, from, to, thicknessMm, top, "hinged");
    if (hinged > most.hinged) {
      most = { hinged, held: bay(p, from, to, thicknessMm, top, "held") };
      atMm = (from + to) / 2;
    }
  }
  return {
    mostMm: {
      low: most.held / modulusMPa.high,
      typical: (most.held + most.hinged) / 2 / modulusMPa.typical,
      high: most.hinged / modulusMPa.low,
    },
    atMm,
  };
}

/**
 * Heights of n straps that each carry the same push of a liquid, mm: the depths that cut the triangle of pressure into equal
 * areas, each strap at its share's centre of push [hydrostatics].
 */
export function strapHeights(n: number, depthMm: number): number[] {
  const cut = (k: number) => Math.sqrt(k / n) * depthMm;
  return Array.from({ length: n }, (_, i) => {
    const [d0, d1] = [cut(i), cut(i + 1)];
    const centre = ((2 / 3) * (d1 ** 3 - d0 ** 3)) / (d1 ** 2 - d0 ** 2);
    return depthMm - centre;
  }).reverse();
}

/** Pull in one of n straps round a rectangular box, N: half of its share of the push on the longer side, on each of two runs. */
export const strapPullN = (n: number, p: PressedPanel): number => {
  const push = (pressure(p.liquidGMl, p.depthMm) / 2) * p.depthMm * p.lengthMm;
  return push / n / 2;
};

export interface Backing {
  straps: readonly number[];
  pullN: number;
  bow: PanelBow;
  /** True when so many straps keep the panel inside the tolerance, each within what it may carry. */
  enough: boolean;
}

const MOST_STRAPS = 6;

/** Fewest straps that keep a panel inside a tolerance, and no strap past its load; the most tried when none is enough. */
export function backing(p: PressedPanel, thicknessMm: number, modulusMPa: Range, toleranceMm: number, strapN: number, fewest = 0): Backing {
  let last: Backing | null = null;
  for (let n = fewest; n <= MOST_STRAPS; n++) {
    const straps = n === 0 ? [] : strapHeights(n, Math.min(p.depthMm, p.heightMm)).map((z) => z + (p.fromMm ?? 0));
    const bow = panelBow(p, thicknessMm, modulusMPa, straps);
    const pullN = n === 0 ? 0 : strapPullN(n, p);
    last = { straps, pullN, bow, enough: bow.mostMm.typical <= toleranceMm && pullN <= strapN };
    if (last.enough) return last;
  }
  return last ?? { straps: [], pullN: 0, bow: panelBow(p, thicknessMm, modulusMPa), enough: false };
}

/** Thinnest panel of a stock's stiffness that needs no strap, mm, to half a millimetre; null past 60 mm. */
export function leastPanel(p: PressedPanel, modulusMPa: Range, toleranceMm: number): number | null {
  const bow = (t: number) => panelBow(p, t, modulusMPa).mostMm.typical;
  let [low, high] = [0.3, 60];
  if (bow(high) > toleranceMm) return null;
  while (high - low > 0.25) {
    const mid = (low + high) / 2;
    if (bow(mid) <= toleranceMm) high = mid;
    else low = mid;
  }
  return Math.ceil(high * 2) / 2;
}

export interface Hoop {
  /** Pull in the sheet at its foot, MPa, how far it grows, mm, and what its seam carries in all, N. */
  stressMPa: number;
  growsMm: number | null;
  seamN: number;
  /** Share of the sheet's strength that is used, at its weakest; null where nobody has said. */
  used: number | null;
}

/** A round wrap as a thin hoop: stress p·r/t, growth p·r²/(E·t), and the pull on its seam, summed over the depth. */
export function hoopOf(radiusMm: number, depthMm: number, liquidGMl: number, stock: BoxStock): Hoop {
  const p = pressure(liquidGMl, depthMm);
  const stressMPa = (p * radiusMm) / stock.thicknessMm;
  return {
    stressMPa,
    growsMm: stock.modulusMPa ? (stressMPa * radiusMm) / stock.modulusMPa.typical : null,
    seamN: (p * radiusMm * depthMm) / 2,
    used: stock.strengthMPa ? stressMPa / stock.strengthMPa.low : null,
  };
}

/**
 * The longest side of a rectangular box under each of its pours. A second pour stands on the first, or on its clay, high up where the
 * side is free: it may bow the box more than a deeper one would at the bottom.
 */
export function pressedSides(layout: BlockLayout, liquidGMl: number): PressedPanel[] {
  const pours = layout.pours.filter((p) => !p.plug).map((p) => ({ fromMm: p.fromMm, depthMm: p.fillLineMm - p.fromMm }));
  const unlike = pours.filter((p, i) => pours.findIndex((q) => q.fromMm === p.fromMm && q.depthMm === p.depthMm) === i);
  return unlike.map((p) => ({ lengthMm: Math.max(layout.box.lengthMm, layout.box.widthMm), heightMm: layout.wallHeightMm, ...p, liquidGMl }));
}

/** Mass of a box's pieces, g; null where the stock's density is not known. */
export const boxMassG = (panels: readonly Panel[], stock: BoxStock | null): number | null =>
  stock?.densityGMl
    ? panels.reduce((s, p) => s + ((p.count * p.lengthMm * p.heightMm * (p.thicknessMm || stock.thicknessMm)) / 1000) * (stock.densityGMl?.typical ?? 0), 0)
    : null;
