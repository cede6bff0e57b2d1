import * as z from "zod";
import { stored } from "../core/quantity";
import { OUTCOMES, POUR_KINDS } from "../core/plan";
import { MOVE_KINDS } from "../core/stock";
import { CONTACTS } from "../core/fit";

/** What names a row: letters, digits and strokes, so that it can stand in an address and in a file name. */
export const id = z.string().regex(/^[\w-]{1,80}$/, "is no id: letters, digits, - and _ only, at most 80");
export const at = stored.moment.int();
/** What was worked out to a fraction of a millisecond. */
export const instant = stored.moment;
export const when = at.nullable();
const revision = stored.count.min(1);
const kind = z.enum(POUR_KINDS);

/** A kept picture's own name: never a path. */
export const PictureName = z.string().regex(/^[0-9a-f-]{36}\.(jpg|png|webp)$/, "is not the name of a kept picture");

/** The plain columns of the tables, besides the documents in them: judged wherever a row is read, and in every backup. */
export const COLUMNS = {
  jobs: z.object({ id, name: z.string().max(80), revision, createdAt: at, updatedAt: at, putAwayAt: when }),
  moulds: z.object({ id, jobId: id, name: z.string().max(100), madeAt: at, place: z.string().max(120), note: z.string().max(2000), retiredAt: when }),
  pours: z.object({
    id,
    jobId: id,
    mouldId: id.nullable(),
    kind,
    pourIndex: stored.count.max(400),
    pouredAt: at,
    readyLowAt: instant,
    readyAt: instant,
    readyHighAt: instant,
    openedAt: instant.nullable(),
    outcome: z.enum(OUTCOMES).nullable(),
    notes: z.string().max(4000),
  }),
  events: z.object({ id, jobId: id, mouldId: id.nullable(), pourId: id.nullable(), at }),
  patches: z.object({
    id,
    pair: z.string().max(500),
    contact: z.enum(CONTACTS),
    shopC: stored.c,
    startedAt: at,
    readyAt: instant,
    endedAt: instant.nullable(),
    outcome: z.enum(["clean", "tacky"]).nullable(),
    notes: z.string().max(2000),
    photoFile: PictureName.nullable(),
  }),
  weighIns: z.object({
    id,
    jobId: id,
    kind,
    pourIndex: stored.count.max(400),
    mouldId: id.nullable(),
    revision,
    startedAt: at,
    updatedAt: at,
    endedAt: when,
    pourId: id.nullable(),
  }),
  calendars: z.object({ id, revision, updatedAt: at }),
  packs: z.object({ id, materialId: z.string().min(1).max(80), updatedAt: at }),
  lots: z.object({ id, materialId: z.string().min(1).max(80), endedAt: when, updatedAt: at }),
  stockMoves: z.object({
    id,
    lotId: id,
    part: stored.count.max(5),
    at,
    kind: z.enum(MOVE_KINDS),
    g: stored.g,
    jobId: id.nullable(),
    pourId: id.nullable(),
  }),
  orders: z.object({ id, revision, updatedAt: at, doneAt: when }),
  projects: z.object({ id, revision, updatedAt: at, doneAt: when }),
} as const;
