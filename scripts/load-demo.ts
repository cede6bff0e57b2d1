import { copyFileSync, mkdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { lockFolder } from "../db/lock";
import { isNewWorkshop, loadDemo } from "../db/demo";
import { DEMO_PICTURES } from "../db/demoPieces";
import { putJobPicture } from "../db/jobPictures";
import { openWorkshop, workshopFiles, WorkshopUnavailable } from "../db/open";

/** Brings the workshop's database up to date, and fills it with the demo if nobody has used it yet. */
try {
  const files = workshopFiles();
  mkdirSync(files.folder, { recursive: true });
  const lock = lockFolder(files);
  const db = openWorkshop(files);
  if (isNewWorkshop(db)) {
    const now = Date.now();
    loadDemo(db, now);
    mkdirSync(files.photos, { recursive: true });
    for (const { jobId, view, fileName, from } of DEMO_PICTURES) {
      copyFileSync(from, join(files.photos, fileName));
      putJobPicture(db, { jobId, view, fileName, mime: "image/jpeg", bytes: statSync(from).size, addedAt: now });
    }
    console.log("Loaded the demo workshop, Perigee Yard.");
  } else console.log(`Opening the workshop in ${files.folder}.`);
  db.$client.close();
  lock?.close();
} catch (e) {
  if (!(e instanceof WorkshopUnavailable)) throw e;
  console.error(`\n${e.message}\n`);
  process.exitCode = 1;
}
