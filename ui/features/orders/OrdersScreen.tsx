"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Check, Pencil, Plus } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import type { JobName } from "@/contract/jobs";
import type { OrderLine, OrderView, ProjectView } from "@/contract/works";
import { call } from "../../data/call";
import { read } from "../../data/read";
import { Fault, Figure } from "../../kit/controls";
import { notice } from "../../kit/notice";
import { Tabs } from "../../kit/Tabs";
import { useUnits } from "../../kit/units";
import { dayIn } from "../../kit/zone";
import { SceneThumb } from "../../stage/SceneThumb";
import { Works } from "./Works";

const OrderDialog = dynamic(() => import("./OrderDialog").then((m) => m.OrderDialog), { ssr: false });

type View = "orders" | "works";

/** So many good ones of these by then, across jobs; and works in parts, with their editions. */
export function OrdersScreen({ orders: first, projects, jobs }: { orders: OrderView[]; projects: ProjectView[]; jobs: readonly JobName[] }) {
  const [view, setView] = useState<View>("orders");
  const [open, setOpen] = useState<{ order: OrderView | null } | null>(null);
  const queries = useQueryClient();
  const { data: orders = first } = useQuery({ queryKey: ["orders"], queryFn: () => read("works", "orders", { body: { all: "no" } }), initialData: first });
  // What is shown is read anew before a dialog closes: opened again at once, it shows what was just kept.
  const changed = () => queries.invalidateQueries({ queryKey: ["orders"] });
  return (
    <div className="space-y-4 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl font-bold sm:text-4xl">Orders</h1>
        {view === "orders" && (
          <button type="button" className="btn btn-main" disabled={jobs.length === 0} onClick={() => setOpen({ order: null })}>
            <Plus size={20} aria-hidden="true" /> Take an order
          </button>
        )}
      </div>
      <Tabs
        label="Orders and works"
        value={view}
        options={[
          { value: "orders", label: "So many by then" },
          { value: "works", label: "Works in parts and editions" },
        ]}
        onChange={setView}
        contentClass="pt-4"
      >
        {view === "works" ? (
          <Works initial={projects} jobs={jobs} />
        ) : orders.length === 0 ? (
          <div className="card max-w-2xl space-y-2 p-5">
            <p className="text-lg">No order in hand.</p>
            <p className="text-soft">
              Say for whom, which pieces and how many good ones by which day: it is worked out how many to pour by what came out so far, when hands, moulds and
              waking hours get it done, and whether another mould is worth it.
            </p>
          </div>
        ) : (
          <ul className="space-y-4">
            {orders.map((o) => (
              <li key={o.id}>
                <OrderCard view={o} onEdit={() => setOpen({ order: o })} onChanged={changed} />
              </li>
            ))}
          </ul>
        )}
      </Tabs>
      {open && <OrderDialog view={open.order} jobs={jobs} onClose={() => setOpen(null)} onChanged={changed} />}
    </div>
  );
}

function OrderCard({ view, onEdit, onChanged }: { view: OrderView; onEdit: () => void; onChanged: () => Promise<void> }) {
  const { fmt, zone } = useUnits();
  const [fault, setFault] = useState<string | null>(null);
  const { order, lines, lateH, safeAt, expectedAt } = view;
  const save = async (change: Partial<OrderView["order"]>) => {
    const a = await call("works", "saveOrder", { params: { id: view.id }, body: { order: { ...order, ...change }, baseRevision: view.revision } });
    setFault(a.ok ? null : a.message);
    await onChanged();
    return a.ok;
  };
  const send = (l: OrderLine) =>
    void save({ lines: order.lines.map((x) => (x.jobId === l.jobId ? { ...x, sent: Math.min(x.good, x.sent + Math.max(1, l.ready)) } : x)) });
  const best = lines.reduce<OrderLine | null>((b, l) => ((l.soonerH ?? 0) > (b?.soonerH ?? 0) ? l : b), null);
  const wanted = lines.reduce((s, l) => s + l.wanted, 0);
  return (
    <article className="card grid gap-4 p-4 lg:grid-cols-[17rem_1fr]" aria-label={order.name}>
      <div className="space-y-3">
        <h2 className="text-xl font-bold leading-tight">{order.name}</h2>
        <Figure
          name={`Wanted by ${dayIn(order.dueAt, zone)}`}
          size="text-3xl"
          note={expectedAt !== null && wanted > 0 ? `on average by ${dayIn(expectedAt, zone)}` : undefined}
        >
          {wanted === 0 ? "all are made" : safeAt === null ? "not within two months" : `done by ${dayIn(safeAt, zone)}`}
        </Figure>
        {lateH !== null && wanted > 0 && (
          <p className={lateH > 0 ? "font-bold text-no" : "font-semibold text-sound"}>
            {lateH > 0 ? `${fmt(lateH, "duration")} late, nine times in ten` : "In time, nine times in ten"}
          </p>
        )}
        {wanted > 0 && best && (best.soonerH ?? 0) >= 1 && (
          <p className="text-sm">
            Another mould of <b>{best.jobName}</b> has it done {fmt(best.soonerH, "duration")} sooner
            {best.mouldCost === null ? "" : ` for ${fmt(best.mouldCost, "money")} of rubber`}.
          </p>
        )}
        {wanted > 0 && !(best && (best.soonerH ?? 0) >= 1) && lines.every((l) => l.soonerH !== null) && (
          <p className="text-sm text-soft">No other mould would have it done an hour sooner: hands and hours set the pace.</p>
        )}
        {view.short.map((s) => (
          <p key={s.material} className="text-sm font-semibold text-no">
            {fmt(s.g, "mass")} of {s.material} is wanting.{" "}
            <Link className="underline" href="/cupboard">
              Cupboard
            </Link>
          </p>
        ))}
        <div className="flex flex-wrap gap-2">
          <button type="button" className="btn" onClick={onEdit}>
            <Pencil size={17} aria-hidden="true" /> Change
          </button>
          <button
            type="button"
            className="btn btn-bare"
            onClick={async () => (await save({ doneAt: Date.now() })) && notice.good(`${order.name} is put away.`)}
          >
            <Check size={17} aria-hidden="true" /> Done with
          </button>
        </div>
        <Fault>{fault}</Fault>
      </div>
      <ul className="space-y-2">
        {lines.map((l) => (
          <li key={l.jobId} className="grid grid-cols-[6rem_1fr] items-center gap-3 border-t border-line pt-2 first:border-0 sm:grid-cols-[6rem_1fr_auto]">
            {l.thumb ? <SceneThumb thumb={l.thumb} /> : <span />}
            <div>
              <Link href={`/jobs/${l.jobId}`} className="text-lg font-bold underline-offset-4 hover:underline">
                {l.jobName}
              </Link>
              <p className="text-sm">
                {l.sent} of {l.good} sent{l.ready > 0 ? `, ${l.ready} ready` : ""}
                {l.wanted > 0 ? `; ${l.moulds === 0 ? "no mould" : l.moulds === 1 ? "1 mould" : `${l.moulds} moulds`}` : ""}
                {l.safeAt !== null && l.wanted > 0 ? `, made by ${dayIn(l.safeAt, zone)}` : ""}
              </p>
              {l.trouble && <p className="text-sm font-semibold text-no">{l.trouble}</p>}
              {l.ready > 0 && (
                <button type="button" className="btn mt-1 !min-h-11" onClick={() => send(l)}>
                  {l.ready} {l.ready === 1 ? "has" : "have"} gone out
                </button>
              )}
            </div>
            <div className="flex gap-5 max-sm:col-span-2">
              <Figure name="Still to make">{l.wanted}</Figure>
              <Figure name="Pour" note={l.wanted > 0 ? `${l.expectedCasts} on average` : undefined}>
                {l.safeCasts}
              </Figure>
            </div>
          </li>
        ))}
      </ul>
    </article>
  );
}
