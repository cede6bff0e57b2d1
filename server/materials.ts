import { api } from "../contract";
import { randomUUID } from "node:crypto";
import { doubtsAbout, isBuiltIn, type Doubt, type Material } from "../core/material";
import { deleteMaterial, listOwnMaterials, putMaterial } from "../db/materials";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import { refuseStale } from "./stale";
import { catalogue } from "./plans";
import type { Workshop } from "./workshop";

export const ownMaterials = (w: Workshop): Material[] => listOwnMaterials(w.db);

/** Every material of the catalogue as one list. */
export function allMaterials(w: Workshop): Material[] {
  const s = catalogue(w);
  return [...s.rubbers, ...s.casts, ...s.surfaces, ...s.releases, ...s.boxes, ...s.sundries];
}

/** Adds an entry of the workshop's own, usually a copy of another. The id in the body is replaced. */
export function addMaterial(w: Workshop, body: unknown): { id: string; doubts: Doubt[] } {
  const { key, ...material } = parseOrRefuse(api.materials.add.in, body);
  const id = `own-${key ?? randomUUID()}`;
  putMaterial(w.db, { ...material, id }, w.now());
  return { id, doubts: doubtsAbout(material) };
}

export function updateMaterial(w: Workshop, id: string, body: unknown): { id: string; doubts: Doubt[] } {
  if (isBuiltIn(id)) throw new Refusal(409, "built-in", "Built-in entries stay as they are: copy it and change the copy.");
  const there = listOwnMaterials(w.db).find((m) => m.id === id);
  if (!there) throw new Refusal(404, "no-material", `There is no material "${id.slice(0, 60)}" of your own.`);
  const { was, ...material } = parseOrRefuse(api.materials.save.in, body);
  refuseStale(was, material, there, "This material", () => there);
  putMaterial(w.db, { ...material, id }, w.now());
  return { id, doubts: doubtsAbout(material) };
}

/** Puts a removed entry back under the id it had, so that what uses it finds it again. */
export function putBackMaterial(w: Workshop, id: string, body: unknown): { id: string; doubts: Doubt[] } {
  const material = parseOrRefuse(api.materials.putBack.in, body);
  if (!id.startsWith("own-") || isBuiltIn(id)) throw new Refusal(409, "built-in", "Only entries of your own are taken out and put back.");
  if (listOwnMaterials(w.db).some((m) => m.id === id)) throw new Refusal(409, "there", "It is among the materials already.");
  putMaterial(w.db, { ...material, id }, w.now());
  return { id, doubts: doubtsAbout(material) };
}

export function removeMaterial(w: Workshop, id: string): { ok: true } {
  if (isBuiltIn(id)) throw new Refusal(409, "built-in", "Built-in entries cannot be removed.");
  if (!deleteMaterial(w.db, id)) throw new Refusal(404, "no-material", `There is no material "${id.slice(0, 60)}" of your own.`);
  return { ok: true };
}
