import { VERDICT_WORD, type Verdict } from "@/core/fit/verdict";

const COLOUR: Record<Verdict, string> = { sound: "text-sound", care: "text-care", untested: "text-untested", no: "text-no" };

/** A verdict's shape: ring, wedge, open diamond, barred square. 20 × 20, in the colour of its text. */
export function VerdictShape({ verdict, size = 20 }: { verdict: Verdict; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2.4" className={COLOUR[verdict]}>
      {verdict === "sound" && (
        <>
          <circle cx="10" cy="10" r="7.6" />
          <circle cx="10" cy="10" r="3" fill="currentColor" stroke="none" />
        </>
      )}
      {verdict === "care" && <path d="M10 2.5 18 17H2Z M10 8v4" strokeLinejoin="round" />}
      {verdict === "untested" && <path d="M10 1.8 18.2 10 10 18.2 1.8 10Z" strokeDasharray="3.2 2.2" />}
      {verdict === "no" && (
        <>
          <rect x="2.4" y="2.4" width="15.2" height="15.2" rx="2" fill="currentColor" />
          <path d="M5.5 10h9" stroke="var(--color-card)" strokeWidth="3" />
        </>
      )}
    </svg>
  );
}

/** A verdict as shape and word, so that it never rests on colour alone. */
export function VerdictMark({ verdict, size = 20, word = true, className = "" }: { verdict: Verdict; size?: number; word?: boolean; className?: string }) {
  return (
    <span className={`inline-flex items-center gap-2 font-semibold ${COLOUR[verdict]} ${className}`}>
      <VerdictShape verdict={verdict} size={size} />
      {word ? <span>{VERDICT_WORD[verdict]}</span> : <span className="sr-only">{VERDICT_WORD[verdict]}</span>}
    </span>
  );
}
