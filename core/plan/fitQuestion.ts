import type { FitQuestion, Held } from "../fit";
import { hasSeamWalls, OPENING } from "../mould";
import type { Job } from "../record";

/** What of a casting meets the rubber: its first layer, or all of it. */
export const faceOf = (job: Job): string | null => job.inside.layers[0]?.castId ?? job.castId;

/**
 * What the contact rules are asked about a job. Halves, and sections of a skin, meet rubber with rubber: without a rubber of
 * its own, the second is the first's.
 */
export function fitQuestionOf(job: Job): FitQuestion {
  const kind = OPENING[job.mould.opening];
  const sections = kind.sections && job.mould.skin.sections > 1;
  return {
    surfaceId: job.master.surfaceId,
    sealerId: job.sealerId,
    releaseId: job.releaseId,
    clayId: kind.halves || (sections && !job.mould.skin.seamWall) ? job.clayId : null,
    rubberId: job.rubberId,
    secondRubberId: kind.halves ? (job.secondRubberId ?? job.rubberId) : sections ? job.rubberId : null,
    plugRubberId: kind.plugs ? (job.plugRubberId ?? job.rubberId) : null,
    plugsLast: job.mould.plugsLast,
    seamRubberId: hasSeamWalls(job.mould) ? (job.seamRubberId ?? job.rubberId) : null,
    castId: faceOf(job),
    innerCastIds: job.inside.layers.slice(1).flatMap((l) => l.castId ?? job.castId ?? []),
    use: job.use,
    held: job.held,
    washedToday: job.washedToday,
    boxId: kind.made === "block" ? job.boxId : null,
    sealing: kind.made === "block" ? job.sealing : "none",
    jacket: job.jacket,
    finish: job.finish,
  };
}

/** The graver of two histories: what is not food outweighs food, and food outweighs nothing. */
export const moreHeld = (a: Held, b: Held): Held => (a === "non-food" || b === "non-food" ? "non-food" : a === "food" || b === "food" ? "food" : "new");
