import type { Pour } from "./pour";
import type { Standing } from "./stand";

/** What wants hands next at a job: something to weigh in and pour, or to open. Times in ms. */
export interface NextAct {
  does: "weigh" | "open";
  /** What it is, in a few words; what has to come out first with it. */
  name: string;
  /** The pour to open, or the one it waits for. */
  pour: Pour | null;
  fromAt: number | null;
  toAt: number | null;
}

/** The next act of a job by where it stands; null where nothing is begun, or nothing is left to do. */
export function nextAct(s: Standing): NextAct | null {
  if (s.inside) return { does: "open", name: `Open ${lower(s.inside.snapshot.what)}`, pour: s.inside, fromAt: s.inside.readyAt, toAt: null };
  const begun = s.parts.some((p) => p.pour) || s.after !== null;
  if (!s.next || !begun) return null;
  const casts = s.next.kind === "cast" || s.next.kind === "layer";
  const out = casts && s.after?.kind === "rubber" && s.after.openedAt === null;
  return { does: "weigh", name: out ? `Take the master out; then ${lower(s.next.name)}` : s.next.name, pour: s.after, fromAt: s.fromAt, toAt: s.toAt };
}

const lower = (s: string): string => s.charAt(0).toLowerCase() + s.slice(1);
