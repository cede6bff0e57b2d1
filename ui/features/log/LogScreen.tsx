"use client";

import Link from "next/link";
import { Download } from "../../kit/Download";
import { FAULTS, OUTCOME_WORD, type Outcome } from "@/core/plan";
import { Choice } from "../../kit/Choice";
import type { Pour } from "@/core/log";
import { useUnits } from "../../kit/units";
import { Pager } from "../../kit/Pager";
import { useListAddress } from "../../data/useListAddress";
import { When } from "../../kit/When";
import { OutcomeMark } from "./OutcomeMark";
import type { Thumb } from "@/core/draw";
import { SceneThumb } from "../../stage/SceneThumb";
import { DataTable } from "../../kit/DataTable";

export interface YieldView {
  id: string;
  name: string;
  casts: number;
  good: number;
  flawed: number;
  failed: number;
}

interface Filter {
  text: string;
  outcome: "all" | "open" | Outcome;
  mouldId: string | null;
  page: number;
}

const OUTCOME_CHOICES: { value: Filter["outcome"]; label: string }[] = [
  { value: "all", label: "All" },
  { value: "open", label: "Still curing" },
  { value: "good", label: "Good" },
  { value: "flawed", label: "Flawed" },
  { value: "failed", label: "Failed" },
];

/** Every pour with its numbers of that day, and what each mould has yielded. */
export function LogScreen({
  pours,
  total,
  filter,
  pageSize,
  yields,
  thumbs,
  photos,
}: {
  pours: readonly Pour[];
  total: number;
  filter: Filter;
  pageSize: number;
  yields: readonly YieldView[];
  /** The section of each mould, and the first photograph of each pour, by their ids. */
  thumbs: Readonly<Record<string, Thumb>>;
  photos: Readonly<Record<string, string>>;
}) {
  const { text, setText, address, choose } = useListAddress(filter, (f) => ({ outcome: f.outcome === "all" ? null : f.outcome, mouldId: f.mouldId }));
  const file = (table: "log" | "batches") => `/api/log/export?table=${table}&${address({}).split("?")[1] ?? ""}`;
  const pages = Math.max(1, Math.ceil(total / pageSize));
  const mould = yields.find((y) => y.id === filter.mouldId);

  return (
    <div className="space-y-5 pb-10 pt-2">
      <h1 className="text-3xl font-bold sm:text-4xl">Logbook</h1>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
        <section aria-label="Pours" className="min-w-0 space-y-3">
          <label className="block space-y-1">
            <span className="label">Find in jobs, materials and notes</span>
            <input className="field" value={text} maxLength={100} onChange={(e) => setText(e.target.value)} />
          </label>
          <Choice label="Outcome" hideLabel value={filter.outcome} options={OUTCOME_CHOICES} onChange={(outcome) => choose({ outcome })} />
          {filter.mouldId && (
            <p className="flex items-center gap-3">
              Only {mould?.name ?? "one mould"}{" "}
              <Link className="btn !min-h-9 !py-0.5" href={address({ mouldId: null })}>
                All moulds
              </Link>
            </p>
          )}
          <div className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
            <p className="hint" role="status">
              {total === 1 ? "1 pour" : `${total} pours`}
            </p>
            {total > 0 && (
              <span className="flex flex-wrap gap-2">
                <Download className="btn !min-h-9 !py-0.5" href={file("log")}>
                  These as CSV
                </Download>
                <Download className="btn !min-h-9 !py-0.5" href={file("batches")}>
                  Their batches as CSV
                </Download>
              </span>
            )}
          </div>
          {pours.length === 0 ? (
            <p className="card p-6 text-center">No pour fits this. Pours come here from a job’s last step.</p>
          ) : (
            <div className="card px-4 pb-1">
              <Pours pours={pours} thumbs={thumbs} photos={photos} />
            </div>
          )}
          <Pager page={filter.page} pages={pages} address={(page) => address({ page })} earlier="Newer" later="Older" />
        </section>
        <section aria-labelledby="yields" className="card min-w-0 space-y-3 p-4">
          <h2 id="yields" className="text-xl font-bold">
            Yield of each mould
          </h2>
          {yields.length === 0 && <p className="hint">A mould appears here once its rubber is logged.</p>}
          <ul className="space-y-3">
            {yields.map((y) => (
              <li key={y.id}>
                <Yield y={y} href={address({ mouldId: y.id })} />
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}

/** A pour as a small picture: its photograph, or the section of its mould. */
function Picture({ pour, thumbs, photos }: { pour: Pour; thumbs: Readonly<Record<string, Thumb>>; photos: Readonly<Record<string, string>> }) {
  const photo = photos[pour.id];
  const thumb = pour.mouldId === null ? undefined : thumbs[pour.mouldId];
  return (
    <span className="block h-11 w-16 shrink-0">
      {photo ? (
        // eslint-disable-next-line @next/next/no-img-element -- served from this workshop's own folder at its own size
        <img src={`/api/photos/${photo}`} alt="" loading="lazy" className="h-11 w-16 rounded-md border border-line object-cover" />
      ) : (
        thumb && <SceneThumb thumb={thumb} width={64} height={44} />
      )}
    </span>
  );
}

function Pours({ pours, thumbs, photos }: { pours: readonly Pour[]; thumbs: Readonly<Record<string, Thumb>>; photos: Readonly<Record<string, string>> }) {
  const { fmt } = useUnits();
  return (
    <DataTable
      label="Pours"
      stacks
      rows={pours}
      keyOf={(p) => p.id}
      hrefOf={(p) => `/log/${p.id}`}
      columns={[
        {
          id: "what",
          header: "Piece",
          cell: ({ row: { original: p } }) => (
            <span className="flex items-center gap-3">
              <Picture pour={p} thumbs={thumbs} photos={photos} />
              <span className="min-w-0">
                <span className="block font-semibold">{p.snapshot.jobName}</span>
                <span className="block text-sm text-soft">
                  {p.snapshot.kind === "rubber" || p.snapshot.kind === "jacket"
                    ? `${p.snapshot.what}: ${p.snapshot.material}`
                    : `${p.snapshot.count > 1 ? `${p.snapshot.count} × ` : ""}${p.snapshot.what}`}
                  {p.faults.length > 0 && `: ${p.faults.map((f) => FAULTS[f].toLowerCase()).join(", ")}`}
                </span>
              </span>
            </span>
          ),
        },
        { id: "poured", header: "Poured", cell: ({ row }) => <When at={row.original.pouredAt} />, meta: { cell: () => "whitespace-nowrap text-soft" } },
        {
          id: "mix",
          header: "Mixed",
          cell: ({ row }) => <span className="figure text-lg">{fmt(row.original.snapshot.mixG, "mass")}</span>,
          meta: { figure: true, wide: true },
        },
        {
          id: "outcome",
          header: "Outcome",
          cell: ({ row }) => <OutcomeMark outcome={row.original.outcome} open={row.original.openedAt === null} />,
          meta: { cell: () => "whitespace-nowrap" },
        },
      ]}
    />
  );
}

function Yield({ y, href }: { y: YieldView; href: string }) {
  const parts = [
    ["good", y.good, "bg-sound"],
    ["flawed", y.flawed, "bg-citrus"],
    ["failed", y.failed, "bg-no"],
  ] as const;
  return (
    <Link href={href} className="block rounded-lg hover:bg-peel/40">
      <span className="flex items-baseline justify-between gap-3">
        <span className="min-w-0 truncate font-semibold">{y.name}</span>
        <span className="figure shrink-0 text-lg">{y.casts > 0 ? `${y.good} of ${y.casts}` : "no cast yet"}</span>
      </span>
      {y.casts > 0 && (
        <>
          <span className="mt-1 flex h-3 gap-0.5 overflow-hidden rounded-full" aria-hidden="true">
            {parts.map(([k, n, c]) => n > 0 && <span key={k} className={c} style={{ flex: n }} />)}
          </span>
          <span className="hint">
            {parts
              .filter(([, n]) => n > 0)
              .map(([k, n]) => `${n} ${OUTCOME_WORD[k].toLowerCase()}`)
              .join(", ")}
          </span>
        </>
      )}
    </Link>
  );
}
