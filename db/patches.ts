import { and, asc, desc, eq, isNull } from "drizzle-orm";
import * as z from "zod";
import type { Patch } from "../core/log";
import type { PatchResult } from "../core/material";
import { COLUMNS } from "./columns";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { patches } from "./schema";

const Between = z.tuple([z.string(), z.string()]);
type Row = typeof patches.$inferSelect;
const toPatch = (r: Row): Patch => ({ ...COLUMNS.patches.parse(r), between: Between.parse(r.between) });

const named = (db: Db, r: Row): Patch => readNamed(db, "patches", r.id, () => toPatch(r));
const sound = (db: Db, rows: readonly Row[]): Patch[] => soundRows(db, "patches", rows, (r) => r.id, toPatch);

export const insertPatch = (db: Db, p: Patch): void => {
  db.transaction((tx) => tx.insert(patches).values(p).run());
};

export function readPatch(db: Db, id: string): Patch | null {
  const row = db.select().from(patches).where(eq(patches.id, id)).get();
  return row ? named(db, row) : null;
}

export function changePatch(db: Db, id: string, change: Partial<Pick<Patch, "endedAt" | "outcome" | "notes" | "photoFile">>): Patch | null {
  return db.transaction((tx) => {
    if (Object.keys(change).length > 0) tx.update(patches).set(change).where(eq(patches.id, id)).run();
    return readPatch(db, id);
  });
}

/** Tests that still cure, the next to be ready first. */
export const listRunningPatches = (db: Db): Patch[] =>
  sound(db, db.select().from(patches).where(isNull(patches.endedAt)).orderBy(asc(patches.readyAt)).limit(100).all());

/** Tests of one pair, newest first. */
export const listPatchesOf = (db: Db, pair: string): Patch[] =>
  sound(db, db.select().from(patches).where(eq(patches.pair, pair)).orderBy(desc(patches.startedAt)).limit(20).all());

/** The latest answer for each pair. */
export function patchResults(db: Db): PatchResult[] {
  const answered = db.select({ key: patches.pair, outcome: patches.outcome, endedAt: patches.endedAt }).from(patches).orderBy(desc(patches.endedAt)).all();
  const latest = new Map<string, PatchResult>();
  for (const { key, outcome, endedAt } of answered) if (outcome && endedAt !== null && !latest.has(key)) latest.set(key, { key, outcome });
  return [...latest.values()];
}

export const pairRunning = (db: Db, pair: string): Patch | null => {
  const row = db
    .select()
    .from(patches)
    .where(and(eq(patches.pair, pair), isNull(patches.endedAt)))
    .get();
  return row ? named(db, row) : null;
};
