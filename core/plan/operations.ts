import * as z from "zod";
import { VERDICTS } from "../fit";
import { buildOrder, Layer, layerDefault, MOUTHS, shrinkChain } from "../mould";
import { STEP_IDS } from ".";
import { gatesOf } from "./gates";
import { plan } from "./plan";
import { say } from "../quantity";
import { dossierOf, jobDocument, newJob } from "../record";
import {
  castId,
  define,
  fault,
  find,
  Master,
  measure,
  metric,
  Mould,
  OrderStep,
  Part,
  Pour,
  pourOut,
  shopC,
  Span,
  Wait,
  withoutUndefined,
  type Operation,
} from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "plan",
    "The whole plan of a job: measures, box, batches, verdict, weights and times",
    // Jobs of earlier formats are brought up to date.
    z.strictObject({ job: jobDocument }),
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

  define(
    "cast.layers",
    "A casting in layers: for each coat what is in the pot, what stays and what comes back; weights, sections, times",
    z.strictObject({
      master: Master,
      mould: Mould.prefault({}),
      castId,
      layers: z.array(Layer.partial()).max(12).default([]).describe("from the face inwards; none is one lump"),
      mouth: z.enum(MOUTHS).nullable().default(null),
      mouthMm: z.number().positive().nullable().default(null),
      cutsMm: z.array(z.number().positive()).max(6).default([]),
      solidSections: z.array(z.number().int().min(0).max(6)).max(7).default([]),
      rubberId: z.string().default("rubber-platinum-medium-25"),
      count: z.number().int().min(1).max(1000).default(1),
      marginPct: z.number().min(0).max(200).default(0),
      waterPer100: z.number().positive().max(400).nullable().default(null),
      shopC,
    }),
    z.object({
      castMl: z.number().nullable(),
      hollowMl: z.number(),
      wallMm: z.number().nullable().describe("null for one lump"),
      wetG: z.number().nullable(),
      dryG: Span.nullable(),
      mixG: z.number().nullable().describe("in all; what melts again counted once"),
      filledG: z.number().nullable().describe("mould with the most that ever stands in it"),
      layers: z.array(
        z.object({
          name: z.string(),
          castId: z.string(),
          way: z.string(),
          thicknessMm: z.number().nullable(),
          staysMl: z.number(),
          staysG: z.number(),
          potG: z.number().describe("for this filling, all castings, margin included"),
          backG: z.number(),
          serves: z.number().nullable().describe("coats one mix serves; null for what melts again"),
          nextH: Span.nullable(),
          components: z.array(Part),
        }),
      ),
      sections: z.array(z.object({ fromMm: z.number(), toMm: z.number(), volumeMl: z.number(), solid: z.boolean() })),
      demould: Wait.nullable(),
      finished: Wait.extend({ name: z.string() }).nullable(),
      warnings: z.array(z.string()),
    }),
    (i, catalogue) => {
      find(catalogue.casts, i.castId, "castId");
      i.layers.forEach((l, k) => l.castId && find(catalogue.casts, l.castId, `layers.${k}.castId`));
      const base = newJob("layers", i.shopC);
      const p = plan(
        dossierOf(
          {
            ...base,
            master: { ...base.master, ...i.master },
            mould: i.mould,
            castId: i.castId,
            rubberId: i.rubberId,
            cast: { ...base.cast, count: i.count, marginPct: i.marginPct, waterPer100: i.waterPer100 },
            inside: {
              ...base.inside,
              layers: i.layers.map((l) => ({ ...layerDefault, ...withoutUndefined(l) })),
              mouth: i.mouth,
              mouthMm: i.mouthMm,
              cutsMm: i.cutsMm,
              solidSections: i.solidSections,
            },
          },
          catalogue,
        ),
      );
      measure(i.master);
      const faults = p.remarks.filter((r) => r.severity === "fault" && r.step === "cast");
      if (faults[0]) return fault(faults[0].path.replace(/^inside\./, ""), faults[0].message);
      return {
        castMl: p.castMl,
        hollowMl: p.inside?.hollow?.inner.hollowMl ?? 0,
        wallMm: p.inside?.hollow?.wallMm ?? null,
        wetG: p.castBatch?.wetG ?? null,
        dryG: p.castBatch?.dryG ?? null,
        mixG: p.castBatch?.mixG ?? null,
        filledG: p.weights?.filledG ?? null,
        layers: p.layers.map((l) => ({
          name: l.name,
          castId: l.cast.id,
          way: l.way,
          thicknessMm: l.coat?.thicknessMm ?? null,
          staysMl: l.staysMl,
          staysG: l.staysG,
          potG: l.batch.mixG,
          backG: l.backG,
          serves: l.serves,
          nextH: l.next?.hours ?? null,
          components: [...l.batch.parts],
        })),
        sections: [...(p.inside?.sections ?? [])],
        demould: p.castCure ? metric(p.castCure.demould) : null,
        finished: p.castCure?.finished ? { ...metric(p.castCure.finished), name: p.castCure.finished.name } : null,
        warnings: p.remarks.filter((r) => r.step === "cast").map((r) => say(r.message, "metric")),
      };
    },
  ),

  define(
    "gate.suggest",
    "Sprue, vents and funnel to begin with for the casting of a job, how far to open them, and where it runs short",
    z.strictObject({ job: jobDocument, pockets: z.int().min(0).max(60).optional().describe("places that keep air, as air.trapped counts them") }),
    z.object({
      closed: z.boolean().describe("false for a mould that is open at its back, or a job that is not told yet: then there is nothing to cut"),
      allowedS: z.number().nullable(),
      by: z.enum(["freezing", "working", "patience"]).nullable(),
      choke: z.object({ startMm: z.number(), mostMm: z.number(), fillS: z.number(), flowMlS: z.number(), reynolds: z.number() }).nullable(),
      vents: z.object({ count: z.number(), startMm: z.number(), mostMm: z.number(), overPressurePa: z.number() }).nullable(),
      funnel: z.object({ topMm: z.number(), highMm: z.number(), volumeMl: z.number() }).nullable(),
      headMm: z.number().nullable(),
      fineHeadMm: z.number().nullable().describe("least head for what is as fine as its thinnest section"),
      gateFreezesS: z.number().nullable(),
      thickFreezesS: z.number().nullable(),
      partingN: z.number().nullable().describe("what pushes the parts asunder at their parting"),
      flashGapMm: z.number().nullable().describe("gap from which a melt that does not wet runs out"),
      buttonG: z.number().nullable(),
      potG: z.number().nullable(),
      sinks: z.array(z.object({ upMm: z.number(), thickMm: z.number(), neckMm: z.number(), shortMl: z.number() })),
    }),
    ({ job, pockets }, catalogue) => {
      const g = gatesOf(job, plan(dossierOf(job, catalogue)), pockets);
      const finite = (v: number) => (Number.isFinite(v) ? v : 0);
      return {
        closed: g !== null,
        allowedS: g?.sizes.allowedS ?? null,
        by: g?.sizes.by ?? null,
        choke: g?.sizes.choke ?? null,
        vents: g ? { ...g.sizes.vents, overPressurePa: finite(g.sizes.vents.overPressurePa) } : null,
        funnel: g?.sizes.funnel ?? null,
        headMm: g?.question.headMm ?? null,
        fineHeadMm: g?.sizes.fineHeadMm ?? null,
        gateFreezesS: g?.sizes.gateFreezesS ?? null,
        thickFreezesS: g?.sizes.thickFreezesS ?? null,
        partingN: g?.partingN ?? null,
        flashGapMm: g?.flashGapMm ?? null,
        buttonG: g?.sizes.buttonG ?? null,
        potG: g?.sizes.potG ?? null,
        sinks: g ? [...g.sinks] : [],
      };
    },
  ),
  define(
    "copies.shrink",
    "Size of the last copy over that of the first master, and how much larger a master has to be",
    z.strictObject({
      rubberId: z.string().nullable().default(null),
      castId,
      generations: z.number().int().min(1).max(20).default(1),
      thenCastId: z.string().nullable().default(null).describe("cast again in the place of the last copy, such as metal for a wax"),
    }),
    z.object({ factor: Span, enlarge: z.number(), links: z.array(z.object({ name: z.string(), shrinkPct: Span, times: z.number() })) }),
    (i, catalogue) => {
      const links = [
        ...(i.rubberId === null ? [] : [{ ...find(catalogue.rubbers, i.rubberId, "rubberId"), times: i.generations }]),
        { ...find(catalogue.casts, i.castId, "castId"), times: i.generations },
        ...(i.thenCastId === null ? [] : [{ ...find(catalogue.casts, i.thenCastId, "thenCastId"), times: 1 }]),
      ].map(({ name, shrinkPct, times }) => ({ name, shrinkPct, times }));
      const { factor, enlarge } = shrinkChain(links);
      return { factor, enlarge, links };
    },
  ),
];
