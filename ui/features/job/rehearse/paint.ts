import { fillingAt, type Network, type Setup, type State } from "@/core/rehearsal";

const HUES = {
  light: { rubber: "#cfe3df", room: "#fffaf0", melt: "#8a6fae", air: "#a0211b", master: "#d9c39a" },
  dark: { rubber: "#2f4a48", room: "#1d1a14", melt: "#c8adee", air: "#ff9389", master: "#6b5a36" },
};
const LIQUID = { light: { cast: "#8a6fae", rubber: "#6fa79d" }, dark: { cast: "#c8adee", rubber: "#7fc4b8" } };

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
  const ink = c.getContext("2d");
  if (!ink) return;
  const hue = { ...HUES[dark ? "dark" : "light"], melt: LIQUID[dark ? "dark" : "light"][of] };
  ink.clearRect(0, 0, c.width, c.height);
  const left = Math.min(...n.bars.map((b) => b.xMm));
  const wide = Math.max(...n.bars.map((b) => b.xMm)) + n.barMm - left;
  const funnelMm = of === "rubber" ? 0 : Math.max(0.18 * straight.highMm, 8);
  const lean = (n.leanDeg * Math.PI) / 180;
  const [sin, cos] = [Math.sin(lean), Math.cos(lean)];
  const by = Math.min((c.width * 0.8) / (wide + 2 * funnelMm * Math.abs(sin)), (c.height * (0.9 - 0.14 * Math.abs(sin))) / (n.highMm + funnelMm * 1.8 * cos));
  const x0 = (c.width - wide * by) / 2 - left * by;
  const floor = c.height * (0.96 - 0.09 * Math.abs(sin));
  const y = (z: number) => floor - z * by;
  // On whole points of the picture, so that neighbours meet without a line.
  const column = (xMm: number, from: number, to: number, fill: string) => {
    if (to <= from) return;
    ink.fillStyle = fill;
    const [px, right] = [Math.round(x0 + xMm * by), Math.round(x0 + (xMm + n.barMm) * by)];
    const [py, low] = [Math.round(y(to)), Math.round(y(from))];
    ink.fillRect(px, py, right - px, low - py);
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
  } else {
    // The box: what is no room in it is the master.
    ink.fillStyle = hue.master;
    ink.fillRect(x0 + left * by, y(n.highMm), wide * by, n.highMm * by);
  }
  const at = st ? fillingAt(n, st.filledMl) : null;
  const full = new Set(at ? n.order.slice(0, at.index) : []);
  for (const b of n.bars) {
    column(b.xMm, b.fromMm, b.toMm, hue.room);
    let from = b.fromMm;
    for (const part of b.basins) {
      const top = Math.min(part.toMm, b.airFromMm);
      if (full.has(part.basin)) column(b.xMm, from, top, hue.melt);
      else if (at?.basin === part.basin) column(b.xMm, from, Math.min(top, at.levelMm), hue.melt);
      from = part.toMm;
    }
    // Air that is shut off by now, or what stayed there when the mould was turned.
    if (b.airFromMm < b.toMm && (st?.ended || n.heldMl > 0 || (at && at.levelMm >= b.airFromMm - 1e-6))) {
      const air = n.shut.some((p) => p.topMm > b.airFromMm && p.spillMm < b.toMm);
      column(b.xMm, b.airFromMm, b.toMm, air || n.heldMl === 0 ? hue.air : hue.melt);
    }
  }
  if (of === "rubber") return;
  const choke = Math.max(3, setup.chokeMm * by);
  const reach = (z: number) => (straight.highMm - z + funnelMm * 0.5) * by;
  n.vents.forEach((v, i) => {
    const long = reach(straight.vents[i]?.zMm ?? straight.highMm) + funnelMm * 1.1 * by;
    const across = Math.max(2, setup.vents.diameterMm * by);
    standing(v.xMm + n.barMm / 2, v.zMm, () => {
      ink.fillStyle = hue.room;
      ink.fillRect(-across / 2, -long, across, long);
    });
  });
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
    if (st && st.funnelMl > 0) {
      cone(Math.cbrt(Math.min(1, st.funnelMl / setup.funnelMl)), hue.melt);
      ink.fillRect(-choke / 2, -foot, choke, foot + 2);
    }
  });
}

/** How wide a section is, mm. */
const span = (n: Network): number => Math.max(...n.bars.map((b) => b.xMm)) + n.barMm - Math.min(...n.bars.map((b) => b.xMm));
