import { castKind, type CastDecision, type CastResult } from "../cast";
import type { Cast } from "../material";
import type { Part } from "../mix";
import { quote } from "../quantity";

export { type CastBatch, type CastDecision, type CastResult } from "../cast";

const scale = (cs: readonly Part[], by: number): Part[] =>
  cs.map((c) => ({ ...c, massG: c.massG * by, volumeMl: c.volumeMl === null ? null : c.volumeMl * by }));

/**
 * What to mix or melt to fill `cavityMl`, and what the casting weighs wet, on leaving the mould, and dry. Masses g,
 * volumes mL. The way of reckoning is its kind's; see the files of core/cast for their sources.
 */
export function castBatch(cast: Cast, cavityMl: number, d: CastDecision): CastResult {
  if (!(cavityMl > 0) || !Number.isFinite(cavityMl))
    return {
      ok: false,
      path: "master",
      message: `A cavity of ${quote(cavityMl, "volume")} cannot be filled: measure the master first.`,
    };
  if (!Number.isInteger(d.count) || d.count < 1 || d.count > 1000)
    return { ok: false, path: "cast.count", message: `${d.count} castings is not possible: type a whole number from 1 to 1000.` };
  if (!(d.marginPct >= 0) || d.marginPct > 200)
    return { ok: false, path: "cast.marginPct", message: `A margin of ${d.marginPct} % is not possible: type 0 to 200 %.` };
  const factor = d.count * (1 + d.marginPct / 100);
  const one = castKind(cast.mix).batch(cast.mix, cast, cavityMl, d);
  if (!one.ok) return one;
  const { batch, warnings } = one;
  return { ok: true, warnings, batch: { ...batch, parts: scale(batch.parts, factor), mixG: batch.mixG * factor, mixMl: batch.mixMl * factor } };
}
