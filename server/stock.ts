import { randomUUID } from "node:crypto";
import { count, eq, isNull, max, sql } from "drizzle-orm";
import Papa from "papaparse";
import { api } from "../contract";
import type { Buyable, LotView, PortionsView, RestView, StockView } from "../contract/stock";
import type { Catalogue, Material } from "../core/material";
import { castingTakes, stillTakes, standOf } from "../core/log";
import { FORMULA } from "../core/quantity";
import { NO_CUT, splitOf } from "../core/weigh";
import {
  ageOf,
  balances,
  CLINGS_G,
  drawOrder,
  fillFrom,
  openedLife,
  partGrams,
  portionList,
  shopping,
  standOfAll,
  tubsOf,
  type KeptPack,
  type Lot,
  type Need,
  type Stand,
} from "../core/stock";
import { jobs as jobsTable, pours as poursTable, stockMoves } from "../db/schema";
import { readJob } from "../db/jobs";
import { listJobPours, listMoulds } from "../db/pours";
import { readSettings } from "../db/settings";
import { deleteLot, deletePack, insertMoves, listPacks, movesOf, putLot, putPack, readLot, readPack } from "../db/stock";
import { handlingFor, plannedBatch } from "./batch";
import { move, wordsOfLot } from "./draws";
import { getJob, jobsInHand } from "./jobs";
import { orOdd } from "./odd";
import { parseOrRefuse } from "./parse";
import { catalogue, planStanding } from "./plans";
import { Refusal } from "./refusal";
import { shared } from "./shared";
import { lotsIn, shelfStamp } from "./shelf";
import { refuseStale } from "./stale";
import type { Workshop } from "./workshop";

/** Everything of a workshop that can stand in a cupboard. */
export const allMaterials = (c: Catalogue): Material[] => [...c.rubbers, ...c.casts, ...c.releases, ...c.surfaces, ...c.boxes, ...c.sundries];

export function materialNamed(w: Workshop, id: string): Material {
  const m = allMaterials(catalogue(w)).find((x) => x.id === id);
  if (!m) throw new Refusal(422, "no-material", `There is no material "${id.slice(0, 60)}": choose one of those on the page Materials.`);
  return m;
}

const buyable = (m: Material): Buyable => ({ id: m.id, name: m.name, kind: m.kind, tubs: tubsOf(m), life: openedLife(m) });

// What jobs still take is worked out once for each state a job and its log are in: planning hundreds of jobs for one page would hold it up.
const known = shared<Need[]>("needs");
const MOST_KNOWN = 5000;
/** Planning goes on for so long in one request, ms; the page asks again for the rest. */
const BUDGET_MS = 60;
const MOST_JOBS = 1000;

/** Names the state of a workshop's materials, in which needs were worked out. */
function stampOf(w: Workshop): string {
  const m = w.db.$client.prepare("select count(*) as n, max(updated_at) as at from materials").get() as { n: number; at: number | null };
  return `${w.files.folder} ${m.n} ${m.at ?? 0}`;
}

/** What all jobs in hand still take, as far as it is known by now, and of how many jobs it is not. */
export function needsInHand(w: Workshop, budgetMs = BUDGET_MS): { needs: Need[]; pending: number } {
  const stamp = stampOf(w);
  const rows = w.db
    .select({
      id: jobsTable.id,
      revision: jobsTable.revision,
      pours: count(poursTable.id),
      failed: sql<number>`sum(case when ${poursTable.outcome} = 'failed' then 1 else 0 end)`,
      last: max(poursTable.pouredAt),
    })
    .from(jobsTable)
    .leftJoin(poursTable, eq(poursTable.jobId, jobsTable.id))
    .where(isNull(jobsTable.putAwayAt))
    .groupBy(jobsTable.id)
    .limit(MOST_JOBS)
    .all();
  const until = performance.now() + budgetMs;
  const needs: Need[] = [];
  let pending = 0;
  for (const r of rows) {
    const key = `${stamp} ${r.id} ${r.revision} ${r.pours} ${r.failed ?? 0} ${r.last ?? 0}`;
    let mine = known.get(key);
    if (!mine && performance.now() < until) {
      mine =
        orOdd(() => {
          const stored = readJob(w.db, r.id);
          const pours = listJobPours(w.db, r.id);
          return stored ? stillTakes(r.id, planStanding(w, stored, pours, true), pours) : [];
        }) ?? [];
      if (known.size > MOST_KNOWN) known.clear();
      known.set(key, mine);
    }
    if (mine) needs.push(...mine);
    else pending++;
  }
  return { needs, pending };
}

function lotView(l: Lot, material: string, now: number): LotView {
  const { age, days } = ageOf(l, now);
  return { ...l, leftG: [...l.leftG], material, age, daysLeft: days };
}

/** Of so many lots of one material a page shows the first, in the order in which they are drawn from. */
const MOST_SHOWN = 8;

function shownOf(lots: readonly Lot[], named: ReadonlyMap<string, Material>, whole: string | null, now: number): Pick<StockView, "lots" | "more"> {
  const by = new Map<string, Lot[]>();
  for (const l of lots) by.set(l.materialId, [...(by.get(l.materialId) ?? []), l]);
  const more: Record<string, number> = {};
  const shown = [...by].flatMap(([id, list]) => {
    const first = id === whole ? list.length : MOST_SHOWN;
    if (list.length > first) more[id] = list.length - first;
    return drawOrder(list, now)
      .slice(0, first)
      .map((l) => lotView(l, named.get(id)?.name ?? "A material that is gone", now));
  });
  return { lots: shown, more };
}

/** Views as they were last worked out; nothing of them changes while their stamp does not. */
const viewed = shared<{ stamp: string; view: StockView }>("cupboard");

/** Names the state of everything the cupboard's page is made of. */
function stateOf(w: Workshop): string {
  const one = (query: string) => Object.values(w.db.$client.prepare(query).get() as Record<string, unknown>).join(",");
  return [
    stampOf(w),
    Math.floor(w.now() / DAY),
    shelfStamp(w),
    one("select count(*), max(updated_at) from packs"),
    one("select count(*), sum(revision), sum(put_away_at is null), max(updated_at) from jobs"),
    one("select count(*), sum(outcome = 'failed'), max(poured_at), sum(poured_at) from pours"),
  ].join("|");
}

/** The cupboard: what stands there, what it is wanted for, what to open first, and what to buy. */
export function stockView(w: Workshop, query: unknown = {}): StockView {
  const { aim, whole } = parseOrRefuse(api.stock.read.in, query);
  const key = `${w.files.folder} ${aim} ${whole ?? ""}`;
  const stamp = stateOf(w);
  const there = viewed.get(key);
  if (there?.stamp === stamp) return { ...there.view, now: w.now() };
  const view = freshView(w, query);
  if (viewed.size > 200) viewed.clear();
  if (view.pending === 0) viewed.set(key, { stamp, view });
  return view;
}

function freshView(w: Workshop, query: unknown): StockView {
  const { aim, whole } = parseOrRefuse(api.stock.read.in, query);
  const now = w.now();
  const all = allMaterials(catalogue(w));
  const named = new Map(all.map((m) => [m.id, m]));
  const lots = lotsIn(w);
  const packs = listPacks(w.db);
  const { needs, pending } = needsInHand(w);
  return {
    now,
    aim,
    pending,
    ...shownOf(lots, named, whole ?? null, now),
    packs,
    materials: all.map(buyable),
    ...standing(standOfAll(all, lots, packs, needs, now, aim), lots),
  };
}

const DAY = 86_400_000;
const sum = (list: readonly number[]): number => list.reduce((s, g) => s + g, 0);

/** How everything stands against all that wants it, as a page tells it. */
function standing(stands: readonly Stand[], lots: readonly Lot[]): Pick<StockView, "balances" | "shopping"> {
  const list = shopping(stands);
  const named = (jobs: readonly string[]) => (jobs.length > MOST_NAMED ? [...jobs.slice(0, MOST_NAMED), `${jobs.length - MOST_NAMED} more`] : [...jobs]);
  return {
    balances: stands.map((s) => balanceView(s, lots)),
    shopping: { ...list, lines: list.lines.map((l) => ({ ...l, forJobs: named(l.forJobs) })) },
  };
}

/** Of the jobs that want a material, and of the packs to open for them, a page names so many; the rest are counted. */
const MOST_NAMED = 6;

/** What each job wants of a material in all, the most first. */
function wantedFor(b: Stand["balance"]): Pick<StockView["balances"][number], "needs" | "moreNeeds"> {
  const by = new Map<string, StockView["balances"][number]["needs"][number]>();
  for (const n of b.needs) {
    const g = sum(n.parts.map((p) => (b.tubs.includes(p.name) ? p.g : 0)));
    const there = by.get(n.jobId);
    if (there) by.set(n.jobId, { ...there, g: there.g + g, pours: there.pours + 1, what: there.pours === 1 ? `${there.what} and ${n.what}` : there.what });
    else by.set(n.jobId, { jobId: n.jobId, jobName: n.jobName, what: n.what, g, pours: 1 });
  }
  const all = [...by.values()].sort((p, q) => q.g - p.g);
  return { needs: all.slice(0, MOST_NAMED), moreNeeds: Math.max(0, all.length - MOST_NAMED) };
}

function balanceView({ material: m, balance: b, opening: o }: Stand, lots: readonly Lot[]): StockView["balances"][number] {
  return {
    materialId: m.id,
    material: m.name,
    parts: b.tubs.map((name, i) => ({ name, goodG: b.goodG[i]!, pastG: b.pastG[i]!, wantedG: b.wantedG[i]!, shortG: b.shortG[i]! })),
    ...wantedFor(b),
    open: (o?.open ?? []).slice(0, MOST_NAMED).flatMap((l) => {
      const lot = lots.find((x) => x.id === l.lotId);
      return lot ? [{ lotId: lot.id, name: lot.name, place: lot.place, sealed: lot.openedAt === null, days: l.days, damp: l.damp }] : [];
    }),
    moreOpen: Math.max(0, (o?.open.length ?? 0) - MOST_NAMED),
    leftG: o?.leftG ?? 0,
  };
}

/** What is wanted of some materials beyond what the cupboard has. */
export const shortOf = (w: Workshop, needs: readonly Need[], ids: ReadonlySet<string>): { material: string; g: number }[] => {
  const all = allMaterials(catalogue(w));
  return balances(all, lotsIn(w), needs, w.now()).flatMap((b) => {
    const g = sum(b.shortG);
    return ids.has(b.materialId) && g > CLINGS_G ? [{ material: all.find((m) => m.id === b.materialId)?.name ?? "", g }] : [];
  });
};

function checkPack(w: Workshop, pack: { materialId: string; parts: readonly { name: string; massG: number | null; volumeMl: number | null }[] }): void {
  const tubs = tubsOf(materialNamed(w, pack.materialId));
  pack.parts.forEach((p, i) => {
    if (!tubs.some((t) => t.name === p.name))
      throw new Refusal(422, "no-tub", `"${p.name}" is no part of this material: it has ${tubs.map((t) => t.name).join(", ")}.`, { path: `parts.${i}.name` });
    if (partGrams(p, tubs) === null)
      throw new Refusal(422, "no-density", `How much a millilitre of "${p.name}" weighs is not known here: say its weight in grams.`, {
        path: `parts.${i}.massG`,
      });
  });
}

export function addPack(w: Workshop, body: unknown): KeptPack {
  const { key, ...pack } = parseOrRefuse(api.stock.addPack.in, body);
  const there = key && readPack(w.db, key);
  if (there) return there;
  checkPack(w, pack);
  const id = key ?? randomUUID();
  putPack(w.db, id, pack, w.now());
  return { ...pack, id };
}

export function savePack(w: Workshop, id: string, body: unknown): KeptPack {
  const { was, ...pack } = parseOrRefuse(api.stock.savePack.in, body);
  const before = readPack(w.db, id);
  if (!before) throw new Refusal(404, "no-pack", "This pack was taken off the list on another page. Add it again.");
  refuseStale(was, pack, before, "This pack", () => before);
  checkPack(w, pack);
  putPack(w.db, id, pack, w.now());
  return { ...pack, id };
}

export function removePack(w: Workshop, id: string): { ok: true } {
  if (!deletePack(w.db, id)) throw new Refusal(404, "no-pack", "There is no such pack.");
  return { ok: true };
}

/** Puts packs that were bought into the cupboard. */
export function addLot(w: Workshop, body: unknown): { ids: string[] } {
  const { key, count: many, ...words } = parseOrRefuse(api.stock.addLot.in, body);
  const ids = Array.from({ length: many }, (_, i) => (key ? (i === 0 ? key : `${key}-${i}`) : randomUUID()));
  if (key && readLot(w.db, key)) return { ids };
  checkPack(w, { materialId: words.materialId, parts: words.parts.map((p) => ({ name: p.name, massG: p.boughtG, volumeMl: null })) });
  w.db.transaction(() => {
    for (const id of ids) {
      putLot(w.db, id, { ...words, endedAt: null }, w.now());
      insertMoves(
        w.db,
        words.parts.map((p, part) => move(id, part, "bought", p.boughtG, words.boughtAt)),
      );
    }
  });
  return { ids };
}

export function getLot(w: Workshop, id: string): Lot {
  const l = readLot(w.db, id);
  if (!l) throw new Refusal(404, "no-lot", `There is no pack "${id.slice(0, 60)}" in the cupboard.`);
  return l;
}
const viewOfLot = (w: Workshop, id: string): LotView => {
  const l = getLot(w, id);
  return lotView(l, allMaterials(catalogue(w)).find((m) => m.id === l.materialId)?.name ?? "A material that is gone", w.now());
};

export function changeLot(w: Workshop, id: string, body: unknown): LotView {
  const { was, ...change } = parseOrRefuse(api.stock.changeLot.in, body);
  return w.db.transaction(
    () => {
      const before = getLot(w, id);
      const told = Object.fromEntries(Object.entries(change).filter(([k]) => typeof body === "object" && body !== null && Object.hasOwn(body, k)));
      refuseStale(was, told, before, "This pack", () => viewOfLot(w, id));
      putLot(w.db, id, { ...wordsOfLot(before), ...told }, w.now());
      return viewOfLot(w, id);
    },
    { behavior: "immediate" },
  );
}

export function removeLot(w: Workshop, id: string): { ok: true } {
  if (!deleteLot(w.db, id)) throw new Refusal(404, "no-lot", "There is no such pack.");
  return { ok: true };
}

/** A tub on the scale, an amount taken by hand, the lot used up, or back again. What the scale says counts; the difference is kept. */
export function actOnLot(w: Workshop, id: string, body: unknown): LotView {
  const act = parseOrRefuse(api.stock.act.in, body);
  return w.db.transaction(
    () => {
      const now = w.now();
      if (act.key && w.db.select({ id: stockMoves.id }).from(stockMoves).where(eq(stockMoves.id, act.key)).get()) return viewOfLot(w, id);
      const l = getLot(w, id);
      const own = act.key ? { id: act.key } : {};
      const words = wordsOfLot(l);
      if (act.do === "end") putLot(w.db, id, { ...words, endedAt: now }, now);
      else if (act.do === "back") putLot(w.db, id, { ...words, endedAt: null }, now);
      else {
        const part = l.parts[act.part];
        if (!part) throw new Refusal(422, "no-tub", `This pack has ${l.parts.length} ${l.parts.length === 1 ? "tub" : "tubs"}.`);
        const left = l.leftG[act.part] ?? 0;
        if (act.do === "weigh") {
          const tareG = act.tareG ?? part.tareG ?? 0;
          const net = act.grossG - tareG;
          if (net < 0)
            throw new Refusal(422, "lighter", `The tub alone is said to weigh ${tareG} g, and the scale shows ${act.grossG} g: one of them is wrong.`);
          insertMoves(w.db, [move(id, act.part, "corrected", net - left, now, own)]);
          putLot(w.db, id, { ...words, parts: l.parts.map((p, i) => (i === act.part ? { ...p, tareG: act.tareG ?? p.tareG } : p)) }, now);
        } else {
          insertMoves(w.db, [move(id, act.part, "drawn", -act.g, now, own)]);
          putLot(w.db, id, { ...words, openedAt: words.openedAt ?? now }, now);
        }
      }
      return viewOfLot(w, id);
    },
    { behavior: "immediate" },
  );
}

export function lotMoves(w: Workshop, id: string) {
  const l = getLot(w, id);
  return movesOf(w.db, id)
    .reverse()
    .slice(0, 200)
    .map((m) => ({
      id: m.id,
      at: m.at,
      part: l.parts[m.part]?.name ?? "",
      kind: m.kind,
      g: m.g,
      jobName: m.jobId === null ? null : (orOdd(() => readJob(w.db, m.jobId!))?.job.name ?? null),
      pourId: m.pourId,
    }));
}

/**
 * Which small moulds a rest in the cup could fill: of rubber, the next pours of other jobs in the same one; of a casting mix, every mould on the
 * rack whose piece is cast in it.
 */
export function restOf(w: Workshop, body: unknown): RestView {
  const { materialId, restG, lifeMin } = parseOrRefuse(api.stock.rest.in, body);
  const m = materialNamed(w, materialId);
  const { handling } = readSettings(w.db);
  const takes = m.kind === "cast" ? castingsOf(w, materialId) : needsInHand(w, 1000).needs.filter((n) => n.materialId === materialId);
  const fillers = takes
    .map((n, i) => {
      const needG = sum(n.parts.map((p) => p.g));
      return { key: `${n.jobId} ${i}`, name: `${n.jobName}: ${n.what}`, needG, pourMin: needG / Math.max(1, handling.pourGMin) };
    })
    .filter((f) => f.needG > 0);
  const f = fillFrom(restG, lifeMin, fillers);
  const nearest = fillers.find((x) => x.key === f.nearest?.key);
  return {
    fillers: fillers.filter((x) => x.needG <= restG).map((x) => ({ key: x.key, name: x.name, needG: x.needG, chosen: f.picks.includes(x.key) })),
    usedG: f.usedG,
    restG: f.restG,
    nearest: f.nearest && nearest ? { name: nearest.name, shortG: f.nearest.shortG } : null,
  };
}

/** One casting for each mould on the rack whose job casts in a material. */
function castingsOf(w: Workshop, materialId: string): Need[] {
  return jobsInHand(w, MOST_JOBS).lines.flatMap((line): Need[] => {
    const moulds = line.job.castId === materialId ? listMoulds(w.db, line.id) : [];
    if (moulds.length === 0) return [];
    const plan = orOdd(() => planStanding(w, line, listJobPours(w.db, line.id), true));
    const [one] = plan ? castingTakes(line.id, plan, plan.pieces).filter((n) => n.materialId === materialId) : [];
    return one ? moulds.map((x) => ({ ...one, what: x.name })) : [];
  });
}

/** All tubs of a brushing day: every coat of a job's skin that is not laid yet, cup by cup. */
export function portionsFor(w: Workshop, query: unknown): PortionsView {
  const { jobId } = parseOrRefuse(api.stock.portions.in, query);
  const stored = getJob(w, jobId);
  const pours = listJobPours(w.db, jobId);
  const p = planStanding(w, stored, pours, true);
  const stand = standOf(p, pours);
  const open = stand.made ? [] : stand.parts.flatMap(({ act, pour }) => (act.kind === "rubber" && pour === null ? [act.index] : []));
  const indexes = open.length > 0 ? open : p.pours.map((_, i) => i);
  const settings = readSettings(w.db);
  const batches = indexes.flatMap((i) => {
    const pour = p.pours[i];
    if (!pour?.batch) return [];
    const b = plannedBatch(p, "rubber", i);
    const handling = handlingFor(settings, b.habit, p);
    const split = splitOf(
      {
        ...b,
        jobName: "",
        jobRevision: 0,
        what: "",
        material: "",
        shares: [],
        format: 2,
        cups: [],
        passed: [],
        gauges: [],
        handling,
        despite: [],
        changed: [],
        cut: NO_CUT,
      },
      handling,
    );
    return [{ name: pour.name, parts: pour.batch.parts, cups: split.ok ? split.cups : 1 }];
  });
  if (batches.length === 0) throw new Refusal(422, "not-ready", "The rubber is not worked out yet: finish the master, box and rubber steps first.");
  const portions = portionList(batches);
  const totals = [...new Set(portions.map((x) => x.part))].map((name) => ({ name, g: portions.filter((x) => x.part === name).reduce((s, x) => s + x.g, 0) }));
  return {
    jobId,
    jobName: stored.job.name,
    material: p.rubber?.name ?? "",
    cautions: p.cautions.filter((c) => c.step === "rubber").map((c) => c.text),
    portions,
    totals,
  };
}

/** The shopping list for a spreadsheet [RFC 4180]. */
export function shoppingCsv(w: Workshop, query: unknown = {}): string {
  const { shopping: s } = stockView(w, query);
  const rows = [
    ...s.lines.map((l) => ({
      from: l.from,
      material: l.material,
      pack: l.pack,
      count: l.count,
      each: l.price,
      price: l.price === null ? null : l.price * l.count,
      for: l.forJobs.join("; "),
    })),
    ...s.unknown.map((u) => ({
      from: "",
      material: u.material,
      pack: u.parts.map((p) => `${p.name} ${Math.round(p.g)} g`).join(", "),
      count: null,
      each: null,
      price: null,
      for: "no pack of it is known",
    })),
  ];
  return Papa.unparse(rows, { columns: ["from", "material", "pack", "count", "each", "price", "for"], newline: "\r\n", escapeFormulae: FORMULA });
}
