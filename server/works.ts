import { randomUUID } from "node:crypto";
import { api } from "../contract";
import type { CostView, OrderLine, OrderView, ProjectView } from "../contract/works";
import { castingTakes, type Pour } from "../core/log";
import { meltsAgain } from "../core/material";
import type { Plan } from "../core/plan";
import { tasksOf } from "../core/plan";
import { expectedCasts } from "../core/rack";
import { expectedYield, wakingSpans } from "../core/schedule";
import { perKg, type Need } from "../core/stock";
import {
  anotherMould,
  costsOf,
  makeOrder,
  nextNumber,
  parcels,
  type CostLine,
  type Order,
  type OrderedPiece,
  type PartKnown,
  type Project,
} from "../core/works";
import { readCalendar } from "../db/calendar";
import { readJob, type StoredJob } from "../db/jobs";
import { listJobPours, listMoulds, mouldYields, readPour } from "../db/pours";
import { readSettings } from "../db/settings";
import { listPacks } from "../db/stock";
import { orderShelf, projectShelf, type Stored } from "../db/works";
import { getJob } from "./jobs";
import { orOdd } from "./odd";
import { parseOrRefuse } from "./parse";
import { catalogue, jobThumbs, planStanding } from "./plans";
import { Refusal } from "./refusal";
import { forecastOf } from "./settings";
import { allMaterials, needsInHand, shortOf } from "./stock";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;
const MINUTE = 60_000;
/** How far an order is planned ahead, days. */
const LOOKS_DAYS = 60;
/** Hands that are usual for one casting and for opening it, min. */
const [CAST_MIN, OPEN_MIN] = [20, 15];
/** What of a box of release or sealer goes on a square metre, g: two thin coats by brush, a workshop figure. */
const RELEASE_G_M2 = 40;

interface Known {
  stored: StoredJob;
  plan: Plan;
  pours: Pour[];
  moulds: number;
  good: number;
  logged: number;
}

function knownOf(w: Workshop, jobId: string): Known | null {
  const stored = orOdd(() => readJob(w.db, jobId));
  if (!stored) return null;
  const pours = listJobPours(w.db, jobId);
  const plan = orOdd(() => planStanding(w, stored, pours, true));
  if (!plan) return null;
  const mine = mouldYields(w.db, 10_000).filter((y) => y.jobId === jobId);
  return {
    stored,
    plan,
    pours,
    moulds: listMoulds(w.db, jobId).length,
    good: mine.reduce((s, y) => s + y.good, 0),
    logged: mine.reduce((s, y) => s + y.casts, 0),
  };
}

/** From poured to opened, h: each layer holds the mould until the next may follow. Null where it never sets, or is not worked out. */
function demouldH(p: Plan): number | null {
  if (!p.castCure || p.castCure.demould.never) return null;
  return p.castCure.demould.hours.typical + p.layers.reduce((s, l) => s + (l.next?.hours.typical ?? 0), 0);
}

/** Hands and waits until a new mould of a job is there, min: its order of work one after another. */
function buildMin(p: Plan): number {
  const hands = tasksOf("new", p, { casts: 0, build: true, degas: false, degasMin: 0, pourGMin: 400 }).reduce((s, t) => s + t.handsMin, 0);
  return hands + 60 * (p.tally.rubberOutH ?? 0);
}

function orderView(w: Workshop, { id, revision, document: order }: Stored<Order>): OrderView {
  const now = w.now();
  const { waking } = readSettings(w.db);
  const spans = wakingSpans(now, LOOKS_DAYS, waking.fromMin, waking.toMin, forecastOf(w).zone);
  const known = new Map(order.lines.map((l) => [l.jobId, knownOf(w, l.jobId)]));
  const thumbs = jobThumbs(
    w,
    order.lines.map((l) => l.jobId),
  );
  const wantedOf = (l: Order["lines"][number]) => {
    const ready = Math.min(l.good - l.sent, Math.max(0, (known.get(l.jobId)?.good ?? 0) - l.sent));
    return { ready: Math.max(0, ready), wanted: Math.max(0, l.good - l.sent - Math.max(0, ready)) };
  };
  const pieces = order.lines.flatMap((l, i): OrderedPiece[] => {
    const k = known.get(l.jobId);
    const waits = k && demouldH(k.plan);
    if (!k || waits === null || waits === undefined) return [];
    return [
      {
        key: String(i),
        wanted: wantedOf(l).wanted,
        moulds: k.moulds,
        buildMin: buildMin(k.plan),
        castMin: CAST_MIN,
        openMin: OPEN_MIN,
        demouldMin: waits * 60,
        loggedGood: k.good,
        logged: k.logged,
        boxes: l.boxes,
        pot: l.inPot ? "set" : k.plan.cast && meltsAgain(k.plan.cast) ? "pour" : null,
      },
    ];
  });
  const shop = { people: orOdd(() => readCalendar(w.db))?.calendar.people ?? 1, pots: order.pots };
  const done = makeOrder(pieces, spans, shop);
  const gains = pieces.length > 0 ? anotherMould(pieces, spans, shop) : [];
  const at = (min: number | null) => (min === null ? null : now + min * MINUTE);
  const lines = order.lines.map((l, i): OrderLine => {
    const k = known.get(l.jobId);
    const d = done.find((x) => x.key === String(i));
    const gain = gains.find((g) => g.key === String(i));
    const { ready, wanted } = wantedOf(l);
    return {
      jobId: l.jobId,
      jobName: k?.stored.job.name ?? "A job that is gone",
      thumb: thumbs[l.jobId] ?? null,
      good: l.good,
      sent: l.sent,
      ready,
      wanted,
      moulds: k?.moulds ?? 0,
      expectedCasts: d?.expectedCasts ?? wanted,
      safeCasts: d?.safeCasts ?? wanted,
      expectedAt: d ? at(d.expectedMin) : null,
      safeAt: d ? at(d.safeMin) : null,
      soonerH: gain ? (gain.soonerMin === null ? null : gain.soonerMin / 60) : 0,
      mouldCost: k?.plan.rubberCost ?? null,
      trouble: !k
        ? "This job is no longer in the workshop."
        : !d
          ? "Its casting is not worked out yet, or does not set: open the job."
          : k.moulds === 0
            ? "No mould of it is made yet: the days count with making one."
            : null,
    };
  });
  const last = (of: (l: OrderLine) => number | null) =>
    lines.reduce<number | null>((m, l) => (m === null || of(l) === null ? null : Math.max(m, of(l) ?? 0)), 0);
  const safeAt = last((l) => l.safeAt);
  const needs = order.lines.flatMap((l, i): Need[] => {
    const k = known.get(l.jobId);
    const casts = lines[i]?.safeCasts ?? 0;
    return k && casts > 0 ? castingTakes(l.jobId, k.plan, casts) : [];
  });
  return {
    id,
    revision,
    order,
    lines,
    expectedAt: last((l) => l.expectedAt),
    safeAt,
    lateH: safeAt === null ? null : Math.max(0, (safeAt - order.dueAt) / HOUR),
    short:
      needs.length > 0
        ? shortOf(w, [...needsInHand(w).needs.filter((n) => !order.lines.some((l) => l.jobId === n.jobId)), ...needs], new Set(needs.map((n) => n.materialId)))
        : [],
  };
}

const gone = (what: string): never => {
  throw new Refusal(404, "gone", `${what} was taken away on another page.`);
};

export const listOrders = (w: Workshop, query: unknown): OrderView[] =>
  orderShelf.list(w.db, parseOrRefuse(api.works.orders.in, query).all === "yes").map((s) => orderView(w, s));
export const getOrder = (w: Workshop, id: string): OrderView => orderView(w, orderShelf.read(w.db, id) ?? gone("This order"));

export function addOrder(w: Workshop, body: unknown): OrderView {
  const { order, id = randomUUID() } = parseOrRefuse(api.works.addOrder.in, body);
  if (!orderShelf.read(w.db, id)) {
    order.lines.forEach((l) => getJob(w, l.jobId));
    orderShelf.write(w.db, id, order, 0, w.now());
  }
  return getOrder(w, id);
}

export function saveOrder(w: Workshop, id: string, body: unknown): OrderView {
  const { order, baseRevision } = parseOrRefuse(api.works.saveOrder.in, body);
  getOrder(w, id);
  if (!orderShelf.write(w.db, id, order, baseRevision, w.now()))
    throw new Refusal(409, "stale", "This order was changed on another page. Nothing was overwritten: look again.", { current: getOrder(w, id) });
  return getOrder(w, id);
}

export function removeOrder(w: Workshop, id: string): { ok: true } {
  if (!orderShelf.remove(w.db, id)) gone("This order");
  return { ok: true };
}

function projectView(w: Workshop, { id, revision, document: project }: Stored<Project>): ProjectView {
  const jobIds = [...new Set(project.parts.map((p) => p.jobId))];
  const known = new Map(jobIds.map((j) => [j, knownOf(w, j)]));
  const thumbs = jobThumbs(w, jobIds);
  const parts = jobIds.map((jobId): PartKnown => {
    const k = known.get(jobId);
    const b = k?.plan.piece;
    return {
      jobId,
      demouldedG: k?.plan.weights ? k.plan.weights.castDemouldedG / k.plan.pieces : null,
      dryG: k?.plan.weights ? k.plan.weights.castDryG / k.plan.pieces : null,
      sizeMm: b ? [b.lengthMm, b.widthMm, b.heightMm] : null,
      good: k?.good ?? 0,
      hasMould: (k?.moulds ?? 0) > 0,
    };
  });
  const packed = parcels(project, parts);
  const rubbers = new Map<string, number>();
  for (const k of known.values()) {
    if (!k || k.moulds > 0 || !k.plan.rubber || k.plan.tally.rubberG === null) continue;
    rubbers.set(k.plan.rubber.name, (rubbers.get(k.plan.rubber.name) ?? 0) + k.plan.tally.rubberG);
  }
  const casts = [...known.values()].flatMap((k) => k?.pours.filter((p) => p.kind === "cast") ?? []);
  const taken = new Set(project.castings.map((c) => c.pourId));
  return {
    id,
    revision,
    project,
    parts: packed.parts.map((p, i) => {
      const jobId = project.parts[i]!.jobId;
      const k = known.get(jobId);
      return {
        ...p,
        sizeMm: p.sizeMm ? [p.sizeMm[0], p.sizeMm[1], p.sizeMm[2]] : null,
        jobId,
        jobName: k?.stored.job.name ?? "A job that is gone",
        thumb: thumbs[jobId] ?? null,
        rubber: k?.plan.rubber?.name ?? null,
        rubberG: k?.plan.tally.rubberG ?? null,
      };
    }),
    wholeG: packed.wholeG,
    works: packed.works,
    rubbers: [...rubbers].map(([name, g]) => ({ name, g })),
    castings: [...project.castings]
      .sort((a, b) => a.number - b.number)
      .map((c) => {
        const pour = c.pourId === null ? null : orOdd(() => readPour(w.db, c.pourId!));
        return {
          number: c.number,
          pourId: pour?.id ?? null,
          what: pour?.snapshot.what ?? "",
          mould: pour?.mouldName ?? "",
          lots: (pour?.snapshot.lots ?? []).map((l) => [l.name, l.batch].filter(Boolean).join(" ")).join(", "),
          pouredAt: pour?.pouredAt ?? null,
          to: c.to,
          at: c.at,
        };
      }),
    free: casts
      .filter((p) => p.outcome === "good" && !taken.has(p.id))
      .sort((a, b) => a.pouredAt - b.pouredAt)
      .map((p) => ({ pourId: p.id, name: `${p.snapshot.jobName}: ${p.snapshot.what}`, pouredAt: p.pouredAt }))
      .slice(0, 60),
    next: nextNumber(project),
  };
}

export const listProjects = (w: Workshop, query: unknown): ProjectView[] =>
  projectShelf.list(w.db, parseOrRefuse(api.works.projects.in, query).all === "yes").map((s) => projectView(w, s));
export const getProject = (w: Workshop, id: string): ProjectView => projectView(w, projectShelf.read(w.db, id) ?? gone("This work"));

export function addProject(w: Workshop, body: unknown): ProjectView {
  const { project, id = randomUUID() } = parseOrRefuse(api.works.addProject.in, body);
  if (!projectShelf.read(w.db, id)) {
    project.parts.forEach((p) => getJob(w, p.jobId));
    projectShelf.write(w.db, id, project, 0, w.now());
  }
  return getProject(w, id);
}

export function saveProject(w: Workshop, id: string, body: unknown): ProjectView {
  const { project, baseRevision } = parseOrRefuse(api.works.saveProject.in, body);
  getProject(w, id);
  if (!projectShelf.write(w.db, id, project, baseRevision, w.now()))
    throw new Refusal(409, "stale", "This work was changed on another page. Nothing was overwritten: look again.", { current: getProject(w, id) });
  return getProject(w, id);
}

export function removeProject(w: Workshop, id: string): { ok: true } {
  if (!projectShelf.remove(w.db, id)) gone("This work");
  return { ok: true };
}

/** What a job's mould, a casting and a good casting cost: rubber as it was weighed, where it was. */
export function costOf(w: Workshop, jobId: string): CostView {
  const k = knownOf(w, jobId) ?? gone("This job");
  const { plan: p, pours } = k;
  const packs = listPacks(w.db);
  const materials = allMaterials(catalogue(w));
  const price = (id: string | null, g: number): number | null => {
    const m = materials.find((x) => x.id === id);
    const each = m && (m.kind === "rubber" ? (m.pricePerKg ?? perKg(m, packs)) : perKg(m, packs));
    return each === null || each === undefined ? null : (each * g) / 1000;
  };
  const { job } = p.dossier;
  const rubber = p.pours.flatMap((x, i): CostLine[] => {
    const weighed = pours.filter((y) => y.kind === "rubber" && y.pourIndex === i && (y.snapshot.actual?.totalG ?? 0) > 0).at(-1)?.snapshot.actual?.totalG;
    const g = weighed ?? x.batch?.mixG ?? 0;
    return [{ what: `${x.name}: ${x.rubber.name}${weighed === undefined ? "" : ", as weighed"}`, g, cost: price(x.rubber.id, g) }];
  });
  const jacket = p.layout?.kind === "skin" ? p.layout.jacket : null;
  const releaseG = p.body && job.releaseId !== null ? (p.body.areaMm2 / 1e6) * RELEASE_G_M2 : 0;
  const release = materials.find((m) => m.id === job.releaseId);
  const boxG = p.weights?.boxG ?? 0;
  const box = materials.find((m) => m.id === job.boxId);
  const mould: CostLine[] = [
    ...rubber,
    ...(jacket ? [{ what: "Jacket", g: jacket.massG.typical, cost: jacket.cost }] : []),
    ...(box && boxG > 0 && packs.some((x) => x.materialId === box.id) ? [{ what: `Box: ${box.name}`, g: boxG, cost: price(box.id, boxG) }] : []),
    ...(release && releaseG > 0 && packs.some((x) => x.materialId === release.id)
      ? [{ what: `Release: ${release.name}`, g: releaseG, cost: price(release.id, releaseG) }]
      : []),
  ];
  const casting = castingTakes(jobId, p, 1).map((n): CostLine => {
    const m = materials.find((x) => x.id === n.materialId);
    const tubs = new Set(packs.filter((x) => x.materialId === n.materialId).flatMap((x) => x.parts.map((y) => y.name)));
    const g = n.parts.reduce((s, x) => s + (tubs.size === 0 || tubs.has(x.name) ? x.g : 0), 0);
    return { what: m?.name ?? "", g, cost: price(n.materialId, g) };
  });
  const settings = readSettings(w.db);
  const build = tasksOf(jobId, p, { casts: 1, build: true, degas: false, degasMin: 0, pourGMin: settings.handling.pourGMin });
  const castMin = build.filter((t) => /\/(cast|open|layer)-/.test(t.id)).reduce((s, t) => s + t.handsMin, 0);
  const life = expectedCasts(p.rubber?.family ?? null, p.cast?.family ?? null) ?? { low: 10, typical: 25, high: 50 };
  const share = expectedYield(k.good, k.logged);
  const costs = costsOf({
    mould,
    casting,
    life,
    yield: share,
    castH: castMin / 60,
    mouldH: (build.reduce((s, t) => s + t.handsMin, 0) - castMin) / 60,
    pricing: settings.pricing,
  });
  return { ...costs, mouldLines: mould, castingLines: casting, life, yield: share, logged: k.logged, pricing: settings.pricing };
}
