import { mkdirSync } from "node:fs";
import { lockFolder } from "../db/lock";
import { isNewWorkshop, loadDemo } from "../db/demo";
import { openWorkshop, workshopFiles, WorkshopUnavailable } from "../db/open";

/** Brings the workshop's database up to date, and fills it with the demo if nobody has used it yet. */
try {
  const files = workshopFiles();
  mkdirSync(files.folder, { recursive: true });
  const lock = lockFolder(files);
  const db = openWorkshop(files);
  if (isNewWorkshop(db)) {
    loadDemo(db, Date.now());
    console.log("Loaded the demo workshop, Perigee Yard.");
  } else console.log(`Opening the workshop in ${files.folder}.`);
  db.$client.close();
  lock?.close();
} catch (e) {
  if (!(e instanceof WorkshopUnavailable)) throw e;
  console.error(`\n${e.message}\n`);
  process.exitCode = 1;
}
