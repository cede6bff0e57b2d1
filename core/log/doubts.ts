import { quote } from "../quantity";
import { pastWords } from "../material";
import type { Plan, PourKind } from "../plan";
import type { Pour } from "./pour";
import { standOf } from "./stand";
import { materialOf } from "./takes";

/** Why one would ask before an act, and its key. Everything here is asked once, then done and written down. */
export interface Doubt {
  key: "do-not" | "past-date" | "out-of-order" | "too-soon" | "too-late" | "still-in" | "again" | "not-done" | "torn";
  message: string;
}

const nameOf = ({ dossier: { materials } }: Plan, id: string): string => [...materials.rubbers, ...materials.casts].find((m) => m.id === id)?.name ?? "it";

const HOUR = 3_600_000;
const hours = (ms: number): string => quote(Math.max(0, ms) / HOUR, "duration");

/**
 * What speaks against a pour at a moment: a contact that is a do-not, a step that is not in the log, a wait that is not over or
 * a window that is, a casting still in the mould.
 * @param at ms
 */
export function pourDoubts(plan: Plan, pours: readonly Pour[], kind: PourKind, index: number, at: number): Doubt[] {
  const doubts: Doubt[] = [];
  const forbidden = plan.chain.links.find((l) => l.verdict === "no");
  const reason = forbidden?.findings.find((f) => f.verdict === "no");
  if (reason) doubts.push({ key: "do-not", message: `The verdict is “Do not”. ${reason.reason} ${reason.remedy}` });

  const materialId = materialOf(plan, kind, index);
  const old = plan.dossier.materials.shelved?.find((x) => x.materialId === materialId && x.past && !x.fresher);
  if (old) doubts.push({ key: "past-date", message: pastWords(old, nameOf(plan, old.materialId)) });

  const stand = standOf(plan, pours);
  const building = kind === "rubber" || kind === "jacket";
  if (building) {
    const place = stand.parts.findIndex((p) => p.act.kind === kind && p.act.index === index);
    // Once a mould is made, its first pour begins another one.
    const another = stand.made && place === 0;
    const mine = stand.parts[place];
    if (mine?.pour && !another)
      doubts.push({ key: "again", message: `${mine.act.name} is in the log already, ${hours(at - mine.pour.pouredAt)} ago. Is it another one?` });
    const before = another ? undefined : stand.parts[place - 1];
    if (before && !before.pour) doubts.push({ key: "out-of-order", message: `${before.act.name} comes before it, and is not in the log.` });
    if (before?.pour) doubts.push(...waitOf(plan, before.pour, at));
    return doubts;
  }
  if (stand.inside && at > stand.inside.pouredAt)
    doubts.push({
      key: "still-in",
      message: `${stand.inside.snapshot.what}, poured ${hours(at - stand.inside.pouredAt)} ago, is not opened: is it still in the mould?`,
    });
  const rubber = stand.parts.filter((p) => p.act.kind === "rubber");
  const missing = rubber.find((p) => p.pour === null);
  // A mould from before this application has no rubber in the log at all: nothing is asked of it.
  if (missing && rubber.some((p) => p.pour)) doubts.push({ key: "out-of-order", message: `${missing.act.name} of the mould is not in the log yet.` });
  const wet = rubber.flatMap((p) => (p.pour && p.pour.openedAt === null && p.pour.readyLowAt > at ? [p.pour] : [])).sort((a, b) => b.readyAt - a.readyAt)[0];
  if (wet)
    doubts.push({
      key: "too-soon",
      message: `${wet.snapshot.what} still cures: ready in ${hours(wet.readyAt - at)}, at the earliest in ${hours(wet.readyLowAt - at)}.`,
    });
  if (stand.after && (stand.after.kind === "layer" || stand.next?.kind === "layer") && stand.after.readyLowAt > at && stand.after.kind !== "rubber")
    doubts.push({
      key: "too-soon",
      message: `${stand.after.snapshot.what} is still wet: the next follows in ${hours(stand.after.readyAt - at)}, at the earliest in ${hours(stand.after.readyLowAt - at)}.`,
    });
  return doubts;
}

/** What the pour before says of what follows it at a moment. */
function waitOf(plan: Plan, before: Pour, at: number): Doubt[] {
  if (before.openedAt !== null) return [];
  const planned = before.kind === "rubber" ? plan.pours[before.pourIndex] : undefined;
  const recoats = planned?.wait.until === "recoat";
  if (at < before.readyLowAt)
    return [
      {
        key: "too-soon",
        message: recoats
          ? `${before.snapshot.what} is still wet: it takes the next coat in about ${hours(before.readyAt - at)}, at the earliest in ${hours(before.readyLowAt - at)}.`
          : `${before.snapshot.what} still cures: ready in ${hours(before.readyAt - at)}, at the earliest in ${hours(before.readyLowAt - at)}.`,
      },
    ];
  const closes = recoats ? before.pouredAt + (planned?.cure.tack.closes.high ?? Infinity) * HOUR : Infinity;
  return at > closes
    ? [
        {
          key: "too-late",
          message: `${before.snapshot.what} is past its window by ${hours(at - closes)}: the next coat may not hold on it. Scuff it, wipe it, and try a corner.`,
        },
      ]
    : [];
}

/**
 * What speaks against a pour having been made at another moment than was written down first: the log as it stood then, and what is
 * built on it.
 */
export function movedDoubts(plan: Plan, pours: readonly Pour[], pour: Pour, at: number): Doubt[] {
  const others = pours.filter((p) => p.id !== pour.id);
  const then = others.filter((p) => p.pouredAt < at).map((p) => ({ ...p, openedAt: p.openedAt !== null && p.openedAt <= at ? p.openedAt : null }));
  const built = others
    .filter((p) => p.kind === pour.kind && p.pourIndex > pour.pourIndex && p.pouredAt > pour.pouredAt && p.pouredAt <= at)
    .sort((a, b) => a.pouredAt - b.pouredAt)[0];
  return [
    ...(built && (pour.kind === "rubber" || pour.kind === "jacket")
      ? [{ key: "out-of-order" as const, message: `${built.snapshot.what} went on it ${hours(at - built.pouredAt)} before that, by the log.` }]
      : []),
    ...pourDoubts(plan, then, pour.kind, pour.pourIndex, at),
  ];
}

/** Steps of a casting that nothing goes on without, and that nobody ticked. */
export const undoneDoubts = (steps: readonly { id: string; text: string; hold?: boolean; when?: string }[], done: ReadonlySet<string>): Doubt[] =>
  steps.filter((s) => s.hold && s.when === "poured" && !done.has(s.id)).map((s) => ({ key: "not-done", message: `Not ticked yet: ${s.text}` }));

/** A mould that tore and was not mended since. */
export const tornDoubts = (torn: boolean): Doubt[] =>
  torn ? [{ key: "torn", message: "The mould tore, and nothing says that it was mended: what is cast in it may leak, and tear it further." }] : [];

/** What speaks against opening a pour at a moment. */
export function openDoubts(pour: Pour, at: number): Doubt[] {
  return pour.openedAt === null && at < pour.readyLowAt
    ? [
        {
          key: "too-soon",
          message: `That is ${hours(pour.readyAt - at)} early: ready at the earliest ${hours(pour.readyLowAt - pour.pouredAt)} after the pour.`,
        },
      ]
    : [];
}
