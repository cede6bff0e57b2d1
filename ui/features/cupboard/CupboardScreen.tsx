"use client";

import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { Copy, Download as Save, PackagePlus, Printer } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import type { BalanceView, LotView, StockView } from "@/contract/stock";
import type { JobName } from "@/contract/jobs";
import { read } from "../../data/read";
import { Choice } from "../../kit/Choice";
import { Caution, Figure } from "../../kit/controls";
import { Download } from "../../kit/Download";
import { notice } from "../../kit/notice";
import { Tabs } from "../../kit/Tabs";
import { useUnits } from "../../kit/units";
import { Portions, Rest } from "./Day";
import { Tubs } from "./Tubs";
import { ageWords, stuffOf } from "./words";

const LotDialog = dynamic(() => import("./LotDialog").then((m) => m.LotDialog), { ssr: false });
const BoughtDialog = dynamic(() => import("./Bought").then((m) => m.BoughtDialog), { ssr: false });
const PackDialog = dynamic(() => import("./PackDialog").then((m) => m.PackDialog), { ssr: false });

type View = "shelf" | "buy" | "day" | "rest" | "packs";
const VIEWS: readonly { value: View; label: string }[] = [
  { value: "shelf", label: "On the shelf" },
  { value: "buy", label: "Shopping list" },
  { value: "day", label: "Brushing day" },
  { value: "rest", label: "A rest left over" },
  { value: "packs", label: "Packs and prices" },
];

/** What is in the cupboard, what it is wanted for, what to open first and what to buy. */
export function CupboardScreen({ initial, jobs }: { initial: StockView; jobs: readonly JobName[] }) {
  const [view, setView] = useState<View>("shelf");
  const [aim, setAim] = useState<StockView["aim"]>(initial.aim);
  const [whole, setWhole] = useState<string | null>(null);
  const queries = useQueryClient();
  const { data: stock = initial } = useQuery({
    queryKey: ["stock", aim, whole],
    queryFn: () => read("stock", "read", { body: { aim, ...(whole === null ? {} : { whole }) } }),
    placeholderData: keepPreviousData,
    ...(aim === initial.aim && whole === null ? { initialData: initial } : {}),
    // Jobs whose needs are not known yet are planned a few at each question.
    refetchInterval: (q) => ((q.state.data?.pending ?? 0) > 0 ? 400 : false),
  });
  // What is shown is read anew before a dialog closes: opened again at once, it shows what was just kept.
  const changed = () => queries.invalidateQueries({ queryKey: ["stock"] });
  const [bought, setBought] = useState<{ packId: string | null } | null>(null);
  return (
    <div className="space-y-4 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl font-bold sm:text-4xl">Cupboard</h1>
        <button type="button" className="btn btn-main no-print" onClick={() => setBought({ packId: null })}>
          <PackagePlus size={20} aria-hidden="true" /> Put something in
        </button>
      </div>
      {stock.pending > 0 && (
        <p role="status" className="hint">
          Still working out what {stock.pending} {stock.pending === 1 ? "job takes" : "jobs take"} …
        </p>
      )}
      <Tabs label="The cupboard" value={view} options={VIEWS} onChange={setView} contentClass="pt-4" listClass="no-print">
        {view === "shelf" && <Shelf stock={stock} onChanged={changed} onWhole={setWhole} />}
        {view === "buy" && <ToBuy stock={stock} aim={aim} onAim={setAim} onBought={(packId) => setBought({ packId })} />}
        {view === "day" && <Portions jobs={jobs} />}
        {view === "rest" && <Rest stock={stock} />}
        {view === "packs" && <Packs stock={stock} onChanged={changed} />}
      </Tabs>
      {bought && <BoughtDialog stock={stock} packId={bought.packId} onClose={() => setBought(null)} onChanged={changed} />}
    </div>
  );
}

function Shelf({ stock, onChanged, onWhole }: { stock: StockView; onChanged: () => Promise<void>; onWhole: (materialId: string) => void }) {
  const { fmt, zone } = useUnits();
  const [open, setOpen] = useState<LotView | null>(null);
  const ids = [...new Set([...stock.balances.filter((b) => b.needs.length > 0).map((b) => b.materialId), ...stock.lots.map((l) => l.materialId)])];
  if (ids.length === 0)
    return (
      <div className="card max-w-2xl space-y-2 p-5">
        <p className="text-lg">Nothing stands here yet.</p>
        <p className="text-soft">
          Put in what you have, a kit or a bag at a time. From then on every batch you weigh comes out of its tubs, what your jobs still take is set against
          them, and old ones speak up.
        </p>
      </div>
    );
  return (
    <div className="space-y-3">
      {ids.map((id) => {
        const b = stock.balances.find((x) => x.materialId === id);
        const m = stock.materials.find((x) => x.id === id);
        const lots = stock.lots.filter((l) => l.materialId === id);
        return (
          <section key={id} aria-label={b?.material ?? m?.name ?? ""} className="card grid gap-3 p-4 lg:grid-cols-[20rem_1fr]">
            <div className="space-y-1">
              <h2 className="text-lg font-bold leading-tight">{b?.material ?? m?.name}</h2>
              {b && <Balance b={b} />}
            </div>
            <ul className="flex flex-wrap gap-2">
              {lots.length === 0 && <li className="self-center text-soft">none in the cupboard</li>}
              {lots.map((l) => (
                <li key={l.id}>
                  <button
                    type="button"
                    onClick={() => setOpen(l)}
                    className={`flex min-h-24 w-64 items-center gap-3 rounded-xl border p-2 text-left hover:bg-peel/50 ${l.age === "past" ? "border-2 border-no" : "border-line"}`}
                  >
                    <Tubs lot={l} stuff={stuffOf(m?.kind ?? "")} />
                    <span className="min-w-0">
                      <b className="block truncate">{l.name}</b>
                      <span className="figure block text-lg leading-tight">{l.parts.map((_, i) => fmt(l.leftG[i] ?? 0, "mass")).join(" + ")}</span>
                      <span className={`block text-sm leading-snug ${l.age === "past" ? "font-semibold text-no" : "text-soft"}`}>{ageWords(l, zone)}</span>
                      {l.place && <span className="block truncate text-sm text-soft">{l.place}</span>}
                      {l.leftG.some((g) => g < -0.5) && <span className="block text-sm font-semibold text-no">weigh it: more went out than it held</span>}
                    </span>
                  </button>
                </li>
              ))}
              {(stock.more[id] ?? 0) > 0 && (
                <li className="self-center">
                  <button type="button" className="btn" onClick={() => onWhole(id)}>
                    {stock.more[id]} more
                  </button>
                </li>
              )}
            </ul>
          </section>
        );
      })}
      {open && <LotDialog lot={open} onClose={() => setOpen(null)} onChanged={onChanged} />}
    </div>
  );
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

/** How a material stands: what is good, what is wanted for what, and what to open for it. */
function Balance({ b }: { b: BalanceView }) {
  const { fmt } = useUnits();
  const [good, wanted, short, past] = [
    sum(b.parts.map((p) => p.goodG)),
    sum(b.parts.map((p) => p.wantedG)),
    sum(b.parts.map((p) => p.shortG)),
    sum(b.parts.map((p) => p.pastG)),
  ];
  return (
    <>
      {b.needs.length > 0 ? (
        short > 0.5 ? (
          <p>
            <span className="figure text-2xl text-no">{fmt(short, "mass")} short</span>
          </p>
        ) : (
          <p>
            <span className="figure text-2xl">{fmt(Math.max(0, good - wanted), "mass")}</span> <span className="text-soft">free</span>
          </p>
        )
      ) : (
        <p>
          <span className="figure text-2xl">{fmt(good, "mass")}</span> <span className="text-soft">good, wanted by none</span>
        </p>
      )}
      {b.needs.map((n) => (
        <p key={n.jobId} className="text-sm leading-snug">
          {fmt(n.g, "mass")} for{" "}
          <Link className="underline" href={`/jobs/${n.jobId}`}>
            {n.jobName}
          </Link>
          , {n.pours > 2 ? `${n.pours} pours` : n.what.toLowerCase()}
        </p>
      ))}
      {b.moreNeeds > 0 && <p className="text-sm text-soft">and {b.moreNeeds} more jobs</p>}
      {b.open.length > 0 && (
        <p className="text-sm leading-snug">
          <b>Open first:</b> {b.open.map((o) => `${o.name}${o.place ? ` (${o.place})` : ""}`).join(", then ")}
          {b.moreOpen > 0 ? `, and ${b.moreOpen} more` : ""}
          {b.open.some((o) => o.sealed) && b.leftG > 0.5
            ? `. ${fmt(b.leftG, "mass")} is left over${b.open.at(-1)?.days ? `, good for ${b.open.at(-1)?.days} days from then` : ""}`
            : ""}
          .{b.open.some((o) => o.sealed && o.damp) ? " In damp weather use an opened one the same day." : ""}
        </p>
      )}
      {past > 0.5 && <p className="text-sm font-semibold text-no">{fmt(past, "mass")} is past its date and not counted.</p>}
    </>
  );
}

function ToBuy({
  stock,
  aim,
  onAim,
  onBought,
}: {
  stock: StockView;
  aim: StockView["aim"];
  onAim: (a: StockView["aim"]) => void;
  onBought: (packId: string | null) => void;
}) {
  const { fmt } = useUnits();
  const { lines, price, unknown } = stock.shopping;
  const groups = [...new Set(lines.map((l) => l.from))];
  const text = [
    ...lines.map((l) => `${l.count} × ${l.material}, ${l.pack}${l.from ? ` (${l.from})` : ""}`),
    ...unknown.map((u) => `${u.material}: ${u.parts.map((p) => `${p.name} ${Math.ceil(p.g)} g`).join(", ")}`),
  ].join("\n");
  return (
    <div className="space-y-4">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <Choice
          label="Choose packs for"
          value={aim}
          options={[
            { value: "cheapest", label: "Least money" },
            { value: "leastLeft", label: "Least left over" },
          ]}
          onChange={onAim}
        />
        <div className="no-print flex flex-wrap gap-2">
          <button
            type="button"
            className="btn"
            disabled={text === ""}
            onClick={() => void navigator.clipboard?.writeText(text).then(() => notice.good("The list is copied."))}
          >
            <Copy size={18} aria-hidden="true" /> Copy
          </button>
          <button type="button" className="btn" onClick={() => window.print()}>
            <Printer size={18} aria-hidden="true" /> Print
          </button>
          <Download href={`/api/stock/list?aim=${aim}`} className="btn">
            <Save size={18} aria-hidden="true" /> CSV
          </Download>
        </div>
      </div>
      {lines.length === 0 && unknown.length === 0 ? (
        <p className="card p-5 text-lg">Nothing to buy: what stands here does for every job in hand.</p>
      ) : (
        <div className="grid gap-4 lg:grid-cols-[1fr_16rem]">
          <div className="space-y-3">
            {groups.map((g) => (
              <section key={g} className="card p-4" aria-label={g || "Anywhere"}>
                <h2 className="mb-2 text-lg font-bold">{g || "Anywhere"}</h2>
                <ul className="space-y-2">
                  {lines
                    .filter((l) => l.from === g)
                    .map((l, i) => (
                      <li key={i} className="grid grid-cols-[4rem_1fr_auto] items-center gap-2 border-t border-line pt-2">
                        <span className="figure text-3xl">{l.count} ×</span>
                        <span>
                          <b>{l.pack}</b>, {l.material}
                          <span className="block text-sm text-soft">for {l.forJobs.join(", ")}</span>
                        </span>
                        <span className="flex items-center gap-2">
                          <span className="figure text-lg">{l.price === null ? "no price" : fmt(l.price * l.count, "money")}</span>
                          <button
                            type="button"
                            className="btn no-print"
                            onClick={() => onBought(stock.packs.find((p) => p.materialId === l.materialId && p.name === l.pack)?.id ?? null)}
                          >
                            Bought
                          </button>
                        </span>
                      </li>
                    ))}
                </ul>
              </section>
            ))}
            {unknown.length > 0 && (
              <section className="card p-4" aria-label="No pack known">
                <h2 className="mb-1 text-lg font-bold">No pack of these is known</h2>
                <ul className="space-y-1">
                  {unknown.map((u) => (
                    <li key={u.materialId}>
                      {u.material}: {u.parts.map((p) => `${fmt(p.g, "mass")} of ${p.name}`).join(", ")}
                    </li>
                  ))}
                </ul>
                <p className="hint mt-1">Say what they are bought in under “Packs and prices”.</p>
              </section>
            )}
          </div>
          <aside className="card h-fit p-4">
            <Figure name="All of it" size="text-4xl" note={price === null ? "some have no price" : undefined}>
              {price === null ? fmt(sum(lines.map((l) => (l.price ?? 0) * l.count)), "money") : fmt(price, "money")}
            </Figure>
          </aside>
        </div>
      )}
    </div>
  );
}

function Packs({ stock, onChanged }: { stock: StockView; onChanged: () => Promise<void> }) {
  const { fmt } = useUnits();
  const [open, setOpen] = useState<{ pack: StockView["packs"][number] | null } | null>(null);
  return (
    <div className="space-y-3">
      <button type="button" className="btn" onClick={() => setOpen({ pack: null })}>
        <PackagePlus size={18} aria-hidden="true" /> A pack you buy
      </button>
      <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
        {stock.packs.map((p) => (
          <li key={p.id}>
            <button
              type="button"
              className="card flex h-full w-full items-center justify-between gap-3 p-3 text-left hover:bg-peel/40"
              onClick={() => setOpen({ pack: p })}
            >
              <span className="min-w-0">
                <b className="block">{p.name}</b>
                <span className="block text-sm">{stock.materials.find((m) => m.id === p.materialId)?.name ?? "A material that is gone"}</span>
                <span className="block text-sm text-soft">
                  {p.parts.map((x) => (x.massG !== null ? fmt(x.massG, "mass") : fmt(x.volumeMl, "volume"))).join(" + ")}
                  {p.from ? `, ${p.from}` : ""}
                </span>
              </span>
              <span className="figure shrink-0 text-2xl">{p.price === null ? "–" : fmt(p.price, "money")}</span>
            </button>
          </li>
        ))}
      </ul>
      {stock.packs.length === 0 && <Caution>No pack is known yet: without packs the list says grams, and without prices nothing costs anything.</Caution>}
      {open && <PackDialog stock={stock} pack={open.pack} onClose={() => setOpen(null)} onChanged={onChanged} />}
    </div>
  );
}
