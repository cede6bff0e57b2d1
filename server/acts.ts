import type { BenchAct } from "../contract/bench";
import { nextAct, standOf } from "../core/log";
import { say } from "../core/quantity";
import { jobsWithLog } from "../db/jobs";
import { listJobPours } from "../db/pours";
import { readSettings } from "../db/settings";
import { orOdd } from "./odd";
import { planStanding } from "./plans";
import type { Workshop } from "./workshop";

/** Jobs looked through: those that were poured for last. */
const MOST_JOBS = 30;
/** A mould nobody has touched for so long rests on the rack; it is no act on the bench. */
const RESTS_MS = 30 * 24 * 3_600_000;

/**
 * What wants hands at each job in hand, the soonest first: the next coat, the second half, the casting, the opening. Where nothing is
 * under way, and where it rests for weeks, there is no act.
 */
export function benchActs(w: Workshop): BenchAct[] {
  const now = w.now();
  const { units } = readSettings(w.db);
  return jobsWithLog(w.db, MOST_JOBS)
    .flatMap((j): BenchAct[] => {
      const pours = listJobPours(w.db, j.id);
      if (now - Math.max(...pours.flatMap((p) => [p.pouredAt, p.openedAt ?? 0])) > RESTS_MS) return [];
      const act = foundOrNone(() => orOdd(() => nextAct(standOf(planStanding(w, j, pours, true), pours))));
      // A mould that is empty and ready waits on the rack: it is nobody's act until somebody wants a casting.
      if (!act || (act.does === "weigh" && act.fromAt === null)) return [];
      return [{ jobId: j.id, jobName: j.name, does: act.does, name: say(act.name, units), pourId: act.pour?.id ?? null, fromAt: act.fromAt, toAt: act.toAt }];
    })
    .sort((a, b) => (a.fromAt ?? 0) - (b.fromAt ?? 0));
}

/** A job that cannot be planned is ours to mend, and takes no bench with it. */
function foundOrNone<T>(find: () => T): T | null {
  try {
    return find();
  } catch (e) {
    console.error("What comes next at a job cannot be worked out", e);
    return null;
  }
}
