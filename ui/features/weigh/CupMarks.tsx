"use client";

import Link from "next/link";
import { useState } from "react";
import { cupBrimMl, marksFor, type CupProfile } from "@/core/weigh";
import { useUnits } from "../../kit/units";

export interface CupView {
  id: string;
  name: string;
  profile: CupProfile;
}

/** Where each part comes to in an actual cup, for those who measure by volume. */
export function CupMarks({
  parts,
  targets,
  part,
  cups,
  cupId,
  take,
}: {
  parts: readonly string[];
  targets: readonly (number | null)[];
  part: number;
  cups: readonly CupView[];
  cupId: string | null;
  take: () => void;
}) {
  const { fmt } = useUnits();
  const [chosen, setChosen] = useState(cupId);
  const cup = cups.find((c) => c.id === chosen) ?? cups[0];
  const marks = cup ? marksFor(cup.profile, targets) : [];
  return (
    <details>
      <summary className="min-h-8 font-semibold">By volume: marks on the cup</summary>
      {cup ? (
        <div className="mt-2 space-y-2">
          <label className="block space-y-1">
            <span className="label">In which cup?</span>
            <select className="field" value={cup.id} onChange={(e) => setChosen(e.target.value)}>
              {cups.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
          <ul className="space-y-1">
            {parts.map((name, i) => (
              <li key={name} className={`flex justify-between gap-4 rounded-lg px-2 py-1 ${i === part ? "bg-peel" : ""}`}>
                <span>
                  {name}: {fmt(targets[i], "volume")}
                </span>
                <b className="figure text-xl">{marks[i] === null || marks[i] === undefined ? "does not fit" : `to ${fmt(marks[i], "length")}`}</b>
              </li>
            ))}
          </ul>
          <p className="hint">
            One on top of the other, measured from the inside bottom; the cup holds {fmt(cupBrimMl(cup.profile), "volume")} to the brim. A mark is good to about
            half a millimetre: weigh where the ratio is not 1:1.
          </p>
          <button type="button" className="btn" onClick={take}>
            Filled to the mark
          </button>
        </div>
      ) : (
        <p className="hint">
          Measure a cup once in{" "}
          <Link href="/settings#cups" className="underline">
            the workshop’s settings
          </Link>
          , and the marks for each part appear here.
        </p>
      )}
    </details>
  );
}
