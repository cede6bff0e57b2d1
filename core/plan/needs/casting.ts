import { hydrostaticPa, OPENING } from "../../mould";
import { quote } from "../../quantity";
import { COMFORTABLE_LIFT_G } from "../types";
import { grams, mm, type NeedsOf, type Ready } from "./kind";

/** Wick beyond the piece, mm: to hold and to tie; and for each wrap round the bar. */
const WICK_MM = { over: 50, wrap: 30 };
/** A fill this deep and heavier than water by this much presses halves apart enough to band and back, mm and g/mL. */
const PRESSES = { mm: 60, gMl: 1.5 };
/** One band to so much of a mould's height, mm: many thin ones press evenly. */
const BAND_EVERY_MM = 25;
/** What of a closed mould's cavity is funnel and vents, worth a word, mL. */
const GATE_ML = 1;

/** Wicks of the workshop's list that burn so wide a candle. */
function wickWords(p: Ready, acrossMm: number): string {
  const fits = p.dossier.materials.sundries.filter((s) => s.sort === "wick" && s.forMm && s.forMm.low <= acrossMm && acrossMm <= s.forMm.high);
  return fits.length > 0 ? fits.map((s) => s.name.toLowerCase()).join(" or ") : "the maker's size for that width: none on your list burns so wide";
}

/** Powder for a dry mould: the workshop's own list, and for what meets food the one that may. */
function powderWords(p: Ready, food: boolean): string {
  const powders = p.dossier.materials.sundries.filter((s) => s.sort === "powder" && (!food || s.id === FOOD_POWDER || s.copiedFrom === FOOD_POWDER));
  return powders.map((s) => s.name.toLowerCase()).join(" or ");
}
const FOOD_POWDER = "sundry-starch";

/** What the casting calls for before it is poured. */
export const castingNeeds: NeedsOf = (p) => {
  const { job } = p.dossier;
  const { body, cast, layout } = p;
  const kind = OPENING[job.mould.opening];
  if (!cast) return [];
  const block = layout.kind === "block" ? layout : null;
  const closed = kind.base || kind.halves;
  const gateMl = block ? block.cavityMl - body.volumeMl : 0;
  const headMm = p.strength?.headMm ?? body.heightMm;
  const gMl = p.castBatch?.wetDensityGMl ?? 1;
  const presses = closed && headMm > PRESSES.mm && gMl > PRESSES.gMl;
  const bands = Math.max(2, Math.ceil((block?.fillHeightMm ?? body.heightMm) / BAND_EVERY_MM));
  const pigmentG = p.layers.map((l) => ({ name: l.name, massG: l.batch.parts.filter((x) => x.role === "pigment").reduce((s, x) => s + x.massG, 0) }));
  const coloured = pigmentG.filter((l) => l.massG > 0);
  const wick = cast.family === "wax" && job.use === "burns";
  const laid = p.layers.some((l) => l.coat && l.way !== "poured" && l.way !== "back");
  const halved = kind.halves && laid;
  const plug = block && OPENING[job.mould.opening].plugs && job.mould.plugs.length > 0;
  return [
    gateMl > GATE_ML && { id: "gates-counted", step: "cast", text: `Funnel and vents take ${quote(gateMl, "volume")} of the mix; that is in the amounts.` },
    coloured.length > 1 && {
      id: "shares",
      step: "cast",
      text: `Weigh the colour of every layer before the first is mixed: ${coloured.map((l) => `${l.name.toLowerCase()} ${grams(l.massG)}`).join(", ")}. Wet and rub it with a little of the liquid, or it streaks.`,
    },
    wick && {
      id: "wick",
      step: "cast",
      text: `Wick: ${mm(body.heightMm + WICK_MM.over + WICK_MM.wrap)} for each, ${mm(WICK_MM.over)} over the piece and ${mm(WICK_MM.wrap)} for the wrap round a bar (usual). For a candle ${mm(Math.min(body.lengthMm, body.widthMm))} across take ${wickWords(p, Math.min(body.lengthMm, body.widthMm))}; the maker's chart for this wax comes first, and burn one, watched. Prime it stiff, make its hole now, and centre it on the bar.`,
    },
    job.use === "candle" && {
      id: "vessel",
      step: "cast",
      text: "A vessel for a candle has to be tight, sealed inside, and proof against heat: fill one with water overnight before the first is burned in it, and watch that burn.",
    },
    cast.family === "gypsum" && {
      id: "bare-skin",
      step: "cast",
      text: "Wet plaster burns in a thick mass and dries skin: gloves, and never a hand cast in it.",
    },
    (cast.family === "metal" || cast.family === "resin") &&
      powderWords(p, job.use === "food") !== "" && {
        id: "dust",
        step: "cast",
        text: `If dusting is your way: ${powderWords(p, job.use === "food")}, brushed into the dry mould and blown out again. What is left in it shows on the casting.`,
      },
    cast.family === "metal" && { id: "pool", step: "cast", text: "Have more molten than it takes: a pour that stops for want of metal is lost." },
    presses && {
      id: "bands",
      step: "cast",
      text: `Filled, it presses with ${quote(hydrostaticPa(gMl, headMm), "pressure")} at the foot: ${bands} thin bands sooner than two tight ones, boards behind the flat sides, a light squeeze.${block ? ` Or put it back into its own box, ${mm(block.box.lengthMm)}${block.box.shape === "cylindrical" ? " across" : ` × ${mm(block.box.widthMm)}`} inside: that is the best backer there is.` : ""}`,
    },
    (cast.family === "resin" || cast.family === "wax") &&
      (coloured.length > 0 || job.cast.additions.length > 0) && {
        id: "tint",
        step: "cast",
        text:
          cast.family === "resin"
            ? "Tint goes into the larger part before the other is added; the colour shows true in a layer as thick as the piece."
            : "Wax shows its colour cold: judge it on a drop that has set on white paper.",
      },
    p.layers.some((l) => l.way === "brushed") && {
      id: "fingers",
      step: "cast",
      text: "Work the first coat into noses, ears and folds with a gloved fingertip; a brush leaves air there.",
    },
    halved && {
      id: "stanchions",
      step: "cast",
      text: "In a large hollow set posts of the thick mix from half to half, with room for the next coats to pass between them.",
    },
    job.inside.layers.length > 0 && {
      id: "under-lip",
      step: "cast",
      text: "Stop every coat just under the lip of the mould: what runs over it locks the casting in and tears the rim.",
    },
    plug && {
      id: "locking-tower",
      step: "cast",
      text: "Leave room round a plug's tower where it locks, and its vent open: mix that sets round it holds the plug.",
    },
    cast.family === "resin" && {
      id: "again-in-clear",
      step: "cast",
      text: "A casting that came out small, or another piece, can be cast again inside clear resin: hang it or set it on a first layer that has gelled.",
    },
  ];
};

/** What may leave how, and who lifts. */
export const liftingNeeds: NeedsOf = (p) => {
  const { weights } = p;
  if (!weights) return [];
  const heaviest = Math.max(weights.filledG, weights.boxedG ?? 0);
  const people = Math.ceil(heaviest / COMFORTABLE_LIFT_G);
  const castPeople = Math.ceil(weights.castDemouldedG / COMFORTABLE_LIFT_G);
  return [
    people > 1 && {
      id: "people",
      step: "out",
      when: "poured",
      hold: true,
      text: `Lifting: ${grams(heaviest)} at the most, ${people} pairs of hands at ${grams(COMFORTABLE_LIFT_G)} each, or fill it where it stays. Plan who turns it, and what it is set down on.`,
    },
    people > 1 && {
      id: "three-ways",
      step: "out",
      when: "poured",
      text: `It may leave three ways: alone (${castPeople === 1 ? "one pair" : `${castPeople} pairs`} of hands and a blanket ready), with its rubber round it (stand it on soft blocks and peel downwards), or broken (a tray under it, and the pieces kept in order for mending).`,
    },
  ];
};
