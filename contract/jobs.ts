import * as z from "zod";
import { PICTURE_VIEWS } from "../core/master";
import { Job, jobDocument } from "../core/record";
import { PIECE_KINDS, SOURCES } from "../core/start";
import { ActKey, endpoint } from "./endpoint";

/** A job as pages have it: its document, which revision that is, and whether one can step back and forward. */
export const JobView = z.object({
  id: z.string(),
  job: Job,
  revision: z.number().int(),
  updatedAt: z.number(),
  putAwayAt: z.number().nullable(),
  canUndo: z.boolean(),
  canRedo: z.boolean(),
});
export type JobView = z.infer<typeof JobView>;

export const JobName = z.object({ id: z.string(), name: z.string() });
export type JobName = z.infer<typeof JobName>;

const baseRevision = z.number().int().min(1);

const Printed = z.object({
  parts: z.array(z.object({ name: z.string(), sizeMm: z.tuple([z.number(), z.number(), z.number()]), volumeMl: z.number(), fits: z.boolean() })),
  volumeMl: z.number(),
  holes: z.number(),
});

/** What the printed and cut files of a job come to. */
export const MakeSummary = z.object({
  box: Printed.nullable(),
  jacket: Printed.nullable(),
  sheets: z.array(z.object({ sheets: z.number(), thicknessMm: z.number(), used: z.number(), tooLarge: z.array(z.string()) })),
});
export type MakeSummary = z.infer<typeof MakeSummary>;

export const jobs = {
  named: endpoint({ method: "GET", path: "/api/jobs", in: z.object({ text: z.string().catch("") }), out: z.array(JobName) }),
  make: endpoint({
    method: "POST",
    path: "/api/jobs",
    in: z.object({
      key: ActKey,
      name: z.string().trim().min(1, "give the job a name").max(80, "a name can be at most 80 letters long").optional(),
      /** A kind of piece, with the sizes it asks for, mm: everything else is assumed. */
      kind: z.enum(PIECE_KINDS).optional(),
      sizesMm: z.array(z.number().gt(0).max(3000)).max(3).default([]),
      /** Where the form of the piece is yet to be read from. */
      source: z.enum(SOURCES).optional(),
      /** An earlier job to begin like, or a pour in the log as its job was that day. */
      like: z.string().max(80).optional(),
      likePour: z.string().max(80).optional(),
      /** Its mould is there already: bought, or made before. */
      existing: z.boolean().default(false),
    }),
    out: z.object({ id: z.string() }),
    status: 201,
  }),
  read: endpoint({ method: "GET", path: "/api/jobs/:id", in: null, out: JobView }),
  save: endpoint({ method: "PUT", path: "/api/jobs/:id", in: z.object({ baseRevision, job: jobDocument }), out: JobView }),
  putAway: endpoint({ method: "DELETE", path: "/api/jobs/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
  step: endpoint({ method: "POST", path: "/api/jobs/:id/step", in: z.object({ baseRevision, direction: z.enum(["undo", "redo"]) }), out: JobView }),
  addPicture: endpoint({
    method: "POST",
    path: "/api/jobs/:id/pictures/:view",
    in: null,
    out: z.object({ view: z.enum(PICTURE_VIEWS), addedAt: z.number() }),
    bytes: true,
    status: 201,
  }),
  toMake: endpoint({ method: "GET", path: "/api/jobs/:id/make", in: null, out: MakeSummary }),
};
