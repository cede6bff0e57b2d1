import * as z from "zod";
import { HELD, type Held } from "../fit";
import { Job, jobDocument } from "./job";
import { Catalogue } from "../material";
import { versioned } from "./versioned";

/** A bare job was kept with a pour before there were dossiers: that is a dossier's format 1. */
export const DOSSIER_FORMAT = 2;

/**
 * Everything an answer about a job follows from: what was decided, the materials it names in full (their prices with them),
 * the patch tests of that pair, and what the log says its mould has held. Kept with a pour it says what was true that day,
 * whatever becomes of the materials afterwards.
 */
export const Dossier = z.object({
  format: z.literal(DOSSIER_FORMAT),
  job: Job,
  materials: Catalogue,
  /** By the log; the job may say more than the log knows, never less. */
  held: z.enum(HELD),
});
export type Dossier = z.infer<typeof Dossier>;

/** A dossier as it is kept. Entries from before materials were kept with them have none. */
export const KeptDossier = versioned("dossier", Dossier.extend({ job: jobDocument, materials: Catalogue.nullable() }), [
  (job) => ({ job, materials: null, held: job.held ?? "new" }),
]);
export type KeptDossier = z.infer<typeof KeptDossier>;

/** A job with the materials it may choose from. */
export const dossierOf = (job: Job, materials: Catalogue, held: Held = "new"): Dossier => ({ format: DOSSIER_FORMAT, job, materials, held });

/** The ids a job names, of every kind of material. */
const named = ({ job }: Dossier): Set<string> =>
  new Set(
    [
      job.rubberId,
      job.secondRubberId,
      job.plugRubberId,
      job.seamRubberId,
      job.castId,
      job.inside.thenCastId,
      ...job.inside.layers.map((l) => l.castId),
      job.master.surfaceId,
      job.clayId,
      job.sealerId,
      job.releaseId,
      job.boxId,
      job.strength.boardId,
    ].filter((id): id is string => id !== null),
  );

/** A dossier to be kept: only the materials its job names, in full, and the patch tests that are about them. */
export function trimmed(d: Dossier): Dossier {
  const ids = named(d);
  const used = <T extends { id: string }>(list: readonly T[]): T[] => list.filter((m) => ids.has(m.id));
  const { rubbers, casts, surfaces, releases, boxes, patches, shelved } = d.materials;
  return {
    ...d,
    materials: {
      rubbers: used(rubbers),
      casts: used(casts),
      surfaces: used(surfaces),
      releases: used(releases),
      boxes: used(boxes),
      // What it takes besides changes no figure of it.
      sundries: [],
      ...(patches ? { patches: patches.filter((p) => [...ids].some((id) => p.key.includes(id))) } : {}),
      ...(shelved ? { shelved: shelved.filter((s) => ids.has(s.materialId)) } : {}),
    },
  };
}

/** A kept dossier as it is planned: entries from before materials were kept take those of today, and keep them if they are written again. */
export function completed(d: KeptDossier, today: () => Catalogue): Dossier {
  const { materials } = d;
  return materials === null ? trimmed({ ...d, materials: today() }) : { ...d, materials };
}
