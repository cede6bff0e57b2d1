import { FINISHES, JACKETS, pick, SEALINGS, type Catalogue } from "../material";
import { HELD_LABEL, judgeChain, type FitQuestion, type HeatOf } from "./chain";
import { VERDICTS, type Verdict } from "./verdict";

/** What a change may touch: the master and what the piece is for are given. */
export type ChainPatch = Partial<Omit<FitQuestion, "surfaceId" | "use">>;

/** One way to make a chain better: what to change, in words, and where it leads. */
export interface Change {
  patch: ChainPatch;
  words: string;
  verdict: Verdict;
  /** How much of the job it changes: a release is little, another cast is nearly another job. */
  cost: number;
}

/** What changing each thing costs the person, in steps of about one more thing to do. */
const COST = {
  releaseId: 1,
  sealerId: 1,
  clayId: 1,
  sealing: 1,
  boxId: 2,
  washedToday: 2,
  jacket: 2,
  finish: 2,
  secondRubberId: 3,
  rubberId: 4,
  held: 6,
  castId: 8,
} as const;
/** What the workshop has already costs a little less than what it would have to buy. */
const OWN_BONUS = 0.5;

const rank = (v: Verdict): number => VERDICTS.indexOf(v);

type Option = Omit<Change, "verdict">;
const option = (patch: ChainPatch, words: string, cost: number): Option => ({ patch, words, cost });
const joined = (a: Option, b: Option): Option => option({ ...a.patch, ...b.patch }, `${a.words}, and ${b.words}`, a.cost + b.cost);
const keys = <K extends string>(of: Record<K, unknown>): K[] => Object.keys(of) as K[];

function options(q: FitQuestion, catalogue: Catalogue): Option[] {
  const own = (id: string) => (id.startsWith("own-") ? OWN_BONUS : 0);
  const coats = (key: "releaseId" | "sealerId", role: "release" | "sealer") =>
    catalogue.releases
      .filter((r) => r.role === "both" || r.role === role)
      .map((r) => option({ [key]: r.id }, `${role === "release" ? "release" : "seal"} with ${r.name.toLowerCase()}`, COST[key] - own(r.id)));
  const releases = coats("releaseId", "release");
  const sealers = coats("sealerId", "sealer");
  const second = q.secondRubberId !== null;
  const rubbers = catalogue.rubbers.map((r) =>
    option({ rubberId: r.id, ...(second ? { secondRubberId: r.id } : {}) }, `pour ${r.name}`, COST.rubberId - own(r.id)),
  );
  return [
    ...releases,
    option({ releaseId: null }, "use no release", COST.releaseId),
    ...sealers,
    ...sealers.flatMap((a) => releases.map((b) => joined(a, b))),
    ...rubbers,
    ...rubbers.flatMap((a) => releases.map((b) => joined(a, b))),
    ...(q.clayId === null
      ? []
      : catalogue.surfaces
          .filter((s) => s.traits.includes("clay"))
          .map((s) => option({ clayId: s.id }, `build the parting from ${s.name.toLowerCase()}`, COST.clayId - own(s.id)))),
    ...(second ? catalogue.rubbers.map((r) => option({ secondRubberId: r.id }, `pour the second half in ${r.name}`, COST.secondRubberId - own(r.id))) : []),
    ...catalogue.boxes.map((b) => option({ boxId: b.id }, `build the box from ${b.name.toLowerCase()}`, COST.boxId - own(b.id))),
    ...keys(SEALINGS)
      .filter((k) => k !== "none")
      .map((k) => option({ sealing: k }, `seal the seams with ${SEALINGS[k].label.toLowerCase()}`, COST.sealing)),
    ...keys(JACKETS).map((k) =>
      option({ jacket: k }, k === "none" ? "do without a jacket" : `make the jacket of ${JACKETS[k].label.toLowerCase()}`, COST.jacket),
    ),
    ...keys(FINISHES).map((k) => option({ finish: k }, `finish: ${FINISHES[k].label.toLowerCase()}`, COST.finish)),
    ...(q.washedToday ? [option({ washedToday: false }, "dry the mould warm overnight and pour tomorrow", COST.washedToday)] : []),
    ...(q.held === "new" ? [] : [option({ held: "new" }, `make a new mould (this one has held: ${HELD_LABEL[q.held].toLowerCase()})`, COST.held)]),
    ...catalogue.casts.map((c) => option({ castId: c.id }, `cast ${c.name.toLowerCase()}`, COST.castId - own(c.id))),
  ];
}

const entries = (patch: ChainPatch) => Object.entries(patch) as [keyof ChainPatch, unknown][];

/**
 * The cheapest changes that make a chain better: best outcome first, then least change. A change that contains a cheaper one
 * leading as far is left out. At most `most` of them.
 */
export function cheapestChanges(q: FitQuestion, catalogue: Catalogue, heatOf?: HeatOf, most = 4): Change[] {
  const now = judgeChain(q, catalogue, heatOf).verdict;
  if (now === "sound" || pick(catalogue.rubbers, q.rubberId) === null) return [];
  const better = options(q, catalogue)
    .filter((o) => entries(o.patch).some(([k, v]) => q[k] !== v))
    .map((o): Change => ({ ...o, verdict: judgeChain({ ...q, ...o.patch }, catalogue, heatOf).verdict }))
    .filter((c) => rank(c.verdict) < rank(now))
    .sort((a, b) => rank(a.verdict) - rank(b.verdict) || a.cost - b.cost);
  // The piece stays what it is for as long as anything else helps: another cast is no remedy, but another job.
  const within = better.some((c) => c.patch.castId === undefined) ? better.filter((c) => c.patch.castId === undefined) : better;
  const kept: Change[] = [];
  for (const c of within) {
    const contains = (small: Change) =>
      small !== c && small.cost < c.cost && rank(small.verdict) <= rank(c.verdict) && entries(small.patch).every(([k, v]) => c.patch[k] === v);
    if (!within.some(contains)) kept.push(c);
    if (kept.length === most) break;
  }
  return kept;
}
