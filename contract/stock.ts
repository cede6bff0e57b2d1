import * as z from "zod";
import { stored } from "../core/quantity";
import { AIMS, LotWords, MOVE_KINDS, Pack } from "../core/stock";
import { ActKey, endpoint, Was } from "./endpoint";

const grams = z.number().min(0, "a weight cannot be negative").max(1_000_000, "is more than 1000 kg");
const moment = stored.moment;

/** A material that can be bought, with the tubs it comes in. */
export const Buyable = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  tubs: z.array(z.object({ name: z.string(), densityGMl: z.number().nullable() })),
  life: z.object({ days: z.number().nullable(), damp: z.boolean(), why: z.string() }),
});
export type Buyable = z.infer<typeof Buyable>;

export const PackView = Pack.extend({ id: z.string() });
export const LotView = LotWords.extend({
  id: z.string(),
  material: z.string(),
  leftG: z.array(z.number()),
  age: z.enum(["sealed", "open", "soon", "past"]),
  daysLeft: z.number().nullable(),
});
export type LotView = z.infer<typeof LotView>;

const Part = z.object({ name: z.string(), g: z.number() });
export const BalanceView = z.object({
  materialId: z.string(),
  material: z.string(),
  parts: z.array(z.object({ name: z.string(), goodG: z.number(), pastG: z.number(), wantedG: z.number(), shortG: z.number() })),
  needs: z.array(z.object({ jobId: z.string(), jobName: z.string(), what: z.string(), g: z.number(), pours: z.number() })),
  /** How many more jobs want it than are named. */
  moreNeeds: z.number(),
  open: z.array(z.object({ lotId: z.string(), name: z.string(), place: z.string(), sealed: z.boolean(), days: z.number().nullable(), damp: z.boolean() })),
  /** How many more packs are opened for it than are named. */
  moreOpen: z.number(),
  leftG: z.number(),
});
export type BalanceView = z.infer<typeof BalanceView>;

export const ShoppingView = z.object({
  lines: z.array(
    z.object({
      materialId: z.string(),
      material: z.string(),
      pack: z.string(),
      from: z.string(),
      count: z.number(),
      price: z.number().nullable(),
      forJobs: z.array(z.string()),
    }),
  ),
  price: z.number().nullable(),
  unknown: z.array(z.object({ materialId: z.string(), material: z.string(), parts: z.array(Part) })),
});
export type ShoppingView = z.infer<typeof ShoppingView>;

export const StockView = z.object({
  now: z.number(),
  lots: z.array(LotView),
  /** How many more lots of a material stand there than are told, by its id. */
  more: z.record(z.string(), z.number()),
  packs: z.array(PackView),
  materials: z.array(Buyable),
  balances: z.array(BalanceView),
  shopping: ShoppingView,
  aim: z.enum(AIMS),
  /** Jobs whose needs are still being worked out. */
  pending: z.number(),
});
export type StockView = z.infer<typeof StockView>;

/** Small moulds a rest could fill, and what of it stays. */
export const RestView = z.object({
  fillers: z.array(z.object({ key: z.string(), name: z.string(), needG: z.number(), chosen: z.boolean() })),
  usedG: z.number(),
  restG: z.number(),
  nearest: z.object({ name: z.string(), shortG: z.number() }).nullable(),
});
export type RestView = z.infer<typeof RestView>;

export const PortionsView = z.object({
  jobId: z.string(),
  jobName: z.string(),
  material: z.string(),
  cautions: z.array(z.string()),
  portions: z.array(z.object({ batch: z.string(), part: z.string(), g: z.number(), ml: z.number().nullable(), mark: z.string() })),
  totals: z.array(Part),
});
export type PortionsView = z.infer<typeof PortionsView>;

export const stock = {
  read: endpoint({
    method: "GET",
    path: "/api/stock",
    in: z.object({ aim: z.enum(AIMS).default("cheapest"), whole: z.string().max(80).optional() }),
    out: StockView,
  }),
  addPack: endpoint({ method: "POST", path: "/api/stock/packs", in: Pack.extend({ key: ActKey }), out: PackView, status: 201 }),
  savePack: endpoint({ method: "PUT", path: "/api/stock/packs/:id", in: Pack.extend({ was: Was }), out: PackView }),
  removePack: endpoint({ method: "DELETE", path: "/api/stock/packs/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
  addLot: endpoint({
    method: "POST",
    path: "/api/stock/lots",
    in: LotWords.omit({ endedAt: true }).extend({ key: ActKey, count: z.number().int().min(1).max(50).default(1) }),
    out: z.object({ ids: z.array(z.string()) }),
    status: 201,
  }),
  changeLot: endpoint({
    method: "PATCH",
    path: "/api/stock/lots/:id",
    in: LotWords.omit({ materialId: true, parts: true }).partial().extend({ was: Was }),
    out: LotView,
  }),
  removeLot: endpoint({ method: "DELETE", path: "/api/stock/lots/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
  /** A tub put on the scale, an amount taken by hand, or the whole lot used up. */
  act: endpoint({
    method: "POST",
    path: "/api/stock/lots/:id/acts",
    in: z.discriminatedUnion("do", [
      z.object({ do: z.literal("weigh"), key: ActKey, part: z.number().int().min(0).max(5), grossG: grams, tareG: grams.nullable() }),
      z.object({ do: z.literal("take"), key: ActKey, part: z.number().int().min(0).max(5), g: grams.gt(0, "has to be more than 0") }),
      z.object({ do: z.literal("end"), key: ActKey }),
      z.object({ do: z.literal("back"), key: ActKey }),
    ]),
    out: LotView,
  }),
  moves: endpoint({
    method: "GET",
    path: "/api/stock/lots/:id/moves",
    in: null,
    out: z.array(
      z.object({
        id: z.string(),
        at: moment,
        part: z.string(),
        kind: z.enum(MOVE_KINDS),
        g: z.number(),
        jobName: z.string().nullable(),
        pourId: z.string().nullable(),
      }),
    ),
  }),
  rest: endpoint({
    method: "POST",
    path: "/api/stock/rest",
    in: z.strictObject({
      materialId: z.string().min(1).max(80),
      restG: grams.gt(0, "has to be more than 0"),
      lifeMin: z.number().gt(0).max(100_000).nullable().default(null),
    }),
    out: RestView,
  }),
  portions: endpoint({ method: "GET", path: "/api/stock/portions", in: z.object({ jobId: z.string().min(1).max(80) }), out: PortionsView }),
};
