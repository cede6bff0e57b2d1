"use client";

import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { read } from "../../data/read";
import { Fault, Figure } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { useUnits } from "../../kit/units";
import { useJob } from "./JobContext";

/** What the mould, a casting and a good casting cost, by what was paid and weighed; and the price by the workshop's own rule. */
export function CostPanel({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onOpenChange={onClose} title="What it costs">
      <Costs />
    </Dialog>
  );
}

function Costs() {
  const { id, plan } = useJob();
  const { fmt } = useUnits();
  const asked = useQuery({ queryKey: ["cost", id, plan.tally.rubberG, plan.tally.castG], queryFn: () => read("works", "cost", { params: { id } }) });
  if (asked.isError) return <Fault>{asked.error.message}</Fault>;
  const c = asked.data;
  if (!c) return <p className="hint">Adding it up …</p>;
  const money = (v: number) => fmt(v, "money");
  return (
    <div className="space-y-3">
      <div className="grid grid-cols-2 gap-3">
        <Figure
          name="A good one costs"
          size="text-3xl"
          note={`${money(c.good.low)} to ${money(c.good.high)}, as the mould lasts ${Math.round(c.life.high)} or ${Math.round(c.life.low)} castings`}
        >
          {c.complete || c.good.typical > 0 ? money(c.good.typical) : "–"}
        </Figure>
        {c.price !== null && (
          <Figure name="Sold for, by your rule" size="text-3xl" note={`${fmt(c.hours, "duration")} of hands in it`}>
            {money(c.price)}
          </Figure>
        )}
        <Figure name="The mould">{money(c.mould)}</Figure>
        <Figure name="A casting">{money(c.casting)}</Figure>
      </div>
      <ul className="space-y-1 text-sm">
        {[...c.mouldLines, ...c.castingLines].map((l, i) => (
          <li key={i} className="flex justify-between gap-3">
            <span>
              {l.what}, {fmt(l.g, "mass")}
            </span>
            <span className="figure">{l.cost === null ? "no price" : money(l.cost)}</span>
          </li>
        ))}
      </ul>
      <p className="hint">
        {Math.round(100 * c.yield)} of 100 come out good, by{" "}
        {c.logged === 0 ? "what is usual of a mould nobody knows" : `${c.logged} in the log and what is usual`}.
        {c.complete ? "" : " What has no price is left out: say what you pay under Cupboard, “Packs and prices”."}
        {c.pricing === null ? " Say what an hour is worth in Settings, and it says what to sell it for." : ""}
      </p>
      <Link className="underline" href="/cupboard">
        Cupboard
      </Link>
    </div>
  );
}
