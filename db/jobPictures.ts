import { and, eq } from "drizzle-orm";
import type { PictureView } from "../core/master";
import type { Db } from "./open";
import { jobPictures } from "./schema";

/** A photograph a job's piece is measured from. */
export interface JobPicture {
  jobId: string;
  view: PictureView;
  fileName: string;
  mime: string;
  bytes: number;
  addedAt: number;
}

/** Puts a photograph in the place of the one of that view before it; returns that one's file, or null. */
export function putJobPicture(db: Db, picture: JobPicture): string | null {
  return db.transaction((tx) => {
    const before = tx
      .select({ fileName: jobPictures.fileName })
      .from(jobPictures)
      .where(and(eq(jobPictures.jobId, picture.jobId), eq(jobPictures.view, picture.view)))
      .get();
    tx.insert(jobPictures)
      .values(picture)
      .onConflictDoUpdate({ target: [jobPictures.jobId, jobPictures.view], set: picture })
      .run();
    return before?.fileName ?? null;
  });
}

export const readJobPicture = (db: Db, jobId: string, view: PictureView): JobPicture | null =>
  db
    .select()
    .from(jobPictures)
    .where(and(eq(jobPictures.jobId, jobId), eq(jobPictures.view, view)))
    .get() ?? null;
