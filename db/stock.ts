import { and, asc, desc, eq, isNull, sql } from "drizzle-orm";
import { drawOrder, leftBy, LotWords, Pack, type KeptPack, type Lot, type Move } from "../core/stock";
import { COLUMNS } from "./columns";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { lots, packs, stockMoves } from "./schema";

type LotRow = typeof lots.$inferSelect;

/** Every sum of a lot's moves, by its id. */
function leftOf(db: Db, here: boolean): Map<string, { part: number; g: number }[]> {
  const rows = db
    .select({ lotId: stockMoves.lotId, part: stockMoves.part, g: sql<number>`sum(${stockMoves.g})` })
    .from(stockMoves)
    .innerJoin(lots, eq(lots.id, stockMoves.lotId))
    .where(here ? isNull(lots.endedAt) : undefined)
    .groupBy(stockMoves.lotId, stockMoves.part)
    .all();
  const by = new Map<string, { part: number; g: number }[]>();
  for (const { lotId, ...m } of rows) by.set(lotId, [...(by.get(lotId) ?? []), m]);
  return by;
}

function toLot(r: LotRow, moves: readonly { part: number; g: number }[]): Lot {
  COLUMNS.lots.parse(r);
  const words = LotWords.parse(r.document);
  return { ...words, id: r.id, leftG: leftBy(words.parts.length, moves) };
}

/** Lots that stand in the cupboard, the last to come first. */
export function listLots(db: Db): Lot[] {
  const left = leftOf(db, true);
  return soundRows(
    db,
    "lots",
    db.select().from(lots).where(isNull(lots.endedAt)).orderBy(desc(lots.updatedAt)).all(),
    (r) => r.id,
    (r) => toLot(r, left.get(r.id) ?? []),
  );
}

/** Lots of one material that stand there, in the order in which they are drawn from. */
export function lotsOf(db: Db, materialId: string, now: number): Lot[] {
  const rows = db
    .select()
    .from(lots)
    .where(and(isNull(lots.endedAt), eq(lots.materialId, materialId)))
    .all();
  const found = soundRows(
    db,
    "lots",
    rows,
    (r) => r.id,
    (r) => toLot(r, movesOf(db, r.id)),
  );
  return drawOrder(found, now);
}

export const movesOf = (db: Db, lotId: string): Move[] => db.select().from(stockMoves).where(eq(stockMoves.lotId, lotId)).orderBy(asc(stockMoves.at)).all();

export function readLot(db: Db, id: string): Lot | null {
  const row = db.select().from(lots).where(eq(lots.id, id)).get();
  return row ? readNamed(db, "lots", id, () => toLot(row, movesOf(db, id))) : null;
}

/** Puts a lot into the cupboard, or writes what is told of it anew. No two writes bear the same moment: it names the state of the shelf. */
export function putLot(db: Db, id: string, words: LotWords, now: number): void {
  const updatedAt = sql<number>`max(${now}, (select coalesce(max(updated_at), 0) + 1 from lots))`;
  const value = { id, materialId: words.materialId, document: words, endedAt: words.endedAt, updatedAt };
  db.insert(lots).values(value).onConflictDoUpdate({ target: lots.id, set: value }).run();
}

export const insertMoves = (db: Db, moves: readonly Move[]): void => {
  if (moves.length > 0)
    db.insert(stockMoves)
      .values([...moves])
      .run();
};

export const deleteLot = (db: Db, id: string): boolean => db.delete(lots).where(eq(lots.id, id)).run().changes === 1;

/** Out of which lots a pour came. */
export const movesOfPour = (db: Db, pourId: string): Move[] => db.select().from(stockMoves).where(eq(stockMoves.pourId, pourId)).all();

export const listPacks = (db: Db): KeptPack[] =>
  soundRows(
    db,
    "packs",
    db.select().from(packs).orderBy(asc(packs.materialId)).all(),
    (r) => r.id,
    (r) => ({ ...Pack.parse(r.document), id: r.id }),
  );

export function readPack(db: Db, id: string): KeptPack | null {
  const row = db.select().from(packs).where(eq(packs.id, id)).get();
  return row ? readNamed(db, "packs", id, () => ({ ...Pack.parse(row.document), id })) : null;
}

export function putPack(db: Db, id: string, pack: Pack, now: number): void {
  const value = { id, materialId: pack.materialId, document: pack, updatedAt: now };
  db.insert(packs).values(value).onConflictDoUpdate({ target: packs.id, set: value }).run();
}

export const deletePack = (db: Db, id: string): boolean => db.delete(packs).where(eq(packs.id, id)).run().changes === 1;
