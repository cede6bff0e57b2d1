import * as z from "zod";
import { Changed, FillCurve, POUR_KINDS } from "../core/plan";
import { Cut, NO_CUT, WeighAct, WeighIn } from "../core/weigh";
import { endpoint } from "./endpoint";
import { Despite, DoneAt } from "./log";

/** A batch on the bench. */
export const WeighView = z.object({
  id: z.string(),
  jobId: z.string(),
  kind: z.enum(POUR_KINDS),
  pourIndex: z.number().int(),
  mouldId: z.string().nullable(),
  revision: z.number().int(),
  endedAt: z.number().nullable(),
  pourId: z.string().nullable(),
  weighIn: WeighIn,
  /** Null where nothing fills it level. */
  fill: FillCurve.nullable(),
  /** What the job says now, where it was changed since and nothing is weighed yet, g; null where there is nothing to take over. */
  newerG: z.number().nullable(),
  cautions: z.array(z.string()),
});
export type WeighView = z.infer<typeof WeighView>;

/** What else could be poured from a batch: the same stuff in the same proportions, next at some job. */
export const Shareable = z.object({
  jobId: z.string(),
  jobName: z.string(),
  kind: z.enum(POUR_KINDS),
  pourIndex: z.number().int(),
  mouldId: z.string().nullable(),
  what: z.string(),
  batchG: z.number(),
});
export type Shareable = z.infer<typeof Shareable>;

export const weigh = {
  begin: endpoint({
    method: "POST",
    path: "/api/weigh",
    in: z.object({
      jobId: z.string().min(1),
      jobRevision: z.number().int().min(1),
      kind: z.enum(POUR_KINDS),
      pourIndex: z.number().int().min(0).max(400).default(0),
      mouldId: z.string().max(80).nullable().default(null),
      cut: Cut.default(NO_CUT),
      despite: Despite,
    }),
    out: WeighView,
    status: 201,
  }),
  read: endpoint({ method: "GET", path: "/api/weigh/:id", in: null, out: WeighView }),
  act: endpoint({ method: "POST", path: "/api/weigh/:id/acts", in: WeighAct, out: WeighView }),
  /** Takes over what the job says now; only while nothing is weighed. */
  renew: endpoint({ method: "POST", path: "/api/weigh/:id/renew", in: null, out: WeighView }),
  shareable: endpoint({ method: "GET", path: "/api/weigh/:id/shares", in: null, out: z.array(Shareable) }),
  /** Pours something else from this batch too, or no more; only while nothing is weighed. */
  share: endpoint({
    method: "POST",
    path: "/api/weigh/:id/shares",
    in: Shareable.pick({ jobId: true, kind: true, pourIndex: true, mouldId: true }).extend({ on: z.boolean(), despite: Despite }),
    out: WeighView,
  }),
  finish: endpoint({
    method: "POST",
    path: "/api/weigh/:id/finish",
    in: z.object({ changed: Changed.nullable().default(null), at: DoneAt }),
    out: z.object({ pourId: z.string() }),
  }),
  drop: endpoint({ method: "DELETE", path: "/api/weigh/:id", in: null, out: z.object({ ok: z.literal(true) }) }),
};
