"use client";

import { getCoreRowModel, getFilteredRowModel, useReactTable, type ColumnDef } from "@tanstack/react-table";
import { Download, Printer } from "lucide-react";
import { useMemo, useState, type KeyboardEvent } from "react";
import { fitMatrix, meeting, NEEDS, STANDARD_PIECE, standardHeat, VERDICT_WORD, wantsHeat, type MatrixCell, type Need } from "@/core/fit";
import { heatKey } from "@/core/heat";
import { catalogueOf, type Material } from "@/core/material";
import { useHeatStudies } from "../heat/useHeatStudies";
import { Hint } from "../../kit/Hint";
import { Progress } from "../../kit/Progress";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { matrixCsv } from "./csv";

const NEED_KEYS = Object.keys(NEEDS) as Need[];
type MatrixRow = ReturnType<typeof fitMatrix>[number];
/** Most pairs whose reasons stand side by side. */
const PINNED = 2;
/** Most rubbers side by side. */
const COLUMNS = 60;
const keyOf = (c: MatrixCell) => `${c.cast.id} ${c.rubber.id}`;

/** All rubbers against all casts: a verdict in each cell, the reasons of a pinned one below. */
export function MatrixScreen({ own }: { own: readonly Material[] }) {
  const { fmt, say } = useUnits();
  const catalogue = useMemo(() => catalogueOf(own), [own]);
  const [needs, setNeeds] = useState<Need[]>([]);
  const [castText, setCastText] = useState("");
  const [rubberText, setRubberText] = useState("");
  const [page, setPage] = useState(0);
  const [pinned, setPinned] = useState<string[]>([]);
  const [at, setAt] = useState<[number, number]>([0, 0]);

  const suiting = useMemo(() => {
    const named = rubberText.trim().toLowerCase();
    return meeting(catalogue.rubbers, needs).filter((r) => r.name.toLowerCase().includes(named));
  }, [catalogue, needs, rubberText]);
  const pages = Math.max(1, Math.ceil(suiting.length / COLUMNS));
  const onPage = Math.min(page, pages - 1);
  const rubbers = useMemo(() => suiting.slice(onPage * COLUMNS, (onPage + 1) * COLUMNS), [suiting, onPage]);
  // Only what is seen is worked out: a shelf of thousands costs what a page of it does.
  const seen = useMemo(() => ({ ...catalogue, rubbers }), [catalogue, rubbers]);
  // Rubbers that conduct and bear alike have one answer between them: it is asked once.
  const questions = useMemo(() => {
    const all = seen.rubbers.flatMap((r) => seen.casts.filter((c) => wantsHeat(r, c)).map((c) => standardHeat(r, c)));
    return [...new Map(all.map((q) => [heatKey(q), q])).values()];
  }, [seen]);
  const { studies, stopped, stop, goOn } = useHeatStudies(questions);
  const waiting = questions.filter((q) => !studies.has(heatKey(q))).length;
  const matrix = useMemo(() => fitMatrix(seen, studies), [seen, studies]);
  const shown = useMemo(() => {
    const of = (list: readonly { id: string }[], place: number) => list.filter((x) => pinned.some((k) => k.split(" ")[place] === x.id)).map((x) => x.id);
    const [casts, kept] = [of(catalogue.casts, 0), of(catalogue.rubbers, 1)];
    const few = { ...catalogue, casts: catalogue.casts.filter((c) => casts.includes(c.id)), rubbers: catalogue.rubbers.filter((r) => kept.includes(r.id)) };
    return fitMatrix(few, studies)
      .flatMap((r) => r.cells)
      .filter((c) => pinned.includes(keyOf(c)));
  }, [catalogue, pinned, studies]);
  const columns = useMemo((): ColumnDef<MatrixRow, unknown>[] => [{ id: "cast", accessorFn: (r) => r.cast.name, filterFn: "includesString" }], []);
  // eslint-disable-next-line react-hooks/incompatible-library -- read while the grid is drawn, never kept
  const table = useReactTable<MatrixRow>({
    data: matrix,
    columns,
    state: { columnFilters: [{ id: "cast", value: castText.trim() }] },
    autoResetAll: false,
    getRowId: (r) => r.cast.id,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const rows = table.getRowModel().rows.map(({ original }) => original);
  const pin = (c: MatrixCell) => setPinned((all) => (all.includes(keyOf(c)) ? all.filter((k) => k !== keyOf(c)) : [...all, keyOf(c)].slice(-PINNED)));
  const focusRow = Math.min(at[0], Math.max(0, rows.length - 1));
  const focusCol = Math.min(at[1], Math.max(0, rubbers.length - 1));

  const move = (e: KeyboardEvent<HTMLTableElement>) => {
    const by: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], Home: [0, -99], End: [0, 99] };
    const d = by[e.key];
    if (!d) return;
    e.preventDefault();
    const row = Math.min(rows.length - 1, Math.max(0, focusRow + d[0]));
    const col = Math.min(rubbers.length - 1, Math.max(0, focusCol + d[1]));
    setAt([row, col]);
    e.currentTarget.querySelector<HTMLButtonElement>(`[data-at="${row} ${col}"]`)?.focus();
  };
  const download = () => {
    const url = URL.createObjectURL(new Blob([matrixCsv(rows, say)], { type: "text/csv;charset=utf-8" }));
    const a = document.createElement("a");
    a.href = url;
    a.download = "fit-matrix.csv";
    a.click();
    setTimeout(() => URL.revokeObjectURL(url), 1000);
  };

  return (
    <div className="space-y-4 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl font-bold sm:text-4xl">Which rubber for which cast</h1>
        <div className="no-print flex gap-2">
          <button type="button" className="btn" onClick={download}>
            <Download size={18} aria-hidden="true" /> CSV
          </button>
          <button type="button" className="btn" onClick={() => window.print()}>
            <Printer size={18} aria-hidden="true" /> Print
          </button>
        </div>
      </div>
      <p className="max-w-3xl text-soft">
        Heat is reckoned for a plate {fmt(2 * STANDARD_PIECE.halfMm, "length")} thick in {fmt(STANDARD_PIECE.wallMm, "length")} of rubber; a job of your own
        tells more. Arrow keys move, Enter pins a cell.
      </p>
      <div className="no-print flex flex-wrap items-end gap-x-6 gap-y-3">
        <fieldset>
          <legend className="label mb-1">The rubber has to suit</legend>
          <div className="flex flex-wrap gap-2">
            {NEED_KEYS.map((n) => (
              <Hint key={n} text={NEEDS[n].hint}>
                <button
                  type="button"
                  className="chip"
                  aria-pressed={needs.includes(n)}
                  onClick={() => setNeeds((all) => (all.includes(n) ? all.filter((x) => x !== n) : [...all, n]))}
                >
                  {NEEDS[n].label}
                </button>
              </Hint>
            ))}
          </div>
        </fieldset>
        <label className="block space-y-1">
          <span className="label">Rubber</span>
          <input className="field" value={rubberText} onChange={(e) => setRubberText(e.target.value)} placeholder="all of them" />
        </label>
        <label className="block space-y-1">
          <span className="label">Cast</span>
          <input className="field" value={castText} onChange={(e) => setCastText(e.target.value)} placeholder="all of them" />
        </label>
      </div>
      {waiting > 0 && !stopped && (
        <Progress
          going={{ doing: `Working out the heat of ${waiting} ${waiting === 1 ? "pair" : "pairs"}`, share: 1 - waiting / questions.length }}
          stop={stop}
        />
      )}
      {waiting > 0 && stopped && (
        <div className="flex flex-wrap items-center gap-3">
          <p role="status" className="font-semibold">
            Stopped: the heat of {waiting} {waiting === 1 ? "pair" : "pairs"} is not worked out.
          </p>
          <button type="button" className="btn" onClick={goOn}>
            Go on
          </button>
        </div>
      )}
      {rubbers.length === 0 ? (
        <p className="card p-6 text-center">No rubber here meets all of these. Take one need away, or clear the name.</p>
      ) : (
        <div className={`card relative overflow-auto p-2 print:max-h-none ${shown.length > 0 ? "max-h-[52dvh]" : "max-h-[72dvh]"}`} tabIndex={-1}>
          <table role="grid" aria-label="Verdicts of every rubber with every cast" onKeyDown={move} className="w-full border-separate border-spacing-0 text-sm">
            <thead>
              <tr>
                <td className="sticky left-0 top-0 z-20 bg-card" />
                {rubbers.map((r) => (
                  <th key={r.id} scope="col" className="sticky top-0 z-10 h-40 min-w-14 bg-card align-bottom font-normal">
                    <span className="inline-block max-h-40 rotate-180 px-1 text-left leading-tight [writing-mode:vertical-rl]">{r.name}</span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => (
                <tr key={row.cast.id}>
                  <th scope="row" className="sticky left-0 z-10 min-w-40 border-t border-line bg-card pr-2 text-left font-semibold">
                    {row.cast.name}
                  </th>
                  {row.cells.map((c, j) => (
                    <td key={c.rubber.id} role="gridcell" className="border-l border-t border-line p-0 text-center">
                      <button
                        type="button"
                        data-at={`${i} ${j}`}
                        tabIndex={i === focusRow && j === focusCol ? 0 : -1}
                        aria-pressed={pinned.includes(keyOf(c))}
                        aria-label={`${c.cast.name} in ${c.rubber.name}: ${VERDICT_WORD[c.link.verdict]}`}
                        className={`flex h-11 w-full flex-col items-center justify-center hover:bg-peel/60 ${pinned.includes(keyOf(c)) ? "bg-peel" : ""}`}
                        onFocus={() => setAt([i, j])}
                        onClick={() => pin(c)}
                      >
                        <VerdictMark verdict={c.link.verdict} size={17} word={false} />
                        <span className="text-[0.68rem] leading-none text-soft" aria-hidden="true">
                          {VERDICT_WORD[c.link.verdict]}
                        </span>
                      </button>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {pages > 1 && (
        <nav aria-label="Pages of rubbers" className="no-print flex items-center justify-between gap-3">
          <button type="button" className="btn" disabled={onPage === 0} onClick={() => setPage(onPage - 1)}>
            Before
          </button>
          <span className="text-soft">
            Rubbers {onPage * COLUMNS + 1} to {onPage * COLUMNS + rubbers.length} of {suiting.length}; a name or a need narrows them
          </span>
          <button type="button" className="btn" disabled={onPage === pages - 1} onClick={() => setPage(onPage + 1)}>
            After
          </button>
        </nav>
      )}
      {shown.length > 0 && (
        <section aria-label="Pinned pairs" className="grid gap-3 md:grid-cols-2">
          {shown.map((c) => (
            <Pinned key={keyOf(c)} cell={c} onClose={() => pin(c)} />
          ))}
        </section>
      )}
    </div>
  );
}

function Pinned({ cell, onClose }: { cell: MatrixCell; onClose: () => void }) {
  const { say } = useUnits();
  return (
    <article className="card space-y-2 p-4">
      <div className="flex items-start justify-between gap-3">
        <h2 className="text-lg font-bold leading-tight">
          {cell.cast.name} in {cell.rubber.name}
        </h2>
        <button type="button" className="btn btn-bare no-print !min-h-9 !px-2 text-sm" onClick={onClose}>
          Unpin
        </button>
      </div>
      <VerdictMark verdict={cell.link.verdict} className="text-lg" />
      <ul className="space-y-2">
        {cell.link.findings.map((f) => (
          <li key={f.ruleId} className="border-l-4 border-line pl-3 text-[0.95rem] leading-snug">
            <p>{say(f.reason)}</p>
            <p>
              <b>Instead: </b>
              {say(f.remedy)}
            </p>
            <p className="hint">{f.source}</p>
          </li>
        ))}
      </ul>
    </article>
  );
}
