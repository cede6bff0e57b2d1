import { castBatch, type CastBatch } from "../batch";
import type { Body } from "../body";
import { castCure, plateOf, type CastCure, type Cooling, type CureRule, type Wait } from "../cure";
import { meltsAgain, pick, type Cast, type Catalogue, type Range } from "../material";
import { LAYER_WAYS, type Coat, type LayeredCast, type LayerWay, type PlacedInsert } from "../mould";
import { quote } from "../quantity";
import type { Job } from "../record";
import type { Add } from "./remarks";
import type { PourKind } from "../record";

/** One coat of a casting with everything needed to make it; a casting in one lump has one. Amounts are of one casting unless said. */
export interface PlannedLayer {
  name: string;
  cast: Cast;
  way: LayerWay;
  /** Null for a casting in one lump. */
  coat: Coat | null;
  staysMl: number;
  /** What stays of it, as it goes in, as it leaves the mould, and when it is dry or solid, g. */
  staysG: number;
  demouldedG: Range;
  dryG: Range;
  /** What is mixed or molten for it, for all castings at once and with margin: this is what has to be in the pot. */
  batch: CastBatch;
  /** What of that comes back or is left over, of all castings, g. */
  backG: number;
  /** Coats of this layer that one mix serves, this one included; null for what melts again. */
  serves: number | null;
  cure: CastCure;
  /** Before the next layer; null for the last. */
  next: Wait | null;
  /** What goes in once this layer is in. */
  inserts: readonly PlacedInsert[];
}

const scaled = (r: Range, by: { low: number; typical: number; high: number }): Range => ({
  low: r.low * by.low,
  typical: r.typical * by.typical,
  high: r.high * by.high,
});
const plus = (p: Range, q: Range): Range => ({ low: p.low + q.low, typical: p.typical + q.typical, high: p.high + q.high });

/** Working times until a layer no longer runs and takes the next: a rule of thumb; a finger decides. */
const NO_LONGER_RUNS = { low: 1, typical: 1.3, high: 2 };
/** Minutes one coat is rolled or brushed before the next can begin from the same mix. */
const COAT_MIN = 3;

function nextWait(cure: CastCure, waitMin: number | null): Wait {
  if (waitMin !== null) {
    const hours = { low: waitMin / 60, typical: waitMin / 60, high: waitMin / 60 };
    return { hours, reason: "As you said.", rule: { kind: "fixed", hours } };
  }
  const { working } = cure;
  const rule: CureRule = { ...working.rule, hours: scaled(working.rule.hours, NO_LONGER_RUNS) };
  return {
    hours: scaled(working.hours, NO_LONGER_RUNS),
    rule,
    reason: "Until it no longer runs and takes the next: one to two working times, a rule of thumb. A finger decides.",
  };
}

/** How many coats one mix serves before it thickens. */
function servesOf(cure: CastCure, next: Wait, coatsLeft: number): number {
  const each = Math.max(COAT_MIN, next.hours.typical * 60);
  return Math.min(coatsLeft, 1 + Math.max(0, Math.floor((cure.working.hours.low * 60 - COAT_MIN) / each)));
}

/** The coats of a layered casting, each with its mix, times and inserts; null where one of them cannot be mixed. */
export function planLayers(
  job: Job,
  catalogue: Catalogue,
  body: Body,
  layered: LayeredCast,
  own: Cast,
  /** The material whose cooling is followed: what meets the rubber. */
  met: Cast,
  inserts: readonly PlacedInsert[],
  cooling: Cooling | null,
  add: Add,
): PlannedLayer[] | null {
  const { coats } = layered;
  const out: PlannedLayer[] = [];
  let ok = true;
  coats.forEach((c, i) => {
    const l = c.layer;
    const cast = pick(catalogue.casts, l.castId) ?? own;
    if (l.castId !== null && !pick(catalogue.casts, l.castId))
      add("cast", "fault", [
        {
          code: "material-gone",
          path: `inside.layers.${c.at}.castId`,
          message: "What was chosen for this layer is no longer among the materials: choose another.",
        },
      ]);
    const d = {
      ...job.cast,
      waterPer100: l.waterPer100,
      pigmentPct: l.pigmentPct,
      fibrePct: l.fibrePct,
      fragrancePct: cast.id === own.id ? job.cast.fragrancePct : 0,
      additions: cast.id === own.id ? job.cast.additions : [],
    };
    const stays = castBatch(cast, Math.max(1e-6, c.staysMl), { ...d, count: 1, marginPct: 0 });
    if (!stays.ok) {
      ok = false;
      add("cast", "fault", [{ code: "mix-not-possible", path: stays.path.replace(/^cast\./, `inside.layers.${c.at}.`), message: stays.message }]);
      return;
    }
    // The pot holds liquid; what stays has its own density, and is topped up where nearly all of it stays.
    const perMl = stays.batch.wetG / Math.max(1e-6, c.staysMl);
    const liquid = LAYER_WAYS[l.way].fills && c.backMl > 0 ? Math.min(1, stays.batch.wetDensityGMl / perMl) : 1;
    const pot = castBatch(cast, Math.max(1e-6, c.staysMl, c.potMl * liquid), d);
    if (!pot.ok) {
      ok = false;
      return;
    }
    const setAsOne = meltsAgain(cast) ? c.fromMm + c.thicknessMm : c.thicknessMm;
    const cure = castCure(cast, job.shopC, plateOf(setAsOne > 0 ? setAsOne : (2 * c.staysMl * 1000) / body.areaMm2), cast.id === met.id ? cooling : null);
    const last = i === coats.length - 1;
    const next = last ? null : nextWait(cure, l.waitMin);
    const many = l.coats > 1 ? `, coat ${c.coat + 1} of ${l.coats}` : "";
    out.push({
      name: `Layer ${c.at + 1}${many}`,
      cast,
      way: l.way,
      coat: c,
      staysMl: c.staysMl,
      staysG: stays.batch.wetG,
      demouldedG: stays.batch.demouldedG,
      dryG: stays.batch.dryG,
      batch: pot.batch,
      backG: Math.max(0, pot.batch.mixG - stays.batch.wetG * job.cast.count),
      serves: meltsAgain(cast) ? null : next ? servesOf(cure, next, l.coats - c.coat) : 1,
      cure,
      next,
      inserts: inserts.filter((x) => x.afterCoat === i + 1 || (last && x.afterCoat !== null && x.afterCoat > coats.length)),
    });
  });
  return ok ? out : null;
}

/**
 * What has to be there of each material over what all its fillings take together: what melts again goes back to the pot, what sets is
 * mixed anew for each coat.
 */
function sharesInAll(layers: readonly PlannedLayer[], count: number): Map<string, number> {
  const melted = new Map<string, { stayed: number; most: number; poured: number }>();
  for (const l of layers) {
    if (l.serves !== null) continue;
    const m = melted.get(l.cast.id) ?? { stayed: 0, most: 0, poured: 0 };
    m.most = Math.max(m.most, m.stayed + l.batch.mixG);
    m.stayed += l.staysG * count;
    m.poured += l.batch.mixG;
    melted.set(l.cast.id, m);
  }
  return new Map([...melted].map(([id, m]) => [id, m.poured > 0 ? m.most / m.poured : 1]));
}

/** The layers of a casting as one batch: what it takes in all, and what one casting weighs. Parts of one name and material are one. */
export function wholeOf(layers: readonly PlannedLayer[], count: number): CastBatch | null {
  const [first] = layers;
  if (!first) return null;
  if (layers.length === 1 && !first.coat) return first.batch;
  const shares = sharesInAll(layers, count);
  const share = (l: PlannedLayer): number => shares.get(l.cast.id) ?? 1;
  const several = new Set(layers.map((l) => l.cast.id)).size > 1;
  const parts = new Map<string, CastBatch["parts"][number]>();
  for (const l of layers)
    for (const p of l.batch.parts) {
      const name = several ? `${p.name}, ${l.cast.name.toLowerCase()}` : p.name;
      const was = parts.get(name);
      const by = share(l);
      parts.set(name, {
        ...p,
        name,
        massG: (was?.massG ?? 0) + p.massG * by,
        volumeMl: p.volumeMl === null || was?.volumeMl === null ? null : (was?.volumeMl ?? 0) + p.volumeMl * by,
      });
    }
  const wetG = layers.reduce((s, l) => s + l.staysG, 0);
  const sum = (of: (l: PlannedLayer) => Range): Range => layers.reduce((s, l) => plus(s, of(l)), { low: 0, typical: 0, high: 0 });
  const ml = layers.reduce((s, l) => s + l.staysMl, 0);
  return {
    parts: [...parts.values()],
    mixG: layers.reduce((s, l) => s + l.batch.mixG * share(l), 0),
    mixMl: layers.reduce((s, l) => s + l.batch.mixMl * share(l), 0),
    wetG,
    demouldedG: sum((l) => l.demouldedG),
    dryG: sum((l) => l.dryG),
    wetDensityGMl: ml > 0 ? wetG / ml : first.batch.wetDensityGMl,
    ratioLabel: `${layers.length} ${layers.length === 1 ? "coat" : "coats"}`,
    notes: [...new Set(layers.flatMap((l) => (l.way === "back" ? [] : l.batch.notes)))],
  };
}

/** Most that ever stands in the mould while it is filled, one casting, g: what stayed before, and the filling that is in it. */
export const mostInMouldG = (layers: readonly PlannedLayer[], count: number): number => {
  let [stayed, most] = [0, 0];
  for (const l of layers) {
    most = Math.max(most, stayed + (l.coat && l.backG > 0 ? l.batch.mixG / count : l.staysG));
    stayed += l.staysG;
  }
  return Math.max(most, stayed);
};

/**
 * When the whole casting may be opened, counted from its last layer: the layer that then still has longest to go decides. What dries
 * does so as one wall of `dryMm`.
 */
export function wholeCure(layers: readonly PlannedLayer[], shopC: number, dryMm: number): CastCure | null {
  const last = layers.at(-1);
  const first = layers[0];
  if (!last || !first) return null;
  let demould: Wait = last.cure.demould;
  let later = 0;
  for (let i = layers.length - 2; i >= 0; i--) {
    const l = layers[i]!;
    later += l.next?.hours.typical ?? 0;
    const d = l.cure.demould;
    const left = d.hours.typical - later;
    if (d.never) demould = d;
    if (d.never || left <= demould.hours.typical) continue;
    const by = left / d.hours.typical;
    const share = { low: by, typical: by, high: by };
    demould = {
      hours: scaled(d.hours, share),
      rule: { ...d.rule, hours: scaled(d.rule.hours, share) },
      reason: `${l.name} still has longest to go. ${d.reason}`,
    };
  }
  const wet = layers.find((l) => l.cure.finished?.name === "Dry");
  const dries = wet ? castCure(wet.cast, shopC, plateOf(dryMm, freeWaterOf(layers))).finished : null;
  const ends = [...layers.flatMap((l) => (l.cure.finished && l.cure.finished.name !== "Dry" ? [l.cure.finished] : [])), ...(dries ? [dries] : [])];
  const finished = ends.reduce<CastCure["finished"]>((m, f) => (m && m.hours.typical >= f.hours.typical ? m : f), null);
  return { working: first.cure.working, demould, freezesH: first.cure.freezesH, finished };
}

/** Water that has to leave a casting for it to be dry, g for each mL of it. */
export function freeWaterOf(layers: readonly { staysG: number; dryG: Range; staysMl: number }[]): number {
  const ml = layers.reduce((s, l) => s + l.staysMl, 0);
  return ml > 0 ? layers.reduce((s, l) => s + l.staysG - l.dryG.typical, 0) / ml : 0;
}

/** The layer a pour of this kind is: a casting is its last. */
export const layerOf = (layers: readonly PlannedLayer[], kind: PourKind, index: number): PlannedLayer | null =>
  (kind === "cast" ? layers.at(-1) : kind === "layer" ? layers[index] : undefined) ?? null;

/** What a person has to know of what comes back. */
export function layerNotes(l: PlannedLayer): string[] {
  if (!l.coat || l.backG <= 0.5) return [];
  if (l.serves === null) return [`${quote(l.backG, "mass")} goes back to the pot and is used again.`];
  const more =
    l.serves > 1 ? `one mix serves ${l.serves} coats if you keep to the times` : "it thickens before the next coat is due, so each coat is mixed anew";
  return [`${quote(l.backG, "mass")} is left over or comes back: ${more}. Never thin what has begun to thicken.`];
}
