import type { SkinOpening } from "./kind";

/** What skins have in common. */
export const SKIN = {
  made: "skin",
  base: false,
  halves: false,
  plugs: false,
  sections: false,
  wants: "brushable",
  stretches: true,
  onlyStretches: false,
  ifTooTight: " Slit it, part it, or choose a softer rubber.",
  cut: null,
  pressed: false,
  skirt: true,
  cloth: true,
  tray: false,
  cutOpen: false,
  jacket: "needed",
} as const satisfies Partial<SkinOpening>;

export const fenced: SkinOpening["boardStep"] = (flangeMm) =>
  flangeMm
    ? `Stand the master on the board; raise a clay fence ${flangeMm} wide along each seam, keys pressed in near the master.`
    : "Stand the master on a board large enough to catch what runs off.";

export const peel: SkinOpening["free"] = () => ({ id: "free", what: "Take the jacket off part by part, then peel each section from its edge." });
