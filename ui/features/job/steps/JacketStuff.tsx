"use client";

import type { JacketPlan } from "@/core/mould";
import { useUnits } from "../../../kit/units";

/** What a jacket is mixed from and laid up with, in a line or two. */
export function JacketStuff({ jacket }: { jacket: JacketPlan }) {
  const { fmt } = useUnits();
  const { mix, cloth } = jacket;
  if (mix.length === 0) return null;
  return (
    <>
      <b>Mix {mix.map((p) => `${fmt(p.massG, "mass")} of ${p.name.toLowerCase()}`).join(" and ")}</b>, a tenth of it for the bucket
      {jacket.parts > 1 ? `, shared over its ${jacket.parts} parts` : ""}.
      {cloth && (
        <>
          {" "}
          {cloth.label}: {cloth.layers} layers of {fmt(cloth.areaMm2, "area")}, {fmt(cloth.stripMm, "length")} of strip {fmt(cloth.stripWideMm, "length")} wide.
        </>
      )}
    </>
  );
}
