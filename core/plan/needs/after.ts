import { OPENING } from "../../mould";
import { CAST_FAMILY } from "../../material";
import { grams, mm, type NeedsOf } from "./kind";

/** A stretch of its opening past which it is freed all round first. */
const TIGHT = 0.05;
/** Wick over a candle as it is lit, mm: usual. */
const WICK_TOP_MM = 6;
/** Fixings bear so many times what hangs on them: usual practice; local codes decide. */
const HANGS = 4;

/** From the pour to the finished piece, in the order it is done. */
export const afterNeeds: NeedsOf = (p) => {
  const { job } = p.dossier;
  const { cast, weights } = p;
  if (!cast) return [];
  const kind = OPENING[job.mould.opening];
  const laid = p.layers.some((l) => l.coat && l.way !== "poured" && l.way !== "back");
  const mineral = cast.family === "cement" || cast.family === "gypsum";
  const fibre = p.layers.some((l) => (l.coat?.layer.fibrePct ?? 0) > 0);
  const { finished } = p.castCure ?? {};
  return [
    kind.halves &&
      laid && {
        id: "close-halves",
        step: "out",
        when: "poured",
        hold: true,
        text: "Clean the seams of both halves, and close them when the mix has gelled and runs no more. Roll it slowly, so that a last thin mix runs over the seam inside. Stand its feet on a greased board.",
      },
    cast.family === "wax" &&
      job.use === "burns" && {
        id: "top-up",
        step: "out",
        when: "poured",
        text: "Keep some of the same wax molten: poke the skin open round the wick and top it up once it has sunk.",
      },
    cast.family === "cement" && {
      id: "keep-moist",
      step: "out",
      when: "poured",
      text: "Cover it with film against the wall of the mould: cement that dries on its first day stays weak and dusts.",
    },
    p.strength !== null &&
      p.strength.stretch.known &&
      p.strength.stretch.strain > TIGHT && {
        id: "open",
        step: "out",
        when: "poured",
        text: "Open it from one edge, then the other, loosened all round first; a towel under it. Blow in with a straw or a tube before you pull. Take the rubber off a thin limb, never the limb out of the rubber.",
      },
    mineral && {
      id: "edges-soft",
      step: "out",
      when: "opened",
      text: "Pare flash and the pouring face now, while it still cuts like cheese; tomorrow it takes a rasp.",
    },
    job.inside.layers.some((l) => l.coats > 1 || l.way !== "poured") && {
      id: "against-light",
      step: "out",
      when: "opened",
      text: "Hold a thin casting against the light: what shines through wants another coat from inside.",
    },
    mineral && {
      id: "patch-wet",
      step: "out",
      when: "opened",
      text: "Patch holes within the first day: soak the place, and use a thicker mix of the same, across and along.",
    },
    (cast.family === "resin" || fibre) && {
      id: "razors",
      step: "out",
      when: "opened",
      hold: true,
      text: "Edges and whiskers of resin and glass cut: gloves when you trim.",
    },
    CAST_FAMILY[cast.family].dries && {
      id: "dry-first",
      step: "out",
      when: "opened",
      text: "Dry it in moving air, off its back on two sticks. Weigh it once a day: it is dry when the weight stays.",
    },
    (job.finish === "paint" || job.finish === "glue") && {
      id: "degrease",
      step: "out",
      when: "opened",
      hold: true,
      text: `${finished?.name === "Dry" ? "Once it is dry, wash" : "Wash"} release and silicone off with what the maker of the release names, and try ${job.finish === "glue" ? "the glue" : "the paint or stain"} on the back first.`,
    },
    (job.finish === "seal" || job.use === "outdoors") &&
      mineral && {
        id: "seal",
        step: "out",
        when: "opened",
        text: "Seal it once it is dry through, the back as well, two thin coats; water that is shut in lifts the seal.",
      },
    cast.family === "wax" &&
      job.use === "burns" && {
        id: "trim-wick",
        step: "out",
        when: "opened",
        text: `Trim the wick flush below and to ${mm(WICK_TOP_MM)} on top, and pare the foot until it stands level.`,
      },
    job.use === "hung" && {
      id: "hanging",
      step: "out",
      when: "opened",
      hold: true,
      text: `Hanging: a slanted hole or a loop cast in, and a paper template of ${mm(p.body.lengthMm)} × ${mm(p.body.widthMm)} for the wall, one bracket on the middle line or two ${mm(p.body.lengthMm / 4)} from either edge, ${mm(p.body.widthMm / 4)} below the top (usual)${weights ? `; it weighs ${grams(weights.castDryG)} finished, so fixings for at least ${HANGS} times that, ${grams(HANGS * weights.castDryG)}` : ""}. Local codes decide over a bed or a way.`,
    },
  ];
};
