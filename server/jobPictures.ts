import { promises as fs } from "node:fs";
import { PICTURE_VIEWS, type PictureView } from "../core/master";
import { putJobPicture, readJobPicture } from "../db/jobPictures";
import { getJob } from "./jobs";
import { keepPicture, photoPath, readPicture, type KeptPicture } from "./photos";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

function viewOf(name: string): PictureView {
  return PICTURE_VIEWS.find((v) => v === name) ?? refuse(name);
}

function refuse(name: string): never {
  throw new Refusal(404, "no-view", `There is no view "${name.slice(0, 40)}": a piece is seen from the front, the side or the top.`);
}

/** Keeps a photograph of a job's piece, made anew without what the camera wrote into it; it takes the place of that view's last one. */
export async function addJobPicture(w: Workshop, jobId: string, viewName: string, bytes: Buffer): Promise<{ view: PictureView; addedAt: number }> {
  getJob(w, jobId);
  const view = viewOf(viewName);
  const addedAt = w.now();
  const before = await keepPicture(w, bytes, ({ fileName, mime, bytes: size }) => putJobPicture(w.db, { jobId, view, fileName, mime, bytes: size, addedAt }));
  if (before) await fs.rm(photoPath(w, before), { force: true });
  return { view, addedAt };
}

export async function jobPicture(w: Workshop, jobId: string, viewName: string): Promise<KeptPicture> {
  const picture = readJobPicture(w.db, jobId, viewOf(viewName));
  if (!picture) throw new Refusal(404, "no-photo", "There is no photograph of that side.");
  return readPicture(w, picture.fileName);
}
