import { buildOrder, LAYER_WAYS, type BuildStep } from "../mould";
import type { Task } from "../schedule";
import { jacketPartsOf } from "./jacket";
import type { Plan } from "./types";

/** Hands-on minutes that are usual for steps of each kind; a person puts in their own. */
const HANDS_MIN: Record<BuildStep["at"], number> = { prepare: 40, box: 45, rubber: 30, out: 30 };
const JACKET_MIN = 60;
/** Banding a mould and standing it up otherwise, min. */
const STAND_MIN = 10;
/** Until sealer and release are dry, min. */
const PREPARED_MIN = 60;
const CAST_HANDS_MIN = 20;
const OPEN_HANDS_MIN = 15;

const minutes = (hours: number): number => Math.round(hours * 60);

/** What a step needs hands for, and how long: mixing and pouring by amount, the rest by kind. */
function handsOf(step: BuildStep, p: Plan, pourGMin: number): number {
  if (step.pour !== null) {
    const g = p.pours[step.pour]?.batch?.mixG ?? 0;
    const pressing = p.pours[step.pour]?.pressing;
    if (pressing) return Math.max(15, Math.round((10 + pressing.hours * 60) / 5) * 5);
    return Math.max(15, Math.round((10 + g / pourGMin) / 5) * 5);
  }
  if (step.id === "stand") return STAND_MIN;
  return step.id.startsWith("jacket-") ? JACKET_MIN : HANDS_MIN[step.at];
}

/**
 * The work of a job as steps on a calendar: the order in which its mould is built, each with what it waits for, then so many
 * castings. A coat has to follow while the one before is tacky; the others may wait longer than they must.
 * @param casts castings to pour; each takes the mould until it is opened
 * @param degas whether rubber goes under vacuum, and so holds the one pot
 */
export function tasksOf(jobId: string, p: Plan, o: { casts: number; degas: boolean; degasMin: number; pourGMin: number; build: boolean }): Task[] {
  if (!p.layout) return [];
  const { job } = p.dossier;
  const key = (id: string) => `${jobId}/${id}`;
  const order = o.build ? buildOrder(job.mould, p.layout, job.jacket) : [];
  const out: Task[] = [];
  const jacketSets = minutes(jacketPartsOf(p)[0]?.sets.hours.typical ?? 0);
  const byId = new Map(order.map((s) => [s.id, s]));
  for (const s of order) {
    const wet = s.pour !== null;
    out.push({
      id: key(s.id),
      label: s.what,
      group: jobId,
      handsMin: handsOf(s, p, o.pourGMin) + (wet && o.degas ? o.degasMin : 0),
      uses: wet && o.degas ? ["vacuum-pot"] : [],
      holdMin: 0,
      after: s.after.map((id) => {
        const before = byId.get(id);
        const pour = before?.pour != null ? p.pours[before.pour] : undefined;
        if (pour?.wait.until === "recoat") {
          const { opens, closes } = pour.cure.tack;
          return { id: key(id), minMin: minutes(opens.typical), maxMin: minutes(closes.typical) };
        }
        const wait = pour ? minutes(pour.wait.hours.typical) : before?.id.startsWith("jacket-") ? jacketSets : before?.id === "master" ? PREPARED_MIN : 0;
        return { id: key(id), minMin: wait, maxMin: null };
      }),
    });
  }
  const last = out.at(-1)?.id ?? null;
  // What never sets where it stands is not laid over any day.
  if (!p.castCure || p.castCure.demould.never || !p.cast) return out;
  const demould = minutes(p.castCure.demould.hours.typical);
  for (let i = 0; i < o.casts; i++) {
    let from = i === 0 ? last : key(`open-${i}`);
    const of = o.casts > 1 ? `, ${i + 1} of ${o.casts}` : "";
    let waited = 0;
    // Each layer before the last holds the mould until the next may follow.
    p.layers.slice(0, -1).forEach((l, k) => {
      const id = key(`layer-${i + 1}-${k + 1}`);
      const wait = minutes(l.next?.hours.typical ?? 0);
      out.push({
        id,
        label: `${l.name}: ${LAYER_WAYS[l.way].label.toLowerCase()}, ${l.cast.name.toLowerCase()}${of}`,
        group: jobId,
        handsMin: CAST_HANDS_MIN,
        uses: [`mould of ${jobId}`],
        holdMin: wait,
        after: from ? [{ id: from, minMin: waited, maxMin: null }] : [],
      });
      from = id;
      waited = wait;
    });
    out.push({
      id: key(`cast-${i + 1}`),
      label: `${p.layers.length > 1 ? `${p.layers.at(-1)?.name ?? ""}, the last: ` : "Cast "}${(p.layers.at(-1)?.cast ?? p.cast).name.toLowerCase()}${of}`,
      group: jobId,
      handsMin: CAST_HANDS_MIN,
      uses: [`mould of ${jobId}`],
      holdMin: demould,
      after: from ? [{ id: from, minMin: waited, maxMin: null }] : [],
    });
    out.push({
      id: key(`open-${i + 1}`),
      label: `Open it${o.casts > 1 ? `, casting ${i + 1}` : ""}`,
      group: jobId,
      handsMin: OPEN_HANDS_MIN,
      uses: [],
      holdMin: 0,
      after: [{ id: key(`cast-${i + 1}`), minMin: demould, maxMin: null }],
    });
  }
  return out;
}
