import Database from "better-sqlite3";
import { readFile } from "node:fs/promises";
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { freePort } from "../scripts/server";
import { expect, field, saved, Server, startJob, stored, test, toStep } from "./workshop";

test("two tabs on one job: the later save is told, and nothing is lost", async ({ page, context }) => {
  const id = await startJob(page, "Twin tabs");
  const other = await context.newPage();
  // The second tab stands before the first is typed into: one that opens later takes what is on its way as its own.
  await other.goto(`/jobs/${id}`, { waitUntil: "networkidle" });
  await field(page, "Length").fill("100");
  await saved(page);
  await field(other, "Length").fill("222");
  await expect(other.getByRole("alert").filter({ hasText: "saved somewhere else" })).toBeVisible();
  await expect(other.getByTestId("save-state")).toHaveText("Not saved");
  expect((await stored(page, id)).job.master.sizes).toEqual({ lengthMm: 100 });
  await other.getByRole("button", { name: "Keep what is on this page" }).click();
  await saved(other);
  expect((await stored(page, id)).job.master.sizes).toEqual({ lengthMm: 222 });
  await other.getByRole("button", { name: "Undo (Ctrl+Z)" }).click();
  await expect(field(other, "Length")).toHaveValue("100");
});

test("a reload mid-way keeps the job, the step and even a wrong entry", async ({ page }) => {
  const id = await startJob(page, "Half done");
  await field(page, "Length").fill("4 3/4 in");
  await field(page, "Width").fill("8 parsecs");
  await expect(page.getByText('"parsecs" is not a unit known here')).toBeVisible();
  await saved(page);
  await toStep(page, "Box");
  await page.reload();
  await expect(page.getByRole("heading", { name: "5. Box" })).toBeVisible();
  await toStep(page, "Master");
  await expect(field(page, "Length")).toHaveValue("120.65");
  await expect(field(page, "Width")).toHaveValue("8 parsecs");
  await expect(page.getByText('"parsecs" is not a unit known here')).toBeVisible();
  expect((await stored(page, id)).job.master.sizes).toEqual({ lengthMm: 120.65 });
});

test("kill -9 right after it says saved loses nothing; what is typed while the server is away is kept", async ({ browser }) => {
  const server = new Server();
  try {
    await server.start();
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    await page.goto("/");
    await expect(page.getByText("No job yet")).toBeVisible();
    const id = await startJob(page, "Power cut");
    await field(page, "Length").fill("137");
    await saved(page);
    await server.kill();
    await field(page, "Width").fill("91");
    await expect(page.getByRole("alert").filter({ hasText: "does not answer" })).toBeVisible();
    await server.start();
    expect((await stored(page, id)).job.master.sizes.lengthMm).toBe(137);
    await saved(page);
    expect((await stored(page, id)).job.master.sizes).toEqual({ lengthMm: 137, widthMm: 91 });
  } finally {
    await server.remove();
  }
});

test("a workshop open for reading only says so, and keeps the entry on the page", async ({ browser }) => {
  const server = new Server();
  try {
    server.loadDemo();
    await server.start({ ZESTY_READ_ONLY: "1" });
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    await page.goto("/jobs/demo-eclipse-pillar#master");
    await field(page, "Diameter").fill("80");
    await expect(page.getByRole("alert").filter({ hasText: "open for reading only" })).toBeVisible();
    await expect(field(page, "Diameter")).toHaveValue("80");
    await expect(page.getByTestId("save-state")).toHaveText("Not saved");
  } finally {
    await server.remove();
  }
});

test("a workshop written by a newer version is left alone, with clear words", async ({ browser }) => {
  const server = new Server();
  try {
    server.loadDemo();
    const db = new Database(join(server.folder, "workshop.sqlite"));
    db.prepare("insert into __drizzle_migrations (hash, created_at) values ('later', 32503680000000)").run();
    db.close();
    await server.start();
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    for (const path of ["/", "/log", "/jobs/demo-eclipse-pillar"]) {
      await page.goto(path);
      await expect(page.getByText("written by a newer Zesty Ladle")).toBeVisible();
    }
    expect((await page.request.get("/api/jobs")).status()).toBe(503);
  } finally {
    await server.remove();
  }
});

test("impossible sizes are named, with what to do, and the last good answer stays", async ({ page }) => {
  await startJob(page, "Odd sizes");
  await page.getByRole("radio", { name: "Cylinder", exact: true }).click();
  await field(page, "Diameter").fill("100");
  await field(page, "Height").fill("60");
  for (const [typed, said] of [
    ["0", /"0" is too small: it has to be 0.1 mm or more/],
    ["-5", /"-5" is too small/],
    ["40 m", /"40 m" is too large: it can be at most 3.00 m/],
    ["NaN", /"NaN" is not a number/],
    ["1,500", /can be read two ways/],
    ["12 kg", /is a weight, but this field needs a length/],
  ] as const) {
    await field(page, "Height").fill(typed);
    await expect(page.getByText(said)).toBeVisible();
    await expect(page.getByText("Still using 60 mm.")).toBeVisible();
  }
  await field(page, "Height").fill("60");
  await toStep(page, "Box");
  await field(page, "Wall, at least").fill("300");
  await expect(page.getByText(/thicker than the master is wide/)).toBeVisible();
  await page.getByLabel("I already have a box").check();
  await field(page, "Inside length").fill("80");
  await expect(page.getByRole("alert").filter({ hasText: "does not fit in a box" })).toBeVisible();
});

test("photos are kept beside the log, judged by what they are", async ({ page }) => {
  await page.goto("/log/demo-pour-02");
  const png = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");
  const chooser = page.getByLabel("Add a photo");
  await chooser.setInputFiles({ name: "rim.png", mimeType: "image/png", buffer: png });
  await expect(page.getByRole("img", { name: "Photo 1 of this pour" })).toBeVisible();
  await chooser.setInputFiles({ name: "rim.png", mimeType: "image/png", buffer: Buffer.from("<svg onload=alert(1)>") });
  await expect(page.getByRole("alert").filter({ hasText: "rim.png: That file is not a JPEG, PNG or WebP picture" })).toBeVisible();
  await page.reload();
  await expect(page.getByRole("img", { name: "Photo 1 of this pour" })).toBeVisible();
  await page.getByRole("button", { name: "Remove photo 1" }).click();
  await expect(page.getByRole("img", { name: "Photo 1 of this pour" })).toHaveCount(0);
});

test("an entry that cannot be read stops nothing: it is named, taken out as a file, and then may go", async ({ browser }) => {
  const server = new Server();
  server.loadDemo();
  const db = new Database(join(server.folder, "workshop.sqlite"));
  db.exec("create temp table odd as select * from jobs where id = 'demo-constellation-bar'");
  db.exec("update odd set id = 'odd-bar', document = json_set(document, '$.mould.opening', 'from-next-year')");
  db.exec("insert into jobs select * from odd");
  db.close();
  await server.start();
  try {
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    await page.goto("/");
    await expect(page.getByRole("link", { name: /Moon-phase tile/ }).first()).toBeVisible();
    await page.getByRole("link", { name: "See which, and take it out as a file" }).click();
    const odd = page.getByRole("region", { name: "Entries that cannot be read" });
    await expect(odd.getByText("Jobs: odd-bar")).toBeVisible();
    await expect(odd.getByText(/mould\.opening/)).toBeVisible();
    const remove = odd.getByRole("button", { name: "Remove odd-bar" });
    await expect(remove).toBeDisabled();
    const [file] = await Promise.all([page.waitForEvent("download"), odd.getByRole("link", { name: "Take out odd-bar as a file" }).click()]);
    expect(await readFile(await file.path(), "utf8")).toContain("from-next-year");
    await remove.click();
    await expect(odd.getByText("Nothing is left that cannot be read.")).toBeVisible();
    await page.goto("/");
    await expect(page.getByText(/cannot be read/)).toHaveCount(0);
  } finally {
    await server.remove();
  }
});

test("a copy is kept, the workshop looked through, and the copy opened again", async ({ page }) => {
  const server = new Server();
  try {
    server.loadDemo();
    await server.start();
    await page.goto(`${server.url}/settings#copies`);
    const copies = page.getByRole("region", { name: "Copies, and a look through" });
    await copies.getByRole("button", { name: "Keep a copy now" }).click();
    await expect(copies.getByText(/kept by hand, [\d.]+ (kB|MB) and 2 pictures/)).toBeVisible();
    await copies.getByRole("button", { name: "Check this workshop" }).click();
    await expect(copies.getByText("Sound: the file, its entries and every picture.")).toBeVisible();
    // A page on a job from before the copy is opened is told, and writes over nothing.
    const other = await page.context().newPage();
    await other.goto(`${server.url}/jobs/demo-nebula-knob#master`);
    await other.getByLabel("Notes").fill("Edited after the copy");
    await expect(other.getByTestId("save-state")).toHaveText("Saved");
    await copies.getByRole("button", { name: "Open this one" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Open it" }).click();
    await expect(copies.getByText(/before another copy was opened/)).toBeVisible({ timeout: 15_000 });
    await other.getByLabel("Notes").fill("From the page of before");
    await expect(other.getByRole("alert").filter({ hasText: "saved somewhere else" })).toBeVisible();
    await page.goto(`${server.url}/jobs/demo-nebula-knob#master`);
    await expect(page.getByLabel("Notes")).not.toHaveValue("Edited after the copy");
  } finally {
    await server.remove();
  }
});

test("a second server on one folder says so and stops", async () => {
  const server = new Server();
  try {
    server.loadDemo();
    await server.start();
    const second = spawnSync(process.execPath, ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(await freePort())], {
      env: { ...process.env, NODE_ENV: "production", NEXT_TELEMETRY_DISABLED: "1", ZESTY_DATA: server.folder },
      encoding: "utf8",
      timeout: 30_000,
    });
    expect(second.status).toBe(1);
    expect(second.stderr).toContain("Another Zesty Ladle is running on the folder");
    expect((await fetch(`${server.url}/api/health`)).status).toBe(200);
  } finally {
    await server.remove();
  }
});
