"use client";

import { flexRender, getCoreRowModel, getSortedRowModel, useReactTable, type ColumnDef, type RowData, type SortingState } from "@tanstack/react-table";
import { ArrowDown, ArrowUp, ArrowUpDown } from "lucide-react";
import Link from "next/link";
import { useState } from "react";

declare module "@tanstack/react-table" {
  interface ColumnMeta<TData extends RowData, TValue> {
    /** Figures stand at the right, one under the other. */
    figure?: boolean;
    /** Left out on a phone. */
    wide?: boolean;
    /** Classes for a row's cell here. */
    cell?: (row: TData) => string;
    /** Never set: it keeps the column's value in its type. */
    value?: TValue;
  }
}

/** One column: `id`, `header`, how its cell reads; with an accessor it can be sorted by. */
export type Column<T> = ColumnDef<T, unknown>;

/**
 * Rows of one kind. The first column names the row. A column with an accessor is sorted by a tap on its head. Where it
 * `stacks`, a phone shows each row as a small card with its columns' names; elsewhere the table scrolls sideways.
 */
export function DataTable<T>({
  label,
  rows,
  columns,
  keyOf,
  hrefOf,
  stacks = false,
  dense = false,
  caption,
  marked,
}: {
  label: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  keyOf: (row: T, index: number) => string;
  /** Where a row leads when it is tapped. */
  hrefOf?: (row: T) => string;
  stacks?: boolean;
  dense?: boolean;
  /** The label is shown above the table. */
  caption?: boolean;
  /** Rows that stand out. */
  marked?: (row: T) => boolean;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  // eslint-disable-next-line react-hooks/incompatible-library -- the table's functions are called while it is drawn, never kept
  const table = useReactTable<T>({
    data: rows as T[],
    columns: columns as Column<T>[],
    state: { sorting },
    onSortingChange: setSorting,
    autoResetAll: false,
    getRowId: keyOf,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    sortDescFirst: false,
  });
  const pad = dense ? "py-1 pr-2" : "py-2 pr-3";
  const s = stacks
    ? {
        table: "max-sm:block",
        head: "max-sm:sr-only",
        body: "max-sm:block",
        row: "max-sm:grid max-sm:grid-cols-2 max-sm:gap-x-3 max-sm:py-2",
        name: "max-sm:col-span-2 max-sm:!py-0.5",
        cell: "max-sm:!py-0.5 max-sm:!text-left max-sm:before:block max-sm:before:text-xs max-sm:before:font-normal max-sm:before:text-soft max-sm:before:content-[attr(data-label)]",
      }
    : { table: "", head: "", body: "", row: "", name: "", cell: "" };
  return (
    <div className={stacks ? "" : "overflow-x-auto"}>
      <table role="table" aria-label={caption ? undefined : label} className={`w-full text-left ${dense ? "text-sm" : ""} ${s.table}`}>
        {caption && <caption className="pb-1 text-left font-semibold">{label}</caption>}
        <thead role="rowgroup" className={`text-sm text-soft ${s.head}`}>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} role="row">
              {group.headers.map((h) => {
                const { meta } = h.column.columnDef;
                const sorted = h.column.getIsSorted();
                const words = flexRender(h.column.columnDef.header, h.getContext());
                return (
                  <th
                    key={h.id}
                    role="columnheader"
                    scope="col"
                    aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : undefined}
                    className={`pt-1.5 align-bottom font-normal ${dense ? "pr-2" : "pr-3"} ${meta?.figure ? "text-right" : ""} ${meta?.wide ? "max-sm:hidden" : ""}`}
                  >
                    {h.column.getCanSort() ? (
                      <button
                        type="button"
                        className={`inline-flex min-h-11 items-center gap-1 text-left ${sorted ? "font-semibold text-ink" : ""}`}
                        onClick={h.column.getToggleSortingHandler()}
                      >
                        {words}
                        {sorted === "asc" ? (
                          <ArrowUp size={15} aria-hidden="true" />
                        ) : sorted === "desc" ? (
                          <ArrowDown size={15} aria-hidden="true" />
                        ) : (
                          <ArrowUpDown size={15} aria-hidden="true" className="opacity-60" />
                        )}
                      </button>
                    ) : (
                      words
                    )}
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody role="rowgroup" className={s.body}>
          {table.getRowModel().rows.map((row) => (
            <tr
              key={row.id}
              role="row"
              className={`border-t border-line align-top ${stacks ? "max-sm:first:border-t-0" : ""} ${hrefOf ? "relative hover:bg-peel/40" : ""} ${marked?.(row.original) ? "bg-peel/50" : ""} ${s.row}`}
            >
              {row.getVisibleCells().map((c, i) => {
                const { header, meta } = c.column.columnDef;
                const content = flexRender(c.column.columnDef.cell, c.getContext());
                const classes = `${pad} ${meta?.figure ? "text-right" : ""} ${meta?.wide ? "max-sm:hidden" : ""} ${meta?.cell?.(row.original) ?? ""}`;
                return i === 0 ? (
                  <th key={c.id} role="rowheader" scope="row" className={`text-left font-normal ${classes} ${s.name}`}>
                    {hrefOf ? (
                      <Link href={hrefOf(row.original)} className="after:absolute after:inset-0 after:content-['']">
                        {content}
                      </Link>
                    ) : (
                      content
                    )}
                  </th>
                ) : (
                  <td key={c.id} role="cell" data-label={typeof header === "string" ? header : undefined} className={`${classes} ${s.cell}`}>
                    {content}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
