"use client";

import Link from "next/link";
import { useState } from "react";
import { cupBrimMl, marksFor, type CupProfile } from "@/core/weigh";
import { Pick } from "../../kit/Pick";
import { useUnits } from "../../kit/units";
import { Fold } from "../../kit/Fold";

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
    <Fold title="By volume: marks on the cup">
      {cup ? (
        <div className="mt-2 space-y-2">
          <Pick label="In which cup?" must value={cup.id} options={cups.map((c) => ({ value: c.id, label: c.name }))} onChange={setChosen} />
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
    </Fold>
  );
}
