import { OPENING } from "../../mould";
import { quote } from "../../quantity";
import { jacketPartsOf } from "../jacket";
import { mm, type NeedsOf } from "./kind";

/** A pocket or slot narrower than this is filled through a funnel of clay, mm. */
const NARROW_MM = 15;
/** Within this a flange can be cut with scissors, h after the pour as a share of the cure. */
const SOFT_SHARE = 0.5;
/** An overflow of clay stands so far over the fill line, mm: a finger's width. */
const TOWER_MM = 20;

/** A funnel of clay: so high, and four times as wide at its top as its slot, at least a finger, mm. */
const FUNNEL_MM = 30;
const funnelTopMm = (slotMm: number): number => Math.max(20, 4 * slotMm);
/** A frustum of a cone, mL. */
const funnelMl = (slotMm: number): number => {
  const top = funnelTopMm(slotMm);
  return (Math.PI * FUNNEL_MM * (top ** 2 + top * slotMm + slotMm ** 2)) / 12_000;
};

/** What the rubber and the jacket behind it call for. */
export const rubberNeeds: NeedsOf = (p) => {
  const { job } = p.dossier;
  const { layout } = p;
  const kind = OPENING[job.mould.opening];
  const parted = kind.halves && layout.kind === "block" && layout.partingAtMm !== null;
  const skin = layout.kind === "skin";
  const square = skin && kind.made === "skin" && !kind.pressed && job.master.shape === "box";
  const last = p.pours.at(-1);
  const jacketParts = jacketPartsOf(p).length;
  const plaster = job.jacket === "plaster" || job.jacket === "plaster-block";
  return [
    parted && { id: "pits", step: "rubber", text: "Fill pits and bubbles in the face of the first half before the second goes on, or the halves lock." },
    parted && {
      id: "tower",
      step: "rubber",
      text: `Second half: put a tower of clay with a hole through it on the highest place, ${mm(TOWER_MM)} over the fill line. What rises in it is air first, then rubber: it is full when no bubbles follow. Press clay into every gap round the first half.`,
    },
    ...(kind.plugs ? job.mould.plugs : [])
      .filter((plug) => plug.diameterMm < NARROW_MM && plug.lengthMm > 2 * plug.diameterMm)
      .map((plug) => ({
        id: `funnel-${plug.name}`,
        step: "rubber" as const,
        text: `${plug.name} is ${mm(plug.diameterMm)} wide and ${mm(plug.lengthMm)} deep: build a funnel of clay over it, ${mm(funnelTopMm(plug.diameterMm))} wide at the top and ${mm(FUNNEL_MM)} high (${quote(funnelMl(plug.diameterMm), "volume")}), and let the rubber run down one side, a thread to draw the air.`,
      })),
    skin && { id: "wipe-board", step: "rubber", text: "Wipe the board between coats, and stand each face level in turn where you can." },
    square && {
      id: "square-edges",
      step: "rubber",
      text: `Rubber draws away from sharp edges. For the last coats stand a form of board round it, ${mm(layout.skinMm)} off each face, and fill that: the edges come out square.`,
    },
    skin &&
      layout.flange !== null &&
      last !== undefined && {
        id: "trim-soft",
        step: "out",
        text: `Trim flanges while they are soft, up to about ${quote(last.cure.demould.hours.low * SOFT_SHARE, "duration")} after the last coat, with scissors; later with a knife.`,
      },
    p.pours.length > 0 && {
      id: "bench-rubber",
      step: "rubber",
      text: "Stir each part in its own tub first. A small hole opposite its spout lets a can run evenly. Tubs in a row that touch, the floor covered, a rag round the drill. What is unmixed never cures on hands and tools: wipe it off, do not wash it.",
    },
    p.pours.length > 0 && {
      id: "leftover",
      step: "rubber",
      text: "Rubber that is over goes into a small mould that waits, or into the freezer to thicken, never down the drain.",
    },
    jacketParts > 1 && {
      id: "jacket-raise",
      step: "box",
      text: "Raise the piece a finger's width off the board, so that the jacket reaches under its edge; number the parts and draw arrows over the joint.",
    },
    jacketParts > 0 &&
      plaster && {
        id: "thick-first",
        step: "box",
        text: "First a thick mix, laid round the foot, seals the form; only then the thin mix, or it runs out below.",
      },
    jacketParts > 1 && {
      id: "seam-sticks",
      step: "box",
      text: "Along the seam lay sticks under the edge and prop them, so that the first part ends in a straight flange; pins or half-balls in it are its keys. Belts hold the parts once both are on.",
    },
    job.mould.framed &&
      job.jacket !== "none" && {
        id: "flat-seat",
        step: "box",
        text: "Strike the jacket off level on top while it is soft: a flat seat for its frame, or it rocks when it is turned.",
      },
    layout.jacket !== null &&
      skin && { id: "skin-in-jacket", step: "out", text: "Keep the skin in its jacket when it stands on the shelf: without it, it takes a set." },
    (kind.cut !== null || (kind.made === "skin" && kind.cutOpen)) && {
      id: "cut-where",
      step: "out",
      text: `Stretch the rubber while you cut, in short strokes, zig-zag or with a bent knife where the wall is thick. Hide the line in the design, never across lettering; ${kind.made === "skin" ? "along bottom, crown and the side nobody sees" : "round the rim only as far as it needs"}.`,
    },
    (kind.halves || kind.cut === "down" || kind.cut === "around" || jacketParts > 1) && {
      id: "test-assembly",
      step: "cast",
      text: "Put it together empty first: chase the seams, trim webs, edges and the mouth, and pick out every crumb of clay. Openings are guides: begin small.",
    },
    (kind.cut === "down" || kind.cut === "around" || (kind.made === "skin" && kind.cutOpen)) && {
      id: "witness",
      step: "out",
      text: "Before you cut, draw marks across the line on the outside of the rubber, each another: they find the faces again when it is closed.",
    },
  ];
};
