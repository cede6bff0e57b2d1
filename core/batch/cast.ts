import { castKind, type Addition, type CastBatch, type CastDecision, type CastResult } from "../cast";
import type { Cast, Range } from "../material";
import type { Part } from "../mix";
import { quote } from "../quantity";

export { type CastBatch, type CastDecision, type CastResult } from "../cast";

const scale = (cs: readonly Part[], by: number): Part[] =>
  cs.map((c) => ({ ...c, massG: c.massG * by, volumeMl: c.volumeMl === null ? null : c.volumeMl * by }));

/** What the percentages of additions are reckoned on: the powder, else the first part of the mix. */
const baseOf = (parts: readonly Part[]): number => parts.find((p) => p.role === "powder")?.massG ?? parts[0]?.massG ?? 0;

/**
 * A mix with lines of a person's own in it: all parts are made less so that together they still fill the cavity. What was added stays
 * in the casting.
 */
function withAdditions(cast: Cast, ml: number, d: CastDecision, batch: CastBatch, additions: readonly Addition[]): CastResult {
  const base = baseOf(batch.parts);
  const grams = (a: Addition) => (a.by === "grams" ? a.amount : (a.amount / 100) * (a.by === "powder" ? base : batch.mixG));
  const extraMl = additions.reduce((s, a) => s + (a.by === "grams" ? 0 : grams(a) / (a.densityGMl ?? 1)), 0);
  const fixedMl = additions.reduce((s, a) => s + (a.by === "grams" ? a.amount / (a.densityGMl ?? 1) : 0), 0);
  if (fixedMl >= ml)
    return { ok: false, path: "cast.additions", message: `What is added takes ${quote(fixedMl, "volume")}, all the casting has room for: check the grams.` };
  // Shares shrink with the mix; grams that were said stay as they are.
  const less = castKind(cast.mix).batch(cast.mix, cast, ((ml - fixedMl) * ml) / (ml + extraMl), d);
  if (!less.ok) return less;
  const by = less.batch.mixG / batch.mixG;
  const added = additions.map((a): Part => {
    const massG = a.by === "grams" ? a.amount : grams(a) * by;
    return { name: a.name, role: "ingredient", massG, volumeMl: a.densityGMl ? massG / a.densityGMl : null };
  });
  const moreG = added.reduce((s, p) => s + p.massG, 0);
  const plus = (r: Range): Range => ({ low: r.low + moreG, typical: r.typical + moreG, high: r.high + moreG });
  return {
    ok: true,
    warnings: less.warnings,
    batch: {
      ...less.batch,
      parts: [...less.batch.parts, ...added],
      mixG: less.batch.mixG + moreG,
      mixMl: less.batch.mixMl + extraMl * by + fixedMl,
      wetG: less.batch.wetG + moreG,
      demouldedG: plus(less.batch.demouldedG),
      dryG: plus(less.batch.dryG),
      wetDensityGMl: (less.batch.wetG + moreG) / ml,
      notes: [...less.batch.notes, "What you add is your own recipe: how it sets and what it weighs dry, a small trial tells."],
    },
  };
}

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
  if (d.fibrePct && !castKind(cast.mix).asks(cast.mix).fibre)
    return { ok: false, path: "cast.fibrePct", message: `Fibre is not reckoned into ${cast.name.toLowerCase()}: lay it in as cloth, and leave it open here.` };
  const plain = castKind(cast.mix).batch(cast.mix, cast, cavityMl, d);
  const one = plain.ok && d.additions && d.additions.length > 0 ? withAdditions(cast, cavityMl, d, plain.batch, d.additions) : plain;
  if (!one.ok) return one;
  const { batch, warnings } = one;
  return { ok: true, warnings, batch: { ...batch, parts: scale(batch.parts, factor), mixG: batch.mixG * factor, mixMl: batch.mixMl * factor } };
}
