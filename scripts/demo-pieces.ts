import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { bodyOf, flatRings, type Point } from "../core/body";
import { formOfScan, type Scanned, type Shot } from "../core/master";
import { layersOf, modelOf, opensOf, scanModel, type Mesh, type Vec } from "../core/mesh";
import { levelsOf, outlineOf, silhouetted, type Brush, type Picture, type View } from "../core/photo";
import { paint } from "../core/photo/fixtures/pictures";
import { binaryStl } from "../shape/fixtures/files";
import { readModel } from "../shape/model";
import { solidOf } from "../ui/stage/round/solid";

/**
 * Makes the demo's two measured pieces, the way a person would: a comet as a model, read and measured; an owl as two photographs, tapped
 * and measured. Writes the files, and what was read from them, into db/demo-pieces.
 */
const FOLDER = "db/demo-pieces";
mkdirSync(FOLDER, { recursive: true });

/** A comet standing on its tail's end, mm: a round head, and a tail of five ridges that turn a little. */
function comet(): Mesh {
  const [around, along] = [40, 40];
  const [high, head] = [62, 13];
  const at = (u: number, v: number): Vec => {
    const z = high * v;
    const fromHead = z - (high - head);
    const ball = fromHead > 0 ? Math.sqrt(Math.max(0, 1 - (fromHead / head) ** 2)) : 1;
    const tail = 4.5 + (head - 4.5) * Math.min(1, (z / (high - head)) ** 1.6);
    const ridge = fromHead > 0 ? 0 : 0.13 * Math.sin(Math.PI * Math.min(1, z / (high - head)));
    const a = 2 * Math.PI * u;
    const r = tail * ball * (1 + ridge * Math.cos(5 * a + 0.5 * v));
    return [r * Math.cos(a), 0.78 * r * Math.sin(a), z];
  };
  const positions: number[] = [];
  const triangles: number[] = [];
  // Rows crowd where the head closes.
  const row = (j: number) => (j < 26 ? (0.79 * j) / 26 : 0.79 + 0.21 * Math.sin((Math.PI / 2) * ((j - 26) / (along - 26))));
  for (let j = 0; j < along; j++) for (let i = 0; i < around; i++) positions.push(...at(i / around, row(j)));
  const [low, top] = [positions.length / 3, positions.length / 3 + 1];
  positions.push(0, 0, 0, 0, 0, high);
  const name = (i: number, j: number) => j * around + (i % around);
  for (let i = 0; i < around; i++) {
    for (let j = 0; j + 1 < along; j++) triangles.push(name(i, j), name(i + 1, j), name(i + 1, j + 1), name(i, j), name(i + 1, j + 1), name(i, j + 1));
    triangles.push(low, name(i + 1, 0), name(i, 0), top, name(i, along - 1), name(i + 1, along - 1));
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

function readComet(): Scanned {
  const file = binaryStl(comet());
  writeFileSync(join(FOLDER, "comet-pull.stl"), file);
  const model = modelOf(readModel(file));
  const s = scanModel(model, model.mesh);
  return {
    name: "comet-pull.stl",
    levels: s.levels,
    volumeMl: s.volumeMm3 / 1000,
    errorMl: s.errorMm3 / 1000,
    areaMm2: s.areaMm2,
    says: model.repairs.map((r) => r.message),
    opens: opensOf(model.mesh),
    layers: layersOf(model.mesh),
    shots: [],
  };
}

const [WIDTH, HEIGHT, PX_PER_MM] = [720, 900, 4];
const OWL_HIGH = 165;
const FLOOR = 830;
const EYES = FLOOR - PX_PER_MM * OWL_HIGH * 0.82;

/** Half of an owl's outline, mm, at a share of its height: from the front with ears, from the side with a beak and a tail. */
const owl = {
  front: (u: number) => 36 + 12 * Math.sin(Math.PI * Math.min(1, u * 1.25)) - 13 * Math.max(0, u - 0.62) * 2,
  side: (u: number) => 31 + 8 * Math.sin(Math.PI * Math.min(1, u * 1.3)) - 11 * Math.max(0, u - 0.62) * 2,
};

function outlineFrom(view: "front" | "side"): Point[] {
  const n = 160;
  const edge = (side: 1 | -1) =>
    Array.from({ length: n + 1 }, (_, i): Point => {
      const u = i / n;
      const round = u > 0.93 ? Math.sqrt(Math.max(0, 1 - ((u - 0.93) / 0.07) ** 2)) : 1;
      const ear = view === "front" && u > 0.86 ? 5 * Math.sin((Math.PI * (u - 0.86)) / 0.14) : 0;
      const beak = view === "side" && side === 1 ? 9 * Math.exp(-(((u - 0.76) / 0.035) ** 2)) : 0;
      const tail = view === "side" && side === -1 ? 10 * Math.exp(-((u / 0.1) ** 2)) : 0;
      return [WIDTH / 2 + side * PX_PER_MM * (owl[view](u) * round + ear + beak + tail), FLOOR - PX_PER_MM * OWL_HIGH * u];
    });
  return [...edge(1), ...edge(-1).reverse()];
}

async function photograph(view: "front" | "side"): Promise<{ picture: Picture; tap: Point }> {
  const eye = (x: number, y: number, at: number) => Math.hypot(x - WIDTH / 2 - at, y - EYES) < 34;
  const { picture, tap } = paint({
    width: WIDTH,
    height: HEIGHT,
    outline: outlineFrom(view),
    tap: [WIDTH / 2, 560],
    piece: (x, y) => {
      if (view === "front" && (eye(x, y, -58) || eye(x, y, 58))) return [0.12, 0.1, 0.08];
      const feather = 0.06 * Math.sin(y / 11 + 2 * Math.sin(x / 17));
      const light = 0.52 - (x - WIDTH / 2) / 2600 + feather;
      return [light, light * 0.86, light * 0.66];
    },
    round: (x, y) => {
      // A ruler stands beside it: a tick every ten millimetres.
      if (y > 838 && y < 872 && x > 60 && x < 660) return Math.round((x - 60) / PX_PER_MM) % 10 === 0 ? [0.05, 0.05, 0.05] : [0.85, 0.82, 0.6];
      return y > FLOOR ? [0.2, 0.12, 0.07] : [0.2, 0.28, 0.34];
    },
    shadow: { light: 0.75, dx: 22, dy: 6, soft: 14 },
  });
  const file = join(FOLDER, `owl-${view}.jpg`);
  await sharp(Buffer.from(picture.rgba), { raw: { width: WIDTH, height: HEIGHT, channels: 4 } })
    .jpeg({ quality: 82 })
    .toFile(file);
  const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { picture: { width: info.width, height: info.height, rgba: data }, tap };
}

async function readOwl(): Promise<Scanned> {
  const marks: [number, number][] = [
    [60, 855],
    [660, 855],
  ];
  const distanceMm = 600 / PX_PER_MM;
  const shots: Shot[] = [];
  for (const view of ["front", "side"] as const) {
    const { picture, tap } = await photograph(view);
    // Its dark eyes look like the table: brushed on, as a person would.
    const addPx = view === "front" ? [-58, 58].map((x): Brush => ({ at: [WIDTH / 2 + x, EYES], radiusPx: 36 })) : [];
    const { rings } = outlineOf(picture, { tapPx: tap, addPx });
    shots.push({
      view,
      sizePx: [WIDTH, HEIGHT],
      tapPx: [tap[0], tap[1]],
      rings: flatRings(rings.map((r) => r.filter((_, i) => i % 6 === 0))),
      scale: "ruler",
      marks,
      distanceMm,
      sheetMm: null,
      cameraMm: 2000,
    });
  }
  const views = shots.map((s): View => {
    const points = (flat: readonly number[]) => Array.from({ length: flat.length >> 1 }, (_, i): Point => [flat[2 * i]!, flat[2 * i + 1]!]);
    return { view: s.view, outlinePx: s.rings.map(points), scale: { pointsPx: [marks[0]!, marks[1]!], distanceMm }, sizePx: s.sizePx, cameraMm: s.cameraMm };
  });
  const b = silhouetted(views);
  const told: Scanned = {
    name: "Photographs: front, side",
    levels: levelsOf(b),
    volumeMl: b.volumeMm3 / 1000,
    errorMl: b.errorMm3 / 1000,
    areaMm2: null,
    says: b.says,
    opens: null,
    layers: null,
    shots,
  };
  const corners = solidOf(bodyOf(formOfScan(told), told.errorMl));
  const loose = { positions: Float64Array.from(corners), triangles: Uint32Array.from({ length: corners.length / 3 }, (_, i) => i) };
  const { mesh } = modelOf({ ...loose, unitMm: 1, format: "STL" });
  return { ...told, opens: opensOf(mesh), layers: layersOf(mesh) };
}

writeFileSync(join(FOLDER, "comet.json"), `${JSON.stringify(readComet())}\n`);
writeFileSync(join(FOLDER, "owl.json"), `${JSON.stringify(await readOwl())}\n`);
