import type { PartRole } from "../mix";

/** What has to be true before anything is wetted or melted. Each habit asks for those that bite in its work. */
export const HOLD_POINTS = {
  release: "Release is on, and dry",
  level: "The board is level, the seams are sealed",
  tools: "Cups, sticks, brush and cloths are laid out",
  mask: "Gloves and goggles on; a mask for powder, a shield for metal",
  tacky: "What lies under it is tacky, and leaves nothing on a gloved finger",
  brush: "Brush, tint and cloth are laid out, the next cups too",
  wet: "Gloves on, a bowl of water to wet them",
  inside: "What goes inside is ready, and its place is marked",
  board: "The mould is level on a board it can be carried by",
  rinse: "A bucket to rinse in stands by: never the drain",
  dust: "Gloves, goggles and a mask for the powder",
  closed: "The mould is closed, warm and dry, every piece at hand",
  fumes: "Gloves and goggles on, the air moving",
  depth: "It goes no deeper at once than its data sheet allows",
  wick: "Wick, stopper and thermometer are in place",
  bath: "The pot stands in a water bath, nothing that burns near it",
  dry: "Mould, ladle and tools are dry and warm",
  clamped: "The mould is clamped or boarded, the right way up, dusted if that is your way",
  enough: "More is molten than it takes, and skimmed",
  shield: "Face shield, leather and sleeves on, nobody near without",
  food: "Tools, bowl and mould only ever meet food, and are washed and dry",
  degree: "The thermometer reads what it is to be poured at",
  set: "What lies under it has set, and its flange is released",
} as const;
export type HoldPoint = keyof typeof HOLD_POINTS;
export const HOLD_KEYS = Object.keys(HOLD_POINTS) as [HoldPoint, ...HoldPoint[]];

/** What a batch's words have to know of its pour: °C, mm above the floor of the pour, min. Null where it does not matter. */
export interface Facts {
  /** Poured between these, °C. */
  pourC: { low: number; high: number } | null;
  /** Top of the piece, and the fill line. */
  topMm: number | null;
  fillLineMm: number | null;
  /** It is the first on a bare master or face; what was before it is tacky, or there. */
  first: boolean;
  /** It is to be out of its bucket within minutes. */
  fast: boolean;
  /** Something goes into the casting. */
  inserts: boolean;
  /** It is to be tinted, so that it shows on the coat before. */
  tinted: boolean;
  cloth: boolean;
  /** How it is put in, where it is a layer of a casting. */
  way: string | null;
  /** The next coat or layer follows on this one. */
  goesOn: boolean;
  degas: boolean;
  /** It sets in the pressure tank. */
  pressure?: boolean;
}
export const NO_FACTS: Facts = {
  pourC: null,
  topMm: null,
  fillLineMm: null,
  first: true,
  fast: false,
  inserts: false,
  tinted: false,
  cloth: false,
  way: null,
  goesOn: false,
  degas: false,
};

/** How stuff of one family is mixed, held, put in and told. Minutes, g; shares of the working time. */
export interface Habit {
  label: string;
  /** What it is mixed in. */
  vessel: { one: string; many: string };
  /**
   * How a batch is split: into cups that fit and are poured in time; into what is spread in time; by what hands press; or not at all,
   * and then so many hands are needed.
   */
  split: "cups" | "spread" | "hands" | "one";
  stirMin: number;
  /** What one person pours, places or spreads in a minute, g. */
  pourGMin: number;
  /** Share of the shortest pot life or working time in which it has to be out of its vessel. */
  lifeShare: number;
  /** It may be put under vacuum; it may set under pressure. */
  vacuum: boolean;
  pressure?: true;
  life: "pot life" | "working time";
  hold: (f: Facts) => readonly HoldPoint[];
  /** The tap that starts the clock, and the sentence over it. */
  begin: { says: string; act: string };
  /** What is done from then on, and the tap that says it is in. */
  doing: { title: string; steps: (f: Facts) => string[]; done: string };
  /** The least share of a part with which one may go on: water is held back, and comes later as it needs. */
  mayBeShort: Partial<Record<PartRole, number>>;
  /** Parts that may still be added once it is stirred. */
  mayFollow: readonly PartRole[];
}

/** The points that are asked, one of them only where something goes inside. */
export const points =
  (...all: HoldPoint[]) =>
  (f: Facts): readonly HoldPoint[] =>
    all.filter((p) => p !== "inside" || f.inserts);

export const LATER_WATER = { mayBeShort: { water: 0.85 }, mayFollow: ["water"] } as const satisfies Pick<Habit, "mayBeShort" | "mayFollow">;
export const EXACT = { mayBeShort: {}, mayFollow: [] } as const satisfies Pick<Habit, "mayBeShort" | "mayFollow">;
export const CUPS = { one: "Cup", many: "cups" };
export const ONE_OF = (one: string, many: string) => ({ one, many });
