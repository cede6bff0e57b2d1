import type { Grade } from "@/core/mould";
import { VerdictMark } from "./VerdictMark";

const AS = { holds: "sound", close: "care", bulges: "no" } as const;

/** Whether walls hold, or an opening lets go: the same shapes as verdicts, with words of its own. */
export function GradeMark({ grade, words }: { grade: Grade; words: Record<Grade, string> }) {
  return (
    <span className="inline-flex items-center gap-2 font-semibold">
      <span aria-hidden="true" className="inline-flex">
        <VerdictMark verdict={AS[grade]} word={false} />
      </span>
      <span>{words[grade]}</span>
    </span>
  );
}

export const WALL_WORDS: Record<Grade, string> = { holds: "Holds", close: "Close", bulges: "Bulges too far" };
export const STRETCH_WORDS: Record<Grade, string> = { holds: "Lets go", close: "Close", bulges: "Too much to ask" };
export const CORE_WORDS: Record<Grade, string> = { holds: "Stands", close: "Handle it gently", bulges: "Sags or tears" };
