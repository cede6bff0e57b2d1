"use client";

import type { Part } from "@/core/batch";
import { useUnits } from "../../../kit/units";

/** What goes on the scale, in pouring order, with the grams large enough to read from the bench; and what it comes to, where that stands nowhere else. */
export function PartList({ parts, total }: { parts: readonly (Pick<Part, "name" | "massG" | "volumeMl"> & { note?: string })[]; total?: number }) {
  const { fmt, say } = useUnits();
  return (
    <table className="w-full">
      <tbody>
        {parts.map((c) => (
          <tr key={c.name} className="border-b border-line align-baseline">
            <th scope="row" className="py-1.5 pr-3 text-left font-normal">
              {c.name}
              {c.note && <span className="block text-sm text-soft">{say(c.note)}</span>}
            </th>
            <td className="figure whitespace-nowrap text-right text-3xl">{fmt(c.massG, "mass")}</td>
            <td className="w-24 whitespace-nowrap pl-3 text-right text-soft">{c.volumeMl === null ? "" : fmt(c.volumeMl, "volume")}</td>
          </tr>
        ))}
      </tbody>
      {total !== undefined && (
        <tfoot>
          <tr>
            <th scope="row" className="pt-1.5 text-left font-semibold">
              In all
            </th>
            <td className="figure whitespace-nowrap pt-1.5 text-right text-xl">{fmt(total, "mass")}</td>
            <td />
          </tr>
        </tfoot>
      )}
    </table>
  );
}
