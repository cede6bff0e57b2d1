import { api } from "../contract";
import { RackFilter, type Lesson, type MouldPage, type PourAdvice, type RackLine } from "../contract/log";
import { randomUUID } from "node:crypto";
import QRCode from "qrcode";
import { fillingAlong } from "../core/body";
import { buildScene } from "../core/draw";
import { OPENING, type MouldDecision } from "../core/mould";
import { Changed, FAULTS, isCasting, OUTCOME_WORD, type FaultKey, type FaultMark, type Plan } from "../core/plan";
import type { Cut } from "../core/weigh";
import { adviseNext, betweenCavities, costPerGood, didHelp, howSure, expectedCasts, lifeLeft } from "../core/rack";
import { type MouldLine } from "../core/log";
import { eventsOfMould, insertEvent } from "../db/events";
import { cutsLike, castNumber, changeMould, listRack, mouldCasts, mouldCost, readMould } from "../db/moulds";
import type { Pour } from "../core/log";
import { heatFactor, type Trial } from "../core/gating";
import { gateState, lanUrl } from "./gate";
import { orOdd } from "./odd";
import { parseOrRefuse } from "./parse";
import { planOfPour } from "./plans";
import { getPour } from "./pours";
import { refuseStale } from "./stale";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;
export const RACK_PAGE = 60;

const withLife = (m: MouldLine): RackLine => {
  const life = m.expected ?? expectedCasts(m.rubberFamily, m.castFamily);
  return { ...m, life, left: life && lifeLeft(life, m.casts, { good: m.good, judged: m.good + m.flawed + m.failed }) };
};

export function rack(w: Workshop, asked: unknown): { moulds: RackLine[]; total: number; filter: RackFilter } {
  const query = parseOrRefuse(api.rack.list.in, asked);
  const filter = RackFilter.parse({ text: query.text ?? "", which: query.which ?? "use", page: query.page ?? 0 });
  const { moulds, total } = listRack(w.db, { ...filter, pageSize: RACK_PAGE });
  return { moulds: moulds.map(withLife), total, filter };
}

export function findMould(w: Workshop, id: string): MouldLine {
  const m = readMould(w.db, id);
  if (!m) throw new Refusal(404, "no-mould", "There is no such mould on the rack.");
  return m;
}

const castsOf = (w: Workshop, id: string): MouldPage["casts"] =>
  mouldCasts(w.db, id).map((c) => {
    const { id: pourId, pouredAt, outcome, sprueMm, faults, changed } = c;
    return { id: pourId, pouredAt, outcome, sprueMm, faults, changed, helped: didHelp(changed?.key ?? null, c) };
  });

/** A mould's own page: what it is, where it lives, and its history. */
export function mouldPage(w: Workshop, id: string): MouldPage {
  const m = findMould(w, id);
  const cost = mouldCost(w.db, m);
  return {
    mould: withLife(m),
    casts: castsOf(w, id),
    cutsLike: cutsLike(w.db, id),
    cost,
    costPerGood: costPerGood(cost, m.good),
    labelUrl: lanUrl(`/rack/${id}`),
    events: eventsOfMould(w.db, id),
  };
}

export function updateMould(w: Workshop, id: string, body: unknown): MouldPage {
  const { retired, was, ...change } = parseOrRefuse(api.rack.change.in, body);
  const m = findMould(w, id);
  refuseStale(was, change, m, "This mould", () => mouldPage(w, id));
  w.db.transaction(() => {
    changeMould(w.db, id, { ...change, ...(retired === undefined ? {} : { retiredAt: retired ? (m.retiredAt ?? w.now()) : null }) });
    if (retired !== undefined && retired !== (m.retiredAt !== null))
      insertEvent(w.db, { id: randomUUID(), jobId: m.jobId, mouldId: id, pourId: null, at: w.now(), what: { kind: retired ? "retired" : "back" } });
  });
  return mouldPage(w, id);
}

/** A picture that opens a mould's page: on the network where tablets are let in, else on this machine. */
export async function mouldLabel(w: Workshop, id: string, own: string): Promise<{ mould: MouldLine; url: string; svg: string; open: boolean }> {
  const mould = findMould(w, id);
  const url = lanUrl(`/rack/${id}`) ?? `${own}/rack/${id}`;
  return { mould, url, open: gateState(w).open, svg: await QRCode.toString(url, { type: "svg", margin: 0, errorCorrectionLevel: "M" }) };
}

/** How much of a casting came that fell short, by the lowest place it was marked at on the section, as it stood while it was filled; null where nobody marked it. */
function shareFilled(marks: readonly FaultMark[], judged: Plan | null, floor: number, top: number): number | null {
  const short = marks.filter((k) => k.fault === "short-fill").map((k) => k.zMm);
  if (short.length === 0 || !judged?.body || !(top > floor)) return null;
  const height = Math.min(1, Math.max(0, (Math.min(...short) - floor) / (top - floor)));
  const fills = fillingAlong(judged.body, judged.dossier.job.mould.filling?.up ?? [0, 0, 1]);
  const end = fills.at(-1);
  const at = fills.findIndex((f) => f.mm >= height * (end?.mm ?? 0));
  return end && end.ml > 0 ? Math.min(1, (fills[Math.max(0, at)]?.ml ?? 0) / end.ml) : null;
}

/** What is known of how one casting was made; null where nobody told it. */
type Made = Pick<ReturnType<typeof mouldCasts>[number], "sprueMm" | "ventMm" | "vents" | "meltC" | "tookS" | "shopC">;
const madeOf = ({ snapshot: { actual: a } }: Pour): Made => ({
  sprueMm: a?.sprueMm ?? null,
  ventMm: a?.ventMm ?? null,
  vents: a?.vents ?? null,
  meltC: a?.meltC ?? null,
  tookS: a?.tookS ?? null,
  shopC: a?.shopC ?? null,
});

/** What one casting teaches of its mould: its cut and how far it got, at the temperatures it was poured at; nothing where nobody told the cut. */
function trialOf(c: Made & { faults: readonly FaultKey[] }, judged: Plan | null, share: number | null): Trial[] {
  if (c.sprueMm === null) return [];
  const freezing = judged?.gates?.question.freezing;
  const heat = freezing ? heatFactor(freezing, { pourC: c.meltC, mouldC: c.shopC }) : 1;
  const vents = c.vents !== null && (c.vents === 0 || c.ventMm !== null) ? { count: c.vents, diameterMm: c.ventMm ?? 0 } : null;
  return [{ chokeMm: c.sprueMm, vents, full: !c.faults.includes("short-fill"), share, heat, gulped: c.faults.includes("gulp"), tookS: c.tookS }];
}

/** What to change after a pour, worked out from its faults and the numbers frozen with it. */
export function pourAdvice(w: Workshop, pour: Pour): PourAdvice {
  const judged = planOfPour(w, pour.id);
  const job = judged?.dossier.job;
  const stage = isCasting(pour.kind) ? ("cast" as const) : pour.pourIndex > 0 ? ("pour1" as const) : ("pour0" as const);
  const scene = judged && job ? buildScene({ plan: judged, mould: job.mould, stage, panelMm: 5 }) : null;
  const [floor, top] = scene ? [scene.master.fromMm, scene.master.toMm] : [0, 1];
  const m = pour.mouldId ? readMould(w.db, pour.mouldId) : null;
  const casts = m ? castsOf(w, m.id).filter((c) => c.pouredAt < pour.pouredAt) : [];
  const before = m ? mouldCasts(w.db, m.id).filter((c) => c.pouredAt < pour.pouredAt) : [];
  const heat = judged?.chain.links.filter((l) => l.contact === "rubber-cast").flatMap((l) => l.findings.filter((f) => f.ruleId.startsWith("heat")));
  const changed = pour.changed?.key ?? null;
  const next = adviseNext({
    faults: pour.faults,
    marks: pour.marks.map((k) => ({ fault: k.fault, height: top > floor ? Math.min(1, Math.max(0, (k.zMm - floor) / (top - floor))) : 0.5 })),
    frozen: pour.snapshot,
    openedH: pour.openedAt === null ? null : (pour.openedAt - pour.pouredAt) / HOUR,
    castNumber: pour.kind === "cast" && pour.mouldId ? castNumber(w.db, pour.mouldId, pour.pouredAt) : null,
    expected: m && withLife(m).life,
    openBack: job !== undefined && pour.kind === "cast" && isOpenBack(job.mould),
    atHeatLimit: heat?.some((f) => f.verdict !== "sound") ?? false,
    doubts: judged ? judged.chain.links.filter((l) => l.contact.endsWith("-rubber") && l.verdict !== "sound").map((l) => l.between.join(" on ")) : [],
    gates: judged?.gates?.question ?? null,
    trials: [...before, { ...madeOf(pour), outcome: pour.outcome, faults: pour.faults, marks: pour.marks }]
      .filter((c) => c.outcome !== null)
      .flatMap((c): Trial[] => trialOf(c, judged, shareFilled(c.marks, judged, floor, top))),
    tried: [...casts.filter((c) => c.helped === false).map((c) => c.changed?.key ?? ""), ...(didHelp(changed, pour) === false ? [changed ?? ""] : [])],
  });
  const all = m ? castsOf(w, m.id) : [];
  const between = pour.each && betweenCavities(pour.each);
  return {
    next: between ? [between, ...next] : next,
    helped: didHelp(changed, pour),
    sure: sureOf(
      changed,
      all.filter((c) => c.pouredAt <= pour.pouredAt),
    ),
    scene,
  };
}

/** Filled through its open back: no sprue, no vents. */
const isOpenBack = (d: MouldDecision): boolean => {
  const kind = OPENING[d.opening];
  return kind.made === "block" && !kind.base;
};

/** How sure it is that a change helped, from the castings of one mould in order, the last of them the one asked about. */
function sureOf(key: string | null, casts: readonly { outcome: string | null; faults: readonly FaultKey[]; changed: Changed | null }[]): string {
  const fault = key?.includes("/") ? key.split("/")[0] : undefined;
  if (!fault) return "";
  const judged = casts.filter((c) => c.outcome !== null);
  // A change made again, such as a sprue opened further, counts from when it was made last.
  const since = judged.findLastIndex((c) => c.changed?.key === key);
  if (since < 0 || judged.slice(since).some((c) => c.faults.some((f) => f === fault))) return "";
  return howSure(judged.length - since, judged.slice(0, since).filter((c) => c.faults.some((f) => f === fault)).length);
}

/** What the last casting of a mould taught; null where none has come out yet. */
export function lessonFor(w: Workshop, mouldId: string | null): Lesson | null {
  if (!mouldId) return null;
  const last = mouldCasts(w.db, mouldId)
    .filter((c) => c.outcome !== null)
    .at(-1);
  // Advice leans on a pour that may not be readable; the batch at hand does not.
  const pour = last ? orOdd(() => getPour(w, last.id).pour) : null;
  if (!pour?.outcome) return null;
  const { next, sure } = pourAdvice(w, pour);
  const faults = pour.faults.map((f) => FAULTS[f].toLowerCase()).join(", ");
  return {
    pourId: pour.id,
    pouredAt: pour.pouredAt,
    line: `${OUTCOME_WORD[pour.outcome]}${faults ? `: ${faults}` : ""}.`,
    change: pour.outcome === "good" ? null : (next[0] ?? null),
    sure,
  };
}

/** Sprue and vents as they were cut for the last casting of a mould; null where nobody wrote them down. */
export function lastCutOf(w: Workshop, mouldId: string | null): Cut | null {
  if (!mouldId) return null;
  for (const c of mouldCasts(w.db, mouldId).toReversed()) {
    const actual = orOdd(() => getPour(w, c.id).pour)?.snapshot.actual;
    // How hot it was, and how long it took, is told anew each time.
    if (actual && (actual.sprueMm !== null || actual.vents > 0))
      return { sprueMm: actual.sprueMm, ventMm: actual.ventMm, vents: actual.vents, meltC: null, tookS: null };
  }
  return null;
}
