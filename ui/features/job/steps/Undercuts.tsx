"use client";

import { SIDES, UNDERCUT_FIELDS, type Side } from "@/core/mould";
import { Choice } from "../../../kit/Choice";
import { ListEditor } from "../../../form/ListEditor";
import { NumberOf } from "../../../form/NumberOf";
import { useJob } from "../JobContext";

const SIDE_WORD: Record<Side, string> = { front: "Front", back: "Back", left: "Left", right: "Right", top: "Top" };
export const SIDE_OPTIONS = SIDES.map((s) => ({ value: s, label: SIDE_WORD[s] }));

/** Undercuts the person names: what a mould has to stretch over, and a jacket has to be parted for. */
export function Undercuts() {
  const { job, edit } = useJob();
  return (
    <>
      <ListEditor
        label="Undercuts you see"
        items={job.mould.undercuts}
        most={12}
        addLabel="Name an undercut"
        blank={() => ({ side: "front" as const, depthMm: 5 })}
        nameOf={(u) => `the undercut on the ${u.side}`}
        onChange={(undercuts) => edit((j) => ({ ...j, mould: { ...j.mould, undercuts } }))}
      >
        {(u, change) => (
          <div className="space-y-2">
            <Choice label="Opens to the" value={u.side} options={SIDE_OPTIONS} onChange={(side) => change({ side })} />
            <NumberOf fields={UNDERCUT_FIELDS} of="depthMm" item={u} change={change} />
          </div>
        )}
      </ListEditor>
    </>
  );
}
