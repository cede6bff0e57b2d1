import { kept } from "@/core/body";
import { depthsOf, fillingAt, openness, ventsOpen, type Network, type Setup, type State } from "@/core/rehearsal";

const HUES = {
  light: { rubber: "#cfe3df", room: "#fffaf0", solid: "#42305c", air: "#a0211b", master: "#d9c39a", breath: "#5f8f88" },
  dark: { rubber: "#2f4a48", room: "#1d1a14", solid: "#6d5493", air: "#ff9389", master: "#6b5a36", breath: "#9fd3ca" },
};
const LIQUID = { light: { cast: "#8a6fae", rubber: "#6fa79d" }, dark: { cast: "#c8adee", rubber: "#7fc4b8" } };

/** The colours of a pour, in the light or in the dark. */
export const pourHues = (dark: boolean, of: Picture["of"]) => ({ ...HUES[dark ? "dark" : "light"], melt: LIQUID[dark ? "dark" : "light"][of] });

/** What a picture of a pour is made of. */
export interface Picture {
  network: Network;
  /** The same mould as it stands straight: it tells how far sprue and vents go through the rubber. */
  straight: Network;
  st: State | null;
  setup: Setup;
  dark: boolean;
  /** A casting in its mould, or rubber round its master in an open box. */
  of: "cast" | "rubber";
}

/** The section: room, what has filled it, what air is shut in, the funnel and what stands in it; leaning as the mould is held. */
export function paint(c: HTMLCanvasElement, { network: n, straight, st, setup, dark, of }: Picture): void {
  // Drawn by the processor: where there is no graphics card, handing it over costs more than drawing.
  const ink = c.getContext("2d", { willReadFrequently: true });
  if (!ink) return;
  const hue = pourHues(dark, of);
  ink.clearRect(0, 0, c.width, c.height);
  const left = Math.min(...n.bars.map((b) => b.xMm));
  const wide = Math.max(...n.bars.map((b) => b.xMm)) + n.barMm - left;
  const funnelMm = setup.open ? 0 : Math.max(0.18 * straight.highMm, 8);
  const lean = (n.leanDeg * Math.PI) / 180;
  const [sin, cos] = [Math.sin(lean), Math.cos(lean)];
  const by = Math.min((c.width * 0.8) / (wide + 2 * funnelMm * Math.abs(sin)), (c.height * (0.9 - 0.2 * Math.abs(sin))) / (n.highMm + funnelMm * 1.8 * cos));
  const x0 = (c.width - wide * by) / 2 - left * by;
  const floor = c.height * (0.96 - 0.13 * Math.abs(sin));
  const y = (z: number) => floor - z * by;
  const sides = sidesOf(n);
  /** Part of a bar, as its foot and its roof slant; upright edges on whole points of the picture, so that neighbours meet without a line. */
  const column = (path: Path2D, i: number, from: number, to: number) => {
    if (to <= from) return;
    const bar = n.bars[i]!;
    const { foot, roof } = sides[i]!;
    const [px, right] = [Math.round(x0 + bar.xMm * by), Math.round(x0 + (bar.xMm + n.barMm) * by)];
    const top = (k: 0 | 1) => (to >= bar.toMm ? roof[k] : Math.min(to, roof[k]));
    const low = (k: 0 | 1) => Math.min(top(k), from <= bar.fromMm ? foot[k] : Math.max(from, foot[k]));
    path.moveTo(px, y(low(0)));
    path.lineTo(px, y(top(0)));
    path.lineTo(right, y(top(1)));
    path.lineTo(right, y(low(1)));
    path.closePath();
  };
  /** Draws in the mould's own upright from a place of the section. */
  const standing = (xMm: number, zMm: number, draw: () => void) => {
    ink.save();
    ink.translate(x0 + xMm * by, y(zMm));
    ink.rotate(lean);
    draw();
    ink.restore();
  };
  if (of === "cast") {
    const half = (span(straight) / 2 + 0.08 * span(straight)) * by + 8;
    const [below, above] = [0.03 * c.height, 0.8 * funnelMm * by];
    standing(left + wide / 2, n.highMm / 2, () => {
      ink.fillStyle = hue.rubber;
      ink.fillRect(-half, (-straight.highMm / 2) * by - above, 2 * half, straight.highMm * by + above + below);
    });
  } else if (n.walls) {
    // The box: what is no room in it is the master, or the bed it lies in.
    ink.fillStyle = hue.master;
    ink.fill(box(n.walls));
    // Over its fill line a box that stands level is empty.
    const line = Math.max(...n.bars.map((b) => b.toMm));
    if (n.leanDeg === 0 && line < n.highMm) {
      ink.fillStyle = hue.room;
      ink.fillRect(x0 + left * by, y(n.highMm), wide * by, (n.highMm - line) * by);
    }
  }
  const at = st ? fillingAt(n, st.filledMl) : null;
  const full = new Set(at ? n.order.slice(0, at.index) : []);
  const [room, melt, air] = [new Path2D(), new Path2D(), new Path2D()];
  n.bars.forEach((b, i) => {
    column(room, i, b.fromMm, b.toMm);
    let from = b.fromMm;
    for (const part of b.basins) {
      const top = Math.min(part.toMm, b.airFromMm);
      if (full.has(part.basin)) column(melt, i, from, top);
      else if (at?.basin === part.basin) column(melt, i, from, Math.min(top, at.levelMm));
      from = part.toMm;
    }
    // Air that is shut off by now, or what stayed there when the mould was turned.
    if (b.airFromMm < b.toMm && (st?.ended || n.heldMl > 0 || (at && at.levelMm >= b.airFromMm - 1e-6))) {
      const shut = n.shut.some((p) => p.topMm > b.airFromMm && p.spillMm < b.toMm);
      // Under the slanting wall of an open box nothing is shut in.
      if (shut || !n.open) column(shut || n.heldMl === 0 ? air : melt, i, b.airFromMm, b.toMm);
    }
  });
  for (const [path, fill] of [
    [room, hue.room],
    [melt, hue.melt],
    [air, hue.air],
  ] as const) {
    ink.fillStyle = fill;
    ink.fill(path);
  }
  if (st && setup.freezing) crusts(st);
  if (n.walls) {
    ink.strokeStyle = hue.breath;
    ink.lineWidth = 4;
    ink.stroke(box(n.walls));
  }
  if (setup.open) return void stream();
  const choke = Math.max(3, setup.chokeMm * by);
  const reach = (z: number) => (straight.highMm - z + funnelMm * 0.5) * by;
  // Vents that have no place of their own stand at the highest, beside the sprue.
  const beside = Math.max(0, setup.vents.count - n.vents.length);
  const vents = [
    ...n.vents.slice(0, setup.vents.count).map((v, i) => ({ xMm: v.xMm, zMm: v.zMm, straightMm: straight.vents[i]?.zMm ?? straight.highMm, i })),
    ...Array.from({ length: Math.min(2, beside) }, (_, i) => ({
      ...highAt(n, n.sprue.xMm + (i === 0 ? 1 : -1) * Math.min(2 * funnelMm, 0.3 * span(straight))),
      straightMm: straight.sprue.zMm,
      i: -1,
    })),
  ];
  const open = st ? ventsOpen(setup, st) : setup.vents.count;
  for (const v of vents) {
    const long = reach(v.straightMm) + funnelMm * 1.1 * by;
    const across = Math.max(3, setup.vents.diameterMm * by);
    const shut = v.i >= 0 && st !== null && st.shutAt[v.i]! >= 0;
    const under = v.i >= 0 && st !== null && st.drowned[v.i]! >= 0;
    standing(v.xMm + n.barMm / 2, v.zMm, () => {
      ink.fillStyle = hue.room;
      ink.fillRect(-across / 2, -long, across, long);
      if (under || shut) {
        ink.fillStyle = shut ? hue.solid : hue.melt;
        ink.fillRect(-across / 2, -Math.min(long, 3 * across), across, Math.min(long, 3 * across));
      } else if (st && st.inMlS > 0 && open > 0) breath(-long, (1000 * st.inMlS) / open, across);
    });
  }
  standing(n.sprue.xMm + n.barMm / 2, n.sprue.zMm, () => {
    const foot = reach(straight.sprue.zMm);
    const cone = (share: number, fill: string) => {
      const half = choke / 2 + (choke + 8) * share;
      ink.fillStyle = fill;
      ink.beginPath();
      ink.moveTo(-choke / 2, -foot);
      ink.lineTo(choke / 2, -foot);
      ink.lineTo(half, -foot - funnelMm * 1.1 * by * share);
      ink.lineTo(-half, -foot - funnelMm * 1.1 * by * share);
      ink.fill();
    };
    ink.fillStyle = hue.room;
    ink.fillRect(-choke / 2, -foot, choke, foot + 2);
    cone(1, hue.room);
    // With no vent the air comes out the way the melt goes in.
    if (st && st.inMlS > 0 && open === 0) breath(-foot - funnelMm * 1.1 * by, 1000 * st.inMlS, choke);
    if (st?.spilling)
      for (const side of [-1, 1])
        for (let i = 0; i < 3; i++) {
          ink.fillStyle = hue.melt;
          ink.beginPath();
          ink.arc(side * (choke * 1.5 + 12), -foot - funnelMm * 1.1 * by + ((st.tick * 2 + i * 17) % 50), 3.5, 0, 2 * Math.PI);
          ink.fill();
        }
    if (st && st.funnelMl > 0) {
      cone(Math.cbrt(Math.min(1, st.funnelMl / setup.funnelMl)), hue.melt);
      ink.fillRect(-choke / 2, -foot, choke, foot + 2);
    }
  });

  /** The box that rubber rises in, as it is held. */
  function box(walls: NonNullable<Network["walls"]>): Path2D {
    const path = new Path2D();
    walls.forEach(([x, z], i) => (i === 0 ? path.moveTo(x0 + x * by, y(z)) : path.lineTo(x0 + x * by, y(z))));
    path.closePath();
    return path;
  }

  /** What runs into an open box where it is poured in, and what runs over its low wall. */
  function stream(): void {
    if (!st || st.ended || st.inMlS <= 0) return;
    const x = x0 + (n.sprue.xMm + n.barMm / 2) * by;
    ink!.fillStyle = hue.melt;
    ink!.fillRect(x - 3, 0, 6, y(at?.levelMm ?? 0));
  }

  /** Air on its way out: strokes over the mouth of a way, as far apart as it is fast, and further up the more has left. */
  function breath(top: number, mm3S: number, across: number): void {
    const fast = Math.min(1, mm3S / ((Math.PI / 4) * Math.max(0.2, setup.vents.diameterMm) ** 2) / 2000);
    ink!.strokeStyle = hue.breath;
    ink!.lineWidth = 2.5;
    for (let i = 0; i < 3; i++) {
      const rise = (((st?.tick ?? 0) * (0.25 + fast) + i * 11) % 33) + 2;
      ink!.globalAlpha = 1 - rise / 38;
      ink!.beginPath();
      ink!.moveTo(-across / 2 - 2, top - rise);
      ink!.lineTo(0, top - rise - 6);
      ink!.lineTo(across / 2 + 2, top - rise);
      ink!.stroke();
    }
    ink!.globalAlpha = 1;
  }

  /** What is frozen of what is in it: a crust that grows from the mould's face, soft at its front. A point for each place of the section, drawn large. */
  function crusts(now: State): void {
    const depths = depthsOf(n);
    const grown = n.basins.map((_, b) => 1 - openness(n, setup, now, b));
    if (Math.max(...grown) <= 0) return;
    const [r, g, b] = [1, 3, 5].map((i) => parseInt(hue.solid.slice(i, i + 2), 16));
    const rows = Math.ceil(n.highMm / depths.stepMm) + 1;
    const points = crustOf(Math.round((wide + n.barMm) / n.barMm), rows);
    const path = new Path2D();
    points.image.data.fill(0);
    n.bars.forEach((bar, i) => {
      let from = bar.fromMm;
      for (const part of bar.basins) {
        const level = full.has(part.basin) ? Infinity : at?.basin === part.basin ? at.levelMm : -Infinity;
        const top = Math.min(part.toMm, bar.airFromMm, level);
        column(path, i, from, top);
        from = part.toMm;
      }
      const u = Math.round((bar.xMm - left) / n.barMm);
      const lowest = Math.round(bar.fromMm / depths.stepMm);
      depths.of[i]!.forEach((share, k) => {
        const z = bar.fromMm + (k + 0.5) * depths.stepMm;
        const part = bar.basins.find((p) => z <= p.toMm) ?? bar.basins.at(-1);
        const crust = part ? grown[part.basin]! : 0;
        const alpha = crust <= 0 ? 0 : Math.max(0, Math.min(1, (crust - share) / FRONT + 0.5));
        points.image.data.set([r!, g!, b!, 255 * alpha], 4 * ((rows - 1 - lowest - k) * points.image.width + u));
      });
    });
    points.ink.putImageData(points.image, 0, 0);
    ink!.save();
    ink!.clip(path);
    ink!.drawImage(points.canvas, x0 + left * by, y(rows * depths.stepMm), points.image.width * n.barMm * by, rows * depths.stepMm * by);
    ink!.restore();
  }
}

/** A small picture of so many points, kept from one frame to the next. */
let crust: { canvas: HTMLCanvasElement; ink: CanvasRenderingContext2D; image: ImageData } | null = null;
function crustOf(wide: number, high: number) {
  if (crust?.image.width === wide && crust.image.height === high) return crust;
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [wide, high];
  const ink = canvas.getContext("2d", { willReadFrequently: true })!;
  crust = { canvas, ink, image: ink.createImageData(wide, high) };
  return crust;
}

/** A freezing front is as soft as this, share of the deepest. */
const FRONT = 0.15;

/** The highest place of a section over a place of its foot. */
const highAt = (n: Network, xMm: number) => {
  const near = n.bars.reduce((p, q) => (Math.abs(q.xMm - xMm) < Math.abs(p.xMm - xMm) || (q.xMm === p.xMm && q.toMm > p.toMm) ? q : p));
  return { xMm: near.xMm, zMm: near.toMm };
};

/** How high the foot and the roof of each bar stand at its two sides, mm: half way to the bar beside it that it opens to, where that is no step. */
const sidesOf = kept((n: Network): { foot: [number, number]; roof: [number, number] }[] => {
  const columns = new Map<number, number[]>();
  const at = (xMm: number) => Math.round(xMm / n.barMm);
  n.bars.forEach((b, i) => columns.set(at(b.xMm), [...(columns.get(at(b.xMm)) ?? []), i]));
  const overlap = (i: number, j: number) => Math.min(n.bars[i]!.toMm, n.bars[j]!.toMm) - Math.max(n.bars[i]!.fromMm, n.bars[j]!.fromMm);
  const half = (own: number, other: number | undefined) => (other === undefined || Math.abs(other - own) > STEP * n.barMm ? own : (own + other) / 2);
  return n.bars.map((b, i) => {
    const beside = ([-1, 1] as const).map((d) => {
      const near = (columns.get(at(b.xMm) + d) ?? []).filter((j) => overlap(i, j) > 0);
      return near.length > 0 ? n.bars[near.reduce((p, q) => (overlap(i, q) > overlap(i, p) ? q : p))] : undefined;
    });
    return {
      foot: [half(b.fromMm, beside[0]?.fromMm), half(b.fromMm, beside[1]?.fromMm)],
      roof: [half(b.toMm, beside[0]?.toMm), half(b.toMm, beside[1]?.toMm)],
    };
  });
});
/** Heights of neighbours that differ by more cells than this are a step, and drawn as one. */
const STEP = 4;

/** How wide a section is, mm. */
const span = (n: Network): number => Math.max(...n.bars.map((b) => b.xMm)) + n.barMm - Math.min(...n.bars.map((b) => b.xMm));
