import type { Plan, PourKind } from "../plan";
import { jacketPartsOf } from "../plan";
import type { Pour } from "./pour";

/** One thing that is laid on, poured or opened, in the order of work. */
export interface Act {
  kind: PourKind;
  index: number;
  name: string;
}

/** Where a job's newest mould stands, and what comes next. Times in ms. */
export interface Standing {
  /** Parts of the mould being built, with the pour that made each; null where it is not begun. */
  parts: readonly { act: Act; pour: Pour | null }[];
  /** All of its rubber is poured. */
  made: boolean;
  next: Act | null;
  /** The pour the next act waits for, from when it may be done, and until when, where there is a window. */
  after: Pour | null;
  fromAt: number | null;
  toAt: number | null;
  /** A casting that stands in the mould and is not opened. */
  inside: Pour | null;
}

const HOUR = 3_600_000;

/** A pour that came out failed is as if it had not been made. */
const counts = (p: Pour): boolean => p.outcome !== "failed";

/** The parts of a mould in the order of work: rubber, then its jacket, then what goes through that. */
function partsOf(plan: Plan): Act[] {
  const rubber = plan.pours.map((p, index): Act & { last: boolean } => ({
    kind: "rubber",
    index,
    name: p.name,
    last: p.kind === "coat" && p.role === "anchors",
  }));
  const act = ({ kind, index, name }: Act): Act => ({ kind, index, name });
  return [
    ...rubber.filter((r) => !r.last).map(act),
    ...jacketPartsOf(plan).map((p, index): Act => ({ kind: "jacket", index, name: p.name })),
    ...rubber.filter((r) => r.last).map(act),
  ];
}

/** The mould a job casts in by its log; null while none is made, or rubber for another one is poured. */
export function mouldInUse(pours: readonly Pour[]): string | null {
  const last = pours
    .filter((p) => p.kind === "rubber" && counts(p))
    .sort((a, b) => a.pouredAt - b.pouredAt)
    .at(-1);
  return last?.mouldId ?? null;
}

/** Pours of the build that is under way, or of the newest mould: those since the last mould was made. */
function ofThisBuild(pours: readonly Pour[]): Pour[] {
  const build = pours.filter((p) => p.kind === "rubber" || p.kind === "jacket").sort((a, b) => a.pouredAt - b.pouredAt);
  let from = 0;
  let made = false;
  build.forEach((p, i) => {
    if (p.kind !== "rubber") return;
    // The last rubber of a mould carries it; rubber after that is another mould.
    if (made) from = i;
    made = p.mouldId !== null;
  });
  return build.slice(from).filter(counts);
}

/**
 * Where a job stands by its log: which parts of its newest mould are made, what comes next and from when. Castings follow once the
 * rubber is all poured; a jacket that is not in the log yet is offered first, but holds nobody up.
 * @param pours of the job, in any order
 */
export function standOf(plan: Plan, pours: readonly Pour[]): Standing {
  const mine = ofThisBuild(pours);
  // A mould that was there before has no parts to be made, until rubber for another one is poured.
  const there = plan.dossier.job.mould.existed && mine.length === 0;
  const parts = (there ? [] : partsOf(plan)).map((act) => ({ act, pour: mine.find((p) => p.kind === act.kind && p.pourIndex === act.index) ?? null }));
  const rubber = parts.filter((p) => p.act.kind === "rubber");
  const made = there || (rubber.length > 0 && rubber.every((p) => p.pour !== null));
  const mouldId = rubber.map((p) => p.pour?.mouldId ?? null).find((id) => id !== null) ?? null;
  const casts = pours
    .filter((p) => (p.kind === "cast" || p.kind === "layer") && (mouldId === null || p.mouldId === mouldId || p.mouldId === null) && counts(p))
    .sort((a, b) => a.pouredAt - b.pouredAt);
  const begun = Math.max(...mine.map((p) => p.pouredAt), 0);
  const since = casts.filter((p) => p.pouredAt >= (made ? begun : Infinity));
  const last = since.at(-1) ?? null;
  const inside = last?.kind === "cast" && last.openedAt === null ? last : null;
  const nothing = { parts, made, next: null, after: null, fromAt: null, toAt: null, inside };

  const open = parts.findIndex((p) => p.pour === null);
  if (open >= 0 && last === null) {
    const { act } = parts[open]!;
    const before = parts[open - 1]?.pour ?? null;
    return { ...nothing, next: act, after: before, ...windowAfter(plan, before) };
  }
  if (plan.layers.length === 0 || !made) return nothing;
  if (inside) return { ...nothing, after: inside, fromAt: inside.readyAt };
  // Layers since the last casting of this mould.
  const layers = since.slice(since.map((p) => p.kind).lastIndexOf("cast") + 1);
  const k = Math.min(layers.length, plan.layers.length - 1);
  const isLast = k === plan.layers.length - 1;
  const layer = plan.layers[k]!;
  const before = layers.at(-1) ?? (since.length === 0 ? (rubber.at(-1)?.pour ?? null) : null);
  return {
    ...nothing,
    next: { kind: isLast ? "cast" : "layer", index: isLast ? 0 : k, name: layer.coat ? `${layer.name}, ${layer.cast.name.toLowerCase()}` : layer.cast.name },
    after: before,
    fromAt: before && before.openedAt === null ? before.readyAt : null,
  };
}

/** From when, and until when, what follows a pour may be done. */
function windowAfter(plan: Plan, before: Pour | null): { fromAt: number | null; toAt: number | null } {
  if (!before || before.openedAt !== null) return { fromAt: null, toAt: null };
  const planned = before.kind === "rubber" ? plan.pours[before.pourIndex] : undefined;
  return {
    fromAt: before.readyAt,
    toAt: planned?.wait.until === "recoat" ? before.pouredAt + planned.cure.tack.closes.typical * HOUR : null,
  };
}
