"use client";

import { FileDown, Printer } from "lucide-react";
import Link from "next/link";
import type { Sheet, SheetBlock } from "@/core/draw";
import { Caution } from "../../kit/controls";
import { Download } from "../../kit/Download";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { ScenePlate } from "../../stage/ScenePlate";

/** A job on paper: the first page for the bench, then the whole of it, with room for what really happened. The PDF is the same document. */
export function JobSheet({ id, sheet }: { id: string; sheet: Sheet }) {
  const parts = split(sheet.blocks);
  return (
    <article className="space-y-4 pb-10 pt-2 print:space-y-3 print:text-[11pt]">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h1 className="text-3xl font-bold">{sheet.title}</h1>
          <p className="text-soft">{sheet.under}</p>
        </div>
        <div className="no-print flex flex-wrap gap-2">
          <Link className="btn" href={`/jobs/${id}`}>
            Back to the job
          </Link>
          <Download className="btn" href={`/api/jobs/${id}/make/job-sheet.pdf`}>
            <FileDown size={18} aria-hidden="true" /> PDF, drawn to scale
          </Download>
          <button type="button" className="btn btn-main" onClick={() => window.print()}>
            <Printer size={18} aria-hidden="true" /> Print
          </button>
        </div>
      </div>
      {parts.map((part, i) => (
        <section
          key={i}
          className={`card max-w-4xl space-y-1.5 p-4 print:border-0 print:p-0 ${part.newPage ? "print:break-before-page" : ""} ${part.head ? "break-inside-avoid" : ""}`}
        >
          {part.head && <h2 className="text-xl font-bold">{part.head}</h2>}
          {part.blocks.map((b, k) => (
            <Block key={k} block={b} />
          ))}
        </section>
      ))}
    </article>
  );
}

interface Part {
  head: string | null;
  newPage: boolean;
  blocks: SheetBlock[];
}

/** Blocks under their headings. */
function split(blocks: readonly SheetBlock[]): Part[] {
  const parts: Part[] = [];
  let newPage = false;
  for (const b of blocks) {
    if (b.kind === "page") newPage = true;
    else if (b.kind === "head") {
      parts.push({ head: b.text, newPage, blocks: [] });
      newPage = false;
    } else if (parts.length === 0) parts.push({ head: null, newPage: false, blocks: [b] });
    else parts.at(-1)?.blocks.push(b);
  }
  return parts;
}

function Block({ block: b }: { block: SheetBlock }) {
  const { say } = useUnits();
  switch (b.kind) {
    case "text":
      return <p className={`${b.soft ? "text-sm text-soft" : ""} ${b.strong ? "font-semibold" : ""}`}>{say(b.text)}</p>;
    case "caution":
      return <Caution>{say(b.text)}</Caution>;
    case "bullet":
      return <p className="pl-4 -indent-3">• {say(b.text)}</p>;
    case "verdict":
      return (
        <p>
          <VerdictMark verdict={b.verdict} />
        </p>
      );
    case "scene":
      return <ScenePlate scene={b.scene} label={b.label} />;
    case "row":
      return (
        <p className="flex items-baseline justify-between gap-4 border-b border-line py-1">
          <span className="min-w-0">{say(b.name)}</span>
          <span className="flex shrink-0 items-baseline gap-3">
            <b className={`figure ${b.large ? "text-3xl" : "text-xl"}`}>{say(b.value)}</b>
            {b.write && <span className="inline-block w-28 border-b border-ink" />}
          </span>
        </p>
      );
    case "tick":
      return (
        <div className="flex gap-3">
          <span aria-hidden="true">▢</span>
          <div className="min-w-0">
            <p>{say(b.text)}</p>
            {b.below.map((t) => (
              <p key={t} className="text-sm text-soft">
                {say(t)}
              </p>
            ))}
          </div>
        </div>
      );
    case "head":
    case "page":
      return null;
  }
}
