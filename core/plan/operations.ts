import { z } from "zod";
import { VERDICTS } from "../fit";
import { buildOrder } from "../mould";
import { STEP_IDS } from ".";
import { plan } from "./plan";
import { say } from "../quantity";
import { dossierOf, jobDocument } from "../record";
import { define, Span, Pour, pourOut, OrderStep, Part, type Operation } from "../operation";

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
];
