import { asc, eq } from "drizzle-orm";
import { Material } from "../core/material";
import type { Db } from "./open";
import { materials } from "./schema";

/** The workshop's own entries, by kind and name. */
export const listOwnMaterials = (db: Db): Material[] =>
  db
    .select()
    .from(materials)
    .orderBy(asc(materials.kind), asc(materials.name))
    .all()
    .map((r) => Material.parse(r.document));

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
