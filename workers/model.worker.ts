import { expose } from "comlink";
import {
  lookIn,
  lookRound,
  narrowCores,
  posturesOf,
  sequencesOf,
  ventsFor,
  type Boxed,
  type CoatMap,
  type Posture,
  type Sequence,
  type Trapped,
} from "../core/air";
import type { LayerAt } from "../core/body";
import type { Scanned } from "../core/master";
import {
  frameOf,
  layersOf,
  leavingOf,
  moved,
  opensOf,
  pullOf,
  repaired,
  scanModel,
  stoodUp,
  sumsOf,
  type Leaving,
  type Mark,
  type Mesh,
  type Model,
  type Soup,
  type Told,
  type Up,
  type Vec,
} from "../core/mesh";
import { quote } from "../core/quantity";
import { networkOf, networkRound, rubberWays, type Network, type NetworkAsked, type RoundAsked, type RubberWay } from "../core/rehearsal";
import { readModel } from "../shape/model";
import { glanceAtStl } from "../shape/readers/stl";

/** What a file says of itself once it is read. */
export interface Opened {
  format: string;
  triangles: number;
  /** Null where the file does not say its unit. */
  unitMm: number | null;
  /** Size over all in units of the file, before anything is mended; null where that takes as long as the rest. */
  size: [number, number, number] | null;
}

export interface Standing {
  unitMm: number;
  up: Up;
  mirror: boolean;
  /** Size of what is made from it over its own, as a factor. */
  scale: number;
}

let soup: Soup | null = null;
let mended: { unitMm: number; model: Model } | null = null;

/** How a body leaves two halves, with what is free of each of its triangles. */
export interface Left extends Leaving {
  free: Uint8Array;
}

/** What of a scan changes as it is laid another way. */
export type Laid = Pick<Scanned, "levels" | "opens" | "layers">;

const looseMesh = (corners: Float32Array): Mesh => ({
  positions: Float64Array.from(corners),
  triangles: Uint32Array.from({ length: corners.length / 3 }, (_, i) => i),
});

/** Largest model, triangles, that is looked through for narrow cores at once. */
const MOST_CORED = 300_000;
const coresOf = (mesh: Mesh): string[] =>
  mesh.triangles.length > 3 * MOST_CORED
    ? []
    : narrowCores(mesh)
        .slice(0, 3)
        .map((c) => `A hole of ${quote(c.wideMm, "length")} is ${quote(c.deepMm, "length")} deep: a core of rubber in it bends and tears. Fill it and drill.`);

/** Largest model, triangles, whose layers are measured by distance. */
const MOST_LAYERED = 600_000;
const layersFor = (mesh: Mesh, tell: (share: number) => void): LayerAt[] | null => (mesh.triangles.length > 3 * MOST_LAYERED ? null : layersOf(mesh, tell));

/** Which triangles have their middle where air is: 0 those that have. */
const touchedBy = (corners: Float32Array, holds: (p: Vec) => boolean): Uint8Array =>
  Uint8Array.from({ length: corners.length / 9 }, (_, i) => {
    const mid = (k: number) => (corners[9 * i + k]! + corners[9 * i + 3 + k]! + corners[9 * i + 6 + k]!) / 3;
    return holds([mid(0), mid(1), mid(2)]) ? 0 : 3;
  });

const worker = {
  /** Reads a file, away from the page. Throws with a reason where nothing can be made of it. */
  open: (bytes: Uint8Array): Opened => {
    mended = null;
    soup = readModel(bytes);
    const glance = soup.format === "STL" ? glanceAtStl(bytes) : null;
    return {
      format: soup.format,
      triangles: soup.triangles.length / 3,
      unitMm: soup.unitMm,
      size: glance && [glance.high[0] - glance.low[0], glance.high[1] - glance.low[1], glance.high[2] - glance.low[2]],
    };
  },
  /** Makes it whole and measures it as it is to stand. */
  stand: (name: string, { unitMm, up, mirror, scale }: Standing, tell: Told): Scanned => {
    if (!soup) throw new Error("No file has been read.");
    if (mended?.unitMm !== unitMm) mended = { unitMm, model: repaired(soup, unitMm, (share, what) => tell(0.35 * share, what)) };
    const { model } = mended;
    const mesh = stoodUp(model.mesh, up, scale, mirror);
    const cube = scale ** 3;
    const s = scanModel({ ...model, doubtMm3: model.doubtMm3 * cube, overlapMm3: model.overlapMm3 * cube }, mesh, (share, what) =>
      tell(0.35 + 0.15 * share, what),
    );
    const opens = opensOf(mesh, (share, what) => tell(0.5 + 0.3 * share, what));
    const layers = layersFor(mesh, (share) => tell(0.8 + 0.2 * share, "Laying skins round it"));
    return {
      name: name.slice(0, 200),
      levels: s.levels,
      volumeMl: s.volumeMm3 / 1000,
      errorMl: s.errorMm3 / 1000,
      areaMm2: s.areaMm2,
      says: [...model.repairs.map((r) => r.message), ...model.warnings, ...coresOf(mesh)].map((m) => m.slice(0, 500)).slice(0, 20),
      shots: [],
      opens,
      layers,
    };
  },
  /**
   * How a body of loose triangles leaves two halves that part along a direction: for each triangle 1 free along it, 2 against it, 3 both,
   * 0 neither; its seam, what is caught, and where the seam crosses marks the nearest way that keeps off them.
   */
  leave: (corners: Float32Array, direction: Vec, levelMm: number | null, marks: readonly Mark[], tell: Told): Left => {
    const mesh = looseMesh(corners);
    const { samples, free } = pullOf(mesh, direction, 40_000);
    const most = new Float64Array(4 * (corners.length / 9));
    for (let i = 0; i < samples.count; i++) most[4 * samples.triangle[i]! + free[i]!]! += samples.areaMm2[i]!;
    const each = Uint8Array.from({ length: corners.length / 9 }, (_, i) =>
      [1, 2, 3].reduce((best, k) => (most[4 * i + k]! > most[4 * i + best]! ? k : best), 0),
    );
    return { free: each, ...leavingOf(mesh, direction, levelMm, marks, tell) };
  },
  /** Ways for a casting of loose triangles to stand while it is filled, least air first. */
  postures: (corners: Float32Array, tell: Told): Posture[] => posturesOf(looseMesh(corners), {}, tell),
  /**
   * Where air stays in a casting that stands so, and which of its triangles it touches; with `vent`, with the vents that would empty it besides
   * those it has.
   */
  air: (corners: Float32Array, up: Vec, sprueMm: Vec | null, ventsMm: readonly Vec[], vent: boolean): Trapped & { ventsMm: Vec[]; touched: Uint8Array } => {
    const mesh = looseMesh(corners);
    const asked = { up, sprueMm: sprueMm ? [sprueMm] : [], ventsMm, cells: 200 };
    // A thousandth of it left is nothing anybody sees.
    const vents = vent ? ventsFor(mesh, asked, 1e-3 * Math.abs(sumsOf(mesh).volumeMm3)).ventsMm : [...ventsMm];
    const { found, holds } = lookIn(mesh, { ...asked, ventsMm: vents });
    return { ...found, ventsMm: vents, touched: touchedBy(corners, holds) };
  },
  /** Tilts to begin in and tip back from, for a casting that stands so. */
  sequences: (corners: Float32Array, up: Vec, sprueMm: Vec | null, ventsMm: readonly Vec[], tell: Told): Sequence[] =>
    sequencesOf(looseMesh(corners), { up, sprueMm: sprueMm ? [sprueMm] : [], ventsMm }, tell),
  /** The basins of a casting, for a pour to be rehearsed in. */
  network: (corners: Float32Array, asked: NetworkAsked): Network => networkOf(looseMesh(corners), { cells: 72, skin: true, ...asked }),
  /** The basins of the room round a master in its box. */
  networkRound: (corners: Float32Array, asked: RoundAsked): Network => networkRound(looseMesh(corners), { cells: 64, skin: true, ...asked }),
  /** Ways to hold a box while rubber rises in it, least air first; of a pour that may be done either way up, both. */
  rubberWays: (corners: Float32Array, asked: readonly RoundAsked[], tell: Told): RubberWay[] =>
    asked
      .flatMap((a, i) => rubberWays(looseMesh(corners), a, (share, what) => tell((i + share) / asked.length, what)))
      .sort((a, b) => a.airMl - b.airMl || a.leanDeg - b.leanDeg),
  /** Where rubber poured round it shuts air in, in its box as it is held; on a board where there is none. */
  coat: (corners: Float32Array, boxed: Boxed | null): CoatMap & { touched: Uint8Array } => {
    const { found, holds } = lookRound(looseMesh(corners), { cells: 200, boxed });
    return { ...found, touched: touchedBy(corners, holds) };
  },
  /** A body of loose triangles laid with `up` standing upright: its levels, how it leaves a mould, and its layers. */
  lay: (corners: Float32Array, up: Vec, tell: Told): Laid => {
    const model = repaired({ ...looseMesh(corners), unitMm: 1, format: "STL" }, 1, (share, what) => tell(0.3 * share, what));
    const mesh = moved(model.mesh, frameOf(up));
    const s = scanModel(model, mesh, (share, what) => tell(0.3 + 0.2 * share, what));
    return {
      levels: s.levels,
      opens: opensOf(mesh, (share, what) => tell(0.5 + 0.3 * share, what)),
      layers: layersFor(mesh, (share) => tell(0.8 + 0.2 * share, "Laying skins round it")),
    };
  },
};
export type ModelWorker = typeof worker;

expose(worker);
