import Database from "better-sqlite3";
import { copyFileSync, existsSync, linkSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import * as z from "zod";
import { KEPT_WHYS, type KeptCopy, type KeptWhy } from "../contract/workshop";
import { damagesOf, openWorkshop, workshopFiles } from "../db/open";
import { readSettings, writeSettings } from "../db/settings";
import { pictureNames } from "../db/tables";
import { Refusal } from "./refusal";
import { syncFolder, tidyPictures } from "./pictures";
import { forgetWorkshop, openAt, type Workshop } from "./workshop";

const About = z.object({ at: z.number(), why: z.enum(KEPT_WHYS) });
const NAME = /^[0-9TZ-]{20,30}-[a-z-]+$/;

/** The same file under a second name where the disk can, so that a copy of a thousand pictures takes no room; else a copy. */
function linkOrCopy(from: string, to: string): void {
  try {
    linkSync(from, to);
  } catch {
    copyFileSync(from, to);
  }
}

/** Keeps the workshop as it is now, with its pictures, in a folder of its own. Whole or not at all. Returns the folder's name. */
export function keepCopy(w: Workshop, why: KeptWhy): string {
  const at = w.now();
  const name = `${new Date(at).toISOString().replace(/[:.]/g, "-")}-${why}`;
  const folder = join(w.files.kept, name);
  const part = `${folder}.part`;
  rmSync(part, { recursive: true, force: true });
  mkdirSync(join(part, "photos"), { recursive: true });
  try {
    w.db.$client.prepare("vacuum into ?").run(join(part, "workshop.sqlite"));
    for (const picture of pictureNames(w.db)) {
      const from = join(w.files.photos, picture);
      if (existsSync(from)) linkOrCopy(from, join(part, "photos", picture));
    }
    writeFileSync(join(part, "about.json"), JSON.stringify({ at, why } satisfies z.input<typeof About>));
    syncFolder(join(part, "photos"));
    syncFolder(part);
    rmSync(folder, { recursive: true, force: true });
    renameSync(part, folder);
    syncFolder(w.files.kept);
  } catch (e) {
    rmSync(part, { recursive: true, force: true });
    throw e;
  }
  return name;
}

/** Copies that are kept, newest first. */
export function keptCopies(w: Workshop): KeptCopy[] {
  if (!existsSync(w.files.kept)) return [];
  return readdirSync(w.files.kept)
    .flatMap((name): KeptCopy[] => {
      const folder = join(w.files.kept, name);
      try {
        const about = About.parse(JSON.parse(readFileSync(join(folder, "about.json"), "utf8")));
        return NAME.test(name)
          ? [{ name, ...about, bytes: statSync(join(folder, "workshop.sqlite")).size, pictures: readdirSync(join(folder, "photos")).length }]
          : [];
      } catch {
        // Half of a copy, or something else that lies there: not a copy.
        return [];
      }
    })
    .sort((a, b) => b.at - a.at);
}

function keptFolder(w: Workshop, name: string): string {
  if (!keptCopies(w).some((c) => c.name === name)) throw new Refusal(404, "no-copy", "That copy is not there any more: load this page again.");
  return join(w.files.kept, name);
}

/** Takes a copy away, as its owner asked. */
export function dropKept(w: Workshop, name: string): KeptCopy[] {
  rmSync(keptFolder(w, name), { recursive: true, force: true });
  return keptCopies(w);
}

/**
 * Puts a kept copy in the workshop's place, after keeping the workshop as it is now. The copy is proved to open first, and
 * stays where it is. Revisions go on from the later of both, so that a page opened before cannot save over what comes after.
 */
export function openKept(w: Workshop, name: string): { workshop: Workshop; kept: string } {
  const folder = keptFolder(w, name);
  const trial = join(w.files.folder, "opening.sqlite");
  const clear = () => ["", "-wal", "-shm"].forEach((end) => rmSync(`${trial}${end}`, { force: true }));
  clear();
  copyFileSync(join(folder, "workshop.sqlite"), trial);
  try {
    const db = openWorkshop({ ...w.files, database: trial });
    const [damage] = damagesOf(db.$client, 1, true);
    if (damage !== undefined) throw new Refusal(422, "damaged", `That copy is damaged (${damage}): choose another. Nothing was changed.`);
    goOn(db.$client, w.db.$client);
    db.$client.pragma("wal_checkpoint(TRUNCATE)");
    db.$client.close();
    const kept = keepCopy(w, "before-opening");
    mkdirSync(w.files.photos, { recursive: true });
    for (const picture of readdirSync(join(folder, "photos")))
      if (!existsSync(join(w.files.photos, picture))) linkOrCopy(join(folder, "photos", picture), join(w.files.photos, picture));
    syncFolder(w.files.photos);
    w.db.$client.pragma("wal_checkpoint(TRUNCATE)");
    w.db.$client.close();
    for (const end of ["-wal", "-shm"]) rmSync(`${w.files.database}${end}`, { force: true });
    renameSync(trial, w.files.database);
    syncFolder(w.files.folder);
    forgetWorkshop(w);
    const workshop = openAt(w.files, w.now);
    tidyPictures(workshop.db, w.files);
    return { workshop, kept };
  } finally {
    clear();
  }
}

/**
 * Puts the workshop aside as a copy and begins an empty one, which knows that it is one: nothing fills it but a person. The one put
 * aside is opened like any copy. Who is let in at the door stays.
 */
export function beginEmpty(w: Workshop): { workshop: Workshop; kept: string } {
  const at = w.now();
  const name = `${new Date(at).toISOString().replace(/[:.]/g, "-")}-empty`;
  const folder = join(w.files.kept, name);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(join(folder, "photos"), { recursive: true });
  try {
    const db = openWorkshop(workshopFiles(folder));
    writeSettings(db, readSettings(db));
    db.$client.pragma("wal_checkpoint(TRUNCATE)");
    db.$client.close();
    writeFileSync(join(folder, "about.json"), JSON.stringify({ at, why: "empty" } satisfies z.input<typeof About>));
    return openKept(w, name);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Moves the revisions of what is brought back past those that pages opened before have seen; the door stays as it is. */
function goOn(next: Database.Database, before: Database.Database): void {
  const seen = (table: string) => before.prepare(`select id, revision from ${table}`).all() as { id: string; revision: number }[];
  next.transaction(() => {
    // Who is let in is decided at the door today: what was signed out since stays out.
    next.exec("delete from devices; delete from settings where key = 'door'");
    const device = next.prepare("insert into devices (id, name, may, token, added_at, seen_at) values (@id, @name, @may, @token, @added_at, @seen_at)");
    for (const row of before.prepare("select id, name, may, token, added_at, seen_at from devices").all()) device.run(row);
    for (const row of before.prepare("select key, value from settings where key = 'door'").all())
      next.prepare("insert into settings (key, value) values (@key, @value)").run(row);
    const today = before.prepare("select json_extract(value, '$.listen') as listen from settings where key = 'workshop'").get() as
      { listen: number | null } | undefined;
    next.prepare("update settings set value = json_set(value, '$.listen', json(?)) where key = 'workshop'").run(today?.listen ? "true" : "false");
    const job = next.prepare("update jobs set revision = revision + @by where id = @id and revision <= @by");
    const history = next.prepare("update job_revisions set revision = revision + @by, undo_to = undo_to + @by, redo_to = redo_to + @by where job_id = @id");
    for (const { id, revision: by } of seen("jobs")) if (job.run({ id, by }).changes > 0) history.run({ id, by });
    for (const table of ["calendars", "weigh_ins"]) {
      const other = next.prepare(`update ${table} set revision = revision + @by where id = @id and revision <= @by`);
      for (const { id, revision: by } of seen(table)) other.run({ id, by });
    }
  })();
}
