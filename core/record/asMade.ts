import { OPENING } from "../mould";
import { JACKETS } from "../material";
import type { Dossier } from "./dossier";
import type { Job } from "./job";

/** What was kept with the last rubber of a mould, and with the last part of its jacket; null where none is in the log, and the job's stands. */
export interface MadeOf {
  rubber: Dossier;
  jacket: Dossier | null;
}

/** What of a job was poured round, into and of: once the rubber is in, that is the mould's, whatever the job says later. */
const ofMould = ({ master, mould, rubber, rubberId, secondRubberId, plugRubberId, seamRubberId, sealerId, clayId, boxId, sealing }: Job): Partial<Job> => ({
  master,
  mould,
  rubber,
  rubberId,
  secondRubberId,
  plugRubberId,
  seamRubberId,
  sealerId,
  clayId,
  boxId,
  sealing,
});

/** The materials of the day first, then whatever else there is today. */
const first = <T extends { id: string }>(made: readonly T[], today: readonly T[]): T[] => [...made, ...today.filter((m) => !made.some((x) => x.id === m.id))];

/**
 * A job as it is cast in a mould that exists: the piece, the rubber and the box are those the mould was made with, the rubber with its
 * figures of that day; what is cast in it, what for, and how warm it is are the job's own.
 */
export function asMade(now: Dossier, { rubber: made, jacket }: MadeOf): Dossier {
  return {
    ...now,
    job: { ...now.job, ...ofMould(made.job), jacket: (jacket ?? now).job.jacket },
    materials: {
      ...now.materials,
      rubbers: first(made.materials.rubbers, now.materials.rubbers),
      surfaces: first(made.materials.surfaces, now.materials.surfaces),
      boxes: first(made.materials.boxes, now.materials.boxes),
    },
  };
}

/** The same in whatever order its keys were written. */
const sorted = (v: unknown): unknown =>
  Array.isArray(v)
    ? v.map(sorted)
    : v !== null && typeof v === "object"
      ? Object.fromEntries(
          Object.entries(v)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, x]) => [k, sorted(x)]),
        )
      : v;
const same = (a: unknown, b: unknown): boolean => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
/** What of a rubber is in a mould: all but what it costs. */
const ofRubber = (r: Dossier["materials"]["rubbers"][number] | undefined) => r && { ...r, pricePerKg: null };
/** What of a decision is left in a mould: how its boxes were held is gone with them. */
const ofDecision = (m: Job["mould"]) => ({ ...m, onHead: false, stands: [] });

/** In what a mould that exists differs from what its job says now, in words; empty where it does not. */
export function madeOtherwise(now: Dossier, { rubber: made, jacket }: MadeOf): string[] {
  const out: string[] = [];
  const rubberOf = (d: Dossier, id: string | null) => d.materials.rubbers.find((r) => r.id === id);
  const [a, b] = [made.job, now.job];
  const [was, is] = [rubberOf(made, a.rubberId), rubberOf(now, b.rubberId)];
  if (a.rubberId !== b.rubberId) out.push(`it is of ${was?.name ?? "another rubber"}, and the job says ${is?.name ?? "none"}`);
  else if (!same(ofRubber(was), ofRubber(is))) out.push("the figures of its rubber were others");
  if (!same([a.secondRubberId, a.plugRubberId, a.seamRubberId], [b.secondRubberId, b.plugRubberId, b.seamRubberId]))
    out.push("another of its rubbers was another");
  if (!same(a.master, b.master)) out.push("the piece had other sizes, or another surface");
  if (a.mould.opening !== b.mould.opening)
    out.push(`it opens as ${OPENING[a.mould.opening].label.toLowerCase()}, and the job says ${OPENING[b.mould.opening].label.toLowerCase()}`);
  else if (!same(ofDecision(a.mould), ofDecision(b.mould))) out.push("its walls, cuts or coats are others");
  const j = (jacket ?? now).job.jacket;
  if (j !== b.jacket) out.push(`its jacket is ${JACKETS[j].label.toLowerCase()}, and the job says ${JACKETS[b.jacket].label.toLowerCase()}`);
  return out;
}
