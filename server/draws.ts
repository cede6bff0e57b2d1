import { randomUUID } from "node:crypto";
import { materialOf } from "../core/log";
import { CAST_FAMILY } from "../core/material";
import { layerOf, type Plan, type PourKind, type Snapshot } from "../core/plan";
import { ageOf, drawn, type Lot, type LotWords, type Move, type MoveKind } from "../core/stock";
import { insertMoves, lotsOf, putLot } from "../db/stock";
import type { Workshop } from "./workshop";

/** One movement of a tub. */
export const move = (lotId: string, part: number, kind: MoveKind, g: number, at: number, of: { jobId?: string; pourId?: string; id?: string } = {}): Move => ({
  id: of.id ?? randomUUID(),
  lotId,
  part,
  at: Math.round(at),
  kind,
  g,
  jobId: of.jobId ?? null,
  pourId: of.pourId ?? null,
});

/** What is told of a lot, without what is reckoned. */
export const wordsOfLot = ({ id: _id, leftG: _left, ...words }: Lot): LotWords => words;

/** What a batch takes out of the cupboard: what was weighed, or what was planned where nobody weighed. */
export interface Taking {
  materialId: string;
  parts: readonly { name: string; g: number }[];
}

export function takingOf(plan: Plan, kind: PourKind, index: number, snapshot: Pick<Snapshot, "parts" | "actual" | "wetG" | "count" | "mixG">): Taking | null {
  const materialId = materialOf(plan, kind, index);
  if (materialId === null) return null;
  // Metal that fills the sprue and stays in the ladle goes back into the pot: only what the casting weighs is gone.
  const cast = kind === "rubber" ? null : layerOf(plan.layers, kind, index)?.cast;
  const kept =
    cast && CAST_FAMILY[cast.family].molten && snapshot.wetG !== null && snapshot.mixG > 0 ? Math.min(1, (snapshot.wetG * snapshot.count) / snapshot.mixG) : 1;
  const weighed = snapshot.actual && snapshot.actual.parts.length > 0 ? snapshot.actual.parts.map((p) => ({ name: p.name, g: p.gotG * kept })) : null;
  return { materialId, parts: weighed ?? snapshot.parts.map((p) => ({ name: p.name, g: p.massG * kept })) };
}

/** Out of which lots a batch would come now, with how old they are; nothing is written. */
export function lotsFor(w: Workshop, taking: Taking | null): Snapshot["lots"] {
  if (!taking) return [];
  const now = w.now();
  const lots = lotsOf(w.db, taking.materialId, now);
  const ids = new Set(taking.parts.flatMap((p) => (p.g > 0 ? drawn(lots, p.name, p.g).draws.map((d) => d.lotId) : [])));
  return lots.filter((l) => ids.has(l.id)).map((l) => ({ name: l.name, batch: l.batch, past: ageOf(l, now).age === "past" }));
}

/** Books a batch on the lots it came from, inside the transaction of the pour: two tablets cannot draw the same grams twice. */
export function drawFrom(w: Workshop, taking: Taking | null, of: { jobId: string; pourId?: string; at: number; kind?: MoveKind }): void {
  if (!taking) return;
  const lots = lotsOf(w.db, taking.materialId, w.now());
  if (lots.length === 0) return;
  const opened = new Set<string>();
  for (const p of taking.parts) {
    if (!(p.g > 0)) continue;
    for (const d of drawn(lots, p.name, p.g).draws) {
      insertMoves(w.db, [move(d.lotId, d.part, of.kind ?? "drawn", -d.g, of.at, { jobId: of.jobId, ...(of.pourId ? { pourId: of.pourId } : {}) })]);
      opened.add(d.lotId);
    }
  }
  for (const l of lots) if (opened.has(l.id) && l.openedAt === null) putLot(w.db, l.id, { ...wordsOfLot(l), openedAt: of.at }, w.now());
}
