"use client";

import { BellRing, Check, Clock4 } from "lucide-react";
import Link from "next/link";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { CLOCK_KINDS, dueAt } from "@/core/clock/kinds";
import type { ClockState } from "@/core/clock";
import { notice } from "../../kit/notice";
import type { ClockAct } from "@/contract/bench";
import { call } from "../../data/call";
import { fromNow } from "../../kit/When";
import { useBenchClocks, useTicking } from "./BenchClocks";
import { ring, soundOn } from "./sound";

const AGAIN_MS = 20_000;
const SNOOZES = [
  { minutes: 5, reason: "Hands are full" },
  { minutes: 15, reason: "Still tacky, looking again" },
  { minutes: 60, reason: "It may wait" },
] as const;

/** What calls for hands, on every screen: a banner, a sound, and a notification where it is allowed. */
export function Caller() {
  const { bench, refresh } = useBenchClocks();
  const now = useTicking(1000);
  const calling = (bench?.clocks ?? []).filter((c) => c.calls);
  const key = calling.map((c) => c.clock.id).join(" ");
  const told = useRef(new Set<string>());
  useEffect(() => {
    if (key === "") return;
    const call = () => soundOn() && ring();
    const first = setTimeout(call, 0);
    const timer = setInterval(call, AGAIN_MS);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [key]);
  useEffect(() => {
    for (const c of calling) {
      if (told.current.has(c.clock.id)) continue;
      told.current.add(c.clock.id);
      if (typeof Notification !== "undefined" && Notification.permission === "granted")
        new Notification(c.clock.label, { body: CLOCK_KINDS[c.clock.kind].label, tag: c.clock.id });
    }
  }, [calling]);
  // One line, the most pressing; the others a touch away.
  const [all, setAll] = useState(false);
  // What takes the height of a screen leaves room for what calls.
  const [bar, setBar] = useState<HTMLElement | null>(null);
  useEffect(() => {
    const { style } = document.documentElement;
    if (!bar) return;
    const watch = new ResizeObserver(() => style.setProperty("--calls", `${bar.offsetHeight}px`));
    watch.observe(bar);
    return () => {
      watch.disconnect();
      style.removeProperty("--calls");
    };
  }, [bar]);
  if (calling.length === 0) return null;
  return (
    <section ref={setBar} aria-label="Calling" aria-live="assertive" className="no-print sticky top-0 z-30 -mx-3 space-y-1 px-3 pb-2 sm:-mx-5 sm:px-5">
      {calling.slice(0, all ? 3 : 1).map((c, i) => (
        <CallRow
          key={c.clock.id}
          state={c}
          now={now}
          refresh={refresh}
          more={
            i === 0 && calling.length > 1 ? (
              <button type="button" className="btn !px-2.5 !text-ink" aria-expanded={all} onClick={() => setAll(!all)}>
                {calling.length - 1} more
              </button>
            ) : null
          }
        />
      ))}
      {all && calling.length > 3 && (
        <p className="rounded-lg bg-ink px-3 py-1 text-paper">
          and {calling.length - 3} more: see the{" "}
          <Link href="/" className="underline">
            bench
          </Link>
        </p>
      )}
    </section>
  );
}

function CallRow({ state, now, refresh, more }: { state: ClockState; now: number | null; refresh: () => Promise<void>; more: ReactNode }) {
  const [snoozing, setSnoozing] = useState(false);
  const act = async (body: ClockAct) => {
    const a = await call("clocks", "act", { params: { id: state.clock.id }, body });
    if (!a.ok) notice.bad(a.message);
    setSnoozing(false);
    await refresh();
  };
  const at = dueAt(state);
  const late = state.phase === "past";
  return (
    <div
      role="alert"
      className={`flex items-center gap-x-2 rounded-xl border-2 border-ink px-2.5 py-1 shadow-lg sm:gap-x-4 ${snoozing ? "flex-wrap gap-y-2" : ""} ${late ? "bg-no text-card" : "bg-citrus text-onbright"}`}
    >
      <BellRing size={24} aria-hidden="true" className="shrink-0 max-sm:hidden" />
      <span className={`min-w-0 flex-1 ${snoozing ? "basis-56" : ""}`}>
        <Link href={state.clock.pourId ? `/log/${state.clock.pourId}` : "/"} className="block truncate font-bold leading-tight underline">
          {state.clock.label}
        </Link>
        <span className="block truncate text-sm leading-tight">
          {late ? "Its time is over" : state.closesAt ? "The window is open" : CLOCK_KINDS[state.clock.kind].label}
          {now !== null && `, ${fromNow(at, now)}`}
        </span>
      </span>
      {snoozing ? (
        <span className="flex flex-wrap gap-2" role="group" aria-label="Quiet for how long, and why?">
          {SNOOZES.map((s) => (
            <button key={s.minutes} type="button" className="btn !text-ink" onClick={() => void act({ do: "snooze", ...s })}>
              {s.minutes} min: {s.reason.toLowerCase()}
            </button>
          ))}
        </span>
      ) : (
        <span className="flex gap-1.5">
          {more}
          <button type="button" className="btn !px-2.5 !text-ink" onClick={() => setSnoozing(true)}>
            <Clock4 size={18} aria-hidden="true" /> <span className="max-sm:sr-only">Later</span>
          </button>
          <button type="button" className="btn !px-2.5 !text-ink" onClick={() => void act({ do: "end" })} aria-label={`Done: ${state.clock.label}`}>
            <Check size={18} aria-hidden="true" /> <span className="max-sm:sr-only">Done</span>
          </button>
        </span>
      )}
    </div>
  );
}
