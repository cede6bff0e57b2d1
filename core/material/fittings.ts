import type { PartRole } from "../mix";
import { range } from "../quantity";
import type { Range } from "../quantity";

/** What seals the box, what stands behind the rubber, and how the casting is finished: short lists, each entry with the traits the rules look at. */
export const SEALINGS = {
  none: { label: "Not decided", traits: [] },
  "hot-glue": {
    label: "Hot glue",
    traits: ["hot-glue", "neutral"],
  },
  "acetic-sealant": {
    label: "Silicone sealant, vinegar-smelling",
    traits: ["acetic-sealant"],
  },
  "neutral-sealant": {
    label: "Silicone sealant, neutral",
    traits: ["neutral-sealant"],
  },
  "same-rubber": {
    label: "The rubber itself, painted in first",
    traits: ["same-rubber", "neutral"],
  },
  "clay-free": {
    label: "Oil clay, free of sulphur",
    traits: ["seal-clay", "neutral"],
  },
  "clay-sulphur": {
    label: "Oil clay with sulphur",
    traits: ["seal-clay", "sulphur"],
  },
  tape: {
    label: "Tape",
    traits: ["tape"],
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

/** A jacket of each kind as it usually is: thickness mm, and density as it stands g/mL. */
export const JACKET_MAKE: Record<Exclude<Jacket, "none">, { thicknessMm: number; densityGMl: Range }> = {
  plaster: { thicknessMm: 12, densityGMl: range(1.1, 1.3, 1.6) },
  "plaster-block": { thicknessMm: 40, densityGMl: range(1.1, 1.3, 1.6) },
  "polyester-resin": { thicknessMm: 4, densityGMl: range(1.35, 1.5, 1.7) },
  "epoxy-putty": { thicknessMm: 6, densityGMl: range(1.2, 1.4, 1.7) },
  urethane: { thicknessMm: 6, densityGMl: range(1.05, 1.15, 1.25) },
  timber: { thicknessMm: 18, densityGMl: range(0.45, 0.55, 0.7) },
};

/** A mix by the mL: what has to be mixed for a mL as it stands, g, and its parts as shares of that, in the order of mixing. */
interface Mixed {
  perMl: number;
  parts: readonly { name: string; share: number }[];
  roles: readonly PartRole[];
}

/** 70 of water to 100 of powder: 1.58 g a mL wet [1/2.65 + 0.70 mL for each gram of powder]. */
const PLASTER: Mixed = {
  perMl: 1.58,
  parts: [
    { name: "Water", share: 70 / 170 },
    { name: "Plaster", share: 100 / 170 },
  ],
  roles: ["water", "powder"],
};

/** Two parts in equal masses. */
const halves = (perMl: number, a: string, b: string): Mixed => ({
  perMl,
  parts: [
    { name: a, share: 0.5 },
    { name: b, share: 0.5 },
  ],
  roles: ["partA", "partB"],
});

/**
 * What a jacket is mixed from and the cloth in it: typical of each kind. Cloth stands for its share of the volume: plaster fills it,
 * resin wets it.
 */
export const JACKET_MIX: Record<Exclude<Jacket, "none">, Mixed & { cloth: "bandage" | "glass" | null }> = {
  plaster: { ...PLASTER, cloth: "bandage" },
  "plaster-block": { ...PLASTER, cloth: null },
  // A third of glass by mass in hand laminate, resin 1.2 g a mL, 2 % of hardener on the resin.
  "polyester-resin": {
    perMl: 1,
    parts: [
      { name: "Polyester resin", share: 1 / 1.02 },
      { name: "Hardener, 2 %", share: 0.02 / 1.02 },
    ],
    roles: ["partA", "partB"],
    cloth: "glass",
  },
  "epoxy-putty": { ...halves(1.4, "Putty A", "Putty B"), cloth: null },
  urethane: { ...halves(1.15, "Part A", "Part B"), cloth: null },
  // The thin shell behind a frame.
  timber: { ...halves(1.4, "Putty A", "Putty B"), cloth: null },
};

/** How long a jacket's stuff can be worked, and until it is hard enough for the next part or to lift, hours: typical of each kind at room temperature. */
export const JACKET_SETS: Record<Exclude<Jacket, "none">, { workingH: Range; setsH: Range }> = {
  plaster: { workingH: range(0.1, 0.2, 0.3), setsH: range(0.5, 1, 2) },
  "plaster-block": { workingH: range(0.15, 0.25, 0.4), setsH: range(1, 2, 4) },
  "polyester-resin": { workingH: range(0.15, 0.3, 0.6), setsH: range(2, 4, 12) },
  "epoxy-putty": { workingH: range(0.4, 0.7, 1.2), setsH: range(3, 6, 16) },
  urethane: { workingH: range(0.03, 0.08, 0.15), setsH: range(0.3, 0.75, 2) },
  timber: { workingH: range(0.4, 0.7, 1.2), setsH: range(3, 6, 16) },
};

/** Cloth in a jacket: what one layer of it is thick once it is set, mm, how wide it comes as a strip, mm, and how far strips lap. */
export const CLOTH = {
  bandage: { label: "Plaster bandage or cloth", layerMm: 4, stripMm: 150, lap: 0.25, least: 3 },
  glass: { label: "Glass cloth", layerMm: 1.3, stripMm: 1000, lap: 0.15, least: 2 },
} as const;
