import { dossierOf } from "./record";
import { z } from "zod";
import { castBatch, correctOverPour, massRatio, rubberBatch } from "./batch";
import { castCure, cureState, rubberCure, SHOP_C } from "./cure";
import { CONTACTS, HELD, judgeChain, USES, VERDICTS } from "./fit";
import { heatQuestionFor, heatStudy } from "./heat";
import { Job, newJob } from "./record";
import { FINISH_KEYS, JACKET_KEYS, pick, SEALING_KEYS, type Catalogue } from "./material";
import { measureMaster, SHAPE_KINDS, SIZE_KEYS, SHAPES } from "./master";
import {
  backing,
  buildOrder,
  bulgeOf,
  headOf,
  StrengthDecision,
  strengthDefault,
  layOutMould,
  leastPanel,
  leastStandingWall,
  MouldDecision,
  panelBow,
  toleranceOf,
  wallsOf,
  type RubberPour,
} from "./mould";
import { STEP_IDS } from "./plan";
import { plan } from "./plan/plan";
import { production, solve } from "./schedule";
import { gauge, rebalance, splitCups } from "./weigh";
import { formatQuantity, parseQuantity, say } from "./quantity";

/** A fault in an operation's input, at a path of it. */
export class OperationFault extends Error {
  constructor(readonly faults: readonly { path: string; message: string }[]) {
    super(faults.map((f) => `${f.path || "input"}: ${f.message}`).join("\n"));
    this.name = "OperationFault";
  }
}

/** One computation reachable from outside: over HTTP, from the command line, and in the docs. */
export interface Operation {
  name: string;
  summary: string;
  input: z.ZodType;
  output: z.ZodType;
  /** Parses the input, computes, and parses the output. Throws {@link OperationFault} for bad input. */
  run: (input: unknown, catalogue: Catalogue) => unknown;
}

function define<I extends z.ZodType, O extends z.ZodType>(
  name: string,
  summary: string,
  input: I,
  output: O,
  compute: (input: z.output<I>, catalogue: Catalogue) => z.input<O>,
): Operation {
  return {
    name,
    summary,
    input,
    output,
    run: (raw, catalogue) => {
      const parsed = input.safeParse(raw);
      if (!parsed.success) throw new OperationFault(parsed.error.issues.map((i) => ({ path: i.path.join("."), message: i.message })));
      return output.parse(compute(parsed.data, catalogue));
    },
  };
}

const fault = (path: string, message: string): never => {
  throw new OperationFault([{ path, message: say(message, "metric") }]);
};

function find<T extends { id: string }>(list: readonly T[], id: string, path: string): T {
  return pick(list, id) ?? fault(path, `"${id}" is not among the materials. GET /api/materials lists what is.`);
}

const Span = z.object({ low: z.number(), typical: z.number(), high: z.number() });
const positive = (what: string) => z.number().finite().gt(0, `${what} has to be more than 0`);
const Master = z.strictObject({
  shape: z.enum(SHAPE_KINDS),
  sizes: z.partialRecord(z.enum(SIZE_KEYS), z.number().finite()).default({}),
  profile: z
    .array(z.object({ zMm: z.number(), radiusMm: z.number() }))
    .max(500)
    .default([]),
  readingMm: z.number().min(0).max(10).default(0.5),
});
const shopC = z.number().min(SHOP_C.min).max(SHOP_C.max).default(21);
const Pour = z.object({
  name: z.string(),
  rubberMl: z.number(),
  runOffMl: z.number().describe("of a brushed coat, scraped from the board"),
  thicknessMm: z.number().nullable().describe("of a coat; null for a pour"),
  fromMm: z.number().nullable(),
  fillLineMm: z.number().nullable(),
  clayMl: z.number().nullable(),
  coversMl: z.number().nullable(),
});
const pourOut = (p: RubberPour): z.infer<typeof Pour> =>
  p.kind === "coat"
    ? { name: p.name, rubberMl: p.rubberMl, runOffMl: p.runOffMl, thicknessMm: p.thicknessMm, fromMm: null, fillLineMm: null, clayMl: null, coversMl: null }
    : {
        name: p.name,
        rubberMl: p.rubberMl,
        runOffMl: 0,
        thicknessMm: null,
        fromMm: p.fromMm,
        fillLineMm: p.fillLineMm,
        clayMl: p.clayMl,
        coversMl: p.coversMl,
      };
const JacketOut = z.object({
  thicknessMm: z.number(),
  volumeMl: z.number(),
  massG: Span,
  parts: z.number(),
  why: z.string(),
  bolts: z.number(),
  fillMl: z.number(),
});
const OrderStep = z.object({
  id: z.string(),
  what: z.string(),
  at: z.string(),
  release: z.array(z.string()),
  after: z.array(z.string()),
  waits: z.string().nullable(),
  pour: z.number().nullable(),
});
const Part = z.object({ name: z.string(), massG: z.number(), volumeMl: z.number().nullable() });
const Wait = z.object({ hours: Span, reason: z.string() });
const metric = (w: { hours: z.infer<typeof Span>; reason: string }) => ({ hours: w.hours, reason: say(w.reason, "metric") });

function measure(m: z.infer<typeof Master>) {
  const r = measureMaster(m);
  if (r.ok) return r.body;
  if (r.missing.length > 0)
    throw new OperationFault(r.missing.map((k) => ({ path: `master.sizes.${k}`, message: `needed for a ${SHAPES[m.shape].label.toLowerCase()}` })));
  throw new OperationFault(r.problems.map((p) => ({ path: p.path, message: say(p.message, "metric") })));
}

const Measured = z.object({
  volumeMl: z.number(),
  volumeErrorMl: z.number(),
  areaMm2: z.number(),
  areaIsEstimate: z.boolean(),
  lengthMm: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
  widestMm: z.number(),
});
const girth = z.array(z.object({ zMm: z.number(), areaMm2: z.number(), perimeterMm: z.number() }));
const rubberId = z.string().describe("id of a rubber, such as rubber-platinum-medium-25");
const castId = z.string().describe("id of a casting material, such as cast-plaster");
/** A partly filled form without the keys nobody filled in. */
const withoutUndefined = <T extends object>(o: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined)) as { [K in keyof T]: Exclude<T[K], undefined> };
const mouldDefaults = newJob("x").mould;
const Mould = z
  .strictObject({ ...MouldDecision.shape })
  .partial()
  .transform((d) => ({ ...mouldDefaults, ...d }));

export const OPERATIONS: readonly Operation[] = [
  define(
    "quantity.parse",
    "Read a quantity as typed in a workshop, such as 4 3/4 in",
    z.strictObject({
      text: z.string().max(200),
      dimension: z.enum(["length", "mass", "volume", "temperature", "duration", "density", "percent", "count"]),
      system: z.enum(["metric", "us"]).default("metric"),
    }),
    z.object({ value: z.number().describe("in mm, g, mL, °C, h, g/mL or %"), metric: z.string(), us: z.string() }),
    ({ text, dimension, system }) => {
      const p = parseQuantity(text, { dimension, system });
      return p.ok
        ? { value: p.value, metric: formatQuantity(p.value, dimension, "metric"), us: formatQuantity(p.value, dimension, "us") }
        : fault("text", p.message);
    },
  ),
  define(
    "master.measure",
    "Volume, area, outer sizes and girth profile of a master",
    z.strictObject({ master: Master }),
    Measured.extend({ girth }),
    ({ master }) => {
      const m = measure(master);
      return { ...m, areaIsEstimate: m.unknown.includes("area"), girth: [...m.levels] };
    },
  ),
  define(
    "mould.layout",
    "Pours or coats, box, jacket, cut list and order of work of a mould of any kind round a master",
    z.strictObject({
      master: Master,
      mould: Mould.prefault({}),
      boxId: z.string().default("box-foam-board-5"),
      jacket: z.enum(JACKET_KEYS).default("none"),
    }),
    z.object({
      kind: z.enum(["block", "skin"]),
      rubberMl: z.number(),
      fillHeightMm: z.number(),
      boxMl: z.number().nullable().describe("null for a skin, which has no box"),
      wallHeightMm: z.number().nullable(),
      insideLengthMm: z.number().nullable(),
      insideWidthMm: z.number().nullable(),
      skinMm: z.number().nullable().describe("null for a block"),
      pours: z.array(Pour),
      panels: z.array(z.object({ name: z.string(), count: z.number(), lengthMm: z.number(), heightMm: z.number(), thicknessMm: z.number() })),
      alternatives: z.array(z.object({ shape: z.string(), rubberMl: z.number(), savedMl: z.number() })),
      jacket: JacketOut.nullable(),
      order: z.array(OrderStep),
      warnings: z.array(z.string()),
    }),
    ({ master, mould, boxId, jacket }, catalogue) => {
      const r = layOutMould(measure(master), mould, find(catalogue.boxes, boxId, "boxId"), jacket);
      if (!r.ok) throw new OperationFault(r.problems.map((p) => ({ path: p.path, message: say(p.message, "metric") })));
      const l = r.layout;
      const block = l.kind === "block" ? l : null;
      return {
        kind: l.kind,
        rubberMl: l.rubberMl,
        fillHeightMm: l.fillHeightMm,
        boxMl: block?.boxMl ?? null,
        wallHeightMm: block?.wallHeightMm ?? null,
        insideLengthMm: block?.box.lengthMm ?? null,
        insideWidthMm: block?.box.widthMm ?? null,
        skinMm: l.kind === "skin" ? l.skinMm : null,
        pours: l.pours.map(pourOut),
        panels: [...(block?.panels ?? [])],
        alternatives: [...(block?.alternatives ?? [])],
        jacket: l.jacket,
        order: buildOrder(mould, l, jacket).map((o) => ({ ...o, what: say(o.what, "metric"), release: [...o.release], after: [...o.after] })),
        warnings: r.warnings.map((w) => say(w.message, "metric")),
      };
    },
  ),
  define(
    "mould.bulge",
    "How far the free-standing walls of a mould bulge under a fill, and the least wall that stands alone",
    z.strictObject({
      master: Master,
      mould: Mould.prefault({}),
      rubberId,
      fillGMl: positive("the fill's density").max(25).describe("wet density of the fill, g/mL"),
      hold: StrengthDecision.partial().prefault({}),
    }),
    z.object({
      toleranceMm: z.number(),
      headMm: z.number(),
      walls: z.array(
        z.object({
          name: z.string(),
          kind: z.string(),
          thicknessMm: z.number(),
          mostMm: Span,
          atMm: z.number().describe("above the floor of the cavity"),
          hold: z.enum(["holds", "close", "bulges"]),
          large: z.boolean().describe("more than half the wall: past what small deflections describe"),
          blocky: z.boolean().describe("blockier than plate theory bears"),
          likelyMm: z.number().nullable().describe("least wall whose typical bulge is inside the tolerance"),
          surelyMm: z.number().nullable().describe("least wall whose whole band is inside the tolerance"),
        }),
      ),
    }),
    ({ master, mould, rubberId: r, fillGMl, hold }, catalogue) => {
      const m = measure(master);
      const laid = layOutMould(m, mould, null);
      if (!laid.ok) throw new OperationFault(laid.problems.map((p) => ({ path: p.path, message: say(p.message, "metric") })));
      const { shoreA } = find(catalogue.rubbers, r, "rubberId");
      const headMm = headOf(m, mould);
      const toleranceMm = toleranceOf(m, { ...strengthDefault, ...withoutUndefined(hold) });
      return {
        toleranceMm,
        headMm,
        walls: wallsOf(m, laid.layout, mould).map((w) => {
          const b = bulgeOf(w, shoreA, fillGMl, headMm, toleranceMm);
          return { ...b, hold: b.grade, name: w.name, kind: w.kind, thicknessMm: w.thicknessMm, ...leastStandingWall(w, shoreA, fillGMl, headMm, toleranceMm) };
        }),
      };
    },
  ),
  define(
    "mould.panel",
    "How far a side of a box bows under liquid rubber, and the straps or thickness that stop it",
    z.strictObject({
      boxId: z.string().default("box-foam-board-5"),
      lengthMm: positive("the length").max(3000),
      heightMm: positive("the height").max(3000),
      depthMm: positive("the depth of liquid").max(3000),
      liquidGMl: positive("the liquid's density").max(25).default(1.1),
      toleranceMm: positive("the tolerance").max(50).default(1),
      strapN: positive("a strap's load").max(20_000).default(150),
    }),
    z.object({ mostMm: Span, leastThicknessMm: z.number().nullable(), strapsAtMm: z.array(z.number()), strapPullN: z.number(), enough: z.boolean() }),
    ({ boxId, toleranceMm, strapN, ...panel }, catalogue) => {
      const stock = find(catalogue.boxes, boxId, "boxId");
      if (!stock.modulusMPa) return fault("boxId", `${stock.name} has no stiffness: add it to the material first.`);
      const b = backing(panel, stock.thicknessMm, stock.modulusMPa, toleranceMm, strapN);
      return {
        mostMm: panelBow(panel, stock.thicknessMm, stock.modulusMPa).mostMm,
        leastThicknessMm: leastPanel(panel, stock.modulusMPa, toleranceMm),
        strapsAtMm: [...b.straps],
        strapPullN: b.pullN,
        enough: b.enough,
      };
    },
  ),
  define(
    "rubber.batch",
    "Grams of each part to mix for a volume of rubber",
    z.strictObject({
      rubberId,
      volumeMl: positive("volumeMl").max(1_000_000),
      marginPct: z.number().min(0).max(100).default(0),
      catalystPct: z.number().nullable().default(null),
      cupLossK: z.number().min(0).max(5).default(0.2),
      cupLossFloorG: z.number().min(0).max(500).default(3),
    }),
    z.object({
      needG: z.number(),
      marginG: z.number(),
      cupLossG: z.number(),
      mixG: z.number(),
      ratioLabel: z.string(),
      components: z.array(Part),
    }),
    (i, catalogue) => {
      const rubber = find(catalogue.rubbers, i.rubberId, "rubberId");
      const r = massRatio(rubber.mix, i.catalystPct);
      if (!r.ok) return fault("catalystPct", r.message);
      const b = rubberBatch(i.volumeMl, rubber.densityGMl.typical, r.ratio, i.marginPct, {
        k: i.cupLossK,
        floorG: i.cupLossFloorG,
      });
      return { ...b, components: [...b.parts] };
    },
  ),
  define(
    "rubber.correct",
    "Over-pour correction: what to add so that the parts in the cup keep the ratio",
    z.strictObject({
      rubberId,
      actualAG: positive("actualAG"),
      actualBG: z.number().min(0).default(0),
      catalystPct: z.number().nullable().default(null),
    }),
    z.object({
      needBG: z.number(),
      addBG: z.number(),
      addAG: z.number(),
      totalG: z.number(),
      deviationPct: z.number().nullable(),
      verdict: z.enum(["add", "good", "near", "off"]),
      message: z.string(),
    }),
    (i, catalogue) => {
      const r = massRatio(find(catalogue.rubbers, i.rubberId, "rubberId").mix, i.catalystPct);
      if (!r.ok) return fault("catalystPct", r.message);
      const c = correctOverPour(i.actualAG, i.actualBG, r.ratio);
      return { ...c, message: say(c.message, "metric") };
    },
  ),
  define(
    "cast.batch",
    "Components of a casting mix, and what the casting weighs wet, demoulded and dry",
    z.strictObject({
      castId,
      cavityMl: positive("cavityMl").max(1_000_000),
      waterPer100: z.number().nullable().default(null),
      pigmentPct: z.number().default(0),
      fragrancePct: z.number().default(0),
      marginPct: z.number().default(0),
      count: z.number().default(1),
    }),
    z.object({
      components: z.array(Part),
      mixG: z.number(),
      mixMl: z.number(),
      wetG: z.number(),
      demouldedG: Span,
      dryG: Span,
      ratioLabel: z.string(),
      notes: z.array(z.string()),
      warnings: z.array(z.string()),
    }),
    (i, catalogue) => {
      const r = castBatch(find(catalogue.casts, i.castId, "castId"), i.cavityMl, i);
      if (!r.ok) return fault(r.path.replace(/^cast\./, ""), r.message);
      return {
        ...r.batch,
        components: [...r.batch.parts],
        notes: r.batch.notes.map((n) => say(n, "metric")),
        warnings: r.warnings,
      };
    },
  ),
  define(
    "fit.check",
    "Judge every contact between master, rubber, cast and use",
    z.strictObject({
      surfaceId: z.string().nullable().default(null),
      sealerId: z.string().nullable().default(null),
      releaseId: z.string().nullable().default(null),
      clayId: z.string().nullable().default(null),
      rubberId: z.string().nullable().default(null),
      secondRubberId: z.string().nullable().default(null),
      castId: z.string().nullable().default(null),
      use: z.enum(USES).default("display"),
      held: z.enum(HELD).default("new"),
      washedToday: z.boolean().default(false),
      boxId: z.string().nullable().default(null),
      sealing: z.enum(SEALING_KEYS).default("none"),
      jacket: z.enum(JACKET_KEYS).default("none"),
      finish: z.enum(FINISH_KEYS).default("none"),
    }),
    z.object({
      verdict: z.enum(VERDICTS),
      unanswered: z.array(z.string()),
      links: z.array(
        z.object({
          contact: z.enum(CONTACTS),
          between: z.array(z.string()),
          verdict: z.enum(VERDICTS),
          findings: z.array(
            z.object({
              ruleId: z.string(),
              verdict: z.enum(VERDICTS),
              reason: z.string(),
              remedy: z.string(),
              confidence: z.string(),
              source: z.string(),
            }),
          ),
        }),
      ),
    }),
    (i, catalogue) => {
      const lists = {
        surfaceId: catalogue.surfaces,
        sealerId: catalogue.releases,
        releaseId: catalogue.releases,
        clayId: catalogue.surfaces,
        rubberId: catalogue.rubbers,
        secondRubberId: catalogue.rubbers,
        castId: catalogue.casts,
      };
      for (const [key, list] of Object.entries(lists)) {
        const id = i[key as keyof typeof lists];
        if (id !== null) find<{ id: string }>(list, id, key);
      }
      const c = judgeChain(i, catalogue);
      return {
        verdict: c.verdict,
        unanswered: [...c.unanswered],
        links: c.links.map((l) => ({
          ...l,
          between: [...l.between],
          findings: l.findings.map((f) => ({ ...f, reason: say(f.reason, "metric"), remedy: say(f.remedy, "metric") })),
        })),
      };
    },
  ),
  define(
    "cure.rubber",
    "Pot life and demould time of a rubber at a shop temperature",
    z.strictObject({ rubberId, shopC, catalystPct: z.number().gt(0).nullable().default(null) }),
    z.object({ potLife: Wait, demould: Wait }),
    (i, catalogue) => {
      const c = rubberCure(find(catalogue.rubbers, i.rubberId, "rubberId"), i.shopC, i.catalystPct);
      return { potLife: metric(c.potLife), demould: metric(c.demould) };
    },
  ),
  define(
    "cure.cast",
    "Working, demould and finishing time of a casting at a shop temperature",
    z.strictObject({ castId, shopC, volumeMl: positive("volumeMl"), areaMm2: positive("areaMm2") }),
    z.object({ working: Wait, demould: Wait, finished: Wait.extend({ name: z.string() }).nullable() }),
    (i, catalogue) => {
      const c = castCure(find(catalogue.casts, i.castId, "castId"), i.shopC, i);
      return {
        working: metric(c.working),
        demould: metric(c.demould),
        finished: c.finished ? { ...metric(c.finished), name: c.finished.name } : null,
      };
    },
  ),
  define(
    "heat.study",
    "How hot the rubber gets, when the casting is solid and may be opened, and how fast one may cast in a row",
    z.strictObject({
      rubberId,
      castId,
      symmetry: z.enum(["plate", "cylinder", "sphere"]).default("plate"),
      halfMm: positive("halfMm").max(500).describe("half thickness of a plate, or radius, mm"),
      wallMm: positive("wallMm").max(500).default(15),
      shopC,
      pours: z.number().int().min(1).max(20).default(1),
      everyMin: z.number().min(1).max(720).default(20),
    }),
    z.object({
      skinPeakC: Span,
      castPeakC: Span,
      overContinuousS: Span,
      overShortS: Span,
      solidS: Span.nullable(),
      openS: Span.nullable(),
      paceMin: z.number().nullable(),
      byThickness: z.array(z.object({ thicknessMm: z.number(), peakC: z.number() })),
      peaks: z.array(z.object({ depthMm: z.number(), peakC: Span })),
      session: z.array(z.object({ startC: z.number(), skinPeakC: z.number(), overS: z.number(), solidS: z.number().nullable() })),
    }),
    ({ rubberId: r, castId: c, ...body }, catalogue) => {
      const s = heatStudy(heatQuestionFor(find(catalogue.casts, c, "castId"), find(catalogue.rubbers, r, "rubberId"), { ...body, jacket: null }));
      return { ...s, byThickness: [...s.byThickness], peaks: [...s.peaks], session: [...s.session] };
    },
  ),
  define(
    "batch.split",
    "Into how many cups a batch goes, by cup size with head-room and by pot life",
    z.strictObject({
      mixG: positive("mixG").max(1_000_000),
      gMl: positive("gMl").max(25).describe("density of the mix, g/mL"),
      cupMl: positive("cupMl").max(200_000).describe("to the brim"),
      degas: z.boolean().default(false),
      potLifeMin: positive("potLifeMin").nullable().default(null).describe("at its short end"),
      stirMin: positive("stirMin").default(3),
      degasMin: z.number().min(0).default(5),
      pourGMin: positive("pourGMin").default(400).describe("poured in a minute, g"),
    }),
    z.object({ cups: z.number(), perCupG: z.number(), perCupMl: z.number(), minutes: z.number(), because: z.enum(["one", "cup", "pot life"]) }),
    (i) => {
      const s = splitCups(i);
      return s.ok ? s : fault("potLifeMin", say(s.message, "metric"));
    },
  ),
  define(
    "batch.rebalance",
    "Over-pour correction for any number of parts: the smallest batch that keeps the ratio with what is in the cup",
    z.strictObject({
      parts: z
        .array(
          z.object({
            targetG: positive("targetG"),
            gotG: z.number().min(0).nullable().default(null),
            underPct: z.number().min(0).default(1),
            overPct: z.number().min(0).default(1),
          }),
        )
        .min(1)
        .max(20),
    }),
    z.object({
      factor: z.number(),
      byPart: z.number().nullable(),
      targetsG: z.array(z.number()),
      addG: z.array(z.number()),
      totalG: z.number(),
      extraG: z.number(),
    }),
    ({ parts }) =>
      rebalance(
        parts,
        parts.map((p) => p.gotG),
      ),
  ),
  define(
    "batch.gauge",
    "Gauge as you go: what still has to go in, from grams poured and height reached",
    z.strictObject({
      pouredG: positive("pouredG"),
      heightMm: positive("heightMm"),
      fillLineMm: positive("fillLineMm"),
      curve: z
        .array(z.object({ mm: z.number().min(0), ml: z.number().min(0) }))
        .min(2)
        .describe("planned volume up to each height, from the bottom up"),
      gMl: positive("gMl").max(25),
      gMlHalf: z.number().min(0).default(0.01),
      weighedG: z.number().min(0).default(1),
      readMm: positive("readMm").default(1),
      planShare: z.number().min(0).max(1).default(0.03).describe("how well the planned volume is known, as a share"),
    }),
    z.object({
      ratio: z.number(),
      ratioError: z.number(),
      remainingG: z.number(),
      remainingErrorG: z.number(),
      plannedRemainingG: z.number(),
      odd: z.enum(["leak", "less"]).nullable(),
      message: z.string(),
    }),
    ({ curve, ...i }) => {
      const planMlTo = (mm: number): number => {
        const k = curve.findIndex((p) => p.mm >= mm);
        if (k === -1) return curve.at(-1)?.ml ?? 0;
        const [a, b] = [curve[Math.max(0, k - 1)]!, curve[k]!];
        return b.mm === a.mm ? a.ml : a.ml + ((b.ml - a.ml) * (mm - a.mm)) / (b.mm - a.mm);
      };
      const g = gauge({ ...i, planMlTo });
      return g.ok ? { ...g.gauge, message: say(g.gauge.message, "metric") } : fault("heightMm", say(g.message, "metric"));
    },
  ),
  define(
    "cure.follow",
    "When a cure or a casting is ready over a temperature that changes: readings, and the forecast where there are none",
    z.strictObject({
      rubberId: z.string().nullable().default(null),
      castId: z.string().nullable().default(null),
      volumeMl: positive("volumeMl").default(250),
      areaMm2: positive("areaMm2").default(25_000),
      plannedC: shopC,
      startAt: z.number().describe("ms since 1970 UTC"),
      nowAt: z.number(),
      readings: z
        .array(z.object({ at: z.number(), c: z.number().min(-40).max(80) }))
        .max(20_000)
        .default([]),
      forecast: z.object({
        dayC: z.number(),
        nightC: z.number(),
        dayFromMin: z.number().default(480),
        dayToMin: z.number().default(1200),
        zone: z.string().default("UTC"),
      }),
    }),
    z.object({
      lowAt: z.number(),
      typicalAt: z.number(),
      highAt: z.number(),
      done: z.number(),
      meanC: z.number().nullable(),
      measured: z.number(),
      laterH: z.number(),
    }),
    (i, catalogue) => {
      const rule =
        i.castId !== null
          ? castCure(find(catalogue.casts, i.castId, "castId"), i.plannedC, i).demould.rule
          : rubberCure(find(catalogue.rubbers, i.rubberId ?? "", "rubberId"), i.plannedC).demould.rule;
      try {
        const s = cureState(
          rule,
          i.startAt,
          i.plannedC,
          [...i.readings].sort((a, b) => a.at - b.at),
          i.forecast,
          i.nowAt,
        );
        return { ...s.finish, done: s.done, meanC: s.meanC, measured: s.measured, laterH: s.laterH };
      } catch (e) {
        if (e instanceof RangeError) return fault("forecast.zone", `"${i.forecast.zone}" is not a time zone: write it as Europe/Berlin.`);
        throw e;
      }
    },
  ),
  define(
    "schedule.solve",
    "When to do each step: waits, windows, waking hours, hands and single pieces of equipment, as early as can be",
    z.strictObject({
      tasks: z
        .array(
          z.object({
            id: z.string().min(1),
            label: z.string().default(""),
            group: z.string().default(""),
            handsMin: z.number().min(0).max(1440),
            holdMin: z.number().min(0).default(0),
            uses: z.array(z.string()).default([]),
            after: z.array(z.object({ id: z.string(), minMin: z.number().min(0).default(0), maxMin: z.number().min(0).nullable().default(null) })).default([]),
          }),
        )
        .max(200),
      waking: z.array(z.tuple([z.number(), z.number()])).describe("spans in minutes from the start, in order and apart"),
      hands: z.number().int().min(1).max(6).default(1),
      pinned: z.record(z.string(), z.number()).default({}),
    }),
    z.object({ startMin: z.record(z.string(), z.number()), endMin: z.number(), proved: z.boolean(), nodes: z.number() }),
    ({ pinned, ...q }) => {
      const s = solve({ ...q, pinned: new Map(Object.entries(pinned)), most: 3000 });
      return s.ok ? { ...s, startMin: Object.fromEntries(s.startMin) } : fault("tasks", s.message);
    },
  ),
  define(
    "schedule.production",
    "So many good castings by a time: how many to pour, turns a day, moulds needed, and whether another mould pays",
    z.strictObject({
      good: z.number().int().min(1).max(500),
      castMin: positive("castMin").default(20),
      openMin: positive("openMin").default(15),
      demouldMin: positive("demouldMin"),
      moulds: z.number().int().min(1).max(40).default(1),
      waking: z.array(z.tuple([z.number(), z.number()])).describe("spans up to the deadline, minutes from now"),
      loggedGood: z.number().int().min(0).default(0),
      logged: z.number().int().min(0).default(0),
      mouldCost: z.number().nullable().default(null),
      dayWorth: z.number().nullable().default(null),
    }),
    z.object({
      yield: z.number(),
      expectedCasts: z.number(),
      safeCasts: z.number(),
      possible: z.number(),
      turnsADay: z.number(),
      mouldsNeeded: z.number().nullable(),
      doneMin: z.number().nullable(),
      doneWithMoreMin: z.number().nullable(),
      message: z.string(),
      another: z.string(),
    }),
    (i) => {
      if (i.loggedGood > i.logged) return fault("loggedGood", `${i.loggedGood} good ones of ${i.logged} is not possible.`);
      const p = production(i);
      return { ...p, another: say(p.another, "metric") };
    },
  ),
  define(
    "plan",
    "The whole plan of a job: measures, box, batches, verdict, weights and times",
    z.strictObject({ job: Job }),
    z.object({
      volumeMl: z.number().nullable(),
      boxMl: z.number().nullable(),
      rubberMl: z.number().nullable(),
      rubberMixG: z.number().nullable(),
      castMixG: z.number().nullable(),
      filledG: z.number().nullable(),
      verdict: z.enum(VERDICTS),
      rubberOutH: z.number().nullable(),
      castOutH: z.number().nullable(),
      bulgeMm: Span.nullable().describe("of the worst free-standing wall"),
      holds: z.enum(["holds", "close", "bulges"]).nullable().describe("as things stand, with whatever is behind the rubber"),
      stretch: z.number().nullable().describe("share the opening has to stretch to let go"),
      order: z.array(OrderStep),
      pours: z.array(Pour.extend({ mixG: z.number().nullable(), components: z.array(Part) })),
      castComponents: z.array(Part),
      steps: z.array(z.object({ id: z.enum(STEP_IDS), state: z.string(), line: z.string() })),
      remarks: z.array(z.object({ path: z.string(), message: z.string(), severity: z.string(), step: z.enum(STEP_IDS) })),
    }),
    ({ job }, catalogue) => {
      const p = plan(dossierOf(job, catalogue));
      return {
        volumeMl: p.body?.volumeMl ?? null,
        boxMl: p.layout?.kind === "block" ? p.layout.boxMl : null,
        rubberMl: p.layout?.rubberMl ?? null,
        rubberMixG: p.tally.rubberG,
        castMixG: p.tally.castG,
        filledG: p.tally.filledG,
        verdict: p.tally.verdict,
        rubberOutH: p.tally.rubberOutH,
        castOutH: p.tally.castOutH,
        bulgeMm: p.strength?.worst?.mostMm ?? null,
        holds: p.strength?.verdict ?? null,
        stretch: p.strength?.stretch.strain ?? null,
        order: (p.layout ? buildOrder(job.mould, p.layout, job.jacket) : []).map((o) => ({
          ...o,
          what: say(o.what, "metric"),
          release: [...o.release],
          after: [...o.after],
        })),
        pours: p.pours.map((x) => ({ ...pourOut(x), mixG: x.batch?.mixG ?? null, components: x.batch ? [...x.batch.parts] : [] })),
        castComponents: p.castBatch ? [...p.castBatch.parts] : [],
        steps: p.steps.map((s) => ({ ...s, line: say(s.line, "metric") })),
        remarks: p.remarks.map((r) => ({ ...r, message: say(r.message, "metric") })),
      };
    },
  ),
];

/** Finds an operation by its name, or null. */
export const operationNamed = (name: string): Operation | null => OPERATIONS.find((o) => o.name === name) ?? null;

/** Name, summary, and JSON Schemas of every operation. */
export const describeOperations = () =>
  OPERATIONS.map((o) => ({
    name: o.name,
    summary: o.summary,
    input: z.toJSONSchema(o.input, { io: "input" }),
    output: z.toJSONSchema(o.output, { io: "input" }),
  }));
