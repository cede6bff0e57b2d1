import { castKind, type Addition, type CastBatch, type CastDecision, type CastResult } from "../cast";
import type { Cast, Range } from "../material";
import type { Part } from "../mix";
import { quote } from "../quantity";

export { type CastBatch, type CastDecision, type CastResult } from "../cast";

const scale = (cs: readonly Part[], by: number): Part[] =>
  cs.map((c) => ({ ...c, massG: c.massG * by, volumeMl: c.volumeMl === null ? null : c.volumeMl * by }));

/** What the shares of additions are reckoned on: the powder, else the first part of the mix. */
const baseOf = (parts: readonly Part[]): number => parts.find((p) => p.role === "powder")?.massG ?? parts[0]?.massG ?? 0;
const waterIn = (parts: readonly Part[]): number => parts.find((p) => p.role === "water")?.massG ?? 0;

/** Grams of an addition in a mix; of those that are said for one casting, the mix makes no difference. */
function addedG(a: Addition, batch: CastBatch): number {
  switch (a.by) {
    case "grams":
      return a.amount;
    case "volume":
      return a.amount * (a.densityGMl ?? 1);
    case "powder":
      return (a.amount / 100) * baseOf(batch.parts);
    case "water":
      return (a.amount / 100) * waterIn(batch.parts);
    case "mix":
      return (a.amount / 100) * batch.mixG;
  }
}
const isFixed = (a: Addition): boolean => a.by === "grams" || a.by === "volume";

/**
 * A mix with lines of a person's own in it: all parts are made less so that together they still fill the cavity; a liquid that takes
 * the place of water takes it by volume. What was added stays in the casting; of such a liquid nobody knows how much.
 */
function withAdditions(cast: Cast, ml: number, d: CastDecision, batch: CastBatch, additions: readonly Addition[]): CastResult {
  const instead = additions.some((a) => a.instead) && waterIn(batch.parts) > 0;
  const replaces = (a: Addition) => instead && a.instead === true;
  const takesMl = (list: readonly Addition[], from: CastBatch) => list.reduce((s, a) => s + addedG(a, from) / (a.densityGMl ?? 1), 0);
  const onTop = additions.filter((a) => !replaces(a));
  const fixedMl = takesMl(onTop.filter(isFixed), batch);
  if (fixedMl >= ml)
    return { ok: false, path: "cast.additions", message: `What is added takes ${quote(fixedMl, "volume")}, all the casting has room for: check the amounts.` };
  // Shares shrink with the mix; amounts that were said stay as they are.
  const shareMl = takesMl(
    onTop.filter((a) => !isFixed(a)),
    batch,
  );
  const less = castKind(cast.mix).batch(cast.mix, cast, ((ml - fixedMl) * ml) / (ml + shareMl), d);
  if (!less.ok) return less;
  const insteadMl = takesMl(additions.filter(replaces), less.batch);
  const water = waterIn(less.batch.parts);
  if (insteadMl > water)
    return {
      ok: false,
      path: "cast.additions",
      message: `What goes in instead of water takes ${quote(insteadMl, "volume")}, and there are only ${quote(water, "volume")} of it: use less.`,
    };
  const added = additions.map((a): Part => {
    const massG = addedG(a, less.batch);
    return {
      name: a.name,
      role: "ingredient",
      massG,
      volumeMl: a.densityGMl || a.by === "volume" ? massG / (a.densityGMl ?? 1) : null,
      ...(replaces(a) ? { note: "instead of as much water" } : {}),
    };
  });
  const allG = added.reduce((s, p) => s + p.massG, 0);
  const insteadG = additions.reduce((s, a, i) => s + (replaces(a) ? (added[i]?.massG ?? 0) : 0), 0);
  const moreG = allG - insteadMl;
  // Of what replaces water, between nothing and all stays when it dries.
  const stays = (r: Range, part: { low: number; typical: number; high: number }): Range => ({
    low: r.low + allG - insteadG * part.low,
    typical: r.typical + allG - insteadG * part.typical,
    high: r.high + allG - insteadG * part.high,
  });
  return {
    ok: true,
    warnings: less.warnings,
    batch: {
      ...less.batch,
      parts: [
        ...less.batch.parts.map((p) =>
          p.role === "water" && insteadMl > 0 ? { ...p, massG: p.massG - insteadMl, volumeMl: p.volumeMl === null ? null : p.volumeMl - insteadMl } : p,
        ),
        ...added,
      ],
      mixG: less.batch.mixG + moreG,
      mixMl: less.batch.mixMl + takesMl(onTop, less.batch),
      wetG: less.batch.wetG + moreG,
      demouldedG: {
        low: less.batch.demouldedG.low + moreG,
        typical: less.batch.demouldedG.typical + moreG,
        high: less.batch.demouldedG.high + moreG,
      },
      dryG: stays(less.batch.dryG, { low: 1, typical: 0.5, high: 0 }),
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
