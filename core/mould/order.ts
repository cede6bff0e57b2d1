import { postureOf, type Posture } from "../air";
import { JACKET_PRACTICE, type Jacket } from "../material";
import { quote } from "../quantity";
import { OPENING } from "./openings";
import type { MouldDecision } from "./decision";
import type { Layout } from "./layout";
import { heldBy, standOf, standWords } from "./stands";
import type { CoatPour, SkinLayout } from "./skin";

/** One thing to do, in the order it is done. */
export interface BuildStep {
  id: string;
  what: string;
  /** Step of the route it belongs to. */
  at: "prepare" | "box" | "rubber" | "out";
  /** Surfaces that need release before it, in words. */
  release: readonly string[];
  /** What has to be finished first, by id, and why when it is a wait. */
  after: readonly string[];
  waits: string | null;
  /** The pour or coat it is, by its place among the layout's pours. */
  pour: number | null;
}

const mm = (v: number) => quote(v, "length");

/** How a closed mould is set up that is not filled as it was made. */
const STANDS: Record<Exclude<Posture["name"], "upright">, string> = {
  "head down": "Turn the banded mould over, to be filled through what was its floor.",
  "on its left": "Stand the banded mould on its left side, to be filled from its right.",
  "on its right": "Stand the banded mould on its right side, to be filled from its left.",
  "on its front": "Stand the banded mould on its front, to be filled from its back.",
  "on its back": "Stand the banded mould on its back, to be filled from its front.",
  leaning: "Wedge the banded mould as it is to lean, in dry sand or on clay, so that nothing moves while it is poured.",
};

/**
 * The order of work of a mould: what is done, what needs release, what waits for what. Every pour or coat of the layout is
 * one step of it, and every step waits only for earlier ones.
 */
export function buildOrder(d: MouldDecision, layout: Layout, jacket: Jacket): BuildStep[] {
  const steps: BuildStep[] = [];
  let last: string | null = null;
  const add = (id: string, at: BuildStep["at"], what: string, more: Partial<Pick<BuildStep, "release" | "waits" | "pour" | "after">> = {}) => {
    steps.push({ id, what, at, release: [], waits: null, pour: null, after: last ? [last] : [], ...more });
    last = id;
  };
  const cured = "until it has cured";
  add("master", "prepare", "Seal the master, fill or bridge its holes, fix it to the board so that it cannot float.");
  const kind = OPENING[d.opening];
  if (layout.kind === "block" && kind.made === "block") {
    const plugs = layout.pours.flatMap((p, i) => (p.plug ? [{ p, i }] : []));
    const plugStep = ({ p, i }: (typeof plugs)[number], release: readonly string[], waits: string | null, after?: readonly string[]) =>
      add(`plug-${i}`, "rubber", `Cast ${p.name.toLowerCase()} into its hole, flush, with a grip to draw it by.`, {
        release,
        pour: i,
        waits,
        ...(after ? { after } : {}),
      });
    const first = d.plugsLast ? [] : plugs;
    // Plugs that go in before the rest do not wait for each other; the box waits for all of them.
    for (const plug of first) plugStep(plug, ["The hole it fills"], null, ["master"]);
    const plugFaces = first.length > 0 ? ["Every plug, where rubber meets it"] : [];
    const boxed = layout.pours.find((p) => !p.plug);
    const onItsHead = !boxed?.upsideDown
      ? ""
      : kind.halves
        ? "Stand the master on its head: the part below the parting is poured first. "
        : "Turn the master on its head. ";
    const stopped = d.plugsLast && plugs.length > 0 ? " Stop every hole that gets a plug with clay, flush." : "";
    add("box", "box", `${onItsHead}${kind.boxStep(boxed ? heldBy(d, boxed) : "board")}${stopped}`, {
      after: ["master", ...first.map(({ i }) => `plug-${i}`)],
      waits: first.length > 0 ? "until the plugs have cured" : null,
    });
    layout.pours.forEach((p, i) => {
      if (p.plug) return;
      const { before, what, release } = kind.words(p, plugFaces);
      if (before) add(before.id, "rubber", before.what, { waits: cured });
      add(p.part, "rubber", `${what}${standWords(standOf(d.stands, p.part), p.leant)}`, { release, pour: i });
    });
    if (d.plugsLast && plugs.length > 0) {
      add("unstop", "rubber", "Take the clay out of every hole that gets a plug, from the side it comes out at, and clean it.", { waits: cured });
      for (const plug of plugs) plugStep(plug, ["The hole it fills", "The rubber round its mouth: fresh rubber bonds to it"], null, ["unstop"]);
    }
    if (jacket !== "none") jacketSteps(add, layout, jacket, cured);
    const { id, what } = kind.free(plugs.length > 0);
    add(id, "out", what, { waits: id === "cut" || jacket === "none" ? cured : null });
    const stands = kind.base && d.filling ? postureOf(d.filling.up) : "upright";
    if (stands !== "upright") add("stand", "out", `${STANDS[stands]} Its sprue and vents come out at the top as it stands then.`);
    return steps;
  }
  if (layout.kind !== "skin" || kind.made !== "skin") return steps;

  const fence = layout.flange && !d.skin.seamWall ? mm(layout.flange.widthMm) : null;
  add("board", "box", kind.boardStep(fence));
  layout.pours.forEach((c, i) => {
    if (c.role === "anchors") return;
    const how = howTo(c, layout, kind.pressed, i === 0 || layout.pours[i - 1]?.closes === true || layout.pours[i - 1]?.role === "wall");
    const begins = i > 0 && layout.pours[i - 1]?.closes === true;
    if (begins)
      add(
        `section-${c.section}`,
        "rubber",
        d.skin.seamWall
          ? "Clean the face of the wall that stands at the seam."
          : `Take the fence away${c.section < d.skin.sections - 1 ? ", set it up along the next seam" : ""}, and clean the edge.`,
        { waits: cured },
      );
    add(pourId(c, i), "rubber", how, {
      pour: i,
      release:
        i === 0
          ? ["The master", ...(fence ? ["The clay fence"] : [])]
          : begins
            ? ["The master, where it is bare", "The flange of the section before: fresh silicone bonds to it"]
            : [],
      waits: i === 0 || begins ? null : "until the coat before is tacky but leaves nothing on a gloved finger",
    });
  });
  if (jacket !== "none") jacketSteps(add, layout, jacket, cured);
  layout.pours.forEach((c, i) => {
    if (c.role !== "anchors") return;
    add(
      pourId(c, i),
      "rubber",
      "Scrub the bare rubber in the holes of the tray clean, and fill them with rubber, flush: plugs grow on to the skin and hold it there.",
      {
        pour: i,
        waits: "until the tray has set hard",
      },
    );
  });
  const { id: freeId, what: freeWhat } = kind.free(false);
  add(freeId, "out", freeWhat, { waits: jacket === "none" || layout.pours.at(-1)?.role === "anchors" ? cured : "until the jacket has set hard" });
  return steps;
}

const pourId = (c: CoatPour, i: number): string => (c.role === "anchors" ? "anchors" : `coat-${i}`);

/** What is done for one pour of a skin; `fresh` where the master is still bare. */
function howTo(c: CoatPour, layout: SkinLayout, pressed: boolean, fresh: boolean): string {
  if (c.role === "wall")
    return `${c.name}: raise it along the seam on the master's own face, ${mm(layout.flange?.widthMm ?? 0)} high and ${mm(c.thicknessMm)} thick, keys pressed in; it stays as the flange, and the coats go over it.`;
  if (c.role === "edges")
    return `${layout.pours.at(-1)?.section ? `Section ${c.section + 1}: b` : "B"}uild up high points, edges and flanges, and smooth the outside with a wet glove so that it seats in its jacket.`;
  if (pressed) return `${c.name}: press it on from the bottom up with wet hands, ${mm(c.thicknessMm)} thick, no folds.`;
  return `${c.name}, ${mm(c.thicknessMm)}, ${c.tinted ? "tinted" : "plain"}${c.thickened ? ", thickened" : ""}${c.cloth ? ", with reinforcing cloth laid in" : ""}${fresh ? ": worked into every detail with a soft brush" : ""}.`;
}

function jacketSteps(
  add: (id: string, at: BuildStep["at"], what: string, more?: Partial<Pick<BuildStep, "release" | "waits" | "pour" | "after">>) => void,
  layout: Layout,
  jacket: Exclude<Jacket, "none">,
  cured: string,
): void {
  const plan = layout.jacket;
  const make = JACKET_PRACTICE[jacket];
  const parts = plan?.parts ?? 2;
  const n = jacket === "timber" && layout.kind === "block" ? 1 : parts;
  for (let i = 0; i < n; i++) {
    const first = i === 0;
    add(
      `jacket-${i}`,
      "box",
      first
        ? `${n === 1 ? "The jacket" : "First part of the jacket"}: ${make.how}${plan && plan.anchors.count > 0 ? ` Leave ${plan.anchors.count} holes of ${mm(plan.anchors.diameterMm)} through it, about every ${mm(plan.anchors.everyMm)}.` : ""}${plan && plan.timberMm > 0 && jacket !== "timber" ? " Bed the timber frame into its back before it sets." : ""}${n > 1 ? ` Leave a flange of ${mm(plan?.flangeMm ?? 0)} and cut a notch on one side only, so that parts cannot be swapped.` : ""}`
        : `${i === 1 ? "Second" : i === 2 ? "Third" : "Next"} part of the jacket, against the flange of the one before${plan && plan.bolts > 0 && i === n - 1 ? `; drill ${plan.bolts} bolt holes through both while they are together` : ""}.`,
      {
        release: first ? ["The outside of the rubber"] : ["The flange of the part before"],
        waits: first ? cured : "until the part before has set",
      },
    );
  }
}
