import * as z from "zod";

type Document = Record<string, unknown>;

/** Brings a document of one format to the next; it is given a copy, and may change it. */
export type Upgrade = (old: Document) => Document;

/** A kind of stored document: the schema it has now, and the way to it from every format it ever had. */
export type Versioned<S extends z.ZodType> = z.ZodPipe<z.ZodTransform, S> & {
  /** What it is called in words for a person. */
  called: string;
  /** The format that is written now. */
  format: number;
  upgrades: readonly Upgrade[];
};

const isDocument = (v: unknown): v is Document => typeof v === "object" && v !== null && !Array.isArray(v);

/**
 * A stored document that is brought up to date as it is read. The first format is 1, and each upgrade leads to the next;
 * documents from before formats were written count as format 1. The result is an ordinary schema: whatever reads through it
 * gets the newest shape, and what it reads is never changed in place.
 *
 * A document of a later format than this version knows is a fault in words, never a guess.
 * @param called its name in words, such as "job"
 * @param schema the newest shape; if it has a `format`, that has to be the number of upgrades plus one
 */
export function versioned<S extends z.ZodType>(called: string, schema: S, upgrades: readonly Upgrade[]): Versioned<S> {
  const format = upgrades.length + 1;
  const upToDate = (read: unknown, ctx: z.core.$RefinementCtx): unknown => {
    if (!isDocument(read)) return read;
    const written = read.format ?? 1;
    if (typeof written !== "number" || !Number.isInteger(written) || written < 1) {
      ctx.issues.push({ code: "custom", message: `this ${called} says it is of format ${JSON.stringify(written)}, which is no format`, input: read });
      return z.NEVER;
    }
    if (written > format) {
      ctx.issues.push({ code: "custom", message: `this ${called} was written by a newer version (format ${written}; this one knows ${format})`, input: read });
      return z.NEVER;
    }
    if (written === format) return read;
    return { ...upgrades.slice(written - 1).reduce((d, up) => up(d), structuredClone(read)), format };
  };
  return Object.assign(z.preprocess(upToDate, schema), { called, format, upgrades }) as Versioned<S>;
}
