"use client";

import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { read } from "../../../data/read";
import { EXERCISES } from "./exercises";
import { readBest } from "./best";

/** Pieces of the demo that are cast in a closed mould, from easy to hard, and why. */
const PIECES = [
  { id: "demo-comet-drawer-pull", freezes: true, why: "small and stout" },
  { id: "demo-comet-modelled", freezes: true, why: "slender: it freezes on the way" },
  { id: "demo-owl-bookend", freezes: false, why: "plaster, which thickens while it runs" },
] as const;
/** A pour as good as this is good. */
const GOOD = 95;

/** What to pour next for practice: pieces from easy to hard, and how many of their exercises came good on this device. Nothing in a workshop without the demo. */
export function Practice({ id }: { id: string }) {
  const { data: jobs = [] } = useQuery({ queryKey: ["jobs", "named"], queryFn: () => read("jobs", "named", { body: { text: "" } }) });
  const there = PIECES.flatMap((p) => jobs.filter((j) => j.id === p.id).map((j) => ({ ...p, name: j.name })));
  if (there.length === 0) return null;
  return (
    <section aria-label="To practise on">
      <p className="label">To practise on, from easy to hard</p>
      <ol className="text-sm">
        {there.map((p) => {
          const all = EXERCISES.filter((e) => !e.freezes || p.freezes);
          const good = all.filter((e) => (readBest(`${p.id}:${e.value}`)?.score ?? 0) >= GOOD).length;
          return (
            <li key={p.id} className="flex items-baseline justify-between gap-3 border-b border-line py-1.5">
              <span className="min-w-0">
                {p.id === id ? (
                  <b>{p.name}</b>
                ) : (
                  <Link className="inline-flex min-h-9 items-center font-semibold underline" href={`/jobs/${p.id}#cast`}>
                    {p.name}
                  </Link>
                )}
                <span className="text-soft">, {p.why}</span>
              </span>
              <span className="figure whitespace-nowrap">
                {good} of {all.length} good
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
