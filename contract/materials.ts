import * as z from "zod";
import { CONTACTS, isTriable } from "../core/fit";
import { Patch, PATCH_OUTCOMES } from "../core/log";
import { Doubt, Material, RowFault } from "../core/material";
import { ActKey, endpoint, Was } from "./endpoint";

const Kept = z.object({ id: z.string(), doubts: z.array(Doubt) });

export const materials = {
  list: endpoint({ method: "GET", path: "/api/materials", in: null, out: z.array(Material) }),
  add: endpoint({ method: "POST", path: "/api/materials", in: Material.and(z.object({ key: ActKey })), out: Kept, status: 201 }),
  save: endpoint({ method: "PUT", path: "/api/materials/:id", in: Material.and(z.object({ was: Was })), out: Kept }),
  remove: endpoint({ method: "DELETE", path: "/api/materials/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
  /** A removed entry again, under the id it had: jobs that use it find it. */
  putBack: endpoint({ method: "POST", path: "/api/materials/:id", in: Material, out: Kept, status: 201 }),
  import: endpoint({
    keeper: true,
    method: "POST",
    path: "/api/materials/import",
    in: z.strictObject({
      format: z.enum(["json", "csv"]),
      text: z.string().max(240_000, "the file is too long: at most 240,000 characters"),
      /** Keep the good rows although others are bad. Without it a file with any bad row is refused whole. */
      keepGood: z.boolean().default(false),
    }),
    out: z.object({ kept: z.number(), faults: z.array(RowFault), doubts: z.array(z.object({ line: z.number(), name: z.string(), message: z.string() })) }),
  }),
};

export const patches = {
  running: endpoint({ method: "GET", path: "/api/patches", in: null, out: z.array(Patch) }),
  start: endpoint({
    method: "POST",
    path: "/api/patches",
    in: z.strictObject({
      pair: z.string().min(3).max(500),
      contact: z.enum(CONTACTS).refine(isTriable, { message: "this contact cannot be tried with a patch" }),
      between: z.tuple([z.string().min(1).max(200), z.string().min(1).max(200)]),
      shopC: z.number().min(-10).max(60),
      waitH: z
        .number()
        .gt(0)
        .max(24 * 30),
    }),
    out: Patch,
    status: 201,
  }),
  read: endpoint({ method: "GET", path: "/api/patches/:id", in: null, out: Patch }),
  judge: endpoint({
    method: "PATCH",
    path: "/api/patches/:id",
    in: z.strictObject({
      outcome: z.enum(PATCH_OUTCOMES).nullable().optional(),
      notes: z.string().max(2000, "notes can be at most 2000 letters long").optional(),
      was: Was,
    }),
    out: Patch,
  }),
  addPhoto: endpoint({ method: "POST", path: "/api/patches/:id/photo", in: null, out: Patch, bytes: true }),
};
