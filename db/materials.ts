import { asc, eq } from "drizzle-orm";
import { catalogueOf, Material, type Catalogue } from "../core/material";
import { patchResults } from "./patches";
import { soundRows } from "./odd";
import type { Db } from "./open";
import { materials } from "./schema";

/** The workshop's own entries, by kind and name. */
export const listOwnMaterials = (db: Db): Material[] =>
  soundRows(
    db,
    "materials",
    db.select().from(materials).orderBy(asc(materials.kind), asc(materials.name)).all(),
    (r) => r.id,
    (r) => Material.parse(r.document),
  );

/** All materials of a workshop, built-in and its own, and what its patch tests answered. */
export const readCatalogue = (db: Db): Catalogue => ({ ...catalogueOf(listOwnMaterials(db)), patches: patchResults(db) });

export const putMaterial = (db: Db, m: Material, now: number): void => putMaterials(db, [m], now);

/** Adds or replaces entries, all of them or none. */
export function putMaterials(db: Db, all: readonly Material[], now: number): void {
  db.transaction((tx) => {
    for (const m of all) {
      const values = { id: m.id, kind: m.kind, name: m.name, document: m, updatedAt: now };
      tx.insert(materials).values(values).onConflictDoUpdate({ target: materials.id, set: values }).run();
    }
  });
}

export const deleteMaterial = (db: Db, id: string): boolean => db.transaction((tx) => tx.delete(materials).where(eq(materials.id, id)).run().changes === 1);
