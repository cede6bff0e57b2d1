import { buildOrder } from "../mould";
import type { Plan } from "../plan";
import type { Task } from "../schedule";
import type { Pour } from "./pour";
import { standOf } from "./stand";

const MINUTE = 60_000;

/**
 * The work of a job with what its log says is done: what was poured stands where it was poured, what came before it is over, and is
 * planned no more. A mould that was finished before this calendar began is no part of it.
 * @param tasks of one job, as they would be from nothing; ids `jobId/step`
 * @param fromAt when the calendar begins, ms
 * @returns the tasks left on the calendar, and when those in the log began, ms
 */
export function begunTasks(
  jobId: string,
  plan: Plan,
  tasks: readonly Task[],
  pours: readonly Pour[],
  fromAt: number,
): { tasks: Task[]; logged: Map<string, number> } {
  const { job } = plan.dossier;
  const logged = new Map<string, number>();
  const over = new Set<string>();
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const key = (id: string) => `${jobId}/${id}`;
  const put = (id: string, doneAt: number): void => {
    const t = byId.get(key(id));
    if (t) logged.set(t.id, doneAt - t.handsMin * MINUTE);
  };

  const stand = standOf(plan, pours);
  const mine = stand.parts.flatMap((p) => (p.pour ? [{ act: p.act, pour: p.pour }] : []));
  const current = !stand.made || mine.some((p) => p.pour.pouredAt >= fromAt);
  if (plan.layout && current) {
    const order = buildOrder(job.mould, plan.layout, job.jacket);
    for (const { act, pour } of mine) {
      const step = act.kind === "rubber" ? order.find((s) => s.pour === act.index) : order.find((s) => s.id === `jacket-${act.index}`);
      if (step) put(step.id, pour.pouredAt);
    }
    const last = order.reduce((m, s, i) => (logged.has(key(s.id)) ? i : m), -1);
    // Whatever has no entry of its own is over once something after it is in the log.
    for (const s of order.slice(0, Math.max(0, last))) if (!logged.has(key(s.id))) over.add(key(s.id));
  }

  const casts = pours.filter((p) => p.kind === "cast" && p.pouredAt >= fromAt).sort((a, b) => a.pouredAt - b.pouredAt);
  casts.forEach((p, i) => {
    put(`cast-${i + 1}`, p.pouredAt);
    if (p.openedAt !== null) put(`open-${i + 1}`, p.openedAt);
    for (const t of tasks) if (t.id.startsWith(key(`layer-${i + 1}-`))) over.add(t.id);
  });
  if (casts.length > 0) for (const t of tasks) if (!logged.has(t.id) && !/\/(cast|open|layer)-\d/.test(t.id)) over.add(t.id);

  return {
    tasks: tasks.filter((t) => !over.has(t.id)).map((t) => ({ ...t, after: t.after.filter((a) => !over.has(a.id)) })),
    logged,
  };
}
