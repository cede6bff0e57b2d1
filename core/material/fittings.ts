import { range } from "./range";
import type { Range } from "./schema";

/** What seals the box, what stands behind the rubber, and how the casting is finished: short lists, each entry with the traits the rules look at. */
export const SEALINGS = {
  none: { label: "Not decided", traits: [], plan: "" },
  "hot-glue": {
    label: "Hot glue",
    traits: ["hot-glue", "neutral"],
    plan: "A bead inside and a second outside; it peels from cold or glossy faces, so warm them first. Pour a finger's depth, wait two minutes and look before you go on.",
  },
  "acetic-sealant": {
    label: "Silicone sealant, vinegar-smelling",
    traits: ["acetic-sealant"],
    plan: "Tool a fillet inside every seam and give it a day; it holds any head met here once it has cured through.",
  },
  "neutral-sealant": {
    label: "Silicone sealant, neutral",
    traits: ["neutral-sealant"],
    plan: "Tool a fillet inside every seam and give it a day; it holds any head met here once it has cured through.",
  },
  "same-rubber": {
    label: "The rubber itself, painted in first",
    traits: ["same-rubber", "neutral"],
    plan: "Paint the seams from inside, thickened if you can, and let it turn tacky; it becomes part of the mould, so keep it smooth.",
  },
  "clay-free": {
    label: "Oil clay, free of sulphur",
    traits: ["seal-clay", "neutral"],
    plan: "Press a coil into each seam from outside and smear it both ways. Clay creeps under a steady push: look again after a quarter of an hour.",
  },
  "clay-sulphur": {
    label: "Oil clay with sulphur",
    traits: ["seal-clay", "sulphur"],
    plan: "Press a coil into each seam from outside and smear it both ways. Clay creeps under a steady push: look again after a quarter of an hour.",
  },
  tape: {
    label: "Tape",
    traits: ["tape"],
    plan: "Tape outside only, two layers with the joints apart, on clean dry faces; a strap or cord takes the push, the tape only stops the leak.",
  },
} as const;
export type Sealing = keyof typeof SEALINGS;
export const SEALING_KEYS = Object.keys(SEALINGS) as [Sealing, ...Sealing[]];

export const JACKETS = {
  none: { label: "None", traits: [] },
  plaster: { label: "Plaster and cloth", traits: ["jacket-plaster"] },
  "plaster-block": { label: "Solid plaster block", traits: ["jacket-plaster"] },
  "polyester-resin": { label: "Polyester and glass cloth", traits: ["jacket-styrene"] },
  "epoxy-putty": { label: "Trowelled epoxy or putty", traits: ["jacket-epoxy"] },
  urethane: { label: "Trowelled urethane", traits: ["jacket-urethane"] },
  timber: { label: "Boards or timber frame", traits: ["jacket-timber", "neutral"] },
} as const;
export type Jacket = keyof typeof JACKETS;
export const JACKET_KEYS = Object.keys(JACKETS) as [Jacket, ...Jacket[]];

export const FINISHES = {
  none: { label: "Left as it comes", traits: [] },
  paint: { label: "Painted or stained", traits: ["paint"] },
  glue: { label: "Glued to something", traits: ["glue"] },
  seal: { label: "Sealed or waxed", traits: ["seal-coat"] },
} as const;
export type Finish = keyof typeof FINISHES;
export const FINISH_KEYS = Object.keys(FINISHES) as [Finish, ...Finish[]];

/** What a jacket of each kind usually is to heat: thickness mm and handbook figures; null for none. */
export const JACKET_HEAT: Record<Jacket, { thicknessMm: number; kWMK: number; rhoKgM3: number; cJKgK: number } | null> = {
  none: null,
  plaster: { thicknessMm: 12, kWMK: 0.5, rhoKgM3: 1200, cJKgK: 1000 },
  "plaster-block": { thicknessMm: 40, kWMK: 0.5, rhoKgM3: 1200, cJKgK: 1000 },
  "polyester-resin": { thicknessMm: 4, kWMK: 0.25, rhoKgM3: 1500, cJKgK: 1200 },
  "epoxy-putty": { thicknessMm: 6, kWMK: 0.3, rhoKgM3: 1400, cJKgK: 1200 },
  urethane: { thicknessMm: 6, kWMK: 0.22, rhoKgM3: 1150, cJKgK: 1600 },
  timber: { thicknessMm: 18, kWMK: 0.13, rhoKgM3: 550, cJKgK: 1700 },
};

/** How a jacket of each kind is made: usual thickness mm, density as it stands g/mL, and what to know. */
export interface JacketMake {
  thicknessMm: number;
  densityGMl: Range;
  how: string;
  /** What goes between its halves so that they part. */
  barrier: string;
  /** What it does over the years. */
  ages: string;
}
export const JACKET_MAKE: Record<Exclude<Jacket, "none">, JacketMake> = {
  plaster: {
    thicknessMm: 12,
    densityGMl: range(1.1, 1.3, 1.6),
    how: "Three layers of cloth dipped in plaster, crossing at the flange, a splash coat first.",
    barrier: "Soft soap or petroleum jelly on the set flange before the next half.",
    ages: "Grows a few tenths of a percent as it sets, then keeps its size; chips if it is stacked.",
  },
  "plaster-block": {
    thicknessMm: 40,
    densityGMl: range(1.1, 1.3, 1.6),
    how: "Boards round the skin, plaster poured to a level top so that the mould stands steady when it is turned.",
    barrier: "Soft soap or petroleum jelly on the set plaster before the next half.",
    ages: "Heavy and steady; keeps its size.",
  },
  "polyester-resin": {
    thicknessMm: 4,
    densityGMl: range(1.35, 1.5, 1.7),
    how: "A brushed gel coat, then two or three layers of glass cloth rolled out, more at flange and bolt holes.",
    barrier: "Wax and a polyvinyl-alcohol film on the first flange.",
    ages: "Shrinks up to 2 % in its first weeks: keep it bolted round the rubber meanwhile.",
  },
  "epoxy-putty": {
    thicknessMm: 6,
    densityGMl: range(1.2, 1.4, 1.7),
    how: "Pressed on in one even layer, smoothed with a wet glove, ribs over long spans.",
    barrier: "Paste wax on the first flange, two coats.",
    ages: "Keeps its size.",
  },
  urethane: {
    thicknessMm: 6,
    densityGMl: range(1.05, 1.15, 1.25),
    how: "Trowelled on in two layers as it thickens; a cloth between them where it is thin.",
    barrier: "Paste wax on the first flange, two coats.",
    ages: "Creeps under load in warmth: store it bolted up.",
  },
  timber: {
    thicknessMm: 18,
    densityGMl: range(0.45, 0.55, 0.7),
    how: "A frame of boards screwed round a thin stiff shell bedded on the rubber.",
    barrier: "Varnish and wax on every face that meets fresh shell or rubber.",
    ages: "Moves with the damp: varnish all faces, and do not lock the rubber to it.",
  },
};
