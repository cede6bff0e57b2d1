import { LARGEST_MM, SHAPES, SMALLEST_MM, type SizeKey } from "../master";
import { OPENING, PLUG_FIELDS, type BlockLayout, type SkinLayout } from "../mould";
import type { NumberField } from "../quantity";
import { JOB_FIELDS, type Job, type JobNumber } from "../record";
import { gateGrips } from "./gateGrips";
import type { Grip, Pictured, Point, Pull, Setting } from "./grip";

/** A size written on the drawing, from one point of the picture to another, mm. */
export interface Measure {
  key: string;
  name: string;
  mm: number;
  /** In which margin it is written. */
  side: "left" | "right" | "below";
  from: Point;
  to: Point;
  /** The number it is, if one was decided and not worked out. */
  set: Setting | null;
}

/** Sizes of a shape that the picture shows from one side: how long it is there, and how high. */
const LENGTH_KEY: Partial<Record<Job["master"]["shape"], SizeKey>> = {
  box: "lengthMm",
  cylinder: "diameterMm",
  dome: "lengthMm",
  ovalDish: "lengthMm",
  plaque: "lengthMm",
  displaced: "lengthMm",
  stadium: "lengthMm",
  halfRound: "lengthMm",
  bellied: "lengthMm",
  ring: "diameterMm",
  star: "diameterMm",
  bowl: "topMm",
  narrowing: "diameterMm",
  weighed: "lengthMm",
};
const WIDTH_KEY: typeof LENGTH_KEY = { ...LENGTH_KEY, ...mapped("lengthMm", "widthMm") };
function mapped(from: SizeKey, to: SizeKey): typeof LENGTH_KEY {
  return Object.fromEntries(Object.entries(LENGTH_KEY).map(([shape, key]) => [shape, key === from ? to : key]));
}
const hasHeight = (shape: Job["master"]["shape"]): boolean =>
  shape !== "plaque" && shape !== "turned" && SHAPES[shape].fields.some((f) => f.key === "heightMm");

const sizeSetting = (job: Job, key: SizeKey | undefined): Setting | null => {
  // A size over all that parts have a share in is no size of the shape.
  if (job.master.parts.length > 0) return null;
  const field = key && SHAPES[job.master.shape].fields.find((f) => f.key === key);
  return field ? { path: `master.sizes.${field.key}`, min: Math.max(SMALLEST_MM, field.min), max: Math.min(LARGEST_MM, field.max) } : null;
};
/** A field's ends; 0 stands for "not nothing", which is a tenth of a millimetre. */
const setting = (path: JobNumber): Setting => fieldSetting(path, JOB_FIELDS[path]);
const fieldSetting = (path: string, f: NumberField): Setting => ({ path, min: f.above === undefined ? f.min : Math.max(f.min, SMALLEST_MM), max: f.max });

const pull = (set: Setting | null, valueMm: number, per: number): Pull | null => (set ? { ...set, valueMm, per } : null);

/** Every size written on a picture. */
export function measuresOf(q: Pictured): Measure[] {
  const { job, plan, scene, stage, view } = q;
  const { body, layout } = plan;
  if (!body || scene.leansDeg !== 0) return [];
  const cavity = stage === "cast" || stage === "empty";
  const what = cavity ? "Cavity" : "Master";
  const { fromMm, toMm, halfMm } = scene.master;
  const across = view === "across";
  // Of several in one box nothing sideways is a size of one of them.
  const slant = view === "turned" || plan.pieces > 1;
  const seen = view === "above" ? body.widthMm : body.heightMm;
  const list: Measure[] = [
    {
      key: "height",
      name: view === "above" ? `${what} width` : `${what} height`,
      mm: seen,
      side: "left",
      from: [-halfMm, fromMm],
      to: [-halfMm, toMm],
      set:
        view === "above" ? (slant ? null : sizeSetting(job, WIDTH_KEY[job.master.shape])) : hasHeight(job.master.shape) ? sizeSetting(job, "heightMm") : null,
    },
    {
      key: "length",
      name: view === "turned" ? `${what} in this cut` : across ? `${what} width` : `${what} length`,
      mm: 2 * halfMm,
      side: "below",
      from: [-halfMm, fromMm],
      to: [halfMm, fromMm],
      set: slant ? null : sizeSetting(job, (across ? WIDTH_KEY : LENGTH_KEY)[job.master.shape]),
    },
  ];
  if (!layout || stage === "master") return list;
  return [...list, ...(layout.kind === "block" ? blockMeasures(q, layout) : skinMeasures(q, layout))];
}

/** Where the layers of a block lie in this picture: what is over the master and what is under it. */
function bands(q: Pictured, layout: BlockLayout) {
  const { scene } = q;
  const fill = layout.fillHeightMm;
  const base = OPENING[q.job.mould.opening].base;
  const under: [number, number] = [0, scene.master.fromMm];
  const over: [number, number] = [scene.master.toMm, fill];
  // Turned over, the cover lies below the cavity.
  return scene.master.upsideDown ? { cover: under, base: base ? over : null } : { cover: over, base: base ? under : null };
}

function blockMeasures(q: Pictured, layout: BlockLayout): Measure[] {
  const { job, scene, view, stage } = q;
  const { box } = layout;
  const half = scene.boxHalfMm;
  const own = job.mould.ownBox !== null;
  const inside: Measure = {
    key: "inside",
    name: box.shape === "cylindrical" ? "Inside diameter" : view === "turned" ? "Inside in this cut" : view === "across" ? "Inside width" : "Inside length",
    mm: 2 * half,
    side: "below",
    from: [-half, scene.bottomMm],
    to: [half, scene.bottomMm],
    set: own && view !== "turned" ? setting(view === "across" && box.shape !== "cylindrical" ? "mould.ownBox.widthMm" : "mould.ownBox.lengthMm") : null,
  };
  const wall: Measure = {
    key: "wall",
    name: "Wall",
    mm: half - scene.master.halfMm,
    side: "below",
    from: [scene.master.halfMm, scene.master.fromMm],
    to: [half, scene.master.fromMm],
    set: own || Math.abs(half - scene.master.halfMm - job.mould.wallMm) > 0.01 ? null : setting("mould.wallMm"),
  };
  if (view === "above") return stage === "clay" ? [inside] : [wall, inside];
  const { cover, base } = bands(q, layout);
  const right = (key: string, name: string, mm: number, span: [number, number], set: Setting | null): Measure => ({
    key,
    name,
    mm,
    side: "right",
    from: [half, span[0]],
    to: [half, span[1]],
    set,
  });
  const boxed = stage !== "cast" && stage !== "empty" && stage !== "clay";
  return [
    wall,
    inside,
    right("cover", "Cover", job.mould.coverMm, cover, setting("mould.coverMm")),
    ...(base ? [right("base", "Base", job.mould.baseMm, base, setting("mould.baseMm"))] : []),
    ...(boxed && job.mould.freeboardMm > 0
      ? [right("spare", "Spare height", job.mould.freeboardMm, [layout.fillHeightMm, layout.wallHeightMm], setting("mould.freeboardMm"))]
      : []),
  ];
}

/** What sets a skin's thickness: by the coats after the first, or by the layers of putty. */
function skinSetting(job: Job): { set: Setting; valueMm: number; times: number } | null {
  const kind = OPENING[job.mould.opening];
  if (kind.made === "skin" && kind.pressed) return { set: setting("mould.putty.layerMm"), valueMm: job.mould.putty.layerMm, times: job.mould.putty.layers };
  const { coats, coatMm } = job.mould.skin;
  return coats > 1 ? { set: setting("mould.skin.coatMm"), valueMm: coatMm, times: coats - 1 } : null;
}

function skinMeasures(q: Pictured, layout: SkinLayout): Measure[] {
  const { job, scene, stage, view } = q;
  const { upsideDown } = scene.master;
  const top = upsideDown ? scene.master.fromMm : scene.master.toMm;
  const out = upsideDown ? -1 : 1;
  const kind = OPENING[job.mould.opening];
  const skirt = kind.made === "skin" && kind.skirt && stage !== "cast" && stage !== "empty" && stage !== "box" && stage !== "clay";
  const foot = view === "above" ? scene.master.halfMm : layout.footMm / 2;
  const list: Measure[] = [];
  const jacketed = layout.jacket && (stage === "jacket" || upsideDown);
  if (view === "above") {
    list.push({
      key: "skin",
      name: "Skin",
      mm: layout.skinMm,
      side: "below",
      from: [scene.master.halfMm, 0],
      to: [scene.master.halfMm + layout.skinMm, 0],
      set: null,
    });
    return list;
  }
  const outer = top + out * layout.skinMm;
  list.push({ key: "skin", name: "Skin", mm: layout.skinMm, side: "right", from: [0, top], to: [0, outer], set: null });
  if (layout.jacket && jacketed)
    list.push({
      key: "jacket",
      name: "Jacket",
      mm: layout.jacket.thicknessMm,
      side: "right",
      from: [0, outer],
      to: [0, outer + out * layout.jacket.thicknessMm],
      set: setting("mould.jacketMm"),
    });
  if (skirt)
    list.push({
      key: "flange",
      name: "Flange",
      mm: job.mould.skin.flangeMm,
      side: "below",
      from: [foot, 0],
      to: [foot + job.mould.skin.flangeMm, 0],
      set: setting("mould.skin.flangeMm"),
    });
  return list;
}

/** Everything of a picture that can be dragged. */
export function gripsOf(q: Pictured): Grip[] {
  const { job, plan, scene, stage, view } = q;
  const { body, layout } = plan;
  if (!body) return [];
  if (scene.leansDeg !== 0) return gateGrips(q);
  if (stage === "master" || !layout) return masterGrips(q);
  if (view === "above") return layout.kind === "block" ? [wallGrip(q, layout)] : [];
  const inside = stage === "cast" ? insideGrips(q) : [];
  const plugs = OPENING[job.mould.opening].plugs && view === "along" ? plugGrips(q) : [];
  return [...(layout.kind === "block" ? blockGrips(q, layout) : skinGrips(q, layout)), ...plugs, ...inside, ...gateGrips(q)];
}

function masterGrips({ job, plan, scene, view }: Pictured): Grip[] {
  const body = plan.body!;
  const { shape, profile } = job.master;
  const { fromMm, toMm, halfMm } = scene.master;
  if (shape === "turned") {
    if (view === "above" || plan.pieces > 1) return [];
    const zero = profile[0]?.zMm ?? 0;
    return profile.map((p, i) => ({
      key: `point-${i}`,
      name: `Point ${i + 1} of the outline`,
      at: [p.radiusMm, p.zMm - zero],
      x: { path: `master.profile.${i}.radiusMm`, min: 0, max: 1500, valueMm: p.radiusMm, per: 1 },
      z: { path: `master.profile.${i}.zMm`, min: profile[i - 1]?.zMm ?? 0, max: profile[i + 1]?.zMm ?? LARGEST_MM, valueMm: p.zMm, per: 1 },
    }));
  }
  const grips: Grip[] = [];
  const add = (key: string, name: string, at: Point, x: Pull | null, z: Pull | null) => {
    // In a cut that is turned, and of several in one box, nothing sideways is a size of its own.
    if (view === "turned" || plan.pieces > 1) x = null;
    if (x || z) grips.push({ key, name, at, x, z });
  };
  const side = (key: SizeKey, at: Point) =>
    add(key, SHAPES[shape].fields.find((f) => f.key === key)?.label ?? key, at, pull(sizeSetting(job, key), job.master.sizes[key] ?? 0, 2), null);
  const along = (view === "across" ? WIDTH_KEY : LENGTH_KEY)[shape];
  if (view === "above") {
    if (along) side(along, [halfMm, 0]);
    const width = WIDTH_KEY[shape];
    if (width && width !== along && plan.pieces === 1) add("width", "Width", [0, toMm], null, pull(sizeSetting(job, width), body.widthMm, 2));
    return grips;
  }
  if (shape === "frustum" || shape === "vessel") {
    side("bottomMm", [(job.master.sizes.bottomMm ?? 0) / 2, fromMm]);
    side("topMm", [(job.master.sizes.topMm ?? 0) / 2, toMm]);
  } else if (along) side(along, [halfMm, shape === "dome" ? fromMm : shape === "ovalDish" ? toMm : (fromMm + toMm) / 2]);
  if (hasHeight(shape)) add("height", "Height", [0, toMm], null, pull(sizeSetting(job, "heightMm"), body.heightMm, 1));
  if (shape === "plaque") add("relief", "Relief", [0, toMm], null, pull(sizeSetting(job, "reliefMm"), job.master.sizes.reliefMm ?? 0, 1));
  return grips;
}

function wallGrip(q: Pictured, layout: BlockLayout): Grip {
  const { job, view, scene } = q;
  const half = scene.boxHalfMm;
  const z = view === "above" ? 0 : layout.fillHeightMm * 0.42;
  const own = job.mould.ownBox;
  const x =
    view === "turned"
      ? null
      : own
        ? pull(setting(view === "across" && layout.box.shape !== "cylindrical" ? "mould.ownBox.widthMm" : "mould.ownBox.lengthMm"), 2 * half, 2)
        : // Where the wall at hand is wider than the least, its number is still the least wall.
          pull(setting("mould.wallMm"), job.mould.wallMm, 1);
  return { key: "wall", name: own ? "Inside of the box" : "Wall", at: [Math.max(half, scene.master.halfMm), z], x, z: null };
}

function blockGrips(q: Pictured, layout: BlockLayout): Grip[] {
  const { job, plan, scene, stage } = q;
  const { mould } = job;
  const wall = wallGrip(q, layout);
  const half = wall.at[0];
  const { upsideDown, fromMm, toMm } = scene.master;
  const base = OPENING[mould.opening].base;
  const fill = layout.fillHeightMm;
  const grips: Grip[] = wall.x ? [wall] : [];
  const level = (key: string, name: string, zMm: number, path: JobNumber, valueMm: number, xMm: number) =>
    grips.push({ key, name, at: [xMm, zMm], x: null, z: pull(setting(path), valueMm, 1) });
  const open = stage !== "box" && stage !== "clay";
  // Whatever lies at the top of the picture is pulled up by its top; what lies under the master, by the master's lower edge.
  if (open)
    level(
      upsideDown && base ? "base" : "cover",
      upsideDown && base ? "Base" : "Cover",
      fill,
      upsideDown && base ? "mould.baseMm" : "mould.coverMm",
      upsideDown && base ? mould.baseMm : mould.coverMm,
      -half * 0.62,
    );
  if (upsideDown) level("cover-under", "Cover", fromMm, "mould.coverMm", mould.coverMm, 0);
  else if (base) level("base-under", "Base", fromMm, "mould.baseMm", mould.baseMm, scene.master.halfMm * 0.4);
  if (upsideDown && !base)
    grips.splice(
      grips.findIndex((g) => g.key === "cover"),
      1,
    );
  if (stage === "box" || stage === "pour0" || stage === "pour1")
    level("spare", "Spare height", layout.wallHeightMm, "mould.freeboardMm", mould.freeboardMm, half);
  if (layout.partingAtMm !== null && plan.body) {
    const line = scene.lines.find((l) => l.name === "parting");
    if (line)
      grips.push({
        key: "parting",
        name: "Parting",
        at: [-half * 0.86, line.zMm],
        x: null,
        z: { path: "mould.partingMm", min: 0, max: plan.body.heightMm, valueMm: layout.partingAtMm - layout.masterFromMm, per: upsideDown ? -1 : 1 },
      });
  }
  if (layout.jacket && (stage === "cast" || stage === "empty"))
    grips.push({
      key: "jacket",
      name: "Jacket",
      at: [half + layout.jacket.thicknessMm, fill * 0.7],
      x: pull(setting("mould.jacketMm"), layout.jacket.thicknessMm, 1),
      z: null,
    });
  return grips.filter((g) => !(g.key === "cover-under" && toMm <= fromMm));
}

/** A coat is told to a tenth, mm. */
const COAT_STEP_MM = 0.1;

function skinGrips(q: Pictured, layout: SkinLayout): Grip[] {
  const { job, scene, stage } = q;
  const { upsideDown } = scene.master;
  const out = upsideDown ? -1 : 1;
  const top = upsideDown ? scene.master.fromMm : scene.master.toMm;
  const grips: Grip[] = [];
  const skin = skinSetting(job);
  if (stage === "box" || stage === "clay") return [];
  if (skin)
    grips.push({
      key: "skin",
      name: skin.set.path.includes("putty") ? "Each layer" : "Each coat after the first",
      at: [0, top + out * layout.skinMm],
      x: null,
      z: { ...skin.set, valueMm: skin.valueMm, per: out / skin.times, fineMm: COAT_STEP_MM },
    });
  if (layout.jacket && (stage === "jacket" || upsideDown))
    grips.push({
      key: "jacket",
      name: "Jacket",
      at: [-scene.master.halfMm * 0.3, top + out * (layout.skinMm + layout.jacket.thicknessMm)],
      x: null,
      z: pull(setting("mould.jacketMm"), layout.jacket.thicknessMm, out),
    });
  const kind = OPENING[job.mould.opening];
  if (kind.made === "skin" && kind.skirt && !upsideDown)
    grips.push({
      key: "flange",
      name: "Flange",
      at: [layout.footMm / 2 + job.mould.skin.flangeMm, layout.skinMm / 2],
      x: pull(setting("mould.skin.flangeMm"), job.mould.skin.flangeMm, 1),
      z: null,
    });
  return grips;
}

function plugGrips({ job, scene, plan }: Pictured): Grip[] {
  const m = plan.body!;
  const { fromMm, upsideDown } = scene.master;
  const at = (z: number) => fromMm + (upsideDown ? m.heightMm - z : z);
  const flip = upsideDown ? -1 : 1;
  const mid = m.heightMm / 2;
  return job.mould.plugs.map((p, i): Grip => {
    const length = fieldSetting(`mould.plugs.${i}.lengthMm`, PLUG_FIELDS.lengthMm);
    const wide = fieldSetting(`mould.plugs.${i}.diameterMm`, PLUG_FIELDS.diameterMm);
    const x0 = p.count === 1 ? 0 : -m.lengthMm / 2 + (0.5 * m.lengthMm) / p.count;
    const r = p.diameterMm / 2;
    const grip = (point: Point, x: Pull | null, z: Pull | null): Grip => ({ key: `plug-${i}`, name: p.name, at: point, x, z });
    switch (p.from) {
      case "top":
        return grip([x0 + r, at(m.heightMm - p.lengthMm)], pull(wide, p.diameterMm, 2), pull(length, p.lengthMm, -flip));
      case "left":
        return grip([-m.lengthMm / 2 + p.lengthMm, at(mid + r)], pull(length, p.lengthMm, 1), pull(wide, p.diameterMm, 2 * flip));
      case "right":
        return grip([m.lengthMm / 2 - p.lengthMm, at(mid + r)], pull(length, p.lengthMm, -1), pull(wide, p.diameterMm, 2 * flip));
      case "front":
      case "back":
        return grip([x0 + r, at(mid)], pull(wide, p.diameterMm, 2), null);
    }
  });
}

/** What goes into a casting, and the thickness of its wall, as the mould stands to be filled. */
function insideGrips({ job, scene, plan, view }: Pictured): Grip[] {
  const m = plan.body!;
  const { fromMm, upsideDown } = scene.master;
  const at = (z: number) => fromMm + (upsideDown ? m.heightMm - z : z);
  const flip = upsideDown ? -1 : 1;
  const inserts = job.inside.inserts.map((i, k): Grip => ({
    key: `insert-${k}`,
    name: plan.inside?.inserts[k]?.label ?? "Insert",
    at: [view === "along" ? i.asideMm : 0, at(i.fromMm + (i.upright ? i.lengthMm / 2 : 0))],
    x: view === "along" ? { path: `inside.inserts.${k}.asideMm`, min: -m.lengthMm / 2, max: m.lengthMm / 2, valueMm: i.asideMm, per: 1 } : null,
    z: { path: `inside.inserts.${k}.fromMm`, min: 0, max: LARGEST_MM, valueMm: i.fromMm, per: flip },
  }));
  const layer = job.inside.layers[0];
  const wallMm = layer?.thicknessMm ?? null;
  const shell: Grip[] =
    layer && wallMm !== null && job.inside.layers.length === 1
      ? [
          {
            key: "shell",
            name: "Wall of the casting",
            at: [scene.master.halfMm - wallMm, at(m.heightMm / 2)],
            x: { path: "inside.layers.0.thicknessMm", min: SMALLEST_MM, max: 200, valueMm: wallMm, per: -1 },
            z: null,
          },
        ]
      : [];
  return [...inserts, ...shell];
}

/** What a ruler shows, mm: whole millimetres, or sixteenths of an inch; halves of them where the drawing is large enough to aim. */
export const rulerStep = (us: boolean, pxPerMm: number): number => (us ? 25.4 / (pxPerMm > 8 ? 32 : 16) : pxPerMm > 8 ? 0.5 : 1);

/** What a pull goes by on a ruler that shows so much, in its own unit. */
export const stepOf = (p: Pull | null, rulerMm: number): number => p?.stepMm ?? Math.min(rulerMm, p?.fineMm ?? rulerMm);

/** A grip pulled by so many mm: the number it comes to on the ruler, and whether an end stopped it. */
export function pulled(p: Pull, byMm: number, rulerMm: number): { mm: number; stopped: "least" | "most" | null } {
  const stepMm = stepOf(p, rulerMm);
  const mm = Math.round((p.valueMm + byMm * p.per) / stepMm) * stepMm;
  if (mm > p.max) return { mm: p.max, stopped: "most" };
  if (mm < p.min) return { mm: p.min, stopped: "least" };
  return { mm: Number(mm.toFixed(4)), stopped: null };
}
