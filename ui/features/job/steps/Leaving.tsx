"use client";

import type { Scanned } from "@/core/master";
import { useUnits } from "../../../kit/units";

const AXES = ["left and right", "front and back", "up and down"] as const;

/** How a measured piece leaves a mould, in a sentence. */
export function Leaving({ opens, lay }: { opens: Scanned["opens"]; lay: ((axis: 0 | 1) => void) | null }) {
  const { fmt } = useUnits();
  if (!opens) return null;
  const along = opens.direction.map(Math.abs).reduce((best, v, i, all) => (v > all[best]! ? i : best), 0);
  const straight = Math.abs(opens.direction[along]!) > 0.985;
  const how = `${straight ? "" : "roughly "}${AXES[along]}`;
  const caught = opens.trappedShare < 0.004;
  return (
    <>
      <p>
        {caught
          ? `Two halves that part ${how} let all of it go.`
          : `Two halves that part ${how} catch ${(100 * opens.trappedShare).toFixed(opens.trappedShare < 0.1 ? 1 : 0)} % of its surface; the rubber there has to give ${fmt(opens.deepestMm, "length")}.${opens.parts > 2 ? ` ${opens.parts} parts free it without bending.` : ""}`}
      </p>
      {lay && (along === 0 || along === 1) && (
        <button type="button" className="btn" onClick={() => lay(along)}>
          Lay it so that it parts level
        </button>
      )}
    </>
  );
}
