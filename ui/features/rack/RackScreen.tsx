"use client";

import { Choice } from "../../kit/Choice";
import { Pager } from "../../kit/Pager";
import { useListAddress } from "../../data/useListAddress";
import { When } from "../../kit/When";
import type { RackLine } from "@/contract/log";
import type { Thumb } from "@/core/draw";
import { DataTable } from "../../kit/DataTable";
import { SceneThumb } from "../../stage/SceneThumb";

type Which = "use" | "retired" | "all";
interface Filter {
  text: string;
  which: Which;
  page: number;
}

/** Every mould the workshop has: where it lives, what it has given, and what is left in it. */
export function RackScreen({
  moulds,
  thumbs,
  total,
  filter,
  pageSize,
}: {
  moulds: readonly RackLine[];
  /** The section of each as it was made, by its id. */
  thumbs: Readonly<Record<string, Thumb>>;
  total: number;
  filter: Filter;
  pageSize: number;
}) {
  const { text, setText, address, choose } = useListAddress(filter, (f) => ({ which: f.which === "use" ? null : f.which }));
  const pages = Math.max(1, Math.ceil(total / pageSize));
  return (
    <div className="space-y-4 pb-10 pt-2">
      <h1 className="text-3xl font-bold sm:text-4xl">Mould rack</h1>
      <div className="flex flex-wrap items-end gap-3">
        <label className="min-w-0 flex-1 basis-64 space-y-1">
          <span className="label">Find a mould by name, place or note</span>
          <input className="field" value={text} maxLength={100} onChange={(e) => setText(e.target.value)} />
        </label>
        <Choice<Which>
          label="Which moulds"
          hideLabel
          value={filter.which}
          options={[
            { value: "use", label: "In use" },
            { value: "retired", label: "Retired" },
            { value: "all", label: "All" },
          ]}
          onChange={(which) => choose({ which })}
        />
      </div>
      <p className="hint" role="status">
        {total === 1 ? "1 mould" : `${total} moulds`}
      </p>
      {moulds.length === 0 ? (
        <p className="card p-6 text-center">No mould fits this. A mould comes onto the rack with the last pour of its rubber.</p>
      ) : (
        <div className="card px-4 pb-1">
          <DataTable
            label="Moulds"
            stacks
            rows={moulds}
            keyOf={(m) => m.id}
            hrefOf={(m) => `/rack/${m.id}`}
            columns={[
              {
                id: "name",
                header: "Mould",
                cell: ({ row: { original: m } }) => (
                  <span className="flex items-center gap-3">
                    {thumbs[m.id] && <SceneThumb thumb={thumbs[m.id]!} width={72} height={48} />}
                    <span className="min-w-0">
                      <span className="block font-display text-lg font-bold leading-tight">{m.name}</span>
                      <span className="block text-sm text-soft">
                        {m.place || "no place written down"}
                        {m.retiredAt !== null && " · retired"}
                      </span>
                    </span>
                  </span>
                ),
              },
              {
                id: "born",
                header: "Born",
                cell: ({ row }) => <When at={row.original.madeAt} />,
                meta: { wide: true, cell: () => "whitespace-nowrap text-soft" },
              },
              {
                id: "good",
                header: "Good casts",
                cell: ({ row: { original: m } }) => (
                  <span className="figure text-xl">{m.casts === 0 ? "none yet" : `${m.good} of ${m.good + m.flawed + m.failed}`}</span>
                ),
              },
              {
                id: "left",
                header: "Good casts left",
                cell: ({ row: { original: m } }) => (
                  <>
                    <span className="figure text-xl">{m.left ? (m.left.high === 0 ? "none" : `${m.left.low} to ${m.left.high}`) : "–"}</span>
                    <LifeBar mould={m} />
                  </>
                ),
                meta: { cell: () => "sm:w-56" },
              },
            ]}
          />
        </div>
      )}
      <Pager page={filter.page} pages={pages} address={(page) => address({ page })} earlier="Before" later="More" />
    </div>
  );
}

/** Casts against the life expected: full at the low end, paler up to the high one. */
export function LifeBar({ mould }: { mould: Pick<RackLine, "life" | "casts"> }) {
  const { life, casts } = mould;
  if (!life || life.high <= 0) return null;
  const at = (n: number) => `${Math.min(100, (n / life.high) * 100)}%`;
  return (
    <span className="relative mt-1 block h-3 overflow-hidden rounded-full bg-line" aria-hidden="true">
      <span className="absolute inset-y-0 left-0 bg-peel" style={{ width: at(life.low) }} />
      <span
        className={`absolute inset-y-0 left-0 ${casts > life.typical ? "bg-no" : casts > life.low ? "bg-care" : "bg-sound"}`}
        style={{ width: at(casts) }}
      />
    </span>
  );
}
