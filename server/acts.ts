import type { BenchAct } from "../contract/bench";
import { nextAct, standOf, type NextAct } from "../core/log";
import { say } from "../core/quantity";
import { jobsWithLog, logMarks, type JobLine } from "../db/jobs";
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
  const jobs = jobsWithLog(w.db, MOST_JOBS);
  const marks = logMarks(
    w.db,
    jobs.map((j) => j.id),
  );
  return jobs
    .flatMap((j): BenchAct[] => {
      const { act, lastAt } = actOf(w, j, `${w.files.folder} ${j.id}`, `${j.updatedAt} ${marks.get(j.id) ?? ""}`);
      // A mould that is empty and ready waits on the rack: it is nobody's act until somebody wants a casting.
      if (now - lastAt > RESTS_MS || !act || (act.does === "weigh" && act.fromAt === null)) return [];
      return [{ jobId: j.id, jobName: j.name, does: act.does, name: say(act.name, units), pourId: act.pour?.id ?? null, fromAt: act.fromAt, toAt: act.toAt }];
    })
    .sort((a, b) => (a.fromAt ?? 0) - (b.fromAt ?? 0));
}

interface Found {
  act: NextAct | null;
  /** When anything was last poured or opened, ms. */
  lastAt: number;
}
/** What was found of each job, and what its log came to then: fifty pages ask, and nothing has changed. It may be emptied at any time. */
const known = new Map<string, { mark: string; found: Found }>();

function actOf(w: Workshop, j: JobLine, key: string, mark: string): Found {
  const there = known.get(key);
  if (there?.mark === mark) return there.found;
  const pours = listJobPours(w.db, j.id);
  const found: Found = {
    act: foundOrNone(() => orOdd(() => nextAct(standOf(planStanding(w, j, pours, true), pours)))),
    lastAt: Math.max(0, ...pours.flatMap((p) => [p.pouredAt, p.openedAt ?? 0])),
  };
  if (known.size > 500) known.clear();
  known.set(key, { mark, found });
  return found;
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
