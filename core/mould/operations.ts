import * as z from "zod";
import { JACKET_KEYS } from "../material";
import {
  StrengthDecision,
  backing,
  buildOrder,
  bulgeOf,
  coresOf,
  cutPlanOf,
  headOf,
  layOutMould,
  leastPanel,
  leastStandingWall,
  openingPullN,
  panelBow,
  strengthDefault,
  stretchIn,
  toleranceOf,
  wallsOf,
} from ".";
import { say } from "../quantity";
import {
  OperationFault,
  define,
  fault,
  find,
  Span,
  positive,
  Master,
  Pour,
  pourOut,
  JacketOut,
  OrderStep,
  measure,
  rubberId,
  withoutUndefined,
  Mould,
  type Operation,
} from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
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
      fromMm: z.number().min(0).max(3000).default(0).describe("height of what it stands on: clay, or the first half"),
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
    "mould.demould",
    "What it takes to let go: stretch, the pull in newtons, cuts and cores",
    z.strictObject({
      master: Master,
      mould: Mould.prefault({}),
      rubberId,
      plugRubberId: z.string().nullable().default(null),
      fillGMl: positive("the fill's density").max(25).default(1.6),
    }),
    z.object({
      strain: z.number().describe("share the opening, or the core, has to stretch"),
      known: z.boolean().describe("false where only outer sizes are known and no undercut is named"),
      core: z.boolean().describe("true where it is the rubber in a hollow that has to pass its mouth"),
      safe: z.object({ low: z.number(), typical: z.number() }),
      grade: z.enum(["holds", "close", "bulges"]),
      narrowAtMm: z.number(),
      widestAtMm: z.number(),
      pullN: Span.describe("all round, to hold it open over its widest"),
      cut: z.object({ where: z.string(), lengthMm: z.number(), needMm: z.number(), stepMm: z.number(), depthMm: z.number() }).nullable(),
      cores: z.array(
        z.object({
          name: z.string(),
          diameterMm: z.number(),
          lengthMm: z.number(),
          sagMm: z.number(),
          pullStrain: z.number(),
          grade: z.enum(["holds", "close", "bulges"]),
        }),
      ),
    }),
    (i, catalogue) => {
      const m = measure(i.master);
      const rubber = find(catalogue.rubbers, i.rubberId, "rubberId");
      const plug = i.plugRubberId === null ? null : find(catalogue.rubbers, i.plugRubberId, "plugRubberId");
      const laid = layOutMould(m, i.mould, null);
      if (!laid.ok) throw new OperationFault(laid.problems.map((p) => ({ path: p.path, message: say(p.message, "metric") })));
      const stretch = stretchIn(i.mould, m, laid.layout, rubber.elongationPct);
      return {
        ...stretch,
        pullN: openingPullN(m, i.mould, laid.layout, rubber),
        cut: cutPlanOf(m, i.mould, laid.layout, stretch),
        cores: coresOf(m, i.mould, rubber, plug, i.fillGMl),
      };
    },
  ),
];
