import type { ProfilePoint, SizeKey } from "../master";
import { quote } from "../quantity";
import { newJob, type Job } from "../record";

/** One size a kind of piece asks for, mm, with that of its picture. */
interface Asked {
  label: string;
  sampleMm: number;
}

/** A kind of piece people mould: what is asked of it, and what is assumed of it until somebody says otherwise. */
interface Kind {
  label: string;
  /** Half a sentence on what is meant. */
  hint: string;
  asks: readonly [Asked, ...Asked[]];
  /** The master those sizes make. */
  master: (mm: readonly number[]) => { shape: Job["master"]["shape"]; sizes: Partial<Record<SizeKey, number>>; profile?: ProfilePoint[] };
  surfaceId: string;
  castId: string;
  rubberId: string;
  opening: Job["mould"]["opening"];
  more?: Partial<Pick<Job, "use" | "held" | "releaseId" | "sealerId" | "boxId" | "jacket" | "finish">>;
  box?: Job["mould"]["box"];
  wallMm?: number;
}

const size = (label: string, sampleMm: number): Asked => ({ label, sampleMm });
const at = (mm: readonly number[], i: number): number => mm[i] ?? 0;

/** Relief on a slab of so much in all, mm: a third of it, a finger's width at the most. */
const slab = ([length = 0, width = 0, thick = 0]: readonly number[], coveragePct: number) => {
  const reliefMm = Math.min(15, thick / 3);
  return { shape: "plaque" as const, sizes: { lengthMm: length, widthMm: width, heightMm: thick - reliefMm, reliefMm, coveragePct } };
};

/** What is only known by its outer sizes fills so much of them, to within a fifth: it is to be dipped or weighed when it matters. */
const fills = ([length = 0, width = 0, height = 0]: readonly number[], share: number) => {
  const ml = (length * width * height * share) / 1000;
  return { shape: "displaced" as const, sizes: { volumeMl: ml, readingMl: ml * 0.2, lengthMm: length, widthMm: width, heightMm: height } };
};

const KINDS_ALL = {
  tile: {
    label: "Tile or plaque",
    hint: "flat back, raised front",
    asks: [size("Length", 120), size("Width", 120), size("Thickness over all", 18)],
    master: (mm) => slab(mm, 45),
    surfaceId: "surface-oil-clay-free",
    castId: "cast-plaster",
    rubberId: "rubber-platinum-medium-25",
    opening: "open",
  },
  bowl: {
    label: "Bowl or planter",
    hint: "hollow, open on top",
    asks: [size("Across the rim", 180), size("Across the foot", 120), size("Height", 90)],
    master: (mm) => {
      const wallMm = Math.max(4, Math.min(14, at(mm, 0) / 18));
      return { shape: "vessel", sizes: { topMm: at(mm, 0), bottomMm: at(mm, 1), heightMm: at(mm, 2), wallMm, floorMm: wallMm } };
    },
    surfaceId: "surface-glazed-ceramic",
    castId: "cast-concrete",
    rubberId: "rubber-platinum-firm-40",
    opening: "twoPart",
    box: "cylindrical",
    wallMm: 18,
    more: { releaseId: "release-petroleum", boxId: "box-plastic-sheet-1", use: "outdoors" },
  },
  figure: {
    label: "Figure",
    hint: "detail all round",
    asks: [size("Width", 70), size("Depth", 60), size("Height", 140)],
    master: (mm) => fills(mm, 0.42),
    surfaceId: "surface-oil-clay-free",
    castId: "cast-fast-urethane",
    rubberId: "rubber-platinum-medium-25",
    opening: "twoPart",
    wallMm: 14,
    more: { releaseId: "release-petroleum" },
  },
  bust: {
    label: "Bust or head",
    hint: "large, in a skin with a jacket",
    asks: [size("Width", 180), size("Depth", 200), size("Height", 300)],
    master: (mm) => fills(mm, 0.5),
    surfaceId: "surface-oil-clay-free",
    castId: "cast-plaster",
    rubberId: "rubber-platinum-brush-30",
    opening: "skin",
    more: { jacket: "plaster", releaseId: "release-petroleum" },
  },
  turned: {
    label: "Round turned thing",
    hint: "a finial, a leg, a chess piece",
    asks: [size("Widest across", 70), size("Across the foot", 60), size("Height", 140)],
    master: (mm) => {
      const [wide, foot, high] = [at(mm, 0) / 2, at(mm, 1) / 2, at(mm, 2)];
      const point = (z: number, r: number): ProfilePoint => ({ zMm: Math.round(z * high * 10) / 10, radiusMm: Math.round(r * 10) / 10 });
      return {
        shape: "turned",
        sizes: {},
        profile: [point(0, foot), point(0.12, foot), point(0.32, wide), point(0.55, wide * 0.7), point(0.75, wide * 0.5), point(1, wide * 0.3)],
      };
    },
    surfaceId: "surface-wood-sealed",
    castId: "cast-fast-urethane",
    rubberId: "rubber-platinum-medium-25",
    opening: "pourAndCut",
    box: "cylindrical",
    wallMm: 14,
    more: { sealerId: "release-acrylic", releaseId: "release-wax", boxId: "box-plastic-sheet-1" },
  },
  candle: {
    label: "Candle",
    hint: "a pillar of wax, to burn",
    asks: [size("Across", 70), size("Height", 130)],
    master: (mm) => ({ shape: "cylinder", sizes: { diameterMm: at(mm, 0), heightMm: at(mm, 1) } }),
    surfaceId: "surface-wood-sealed",
    castId: "cast-beeswax",
    rubberId: "rubber-platinum-medium-25",
    opening: "slit",
    box: "cylindrical",
    wallMm: 12,
    more: { use: "burns", releaseId: "release-wax", boxId: "box-plastic-sheet-1" },
  },
  metal: {
    label: "Small metal piece",
    hint: "pewter, in a mould of two halves",
    asks: [size("Length", 60), size("Width", 22), size("Height", 18)],
    master: (mm) => fills(mm, 0.45),
    surfaceId: "surface-print-filament",
    castId: "cast-pewter",
    rubberId: "rubber-tin-heat-30",
    opening: "twoPart",
    wallMm: 14,
    more: { sealerId: "release-acrylic", releaseId: "release-petroleum" },
  },
  knob: {
    label: "Knob or handle",
    hint: "rounded, with a flat back",
    asks: [size("Across", 42), size("Height", 30)],
    master: (mm) => ({ shape: "dome", sizes: { lengthMm: at(mm, 0), widthMm: at(mm, 0), heightMm: at(mm, 1) } }),
    surfaceId: "surface-wood-sealed",
    castId: "cast-fast-urethane",
    rubberId: "rubber-platinum-medium-25",
    opening: "open",
    wallMm: 10,
    more: { releaseId: "release-wax" },
  },
  leaf: {
    label: "Leaf",
    hint: "the master does not survive it",
    asks: [size("Length", 220), size("Width", 150), size("Rise", 18)],
    master: (mm) => slab(mm, 40),
    surfaceId: "surface-leaf",
    castId: "cast-concrete",
    rubberId: "rubber-platinum-medium-25",
    opening: "open",
    more: { use: "outdoors" },
  },
  panel: {
    label: "Large panel",
    hint: "brushed, behind a timber frame",
    asks: [size("Length", 600), size("Width", 400), size("Thickness over all", 30)],
    master: (mm) => slab(mm, 40),
    surfaceId: "surface-plaster",
    castId: "cast-polymer-gypsum",
    rubberId: "rubber-platinum-brush-30",
    opening: "panel",
    more: { jacket: "timber", use: "hung", sealerId: "release-shellac", releaseId: "release-wax" },
  },
  blank: {
    label: "Plain block, for blanks",
    hint: "a block to turn, carve or cut from",
    asks: [size("Length", 150), size("Width", 50), size("Height", 40)],
    master: (mm) => ({ shape: "box", sizes: { lengthMm: at(mm, 0), widthMm: at(mm, 1), heightMm: at(mm, 2) } }),
    surfaceId: "surface-plastic-hard",
    castId: "cast-fast-urethane",
    rubberId: "rubber-platinum-medium-25",
    opening: "open",
  },
  food: {
    label: "Food bar",
    hint: "chocolate, and nothing else ever",
    asks: [size("Length", 150), size("Width", 70), size("Thickness over all", 10)],
    master: (mm) => slab(mm, 30),
    surfaceId: "surface-metal",
    castId: "cast-dark-chocolate",
    rubberId: "rubber-platinum-food-22",
    opening: "open",
    more: { use: "food", held: "food", boxId: "box-acrylic-4", releaseId: "release-food-oil" },
  },
} as const satisfies Record<string, Kind>;

export type PieceKind = keyof typeof KINDS_ALL;
export const PIECE_KINDS = Object.keys(KINDS_ALL) as [PieceKind, ...PieceKind[]];
const KINDS: Record<PieceKind, Kind> = KINDS_ALL;

/** What a kind is called, what is meant, and which sizes it asks for. */
export const pieceKind = (key: PieceKind): { label: string; hint: string; asks: readonly Asked[] } => KINDS[key];

/** Decisions that are assumed for a kind, by their paths in the job. */
const ASSUMED = ["master.surfaceId", "castId", "rubberId", "mould.opening", "use", "releaseId"] as const;

/** Why the sizes of a kind are not enough, or what is wrong with them; null where they will do. mm. */
export function sizesFault(key: PieceKind, mm: readonly (number | null)[]): string | null {
  const { asks } = KINDS[key];
  const missing = asks.find((_, i) => mm[i] === null || mm[i] === undefined);
  if (missing) return `${missing.label} is still missing.`;
  const bad = asks.findIndex((_, i) => !((mm[i] ?? 0) >= 0.5 && (mm[i] ?? 0) <= 3000));
  return bad < 0 ? null : `${asks[bad]?.label ?? ""} has to be from ${quote(0.5, "length")} to ${quote(3000, "length")}.`;
}

/** Ways to take a piece's form from somewhere instead of its sizes. */
export const SOURCES = ["photographs", "model"] as const;
export type Source = (typeof SOURCES)[number];

/** A job whose piece is yet to be read from photographs or from a model; what is usual for a figure is assumed of the rest. */
export function startFrom(source: Source, name: string, shopC: number): Job {
  const job = startJob("figure", [70, 60, 140], name, shopC);
  return {
    ...job,
    master: { ...job.master, shape: source, sizes: {} },
    mould: { ...job.mould, partingMm: null },
    assumed: job.assumed.filter((path) => !path.startsWith("master.sizes")),
  };
}

/** A job for a piece of a kind, of these sizes in mm, with all that is assumed of its kind, and the list of what that is. */
export function startJob(key: PieceKind, mm: readonly number[], name: string, shopC: number): Job {
  const kind = KINDS[key];
  const base = newJob(name, shopC);
  const { shape, sizes, profile } = kind.master(mm);
  return {
    ...base,
    ...kind.more,
    master: { ...base.master, shape, sizes, profile: profile ?? [], surfaceId: kind.surfaceId },
    castId: kind.castId,
    rubberId: kind.rubberId,
    mould: {
      ...base.mould,
      opening: kind.opening,
      ...(kind.box ? { box: kind.box } : {}),
      ...(kind.wallMm ? { wallMm: kind.wallMm, baseMm: kind.wallMm, coverMm: Math.max(base.mould.coverMm, kind.wallMm * 0.8) } : {}),
      ...(kind.opening === "twoPart" ? { partingMm: (mm.at(-1) ?? 0) / 2 } : {}),
    },
    assumed: [
      ...ASSUMED,
      ...(kind.more?.jacket ? ["jacket"] : []),
      ...(kind.more?.boxId ? ["boxId"] : []),
      ...(shape === "displaced" ? ["master.sizes.volumeMl"] : []),
    ],
  };
}
