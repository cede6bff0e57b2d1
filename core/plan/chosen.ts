import { pastWords, pick, type BoxStock, type Cast, type Rubber, type Surface } from "../material";
import { hasSeamWalls, OPENING } from "../mould";
import type { Dossier } from "../record";
import type { Add } from "./remarks";

/** The materials a job is about: those it names, and what stands in for those it leaves to others. */
export interface Chosen {
  rubber: Rubber | null;
  /** Of the parts poured against the first; the first's own unless another is named. */
  second: Rubber | null;
  plugRubber: Rubber | null;
  /** Of the walls along the seams of a skin; null where there are none. */
  seamRubber: Rubber | null;
  cast: Cast | null;
  surface: Surface | null;
  stock: BoxStock | null;
}

/** Finds what a job names; what is gone is said at its step. */
export function chosenOf({ job, materials: catalogue }: Dossier, add: Add): Chosen {
  const kind = OPENING[job.mould.opening];
  const rubber = pick(catalogue.rubbers, job.rubberId);
  const second = kind.halves ? (pick(catalogue.rubbers, job.secondRubberId) ?? rubber) : null;
  const plugRubber = kind.plugs ? (pick(catalogue.rubbers, job.plugRubberId) ?? rubber) : null;
  const seamRubber = hasSeamWalls(job.mould) ? (pick(catalogue.rubbers, job.seamRubberId) ?? rubber) : null;
  const cast = pick(catalogue.casts, job.castId);
  const surface = pick(catalogue.surfaces, job.master.surfaceId);
  const stock = pick(catalogue.boxes, job.boxId);
  for (const [path, wanted, found, step] of [
    ["rubberId", job.rubberId, rubber, "pairing"],
    ["castId", job.castId, cast, "pairing"],
    ["master.surfaceId", job.master.surfaceId, surface, "master"],
    ["secondRubberId", kind.halves ? job.secondRubberId : null, pick(catalogue.rubbers, job.secondRubberId), "rubber"],
    ["plugRubberId", kind.plugs ? job.plugRubberId : null, plugRubber, "rubber"],
    ["seamRubberId", seamRubber ? job.seamRubberId : null, pick(catalogue.rubbers, job.seamRubberId), "rubber"],
    ["sealerId", job.sealerId, pick(catalogue.releases, job.sealerId), "prepare"],
    ["releaseId", job.releaseId, pick(catalogue.releases, job.releaseId), "prepare"],
    ["clayId", kind.halves ? job.clayId : null, pick(catalogue.surfaces, job.clayId), "prepare"],
    ["boxId", job.boxId, stock, "box"],
    ["strength.boardId", job.strength.boardId, pick(catalogue.boxes, job.strength.boardId), "strength"],
    ["inside.thenCastId", job.inside.thenCastId, pick(catalogue.casts, job.inside.thenCastId), "cast"],
  ] as const) {
    if (wanted !== null && found === null)
      add(step, "fault", [{ code: "material-gone", path, message: "What was chosen here is no longer among the materials: choose another." }]);
  }
  const seen = new Set<string>();
  for (const m of [rubber, second, plugRubber, seamRubber, cast]) {
    const old = m && !seen.has(m.id) ? catalogue.shelved?.find((s) => s.materialId === m.id && s.past) : undefined;
    if (!m || !old) continue;
    seen.add(m.id);
    add("pairing", "warning", [{ code: "lot-past", path: m.kind === "cast" ? "castId" : "rubberId", message: pastWords(old, m.name) }]);
  }
  return { rubber, second, plugRubber, seamRubber, cast, surface, stock };
}
