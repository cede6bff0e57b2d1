import { pointsOf, ringHolds, type Body } from "../body";
import { BESIDE_WALL, MOST_LEANT_DEG, OPENING, standOf, withStand, type Filling, type RubberStand } from "../mould";
import { withNumberAt, type Job } from "../record";
import type { Grip, Pictured, Pull } from "./grip";
import { pourAt } from "./scene";
import { HELD, type View } from "./views";

/** Vents that stand further before or behind the cut than this share of the piece are not on it. */
const NEAR_CUT = 0.2;
/** A mould is leaned by so many degrees at a step. */
const LEAN_STEP = 5;
const UPRIGHT: Filling = { up: [0, 0, 1], sprueMm: null, ventsMm: [] };

/** The axis of the body that lies across the picture; null where the cut shows neither. */
const axisOf = (view: View): 0 | 1 | null => (view === "along" ? 0 : view === "across" ? 1 : null);

/** Where a mould is filled as long as nobody says otherwise: over the middle of its top. */
const sprueOf = (f: Filling | null, b: Body): [number, number, number] => f?.sprueMm ?? [0, 0, b.heightMm];

/** The sprue, the vents and the whole mould as they are taken hold of: to move them along the cut, or to lean it. */
export function gateGrips({ job, plan, scene, stage, view }: Pictured): Grip[] {
  const { body, gates, layout } = plan;
  const axis = axisOf(view);
  if (axis !== null && (stage === "pour0" || stage === "pour1")) return pourGrips({ job, plan, scene, stage, view }, axis);
  if (!body || !gates || axis === null || layout?.kind !== "block" || !OPENING[job.mould.opening].base || (stage !== "cast" && stage !== "empty")) return [];
  const { filling } = job.mould;
  const lean = leanGrip(scene, layout.fillHeightMm, `mould.filling.lean.${axis}`, 180);
  if (scene.leansDeg !== 0 || plan.pieces > 1) return [lean];
  const half = (axis === 0 ? body.lengthMm : body.widthMm) / 2;
  const aside = (axis === 0 ? body.widthMm : body.lengthMm) * NEAR_CUT;
  const slide = (path: string, mm: number): Pull => ({ path: `${path}.${axis}`, min: -half, max: half, valueMm: mm, per: 1 });
  const sprue = sprueOf(filling, body);
  const vents = (filling?.ventsMm ?? []).flatMap((v, i): Grip[] =>
    Math.abs(v[1 - axis]!) > aside
      ? []
      : [{ key: `vent-${i}`, name: `Vent ${i + 1}`, at: [v[axis], layout.fillHeightMm], x: slide(`mould.filling.ventsMm.${i}`, v[axis]), z: null }],
  );
  return [{ key: "sprue", name: "Sprue", at: [sprue[axis], layout.fillHeightMm], x: slide("mould.filling.sprueMm", sprue[axis]), z: null }, ...vents, lean];
}

/** A mould taken hold of at its upper right: the same place of it however it leans, so that it stays under the hand. */
const leanGrip = (scene: Pictured["scene"], topMm: number, path: string, most: number): Grip => ({
  key: "lean",
  name: "How it leans",
  at: scene.heldAt ?? [HELD * scene.boxHalfMm, topMm],
  x: {
    path,
    min: -most,
    max: most,
    valueMm: Math.round(scene.leansDeg),
    per: -180 / Math.PI / (0.5 * Math.max(1, scene.topMm - scene.bottomMm)),
    stepMm: LEAN_STEP,
    unit: "deg",
  },
  z: null,
});

/** The box of a pour of rubber as it is taken hold of to lean it, and the stream that goes into it. */
function pourGrips({ job, plan, scene, stage }: Pictured, axis: 0 | 1): Grip[] {
  const pour = pourAt({ plan, stage });
  const { layout } = plan;
  if (!pour || layout?.kind !== "block") return [];
  const path = `mould.stands.${pour.part}`;
  const lean = leanGrip(scene, layout.fillHeightMm, `${path}.lean.${axis}`, MOST_LEANT_DEG);
  if (scene.leansDeg !== 0) return [lean];
  const half = scene.boxHalfMm;
  const at = standOf(job.mould.stands, pour.part).atMm?.[axis] ?? -Math.round(BESIDE_WALL * half);
  return [
    {
      key: "stream",
      name: "Where it is poured in",
      at: [at, layout.wallHeightMm],
      x: { path: `${path}.at.${axis}`, min: -half, max: half, valueMm: at, per: 1 },
      z: null,
    },
    lean,
  ];
}

function stoodBy(stands: readonly RubberStand[], { path, mm }: { path: string; mm: number }): RubberStand[] {
  const [, , part, what, along] = path.split(".") as [string, string, RubberStand["part"], string, string];
  const axis = Number(along) === 1 ? 1 : 0;
  if (what === "lean") {
    // Leaning to the right in the picture is a minus: then its right lies low, and its back in the cut across.
    const low = axis === 0 ? (mm > 0 ? 180 : 0) : mm > 0 ? 270 : 90;
    return withStand(stands, part, { leanDeg: Math.abs(mm), towardsDeg: low });
  }
  const [x, y] = standOf(stands, part).atMm ?? [0, 0];
  return withStand(stands, part, { atMm: axis === 0 ? [mm, y] : [x, mm] });
}

/** The highest of a body over a place, mm above its back; its whole height beside it. */
function topOver(b: Body, x: number, y: number): number {
  for (let i = b.levels.length - 1; i >= 0; i--) {
    const { outline, zMm } = b.levels[i]!;
    const rings = outline.kind === "polygon" ? outline.rings : [pointsOf(outline, 72)];
    if (rings.filter((r) => ringHolds(r, [x, y])).length % 2 === 1) return zMm;
  }
  return b.heightMm;
}

/** What a drag puts, on the job: numbers of its own, or the way its mould is filled. */
export function putOn(job: Job, body: Body | null, list: readonly { path: string; mm: number }[]): Job {
  return list.reduce(
    (j, p) =>
      p.path.startsWith("mould.stands.")
        ? { ...j, mould: { ...j.mould, stands: stoodBy(j.mould.stands, p) } }
        : body && p.path.startsWith("mould.filling.")
          ? { ...j, mould: { ...j.mould, filling: unlessUsual(filledBy(j.mould.filling, body, p)) } }
          : withNumberAt(j, p.path, p.mm),
    job,
  );
}

/** Nothing where a mould stands upright and is filled over its middle: that is how it is filled where nobody says otherwise. */
function unlessUsual(f: Filling): Filling | null {
  const upright = f.up[0] === 0 && f.up[1] === 0 && f.up[2] > 0;
  const middle = f.sprueMm === null || (f.sprueMm[0] === 0 && f.sprueMm[1] === 0);
  return upright && middle && f.ventsMm.length === 0 ? null : f;
}

function filledBy(was: Filling | null, b: Body, { path, mm }: { path: string; mm: number }): Filling {
  const f = was ?? UPRIGHT;
  const [, , what, ...rest] = path.split(".");
  const axis = Number(rest.at(-1)) === 1 ? 1 : 0;
  const slid = (at: readonly [number, number, number]): [number, number, number] => {
    const [x, y] = axis === 0 ? [mm, at[1]] : [at[0], mm];
    return [x, y, topOver(b, x, y)];
  };
  if (what === "lean") {
    const [s, c] = [Math.sin((mm * Math.PI) / 180), Math.cos((mm * Math.PI) / 180)];
    return { ...f, up: axis === 0 ? [s, 0, c] : [0, s, c] };
  }
  if (what === "sprueMm") return { ...f, sprueMm: slid(sprueOf(f, b)) };
  return { ...f, ventsMm: f.ventsMm.map((v, i) => (i === Number(rest[0]) ? slid(v) : v)) };
}
