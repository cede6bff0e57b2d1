import * as z from "zod";
import { Thumb } from "../core/draw";
import { Order, orderDocument, Pricing, Project, projectDocument } from "../core/works";
import { endpoint } from "./endpoint";

/** One piece of an order as it stands. */
export const OrderLine = z.object({
  jobId: z.string(),
  jobName: z.string(),
  thumb: Thumb.nullable(),
  good: z.number(),
  sent: z.number(),
  /** Good ones in the log that have not gone out by this order, and still to be made. */
  ready: z.number(),
  wanted: z.number(),
  moulds: z.number(),
  expectedCasts: z.number(),
  safeCasts: z.number(),
  expectedAt: z.number().nullable(),
  safeAt: z.number().nullable(),
  /** Hours the whole order is done sooner with another mould of this piece; null where it is done within two months only with it. */
  soonerH: z.number().nullable(),
  mouldCost: z.number().nullable(),
  /** What keeps it from being planned. */
  trouble: z.string().nullable(),
});
export type OrderLine = z.infer<typeof OrderLine>;

export const OrderView = z.object({
  id: z.string(),
  revision: z.number(),
  order: Order,
  lines: z.array(OrderLine),
  /** When the last is made: on average, and nine times in ten; null where not within two months. */
  expectedAt: z.number().nullable(),
  safeAt: z.number().nullable(),
  lateH: z.number().nullable(),
  /** What the castings still to be poured want beyond what the cupboard has. */
  short: z.array(z.object({ material: z.string(), g: z.number() })),
});
export type OrderView = z.infer<typeof OrderView>;

export const ProjectView = z.object({
  id: z.string(),
  revision: z.number(),
  project: Project,
  parts: z.array(
    z.object({
      jobId: z.string(),
      jobName: z.string(),
      thumb: Thumb.nullable(),
      name: z.string(),
      count: z.number(),
      eachG: z.number().nullable(),
      sizeMm: z.tuple([z.number(), z.number(), z.number()]).nullable(),
      joint: z.string(),
      ready: z.number(),
      hasMould: z.boolean(),
      rubber: z.string().nullable(),
      rubberG: z.number().nullable(),
    }),
  ),
  wholeG: z.number().nullable(),
  works: z.number(),
  rubbers: z.array(z.object({ name: z.string(), g: z.number() })),
  castings: z.array(
    z.object({
      number: z.number(),
      pourId: z.string().nullable(),
      what: z.string(),
      mould: z.string(),
      lots: z.string(),
      pouredAt: z.number().nullable(),
      to: z.string(),
      at: z.number().nullable(),
    }),
  ),
  /** Good castings of its jobs that have no number yet. */
  free: z.array(z.object({ pourId: z.string(), name: z.string(), pouredAt: z.number() })),
  next: z.number().nullable(),
});
export type ProjectView = z.infer<typeof ProjectView>;

const CostLineView = z.object({ what: z.string(), g: z.number(), cost: z.number().nullable() });
const Span = z.object({ low: z.number(), typical: z.number(), high: z.number() });
export const CostView = z.object({
  mould: z.number(),
  casting: z.number(),
  complete: z.boolean(),
  unpriced: z.array(z.string()),
  good: Span,
  hours: z.number(),
  price: z.number().nullable(),
  mouldLines: z.array(CostLineView),
  castingLines: z.array(CostLineView),
  life: Span,
  yield: z.number(),
  logged: z.number(),
  pricing: Pricing.nullable(),
});
export type CostView = z.infer<typeof CostView>;

const Base = z.object({ baseRevision: z.number().int().min(0) });

export const works = {
  orders: endpoint({ method: "GET", path: "/api/orders", in: z.object({ all: z.enum(["yes", "no"]).default("no") }), out: z.array(OrderView) }),
  addOrder: endpoint({ method: "POST", path: "/api/orders", in: z.object({ order: orderDocument, id: z.uuid().optional() }), out: OrderView, status: 201 }),
  order: endpoint({ method: "GET", path: "/api/orders/:id", in: null, out: OrderView }),
  saveOrder: endpoint({ method: "PUT", path: "/api/orders/:id", in: Base.extend({ order: orderDocument }), out: OrderView }),
  removeOrder: endpoint({ method: "DELETE", path: "/api/orders/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
  cost: endpoint({ method: "GET", path: "/api/jobs/:id/cost", in: null, out: CostView }),
  projects: endpoint({ method: "GET", path: "/api/projects", in: z.object({ all: z.enum(["yes", "no"]).default("no") }), out: z.array(ProjectView) }),
  addProject: endpoint({
    method: "POST",
    path: "/api/projects",
    in: z.object({ project: projectDocument, id: z.uuid().optional() }),
    out: ProjectView,
    status: 201,
  }),
  project: endpoint({ method: "GET", path: "/api/projects/:id", in: null, out: ProjectView }),
  saveProject: endpoint({ method: "PUT", path: "/api/projects/:id", in: Base.extend({ project: projectDocument }), out: ProjectView }),
  removeProject: endpoint({ method: "DELETE", path: "/api/projects/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
};
