"use client";

import { useState } from "react";
import { Girth, GIRTH_FIELDS } from "@/core/master";
import { Choice } from "../../../kit/Choice";
import { ListEditor } from "../../../form/ListEditor";
import { NumberOf } from "../../../form/NumberOf";
import { useJob, useRemark } from "../JobContext";

type Kind = "round" | "oval" | "sides";
const KINDS: readonly { value: Kind; label: string }[] = [
  { value: "round", label: "Round" },
  { value: "oval", label: "Oval" },
  { value: "sides", label: "Each side" },
];

/** A tape laid round the piece at a few heights, for whoever has no camera at hand. */
export function Girths() {
  const { job, edit } = useJob();
  const { girths } = job.master;
  const remark = useRemark("master.girths");
  const [kind, setKind] = useState<Kind>(girths.some((g) => g.frontMm !== null) ? "sides" : girths.some((g) => g.leftMm !== null) ? "oval" : "round");
  const put = (next: Girth[]) => edit((j) => ({ ...j, master: { ...j.master, girths: next } }));
  const last = girths.at(-1);
  return (
    <>
      <Choice
        label="Cut level, it is"
        value={kind}
        options={KINDS}
        onChange={(k) => {
          setKind(k);
          // What a rounder form does not ask for is not kept behind its back.
          if (k !== "sides") put(girths.map((g) => ({ ...g, frontMm: null, backMm: null, ...(k === "round" ? { leftMm: null, rightMm: null } : {}) })));
        }}
      />
      {kind !== "round" && (
        <p className="hint">
          {kind === "oval"
            ? "Half its width to either side; the tape tells how deep it is."
            : "From an upright line through its middle to each side; the tape tells the size."}
        </p>
      )}
      <ListEditor
        label="From the back up"
        items={girths}
        most={60}
        addLabel={girths.length === 0 ? "Lay the tape round near the back" : "Lay it round further up"}
        blank={() => Girth.parse({ girthMm: 200, ...last, zMm: last ? last.zMm + 40 : 0 })}
        nameOf={(_, i) => `girth ${i + 1}`}
        onChange={put}
      >
        {(g, change) => (
          <div className="grid grid-cols-2 gap-2">
            <NumberOf fields={GIRTH_FIELDS} of="zMm" item={g} change={change} />
            <NumberOf fields={GIRTH_FIELDS} of="girthMm" item={g} change={change} />
            {kind !== "round" && (
              <>
                <NumberOf fields={GIRTH_FIELDS} of="leftMm" item={g} change={change} />
                <NumberOf fields={GIRTH_FIELDS} of="rightMm" item={g} change={change} />
              </>
            )}
            {kind === "sides" && (
              <>
                <NumberOf fields={GIRTH_FIELDS} of="frontMm" item={g} change={change} />
                <NumberOf fields={GIRTH_FIELDS} of="backMm" item={g} change={change} />
              </>
            )}
          </div>
        )}
      </ListEditor>
      {remark && (
        <p role="alert" className="fault">
          {remark.message}
        </p>
      )}
    </>
  );
}
