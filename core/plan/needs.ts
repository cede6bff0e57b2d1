import { OPENING } from "../mould";
import { quote } from "../quantity";
import { jacketPartsOf } from "./jacket";
import { COMFORTABLE_LIFT_G, type Plan, type StepId } from "./types";

/** One of the small things that are forgotten: where in the work it bites, and what it is, with its sizes. */
export interface Need {
  id: string;
  step: StepId;
  text: string;
}

const mm = (v: number) => quote(v, "length");

/** Keys of a clay parting sit this far from the piece, and one to about so much of the seam, mm: usual workshop sizes. */
const KEY = { fromPieceMm: 10, everyMm: 80, least: 4 };
/** Wick beyond the piece, mm: to hold and to tie; and for each wrap round the bar. */
const WICK_MM = { over: 50, wrap: 30 };
/** A pocket or slot narrower than this is filled through a funnel of clay, mm. */
const NARROW_MM = 15;
/** Within this a flange can be cut with scissors, h after the pour as a share of the cure. */
const SOFT_SHARE = 0.5;

/**
 * What this piece, this way of opening and this material call for besides the plan's own steps. Each only where it concerns them, in
 * the order of work, worked out where it can be; sizes that are only usual say so.
 */
export function needsOf(p: Plan): Need[] {
  const { job } = p.dossier;
  const out: Need[] = [];
  const add = (id: string, step: StepId, text: string) => out.push({ id, step, text });
  const kind = OPENING[job.mould.opening];
  const { body, layout, cast, weights } = p;
  if (!body || !layout) return out;
  const surface = p.dossier.materials.surfaces.find((s) => s.id === job.master.surfaceId);
  const is = (t: string) => surface?.traits.some((x) => x === t) ?? false;

  // Master and board
  if (is("wet")) add("keep-damp", "prepare", "Keep the damp clay wrapped, and unwrap it only a little ahead of your hand.");
  if (is("spent")) add("spent", "prepare", "The master is spent by the moulding: keep the first casting, so that a second mould can come from it.");
  if (layout.kind === "block") {
    const { box } = layout;
    add(
      "board-plan",
      "box",
      `Draw the inside of the box on the board, ${mm(box.lengthMm)}${box.shape === "cylindrical" ? " across" : ` × ${mm(box.widthMm)}`}, and where the master stands in it; mark which side comes off first.`,
    );
    if (p.pours.some((x) => (x.lift?.holdDownG ?? 0) > 0))
      add("hold-down", "box", "Tack it down from below, or with screws that come out again: sealed all round it cannot be freed, and untacked it floats.");
  }
  if (kind.halves && layout.kind === "block" && layout.partingAtMm !== null) {
    const wall = layout.box.leastWallMm;
    const seam = layout.box.perimeterMm;
    const across = Math.max(4, Math.min(15, wall / 2));
    add(
      "keys",
      "prepare",
      `Keys: about ${Math.max(KEY.least, Math.round(seam / KEY.everyMm))}, ${mm(across)} across and half as deep, ${mm(Math.min(KEY.fromPieceMm, wall / 3))} from the piece (usual sizes), not one of them under it. Smooth the clay with a moist finger and a flat wet brush.`,
    );
    add("pits", "rubber", "Fill pits and bubbles in the face of the first half before the second goes on, or the halves lock.");
  }
  for (const plug of kind.plugs ? job.mould.plugs : [])
    if (plug.diameterMm < NARROW_MM && plug.lengthMm > 2 * plug.diameterMm)
      add(
        `funnel-${plug.name}`,
        "rubber",
        `${plug.name} is ${mm(plug.diameterMm)} wide and ${mm(plug.lengthMm)} deep: build a funnel of clay over it and let the rubber run down one side, a thread to draw the air.`,
      );

  // Rubber
  if (layout.kind === "skin") {
    add("wipe-board", "rubber", "Wipe the board between coats, and stand each face level in turn where you can.");
    const last = p.pours.at(-1);
    if (layout.flange && last)
      add(
        "trim-soft",
        "out",
        `Trim flanges while they are soft, up to about ${quote(last.cure.demould.hours.low * SOFT_SHARE, "duration")} after the last coat, with scissors; later with a knife.`,
      );
  }
  if (p.pours.length > 0)
    add("leftover", "rubber", "Rubber that is over goes into a small mould that waits, or into the freezer to thicken, never down the drain.");

  // Jacket
  if (jacketPartsOf(p).length > 1)
    add(
      "jacket-raise",
      "box",
      "Raise the piece a finger's width off the board, so that the jacket reaches under its edge; number the parts and draw arrows over the joint.",
    );
  if (layout.jacket && layout.kind === "skin")
    add("skin-in-jacket", "out", "Keep the skin in its jacket when it stands on the shelf: without it, it takes a set.");

  // Casting
  if (cast) {
    if (cast.family === "wax" && job.use === "burns") {
      const wickMm = body.heightMm + WICK_MM.over + WICK_MM.wrap;
      add(
        "wick",
        "cast",
        `Wick: ${mm(wickMm)} for each, ${mm(WICK_MM.over)} over the piece and ${mm(WICK_MM.wrap)} for the wrap round a bar (usual). For a candle ${mm(Math.min(body.lengthMm, body.widthMm))} across take the maker's size for that width and this wax, and burn one, watched. Prime it stiff, make its hole now, and centre it on the bar.`,
      );
      add("top-up", "out", "Keep some of the same wax molten: poke the skin open round the wick and top it up once it has sunk.");
    }
    if (cast.family === "gypsum") add("bare-skin", "cast", "Wet plaster burns in a thick mass and dries skin: gloves, and never a hand cast in it.");
    if (cast.family === "metal") add("pool", "cast", "Have more molten than it takes: a pour that stops for want of metal is lost.");
    if (job.use === "hung") {
      const g = weights?.castDryG ?? null;
      add(
        "hanging",
        "out",
        `Hanging: a slanted hole or a loop cast in, and a paper template from bracket to edge for the wall${g === null ? "" : `; it weighs ${quote(g, "mass")} finished, so fixings for at least four times that`}. Local codes decide over a bed or a way.`,
      );
    }
    if (job.inside.layers.some((l) => l.coats > 1 || l.way !== "poured"))
      add("against-light", "out", "Hold a thin casting against the light: what shines through wants another coat from inside.");
    if (cast.family === "cement" || cast.family === "gypsum")
      add("patch-wet", "out", "Patch holes within the first day: soak the place, and use a thicker mix of the same, across and along.");
    if (cast.family === "resin" || p.layers.some((l) => (l.coat?.layer.fibrePct ?? 0) > 0))
      add("razors", "out", "Edges and whiskers of resin and glass cut: gloves when you trim.");
  }

  // Opening and lifting
  if (weights) {
    const heaviest = Math.max(weights.filledG, weights.boxedG ?? 0);
    const people = Math.ceil(heaviest / COMFORTABLE_LIFT_G);
    if (people > 1)
      add(
        "people",
        "out",
        `Lifting: ${quote(heaviest, "mass")} at the most, ${people} pairs of hands at ${quote(COMFORTABLE_LIFT_G, "mass")} each, or fill it where it stays. Plan who turns it, and what it is set down on.`,
      );
  }
  if (p.strength && p.strength.stretch.known && p.strength.stretch.strain > 0.05)
    add("open", "out", "Open it from one edge, then the other, loosened all round first; a towel under it. Blow in with a straw or a tube before you pull.");
  return out;
}
