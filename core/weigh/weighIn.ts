import * as z from "zod";
import { PART_ROLES, type PartRole } from "../batch";
import { HABIT, HABIT_KEYS, HOLD_KEYS, NO_FACTS } from "../habit";
import { versioned } from "../record";
import { figure, figures, quote, stored, storedSpan } from "../quantity";
import { splitCups } from "./cups";
import { Handling } from "./handling";
import { rebalance } from "./rebalance";
import { CHANNEL_FIELDS, MELT_FIELDS } from "./fields";
import { Share } from "./share";

const span = storedSpan(stored.minutes);
const grams = z.number().min(0, "a weight cannot be negative").max(1_000_000);
const WAYS = ["scale", "marks", "typed"] as const;

const CupPart = z.object({
  gotG: grams.nullable(),
  tareG: z.number().min(-1_000_000).max(1_000_000).nullable(),
  way: z.enum(WAYS).nullable(),
  /** Short of its target, and meant to be: the rest comes later, as it needs. */
  settled: z.boolean().default(false),
  /** What of it was added once it was stirred, g. */
  lateG: grams.default(0),
});
const Facts = z.object({
  pourC: z.object({ low: stored.c, high: stored.c }).nullable(),
  topMm: stored.mm.nullable(),
  fillLineMm: stored.mm.nullable(),
  first: z.boolean(),
  fast: z.boolean().default(false),
  inserts: z.boolean(),
  tinted: z.boolean(),
  cloth: z.boolean(),
  way: z.string().max(40).nullable(),
  goesOn: z.boolean(),
  degas: z.boolean(),
});

/** What was cut into a mould, {@link CHANNEL_FIELDS}, mm, how hot it was poured, °C, and for how long, s; null where it has none or nobody measured. */
export const Cut = z.object({ ...figures(CHANNEL_FIELDS), meltC: figure(MELT_FIELDS.meltC).default(null), tookS: figure(MELT_FIELDS.tookS).default(null) });
export type Cut = z.infer<typeof Cut>;

/**
 * One batch being weighed in: what was planned, frozen when it was begun, and everything that has been put into the cups
 * since. Kept whole on the server after each act, so that a reload or a power cut loses nothing.
 */
export const WeighIn = z.object({
  format: z.literal(2),
  jobName: z.string(),
  jobRevision: stored.count,
  what: z.string(),
  material: z.string(),
  ratioLabel: z.string(),
  /** Targets for the whole batch with its witness, g. */
  parts: z.array(
    z.object({
      name: z.string(),
      role: z.enum(PART_ROLES),
      targetG: stored.g,
      volumeMl: stored.ml.nullable(),
      underPct: stored.figure,
      overPct: stored.figure,
      why: z.string(),
    }),
  ),
  /** How stuff of its kind is handled, and what its words have to know. */
  habit: z.enum(HABIT_KEYS).default("poured"),
  facts: Facts.default(NO_FACTS),
  /** Batch without the witness, g, and what of it has to be in the mould; null where that was not kept. */
  batchG: stored.g,
  needG: stored.g.nullable().default(null),
  /** What else is poured from the same cups; {@link WeighIn.batchG} and the targets hold it. */
  shares: z.array(Share).max(12).default([]),
  gMl: stored.gMl,
  gMlHalf: stored.gMl,
  /** Pot life of a rubber, working time of a cast, min; null where nothing runs out. */
  potLifeMin: span.nullable(),
  handling: Handling,
  passed: z.array(z.enum(HOLD_KEYS)),
  cups: z.array(
    z.object({
      /** All targets of this cup are multiplied by this, once an over-pour has been accepted. */
      factor: stored.figure,
      parts: z.array(CupPart),
      stirredAt: stored.moment.nullable(),
      pouredAt: stored.moment.nullable(),
    }),
  ),
  /** What one was asked about before it was begun, and did all the same. */
  despite: z.array(z.string().max(1000)).max(12).default([]),
  gauges: z.array(z.object({ at: stored.moment, pouredG: stored.g, heightMm: stored.mm })),
  cut: Cut,
  /** What is changed for this one against the last, as it was said before the pour; nothing until somebody says. */
  changed: z
    .array(z.object({ key: z.string().max(60).nullable(), text: z.string().trim().min(1).max(300) }))
    .max(6)
    .default([]),
});
export type WeighIn = z.infer<typeof WeighIn>;

/** What a part of format 1 was there for, by the names parts had then. */
const roleNamed = (name: string): PartRole =>
  (
    [
      [/pigment/i, "pigment"],
      [/fibre/i, "fibre"],
      [/fragrance/i, "fragrance"],
      [/^water$/i, "water"],
      [/liquid/i, "liquid"],
      [/powder|dry mix/i, "powder"],
      [/alloy|^wax$|soap base/i, "melt"],
    ] as const
  ).find(([word]) => word.test(name))?.[1] ?? "ingredient";

/** A weigh-in as it is kept. Format 1 called the hold-points that were passed `held`, and knew parts by name only. */
export const weighInDocument = versioned("batch", WeighIn, [
  ({ held, parts, ...rest }) => ({
    ...rest,
    passed: held,
    parts: (Array.isArray(parts) ? parts : []).map((p: { name?: unknown }) => ({ ...p, role: roleNamed(String(p.name)) })),
  }),
]);
export type WeighCup = WeighIn["cups"][number];

const cup = z.number().int().min(0).max(60);
const part = z.number().int().min(0).max(20);

/** Everything a person can do to a batch. Each names what it expects, so that a second page cannot undo a first. */
export const WeighAct = z.discriminatedUnion("do", [
  z.object({ do: z.literal("hold"), point: z.enum(HOLD_KEYS), on: z.boolean() }),
  z.object({ do: z.literal("handle"), handling: Handling.partial() }),
  z.object({
    do: z.literal("cut"),
    cut: Cut,
  }),
  z.object({
    do: z.literal("change"),
    changed: z.array(z.object({ key: z.string().max(60).nullable(), text: z.string().trim().min(1, "say what is changed").max(300) })).max(6),
  }),
  z.object({ do: z.literal("tare"), cup, part, grossG: z.number().min(-1_000_000).max(1_000_000) }),
  z.object({ do: z.literal("weigh"), cup, part, was: grams.nullable(), grams: grams.nullable(), way: z.enum(WAYS) }),
  z.object({ do: z.literal("accept"), cup, factor: z.number().min(0.01).max(50) }),
  z.object({ do: z.literal("smaller"), cup, part, factor: z.number().gt(0).max(50) }),
  z.object({ do: z.literal("settle"), cup, part }),
  z.object({ do: z.literal("add"), cup, part, was: grams.nullable(), grams: grams.gt(0) }),
  z.object({ do: z.literal("stir"), cup }),
  z.object({ do: z.literal("empty"), cup }),
  z.object({ do: z.literal("gauge"), pouredG: grams.gt(0), heightMm: z.number().gt(0).max(3000) }),
]);
export type WeighAct = z.infer<typeof WeighAct>;

const emptyCup = (parts: number): WeighCup => ({
  factor: 1,
  parts: Array.from({ length: parts }, () => ({ gotG: null, tareG: null, way: null, settled: false, lateG: 0 })),
  stirredAt: null,
  pouredAt: null,
});

/** A fresh weigh-in, split into cups. `plan.parts` are for the batch without a witness. */
export function beginWeighIn(
  plan: Omit<WeighIn, "format" | "cups" | "passed" | "gauges" | "handling" | "despite" | "changed">,
  handling: Handling,
  despite: string[] = [],
): WeighIn {
  return resplit({ ...plan, format: 2, handling, despite, changed: [], passed: [], cups: [emptyCup(plan.parts.length)], gauges: [] }, handling, plan.batchG);
}

/** What the split of a weigh-in says at the moment. */
export const splitOf = (w: WeighIn, h: Handling = w.handling) =>
  splitCups({
    ...h,
    mixG: w.batchG + h.witnessG,
    gMl: w.gMl,
    potLifeMin: w.potLifeMin?.low ?? null,
    split: HABIT[w.habit].split,
    lifeShare: HABIT[w.habit].lifeShare,
  });

function resplit(w: WeighIn, handling: Handling, nowG: number): WeighIn {
  const split = splitOf(w, handling);
  const scale = (w.batchG + handling.witnessG) / nowG;
  return {
    ...w,
    handling,
    parts: w.parts.map((p) => ({ ...p, targetG: p.targetG * scale, volumeMl: p.volumeMl === null ? null : p.volumeMl * scale })),
    cups: Array.from({ length: split.ok ? split.cups : 1 }, () => emptyCup(w.parts.length)),
  };
}

/** One cup's targets, g and mL. */
export const cupTargets = (w: WeighIn, i: number) => {
  const f = (w.cups[i]?.factor ?? 1) / w.cups.length;
  return w.parts.map((p) => ({ ...p, targetG: p.targetG * f, volumeMl: p.volumeMl === null ? null : p.volumeMl * f }));
};

export const cupGot = (w: WeighIn, i: number): (number | null)[] => w.cups[i]?.parts.map((p) => p.gotG) ?? [];

/** Everything weighed so far, by part, g. */
export const weighedByPart = (w: WeighIn): number[] => w.parts.map((_, i) => w.cups.reduce((s, c) => s + (c.parts[i]?.gotG ?? 0), 0));

/** How its kind is handled, and whether all that has to be true first has been said to be. */
export const habitOf = (w: WeighIn) => HABIT[w.habit];
export const holdPassed = (w: WeighIn): boolean =>
  habitOf(w)
    .hold(w.facts)
    .every((k) => w.passed.includes(k));
/** Whether anything is in a cup yet. */
export const anythingWeighed = (w: WeighIn): boolean => w.cups.some((c) => c.stirredAt !== null || c.parts.some((p) => p.gotG !== null));

/** Least a cup may become when others before it were made larger. */
const LEAST_CUP = 0.1;

/** What one cup takes more, those not begun take less, so that the batch stays what it is as far as it can. */
function carried(cups: readonly WeighCup[]): WeighCup[] {
  const begun = (c: WeighCup) => c.stirredAt !== null || c.factor > 1 || c.parts.some((p) => p.gotG !== null);
  const left = cups.filter((c) => !begun(c)).length;
  if (left === 0) return [...cups];
  const used = cups.reduce((s, c) => s + (begun(c) ? c.factor : 0), 0);
  const each = Math.max(LEAST_CUP, (cups.length - used) / left);
  return cups.map((c) => (begun(c) ? c : { ...c, factor: Math.min(1, each) }));
}

export type WeighResult = { ok: true; next: WeighIn } | { ok: false; why: "conflict" | "order"; message: string };
const no = (why: "conflict" | "order", message: string): WeighResult => ({ ok: false, why, message });

/** Applies one act. `now` in ms. Acts that say the same twice change nothing, so a repeated request is harmless. */
export function weighStep(w: WeighIn, act: WeighAct, now: number): WeighResult {
  const ok = (patch: Partial<WeighIn>): WeighResult => ({ ok: true, next: { ...w, ...patch } });
  const inCup = (i: number, change: (c: WeighCup) => WeighCup): Partial<WeighIn> => ({ cups: w.cups.map((c, k) => (k === i ? change(c) : c)) });
  if ("cup" in act && !w.cups[act.cup]) return no("order", `There is no cup ${act.cup + 1} in this batch: it has ${w.cups.length}.`);
  if ("part" in act && !w.parts[act.part]) return no("order", `There is no part ${act.part + 1} in this batch.`);
  switch (act.do) {
    case "hold":
      return ok({ passed: act.on ? [...new Set([...w.passed, act.point])] : w.passed.filter((h) => h !== act.point) });
    case "cut":
      return ok({ cut: act.cut });
    case "change":
      return ok({ changed: act.changed });
    case "handle": {
      const change = Object.fromEntries(Object.entries(act.handling).filter(([, v]) => v !== undefined));
      const handling = { ...w.handling, ...change };
      const splits = ["cupMl", "degas", "stirMin", "degasMin", "pourGMin", "witnessG"].some((k) => k in change);
      if (!splits) return ok({ handling });
      if (anythingWeighed(w))
        return no("order", "Something is in the cups already: how the batch is split cannot change any more. Finish these cups, or throw this weigh-in away.");
      return { ok: true, next: resplit(w, handling, w.batchG + w.handling.witnessG) };
    }
    case "tare":
      return ok(inCup(act.cup, (c) => ({ ...c, parts: c.parts.map((p, k) => (k === act.part ? { ...p, tareG: act.grossG } : p)) })));
    case "weigh": {
      const here = w.cups[act.cup]?.parts[act.part];
      if (!holdPassed(w)) return no("order", "Not yet: tick the points above first.");
      if (here && here.gotG !== act.was && here.gotG !== act.grams)
        return no(
          "conflict",
          `Another page has already written ${here.gotG === null ? "nothing" : quote(here.gotG, "mass")} for ${w.parts[act.part]?.name}. Look at the cup, and weigh again.`,
        );
      return ok(
        inCup(act.cup, (c) => ({
          ...c,
          parts: c.parts.map((p, k) => (k === act.part ? { ...p, gotG: act.grams, way: act.grams === null ? null : act.way } : p)),
        })),
      );
    }
    case "accept": {
      const c = w.cups[act.cup]!;
      const need = rebalance(cupTargets(w, act.cup), cupGot(w, act.cup));
      const factor = c.factor * need.factor;
      if (need.byPart === null)
        return Math.abs(c.factor - act.factor) < 1e-6 * act.factor ? ok({}) : no("order", "Nothing in this cup is over-poured: there is nothing to accept.");
      if (Math.abs(factor - act.factor) > 1e-6 * factor) return no("conflict", "The cup has changed since this was worked out: look at the new figures.");
      return ok({ cups: carried(w.cups.map((x, k) => (k === act.cup ? { ...x, factor } : x))) });
    }
    case "smaller": {
      const c = w.cups[act.cup]!;
      const target = cupTargets(w, act.cup)[act.part]!;
      const got = c.parts[act.part]?.gotG ?? null;
      if (got === null || got <= 0) return no("order", `Weigh ${target.name} first: what is there decides how small the batch becomes.`);
      const factor = (c.factor * got) / target.targetG;
      if (Math.abs(factor - act.factor) > 1e-6 * factor) return no("conflict", "The cup has changed since this was worked out: look at the new figures.");
      const less = { ...w, cups: w.cups.map((x, k) => (k === act.cup ? { ...x, factor } : x)) };
      const over = rebalance(cupTargets(less, act.cup), cupGot(less, act.cup)).byPart;
      if (over !== null)
        return no(
          "order",
          `There is too much ${w.parts[over]?.name} in the cup already for so small a batch: find more ${target.name}, or throw this cup away.`,
        );
      return ok({ cups: less.cups });
    }
    case "settle": {
      const target = cupTargets(w, act.cup)[act.part]!;
      const least = habitOf(w).mayBeShort[target.role];
      const got = w.cups[act.cup]?.parts[act.part]?.gotG ?? 0;
      if (least === undefined) return no("order", `${target.name} decides how it cures: weigh all of it.`);
      if (got < least * target.targetG) return no("order", `At least ${quote(least * target.targetG, "mass")} of ${target.name} first; the rest as it needs.`);
      return ok(inCup(act.cup, (c) => ({ ...c, parts: c.parts.map((p, k) => (k === act.part ? { ...p, settled: true } : p)) })));
    }
    case "add": {
      const here = w.cups[act.cup]!;
      const had = here.parts[act.part]!;
      if (!holdPassed(w)) return no("order", "Not yet: tick the points above first.");
      const late = here.stirredAt !== null;
      if (late && !habitOf(w).mayFollow.includes(w.parts[act.part]!.role))
        return no("order", `${w.parts[act.part]?.name} cannot be added once it is stirred: it changes how it cures.`);
      const sum = (had.gotG ?? 0) + act.grams;
      if (had.gotG !== act.was)
        return Math.abs((had.gotG ?? 0) - ((act.was ?? 0) + act.grams)) < 1e-9
          ? ok({})
          : no(
              "conflict",
              `Another page has already written ${quote(had.gotG ?? 0, "mass")} for ${w.parts[act.part]?.name}. Look at the cup, and weigh again.`,
            );
      return ok(
        inCup(act.cup, (c) => ({
          ...c,
          parts: c.parts.map((p, k) => (k === act.part ? { ...p, gotG: sum, way: p.way ?? "typed", lateG: p.lateG + (late ? act.grams : 0) } : p)),
        })),
      );
    }
    case "stir": {
      if (!holdPassed(w)) return no("order", "Not yet: tick the points above first.");
      return ok(inCup(act.cup, (c) => ({ ...c, stirredAt: c.stirredAt ?? now })));
    }
    case "empty":
      if (w.cups[act.cup]?.stirredAt === null) return no("order", `Start the clock of cup ${act.cup + 1} before you say it is poured.`);
      return ok(inCup(act.cup, (c) => ({ ...c, pouredAt: c.pouredAt ?? now })));
    case "gauge":
      return ok({ gauges: [...w.gauges, { at: now, pouredG: act.pouredG, heightMm: act.heightMm }].slice(-50) });
  }
}
