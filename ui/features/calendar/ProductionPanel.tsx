"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { useForm } from "react-hook-form";
import * as z from "zod";
import type { ProductionView } from "@/contract/calendar";
import type { JobName } from "@/contract/jobs";
import { call } from "../../data/call";
import { Form, FormFault, PickInput, QuantityInput, TextInput } from "../../form/Form";
import { Figure } from "../../kit/controls";
import { Fold } from "../../kit/Fold";
import { useUnits } from "../../kit/units";
import { dayEnd } from "../../kit/zone";

const money = z.number().nullable();
const Wanted = z.object({
  jobId: z
    .string()
    .nullable()
    .refine((id) => id !== null, "Choose a piece."),
  good: z
    .number()
    .nullable()
    .refine((n) => n !== null, "Say how many good ones."),
  by: z.string().refine((day) => !Number.isNaN(dayEnd(day, "")), "Say by which day."),
  moulds: z.number().nullable(),
  mouldCost: money,
  dayWorth: money,
});

/** "Twelve good ones by Friday": castings to pour, turns, moulds, and whether another mould pays. */
export function ProductionPanel({ jobs }: { jobs: readonly JobName[] }) {
  const { fmt, wall, zone } = useUnits();
  const form = useForm({
    resolver: zodResolver(Wanted),
    defaultValues: { jobId: null, good: 12, by: "", moulds: null, mouldCost: null, dayWorth: null },
  });
  const [answer, setAnswer] = useState<{ a: ProductionView; now: number } | null>(null);
  const p = answer?.a;
  return (
    <section aria-labelledby="production" className="card space-y-3 p-4">
      <h2 id="production" className="text-xl font-bold">
        So many by then
      </h2>
      <Form
        form={form}
        onSubmit={async ({ by, ...wanted }) => {
          const a = await call("calendar", "produce", { body: { ...wanted, byAt: dayEnd(by, zone) } });
          setAnswer(a.ok ? { a: a.data, now: Date.now() } : null);
          return a.ok ? null : a.message;
        }}
      >
        <PickInput name="jobId" label="Which piece?" options={jobs.map((j) => ({ value: j.id, label: j.name }))} />
        <div className="grid grid-cols-2 gap-2">
          <QuantityInput name="good" label="Good ones" dimension="count" min={1} max={500} whole />
          <TextInput name="by" label="By the end of" type="date" />
        </div>
        <Fold title="Moulds and money">
          <div className="mt-2 space-y-2">
            <QuantityInput name="moulds" label="Moulds you have" dimension="count" min={1} max={40} whole placeholder="by the rack" />
            <QuantityInput name="mouldCost" label="Another mould costs" dimension="count" min={0} max={1e7} placeholder="its rubber" />
            <QuantityInput name="dayWorth" label="A day sooner is worth" dimension="count" min={0} max={1e7} />
          </div>
        </Fold>
        <FormFault />
        <button type="submit" className="btn btn-main w-full" disabled={form.formState.isSubmitting}>
          Work it out
        </button>
      </Form>
      {p && answer && (
        <div role="status" className="space-y-2 border-t border-line pt-3">
          <div className="grid grid-cols-2 gap-2">
            <Figure name="Pour" note={`${p.expectedCasts} on average`}>
              {p.safeCasts}
            </Figure>
            <Figure name="Moulds needed" note={`${p.moulds} ${p.moulds === 1 ? "is" : "are"} there`}>
              {p.mouldsNeeded ?? "–"}
            </Figure>
            <Figure name="Turns a day" note={`demould after ${fmt(p.demouldH, "duration")}`}>
              {p.turnsADay.toFixed(1)}
            </Figure>
            <Figure name="Yield" note={p.logged > 0 ? `${p.loggedGood} of ${p.logged} in the log` : "nothing logged yet: a guess"}>
              {Math.round(p.yield * 100)} %
            </Figure>
          </div>
          <p>{p.message}</p>
          {p.doneMin !== null && <p className="text-soft">Done about {wall(answer.now + p.doneMin * 60_000, answer.now)}.</p>}
          <p className="font-semibold">{p.another}</p>
        </div>
      )}
    </section>
  );
}
