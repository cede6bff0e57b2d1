import Module from "manifold-3d";
import { tiltsOf, trappedIn } from "../core/air";
import { networkOf, poured } from "../core/rehearsal";
import { performance } from "node:perf_hooks";
import { Box3, BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from "three";
import { STLLoader } from "three/examples/jsm/loaders/STLLoader.js";
import { MeshBVH } from "three-mesh-bvh";
import { modelOf, pullsOf, samplesOf, skinOf, directions, type Mesh } from "../core/mesh";
import { ball, ring } from "../core/mesh/fixtures/solids";
import { outlineOf } from "../core/photo";
import { paint, shapes } from "../core/photo/fixtures/pictures";
import { binaryStl } from "../shape/fixtures/files";
import { readModel } from "../shape/model";
import { glanceAtStl } from "../shape/readers/stl";

const timed = <T>(run: () => T): { ms: number; answer: T } => {
  const from = performance.now();
  const answer = run();
  return { ms: performance.now() - from, answer };
};
/** The best of a few runs: what the machine can do, with as little of others' work in it as may be. */
const best = <T>(run: () => T, times = 3): number => Math.min(...Array.from({ length: times }, () => timed(run).ms));
const seconds = (ms: number): string => (ms < 1000 ? `${ms.toFixed(0)} ms` : `${(ms / 1000).toFixed(1)} s`);

/** Reading, searching, skinning and outlining, each beside another way of doing it, in one run. */
export async function benchPiece(say: (what: string, measured: string, aim?: string) => void): Promise<void> {
  const bytes = binaryStl(ring(40, 12, 1000, 500));
  const ours = best(() => glanceAtStl(bytes), 5);
  const loaded = best(() => {
    const g = new STLLoader().parse(bytes.buffer as ArrayBuffer);
    const p = g.getAttribute("position");
    const [a, b, c, n] = [new Vector3(), new Vector3(), new Vector3(), new Vector3()];
    let [volume, area] = [0, 0];
    for (let i = 0; i < p.count; i += 3) {
      a.fromBufferAttribute(p, i);
      b.fromBufferAttribute(p, i + 1);
      c.fromBufferAttribute(p, i + 2);
      n.copy(b).sub(a).cross(c.clone().sub(a));
      area += n.length() / 2;
      volume += a.dot(n) / 6;
    }
    return { volume, area, box: new Box3().setFromBufferAttribute(p as BufferAttribute) };
  });
  say(
    "a million triangles of binary STL, to volume, area, middle and bounds",
    `${seconds(ours)}; a common loader and a plain loop ${seconds(loaded)}: ${(loaded / ours).toFixed(1)} times`,
    "3 times as fast",
  );
  const whole = timed(() => modelOf(readModel(bytes)));
  say(
    "the same made whole: welded, edges, shells, holes, overlaps",
    `${seconds(whole.ms)}, ${(process.memoryUsage().rss / 1e9).toFixed(2)} GB held`,
    "under 1.5 GB",
  );

  const many = ring(40, 12, 400, 250);
  const search = timed(() => pullsOf(many, 200));
  // The same question by rays: from as many places, along as many directions, both ways.
  const g = new BufferGeometry();
  g.setAttribute("position", new BufferAttribute(Float32Array.from(many.positions), 3));
  g.setIndex(new BufferAttribute(Uint32Array.from(many.triangles), 1));
  const tree = new MeshBVH(g);
  const s = samplesOf(many, 20_000);
  const few = directions(200).filter((_, i) => i % 40 === 0);
  const rays = timed(() => {
    let free = 0;
    const ray = new Ray();
    for (const d of few)
      for (let i = 0; i < s.count; i++) {
        const up = d[0] * s.nx[i]! + d[1] * s.ny[i]! + d[2] * s.nz[i]! > 0 ? 1 : -1;
        ray.origin.set(s.x[i]! + 1e-4 * s.nx[i]!, s.y[i]! + 1e-4 * s.ny[i]!, s.z[i]! + 1e-4 * s.nz[i]!);
        ray.direction.set(d[0] * up, d[1] * up, d[2] * up);
        if (!tree.raycastFirst(ray, DoubleSide)) free++;
      }
    return free;
  });
  const all = (rays.ms * 200) / few.length;
  say(
    "200 directions for 200 thousand triangles",
    `${seconds(search.ms)}; by rays through a tree ${seconds(all)} (a ${200 / few.length}th of them run): ${(all / search.ms).toFixed(1)} times`,
    "5 times as fast, under 10 s",
  );

  const piece = ring(40, 12, 64, 32);
  const mine = timed(() => skinOf(piece, 6, 256));
  const truth = 2 * Math.PI ** 2 * 40 * (18 ** 2 - 12 ** 2);
  const kit = await Module();
  kit.setup();
  const solid = (m: Mesh) =>
    new kit.Manifold(new kit.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: Uint32Array.from(m.triangles) }));
  const other = timed(() => {
    const sum = solid(piece).minkowskiSum(solid(ball(6, 12)));
    return sum.volume() - solid(piece).volume();
  });
  say(
    "a skin of 6 mm round a ring of 4 thousand triangles at 256³",
    `${seconds(mine.ms)}, ${(100 * (mine.answer.volumeMm3 / truth - 1)).toFixed(2)} % off; by a Minkowski sum ${seconds(other.ms)}, ${(100 * (other.answer / truth - 1)).toFixed(2)} % off: ${(other.ms / mine.ms).toFixed(1)} times`,
    "10 times as fast at 1 %",
  );

  const cavity = ring(40, 10, 600, 300);
  const tilt = best(() => trappedIn(cavity, { up: [0.2, 0.9, 0.3], sprueMm: [[0, 40, 0]], cells: 256 }));
  say("where air stays in a tilted cavity of 360 thousand triangles, 256 columns across", seconds(tilt), "under 3 s a tilt");
  const lids = ring(40, 10, 96, 48);
  const tilts = timed(() => tiltsOf(lids, { up: [0, 1, 0], sprueMm: [[50, 0, 0]], cells: 128 }));
  say(`the best of ${tilts.answer.looked} tilts of 9 thousand triangles`, seconds(tilts.ms));
  const net = networkOf(lids, { up: [0, 1, 0], sprueMm: null, ventsMm: [], cells: 72 });
  const setup = {
    liquid: { densityKgM3: 6970, viscosityPaS: 0.002 },
    skinNM: null,
    chokeMm: 4,
    channelMm: 20,
    funnelMl: 10,
    funnelHighMm: 25,
    vents: { count: 2, diameterMm: 0.8 },
    freezing: null,
    workingS: 600,
    handMlS: 10,
    potMl: 500,
  };
  const pour = timed(() => poured(net, setup, [{ tick: 0, pouring: true }]));
  say("a rehearsed pour", `${(pour.ms / (pour.answer.tick / 100)).toFixed(2)} ms a second of it`, "under 16 ms a frame");

  const big = paint({
    width: 4000,
    height: 3000,
    outline: shapes(4000, 3000).blob!,
    tap: [2000, 1500],
    piece: () => [0.6, 0.2, 0.1],
    round: () => [0.5, 0.5, 0.5],
  });
  say("the outline of a 12-megapixel picture", seconds(best(() => outlineOf(big.picture, { tapPx: big.tap }))), "under 3 s");
}
