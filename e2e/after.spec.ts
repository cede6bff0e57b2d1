import { expect, stored, testAfter as test, tickHold, weighIn } from "./workshop";
import type { Page } from "@playwright/test";

/** Logs a casting of a job as poured just now, whatever speaks against it, and opens its page. */
async function pourAndOpen(page: Page, job: string, name: RegExp): Promise<void> {
  const newest = async () =>
    ((await (await page.request.get("/api/pours")).json()) as { pours: { id: string; jobId: string }[] }).pours.find((p) => p.jobId === job)?.id;
  const before = await newest();
  await page.goto(`/jobs/${job}#out`);
  await page.getByRole("button", { name }).click();
  const on = page.getByRole("dialog").getByRole("button", { name: "Do it all the same" });
  // An earlier casting may still stand in the mould: it is asked about, and the new one is in the log once it is there.
  await expect(async () => {
    if (await on.isVisible()) await on.click();
    expect(await newest()).not.toBe(before);
  }).toPass();
  await page.goto(`/log/${await newest()}`);
  await page.getByRole("button", { name: "Opened just now" }).click();
  const all = page.getByRole("dialog").getByRole("button", { name: "Open it all the same" });
  await all.click();
  await expect(page.getByRole("heading", { name: "Opened" })).toBeVisible();
}

test("after the pour: steps are ticked, one of a person's own stays for the next, weighings say until when it dries", async ({ page }) => {
  await pourAndOpen(page, "demo-moon-phase-tile", /^Poured casting plaster: log it/);
  const after = page.getByRole("region", { name: "To finish it" });
  const patch = after.getByRole("checkbox", { name: /Patch holes within the first day/ });
  await patch.click();
  await expect(patch).toBeChecked();
  await patch.click();
  await expect(patch).not.toBeChecked();
  await after.getByRole("button", { name: "Add a step of your own" }).click();
  await after.getByLabel("What is done").fill("Number it on the back");
  await after.getByRole("button", { name: "Add it" }).click();
  await expect(after.getByRole("checkbox", { name: "Number it on the back" })).toBeVisible();
  // What cannot be one casting is refused in words, and the figure stays.
  const mass = after.getByLabel("One of them weighs");
  await mass.fill("2000");
  await after.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByText(/is more than one casting weighed wet/)).toBeVisible();
  await expect(mass).toHaveValue(/2000|2 kg/);
  await mass.fill("320");
  await after.getByRole("button", { name: "Write it down" }).click();
  await expect(after.getByText(/of water still in it/)).toBeVisible();
  await expect(mass).toHaveValue("");

  // Not all alike: each for itself, and one place teaches another.
  await page.getByRole("button", { name: /judge the 4 one by one/ }).click();
  for (const n of [1, 2, 3])
    await page
      .getByRole("group", { name: `Casting ${n}`, exact: true })
      .getByRole("radio", { name: "Good" })
      .click();
  const last = page.getByRole("group", { name: "Casting 4", exact: true });
  await last.getByRole("radio", { name: "Failed" }).click();
  await last.getByRole("button", { name: "What was seen of it, and its cut" }).click();
  await last.getByRole("button", { name: "Bubbles or pinholes" }).click();
  await expect(page.getByRole("heading", { name: "Next time, change one thing" })).toBeVisible();

  // Its step of one's own is there for the next casting.
  await pourAndOpen(page, "demo-moon-phase-tile", /^Poured casting plaster: log it/);
  await expect(page.getByRole("region", { name: "To finish it" }).getByRole("checkbox", { name: "Number it on the back" })).toBeVisible();
});

test("a mould tears, is asked about before it is cast in, and is mended; a pour is corrected, and what was written first stays", async ({ page }) => {
  await page.goto("/rack");
  await page
    .getByRole("link", { name: /Eclipse pillar candle, mould 1/ })
    .first()
    .click();
  const life = page.getByRole("region", { name: "What happened to it" });
  await life.getByLabel("Where, and how far").fill("10 mm at the lip");
  await life.getByRole("button", { name: "Write it down" }).click();
  await expect(life.getByText("Torn: 10 mm at the lip")).toBeVisible();
  await expect(life.getByText(/It is torn/)).toBeVisible();
  await page.goto("/jobs/demo-eclipse-pillar#out");
  await page.getByRole("button", { name: /^Poured beeswax: log it/ }).click();
  const ask = page.getByRole("dialog", { name: "Before you do" });
  await expect(ask.getByText(/The mould tore/)).toBeVisible();
  await ask.getByRole("button", { name: "Not now" }).click();
  await page.goto("/rack");
  await page
    .getByRole("link", { name: /Eclipse pillar candle, mould 1/ })
    .first()
    .click();
  await life.getByRole("radio", { name: "Mended with fresh rubber" }).click();
  await life.getByLabel("How").fill("brushed shut");
  await life.getByRole("button", { name: "Write it down" }).click();
  await expect(life.getByText("Mended with fresh rubber: brushed shut")).toBeVisible();
  await expect(life.getByText(/It is torn/)).toHaveCount(0);

  await pourAndOpen(page, "demo-crater-lamp-base", /^Poured general concrete, fine: log it/);
  await page.getByRole("button", { name: "It was poured at another time" }).click();
  await page.getByLabel("When it was", { exact: true }).fill("yesterday 9:00");
  await page.getByRole("button", { name: "Correct it" }).click();
  const first = page.getByRole("list", { name: "Written down first" });
  const on = page.getByRole("dialog").getByRole("button", { name: "Open it all the same" });
  await expect(async () => {
    if (await on.isVisible()) await on.click();
    await expect(first.getByText(/poured/)).toBeVisible({ timeout: 1000 });
  }).toPass();
});

test("a mould is what it was made of: the job says so where it differs, and weighs in what the mould takes", async ({ page }) => {
  const id = "demo-moon-phase-tile";
  const before = await stored(page, id);
  const master = { ...before.job.master, sizes: { ...before.job.master.sizes, lengthMm: (before.job.master.sizes.lengthMm ?? 0) * 2 } };
  const put = await page.request.put(`/api/jobs/${id}`, { data: { baseRevision: before.revision, job: { ...before.job, master } } });
  expect(put.ok()).toBe(true);
  await page.goto(`/jobs/${id}#out`);
  const stand = page.getByRole("region", { name: "The mould that is there" });
  await expect(stand.getByText(/was made otherwise than the job says now: .*sizes/)).toBeVisible();
  const toMix = Number(/([\d.]+) g to mix/.exec(await stand.innerText())?.[1]);
  await weighIn(page, id, /^Weigh in casting plaster/);
  await expect(page.getByText(new RegExp(`${toMix} g in all`))).toBeVisible();
});

test("two moulds from the same cups: the second's share is said, and both are in the log", async ({ page }) => {
  // A second tile mould, so that there are two to fill.
  const id = "demo-moon-phase-tile";
  const { revision } = await stored(page, id);
  const rubber = await page.request.post("/api/pours", { data: { jobId: id, jobRevision: revision, kind: "rubber", at: Date.now() - 72 * 3_600_000 } });
  expect(rubber.ok()).toBe(true);
  await weighIn(page, id, /^Weigh in casting plaster/);
  await page.getByRole("button", { name: "Fill another mould from the same cups" }).click();
  await page.getByRole("button", { name: "Which take the same mix?" }).click();
  await page
    .getByRole("button", { name: /Moon-phase tile, mould 1/ })
    .first()
    .click();
  const on = page.getByRole("dialog").getByRole("button", { name: "Share it all the same" });
  const where = page.getByRole("list", { name: "What goes where" });
  await expect(async () => {
    if (await on.isVisible()) await on.click();
    await expect(where.getByText(/mould 1/)).toBeVisible({ timeout: 1000 });
  }).toPass();
  await tickHold(page);
  const batchId = new URL(page.url()).pathname.split("/").at(-1) ?? "";
  const { weighIn: w } = (await (await page.request.get(`/api/weigh/${batchId}`)).json()) as { weighIn: { parts: { name: string; targetG: number }[] } };
  for (const p of w.parts) {
    await page.getByRole("textbox", { name: `${p.name} in the cup`, exact: true }).fill(p.targetG.toFixed(1));
    await page.getByRole("button", { name: "Take what I typed" }).click();
  }
  await page.getByRole("button", { name: /: start the clock/ }).click();
  await expect(where.getByText(/mould 1/)).toBeVisible();
  await page.getByRole("button", { name: /^It is in the mould|^It is poured/ }).click();
  await page.getByRole("button", { name: "All poured: into the log" }).click();
  await page.waitForURL(/\/log\//);
  await page.goto("/");
  await expect(page.getByRole("article", { name: /Moon-phase tile: demould/ }).first()).toBeVisible();
});

test("a whole casting by keyboard: from the job to the log without a pointer", async ({ page }) => {
  await page.goto("/jobs/demo-crater-lamp-base#out");
  const button = page.getByRole("button", { name: /^Weigh in general concrete/ });
  await expect(button).toBeEnabled();
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  /** Tabs until what is named has the focus. */
  const tabTo = async (name: RegExp, from = 0) => {
    for (let i = from; i < 140; i++) {
      const here = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement | null;
        // With nothing in focus the whole page would answer to any name.
        if (!e || e === document.body) return "";
        return e?.getAttribute("aria-label") ?? (e instanceof HTMLInputElement ? (e.labels?.[0]?.textContent ?? "") : (e?.textContent ?? ""));
      });
      if (name.test(here)) return;
      await press("Tab");
    }
    throw new Error(`The keyboard never reaches ${String(name)}.`);
  };
  await tabTo(/^Weigh in general concrete/);
  await press("Enter");
  await expect(async () => {
    if (page.url().includes("/weigh/")) return;
    const on = page.getByRole("button", { name: "Do it all the same" });
    if (await on.isVisible()) {
      await tabTo(/Do it all the same/);
      await press("Enter");
    }
    expect(page.url()).toMatch(/\/weigh\//);
  }).toPass();
  const id = new URL(page.url()).pathname.split("/").at(-1) ?? "";
  const open = page.locator("[role=checkbox][aria-checked=false]");
  await expect(open.first()).toBeVisible();
  const points = await open.allInnerTexts();
  for (const [i, text] of points.entries()) {
    await tabTo(new RegExp(text.trim().replace(/[.*+?^${}()|[\]\\]/g, "\\$&")));
    await press("Space");
    await expect(open).toHaveCount(points.length - 1 - i);
  }
  const { weighIn: w } = (await (await page.request.get(`/api/weigh/${id}`)).json()) as { weighIn: { parts: { name: string; targetG: number }[] } };
  for (const p of w.parts) {
    const box = page.getByRole("textbox", { name: `${p.name} in the cup`, exact: true });
    await expect(box).toBeVisible();
    await tabTo(new RegExp(`${p.name} in the cup`));
    for (const c of p.targetG.toFixed(0)) await press(c);
    await tabTo(/Take what I typed/);
    await press("Enter");
  }
  await expect(page.getByRole("button", { name: /: start the clock/ })).toBeVisible();
  await tabTo(/: start the clock/);
  await press("Enter");
  const done = page.getByRole("button", { name: /^It is in the mould|^It is placed|^It is poured/ });
  await expect(done).toBeVisible();
  await tabTo(new RegExp(await done.innerText()));
  await press("Enter");
  await expect(page.getByRole("button", { name: "All poured: into the log" })).toBeVisible();
  await tabTo(/All poured: into the log/);
  await press("Enter");
  await page.waitForURL(/\/log\//);
  expect(keys).toBeLessThan(400);
  console.log(`keys from the job to the log: ${keys}`);
});
