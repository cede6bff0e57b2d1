import { api } from "../contract";
import { RackFilter, type MouldPage, type PourAdvice, type RackLine } from "../contract/log";
import QRCode from "qrcode";
import { buildScene } from "../core/draw";
import { Changed, isCasting } from "../core/plan";
import { adviseNext, costPerGood, didHelp, expectedCasts, lifeLeft } from "../core/rack";
import { type MouldLine } from "../core/log";
import { castNumber, changeMould, listRack, mouldCasts, mouldCost, readMould } from "../db/moulds";
import type { Pour } from "../core/log";
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
  return { ...m, life, left: life && lifeLeft(life, m.casts) };
};

export function rack(w: Workshop, asked: unknown): { moulds: RackLine[]; total: number; filter: RackFilter } {
  const query = parseOrRefuse(api.rack.list.in, asked);
  const filter = RackFilter.parse({ text: query.text ?? "", which: query.which ?? "use", page: query.page ?? 0 });
  const { moulds, total } = listRack(w.db, { ...filter, pageSize: RACK_PAGE });
  return { moulds: moulds.map(withLife), total, filter };
}

function find(w: Workshop, id: string): MouldLine {
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
  const m = find(w, id);
  const cost = mouldCost(w.db, m);
  return { mould: withLife(m), casts: castsOf(w, id), cost, costPerGood: costPerGood(cost, m.good), labelUrl: lanUrl(`/rack/${id}`) };
}

export function updateMould(w: Workshop, id: string, body: unknown): MouldPage {
  const { retired, was, ...change } = parseOrRefuse(api.rack.change.in, body);
  const m = find(w, id);
  refuseStale(was, change, m, "This mould", () => mouldPage(w, id));
  changeMould(w.db, id, { ...change, ...(retired === undefined ? {} : { retiredAt: retired ? (m.retiredAt ?? w.now()) : null }) });
  return mouldPage(w, id);
}

/** A picture that opens a mould's page: on the network where tablets are let in, else on this machine. */
export async function mouldLabel(w: Workshop, id: string, own: string): Promise<{ mould: MouldLine; url: string; svg: string; open: boolean }> {
  const mould = find(w, id);
  const url = lanUrl(`/rack/${id}`) ?? `${own}/rack/${id}`;
  return { mould, url, open: gateState(w).open, svg: await QRCode.toString(url, { type: "svg", margin: 0, errorCorrectionLevel: "M" }) };
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
  const next = adviseNext({
    faults: pour.faults,
    marks: pour.marks.map((k) => ({ fault: k.fault, height: top > floor ? Math.min(1, Math.max(0, (k.zMm - floor) / (top - floor))) : 0.5 })),
    frozen: pour.snapshot,
    openedH: pour.openedAt === null ? null : (pour.openedAt - pour.pouredAt) / HOUR,
    castNumber: pour.kind === "cast" && pour.mouldId ? castNumber(w.db, pour.mouldId, pour.pouredAt) : null,
    expected: m && withLife(m).life,
    doubts: judged ? judged.chain.links.filter((l) => l.contact.endsWith("-rubber") && l.verdict !== "sound").map((l) => l.between.join(" on ")) : [],
    tried: [
      ...casts.filter((c) => c.helped === false).map((c) => c.changed?.key ?? ""),
      ...(didHelp(pour.changed?.key ?? null, pour) === false ? [pour.changed?.key ?? ""] : []),
    ],
  });
  return { next, helped: didHelp(pour.changed?.key ?? null, pour), scene };
}

/** The first thing to change for the next cast of a mould, from its last one, if that one had faults. */
export function nextChangeFor(w: Workshop, mouldId: string | null): Changed | null {
  if (!mouldId) return null;
  const last = mouldCasts(w.db, mouldId)
    .filter((c) => c.outcome !== null)
    .at(-1);
  if (!last || last.outcome === "good") return null;
  // Advice leans on a pour that may not be readable; the batch at hand does not.
  const pour = orOdd(() => getPour(w, last.id).pour);
  const [first] = pour ? pourAdvice(w, pour).next : [];
  return first ? { key: first.key, text: first.change.slice(0, 300) } : null;
}
