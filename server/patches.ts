import { api } from "../contract";
import { randomUUID } from "node:crypto";
import { type Patch } from "../core/log";
import { changePatch, insertPatch, listPatchesOf, listRunningPatches, pairRunning, readPatch } from "../db/patches";
import { parseOrRefuse } from "./parse";
import { keepPicture, readPicture, type KeptPicture } from "./photos";
import { Refusal } from "./refusal";
import { refuseStale } from "./stale";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;

/** Starts the clock of a patch test. One pair is tried once at a time. */
export function startPatch(w: Workshop, body: unknown): Patch {
  const { waitH, ...ask } = parseOrRefuse(api.patches.start.in, body);
  const running = pairRunning(w.db, ask.pair);
  if (running) return running;
  const now = w.now();
  const patch: Patch = { ...ask, id: randomUUID(), startedAt: now, readyAt: now + waitH * HOUR, endedAt: null, outcome: null, notes: "", photoFile: null };
  insertPatch(w.db, patch);
  return patch;
}

export function getPatch(w: Workshop, id: string): Patch {
  const patch = readPatch(w.db, id);
  if (!patch) throw new Refusal(404, "no-patch", `There is no patch test "${id.slice(0, 60)}".`);
  return patch;
}

/** Writes down what a patch test showed; a null outcome takes the judgement back. */
export function judgePatch(w: Workshop, id: string, body: unknown): Patch {
  const { outcome, notes, was } = parseOrRefuse(api.patches.judge.in, body);
  const before = getPatch(w, id);
  refuseStale(was, notes === undefined ? {} : { notes }, before, "This patch test", () => before);
  // A slow cure looks clean at the edges first: clean is only believed after its time, tacky at any time.
  if (outcome === "clean" && w.now() < before.readyAt)
    throw new Refusal(422, "too-early", `Too early to call it clean: it needs ${Math.ceil((before.readyAt - w.now()) / HOUR)} more hours. Look again then.`);
  const judged = outcome === undefined ? {} : { outcome, endedAt: outcome === null ? null : w.now() };
  return changePatch(w.db, id, { ...judged, ...(notes === undefined ? {} : { notes }) }) ?? getPatch(w, id);
}

/** Keeps one photo of a patch test; a second takes the first's place. */
export async function addPatchPhoto(w: Workshop, id: string, bytes: Buffer): Promise<Patch> {
  getPatch(w, id);
  return keepPicture(w, bytes, ({ fileName }) => changePatch(w.db, id, { photoFile: fileName }) ?? getPatch(w, id));
}

export async function patchPhoto(w: Workshop, id: string): Promise<KeptPicture> {
  const { photoFile } = getPatch(w, id);
  if (!photoFile) throw new Refusal(404, "no-photo", "This patch test has no photo.");
  return readPicture(w, photoFile);
}

export const runningPatches = (w: Workshop): Patch[] => listRunningPatches(w.db);
export const patchesOf = (w: Workshop, pair: string): Patch[] => listPatchesOf(w.db, pair);
