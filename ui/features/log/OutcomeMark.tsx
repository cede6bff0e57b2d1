import { OUTCOME_WORD, type Outcome } from "@/core/plan";

const COLOUR: Record<Outcome, string> = { good: "text-sound", flawed: "text-care", failed: "text-no" };

/** How a pour came out, as a shape and a word: whole drop, chipped drop, spilt drop. */
export function OutcomeMark({ outcome, open }: { outcome: Outcome | null; open: boolean }) {
  if (outcome === null) return <span className="font-semibold text-soft">{open ? "Curing" : "Opened"}</span>;
  return (
    <span className={`inline-flex items-center gap-1.5 font-semibold ${COLOUR[outcome]}`}>
      <svg
        width="18"
        height="18"
        viewBox="0 0 18 18"
        aria-hidden="true"
        fill={outcome === "good" ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth="2"
        strokeLinejoin="round"
        strokeLinecap="round"
      >
        {outcome === "failed" ? (
          <path d="M2 15h14M4 15c0-3 3-4 3-6M12 15c0-2 2-2 2-4M9 12V4" />
        ) : (
          <path d="M9 2c3.5 4 5.4 6.6 5.4 9A5.4 5.4 0 0 1 9 16.4 5.4 5.4 0 0 1 3.6 11C3.6 8.600 5.500 6 9 2Z" />
        )}
        {outcome === "flawed" && <path d="M9 6 7.500 9.500l3 1.500L9 14.500" />}
      </svg>
      {OUTCOME_WORD[outcome]}
    </span>
  );
}
