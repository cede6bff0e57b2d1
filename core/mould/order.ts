import { JACKET_PRACTICE, type Jacket } from "../material";
import { quote } from "../quantity";
import { OPENING } from "./openings";
import type { MouldDecision } from "./decision";
import type { Layout } from "./layout";

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
    const ready = ["master"];
    const plugs = layout.pours.flatMap((p, i) => (p.plug ? [{ p, i }] : []));
    for (const { p, i } of plugs) {
      add(`plug-${i}`, "rubber", `Cast ${p.name.toLowerCase()} into its hole, flush, with a grip to draw it by.`, {
        release: ["The hole it fills"],
        after: [...ready],
        pour: i,
      });
      ready.push(`plug-${i}`);
    }
    const plugFaces = plugs.length > 0 ? ["Every plug, where rubber meets it"] : [];
    add("box", "box", kind.boxStep, { after: [...ready], waits: plugs.length > 0 ? "until the plugs have cured" : null });
    layout.pours.forEach((p, i) => {
      if (p.plug) return;
      const { before, what, release } = kind.words(p, plugFaces);
      if (before) add(before.id, "rubber", before.what, { waits: cured });
      add(p.part, "rubber", what, { release, pour: i });
    });
    if (jacket !== "none") jacketSteps(add, layout, jacket, cured);
    const { id, what } = kind.free(plugs.length > 0);
    add(id, "out", what, { waits: id === "cut" || jacket === "none" ? cured : null });
    return steps;
  }
  if (layout.kind !== "skin" || kind.made !== "skin") return steps;

  add("board", "box", kind.boardStep(layout.flange ? mm(layout.flange.widthMm) : null));
  layout.pours.forEach((c, i) => {
    const how = c.edges
      ? `${layout.pours.at(-1)?.section ? `Section ${c.section + 1}: b` : "B"}uild up high points, edges and flanges, and smooth the outside with a wet glove so that it seats in its jacket.`
      : kind.pressed
        ? `${c.name}: press it on from the bottom up with wet hands, ${mm(c.thicknessMm)} thick, no folds.`
        : `${c.name}, ${mm(c.thicknessMm)}, ${c.tinted ? "tinted" : "plain"}${c.thickened ? ", thickened" : ""}${c.cloth ? ", with reinforcing cloth laid in" : ""}${i === 0 || layout.pours[i - 1]?.closes ? ": worked into every detail with a soft brush" : ""}.`;
    const begins = i > 0 && layout.pours[i - 1]?.closes === true;
    if (begins)
      add(
        `section-${c.section}`,
        "rubber",
        `Take the fence away${c.section < d.skin.sections - 1 ? ", set it up along the next seam" : ""}, and clean the edge.`,
        { waits: cured },
      );
    add(`coat-${i}`, "rubber", how, {
      pour: i,
      release:
        i === 0
          ? ["The master", ...(layout.flange ? ["The clay fence"] : [])]
          : begins
            ? ["The master, where it is bare", "The flange of the section before: fresh silicone bonds to it"]
            : [],
      waits: i === 0 || begins ? null : "until the coat before is tacky but leaves nothing on a gloved finger",
    });
  });
  if (jacket !== "none") jacketSteps(add, layout, jacket, cured);
  add("free", "out", kind.free(false).what, { waits: jacket === "none" ? cured : "until the jacket has set hard" });
  return steps;
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
        ? `${n === 1 ? "The jacket" : "First part of the jacket"}: ${make.how}${n > 1 ? ` Leave a flange of ${mm(plan?.flangeMm ?? 0)} and cut a notch on one side only, so that parts cannot be swapped.` : ""}`
        : `${i === 1 ? "Second" : i === 2 ? "Third" : "Next"} part of the jacket, against the flange of the one before${plan && plan.bolts > 0 && i === n - 1 ? `; drill ${plan.bolts} bolt holes through both while they are together` : ""}.`,
      {
        release: first ? ["The outside of the rubber"] : ["The flange of the part before"],
        waits: first ? cured : "until the part before has set",
      },
    );
  }
}
