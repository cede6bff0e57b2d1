import AxeBuilder from "@axe-core/playwright";
import type { Locator, Page } from "@playwright/test";
import { expect, saved, stored, testStage as test, toStep } from "./workshop";

// The page as a newcomer sees it: what is not asked is folded.
test.use({ everything: false });

const COMET = "demo-comet-drawer-pull";
const JOBS = [COMET, "demo-crater-lamp-base", "demo-dome-finial", "demo-nebula-knob", "demo-moon-phase-tile", "demo-eclipse-pillar", "demo-constellation-bar"];
const stageTabs = (page: Page) => page.getByRole("tablist", { name: "Shown on the drawing" }).getByRole("tab");
const grip = (page: Page, key: string) => page.locator(`[data-grip="${key}"]`);
const middle = async (at: Locator): Promise<{ x: number; y: number }> => {
  const box = await at.boundingBox();
  if (!box) throw new Error("It is not drawn.");
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};
const open = async (page: Page, id: string, step: string) => {
  await page.goto(`/jobs/${id}#${step}`);
  // A machine with more to do than this takes its time to load a page.
  await expect(page.getByTestId("stage")).toBeVisible({ timeout: 30_000 });
  // What comes, turns or rises first cannot be touched yet.
  await page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished)));
};

test("what is touched on the drawing is answered: its figure, its parts, whom it meets", async ({ page }) => {
  await open(page, COMET, "rubber");
  const panel = page.getByTestId("panel");
  const touch = async (stuff: string, at: { x: number; y: number }) => page.locator(`[data-stuff="${stuff}"]`).first().click({ position: at, force: true });
  await touch("rubber", { x: 20, y: 12 });
  await expect(panel.getByRole("heading", { name: "Rubber to mix" })).toBeVisible();
  await expect(panel).toContainText(await page.getByTestId("tally-rubber").innerText());
  await expect(panel).toContainText("First half");
  await expect(panel.getByText("Parting clay against rubber")).toBeVisible();
  await touch("clay", { x: 10, y: 60 });
  await expect(panel.getByRole("heading", { name: "Clay bed" })).toBeVisible();
  await expect(panel).toContainText(/\d mL of clay/);
  // By the list that readers have, too; and again closes it.
  const list = page.getByRole("list", { name: "On the drawing: ask about it" });
  await list.getByRole("button", { name: "Box or boards" }).click();
  await expect(panel.getByRole("heading", { name: "Box, inside" })).toBeVisible();
  await expect(panel).toContainText("Base board");
  await list.getByRole("button", { name: "Box or boards" }).click();
  await expect(panel.getByRole("heading", { name: "6. Rubber" })).toBeVisible();
  // A contact that is not sound stands where its two sides meet.
  await page.getByRole("button", { name: /^Master against rubber: With care/ }).click();
  await expect(panel).toContainText("Instead:");
  await page.keyboard.press("Tab");
  await panel.getByRole("button", { name: /^Close/ }).click();
  await stageTabs(page).filter({ hasText: "Casting" }).click();
  await list.getByRole("button", { name: "Cast", exact: true }).click();
  await expect(panel).toContainText(await page.getByTestId("tally-cast").innerText());
  await panel.getByRole("button", { name: "All about it: Cast" }).click();
  await expect(page.getByRole("heading", { name: "8. Cast" })).toBeVisible();
});

test("the wall is dragged by pointer, by finger and by keys; what comes of it is written at the finger", async ({ page, context }) => {
  await open(page, "demo-eclipse-pillar", "rubber");
  const before = (await stored(page, "demo-eclipse-pillar")).job.mould.wallMm;
  const grams = await page.getByTestId("tally-rubber").innerText();
  const from = await middle(grip(page, "wall"));
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 30, from.y, { steps: 6 });
  const finger = page.locator("output");
  await expect(finger).toContainText(/Wall\d+ mmRubber \d/);
  const said = Number(/(\d+) mm/.exec(await finger.innerText())?.[1]);
  await page.mouse.up();
  await expect(finger).toHaveCount(0);
  await saved(page);
  expect((await stored(page, "demo-eclipse-pillar")).job.mould.wallMm).toBe(said);
  expect(said).toBeGreaterThan(before);
  await expect(page.getByTestId("tally-rubber")).not.toHaveText(grams);
  // By keys: one press is one step of the ruler, with Shift five.
  await grip(page, "wall").focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Shift+ArrowRight");
  await saved(page);
  expect((await stored(page, "demo-eclipse-pillar")).job.mould.wallMm).toBe(said + 4);
  // By finger.
  const touch = await context.newCDPSession(page);
  const at = await middle(grip(page, "wall"));
  const send = (type: "touchStart" | "touchMove" | "touchEnd", dx: number) =>
    touch.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x: at.x + dx, y: at.y }] });
  await send("touchStart", 0);
  for (const dx of [-6, -14, -22]) await send("touchMove", dx);
  await expect(finger).toContainText("Wall");
  await send("touchEnd", 0);
  await saved(page);
  expect((await stored(page, "demo-eclipse-pillar")).job.mould.wallMm).toBeLessThan(said + 4);
});

test("every handle of every stage changes the number it stands for, by keys", async ({ page }) => {
  test.setTimeout(240_000);
  const tried = new Set<string>();
  for (const id of JOBS) {
    await open(page, id, "box");
    for (const tab of await stageTabs(page).all()) {
      await tab.click();
      const keys = await page.locator("[data-grip]").evaluateAll((all) => all.map((g) => g.getAttribute("data-grip") ?? ""));
      for (const key of keys) {
        const name = `${id.replace("demo-", "")} ${key}`;
        if (tried.has(name)) continue;
        tried.add(name);
        const handle = grip(page, key);
        const was = await handle.getAttribute("aria-valuetext");
        await handle.focus();
        await page.keyboard.press("ArrowUp");
        await page.keyboard.press("ArrowRight");
        // Both keys go one way where one way is free; where two are, each goes its own.
        await expect(handle, name).not.toHaveAttribute("aria-valuetext", was ?? "");
        await page.keyboard.press("ArrowLeft");
        await page.keyboard.press("ArrowDown");
        await expect(handle, name).toHaveAttribute("aria-valuetext", was ?? "");
      }
    }
    await saved(page);
  }
  for (const kind of ["wall", "cover", "base-under", "parting", "spare", "skin", "flange", "jacket", "point-0", "height", "sprue", "lean"])
    expect([kind, [...tried].some((t) => t.endsWith(` ${kind}`))]).toEqual([kind, true]);
});

/** Every label on the page against every other, and against the picture. */
const covered = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const boxes = [...document.querySelectorAll("[data-label]")].map((e) => ({ name: e.getAttribute("data-label") ?? "", r: e.getBoundingClientRect() }));
    const regions = [...document.querySelectorAll("[data-stuff]")].map((e) => e.getBoundingClientRect());
    const piece = {
      left: Math.min(...regions.map((r) => r.left)),
      right: Math.max(...regions.map((r) => r.right)),
      top: Math.min(...regions.map((r) => r.top)),
      bottom: Math.max(...regions.map((r) => r.bottom)),
    };
    const meet = (a: Pick<DOMRect, "left" | "right" | "top" | "bottom">, b: typeof a) =>
      a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1;
    const out: string[] = [];
    const card = document.querySelector("[data-testid=stage]")!.getBoundingClientRect();
    boxes.forEach((a, i) => {
      if (meet(a.r, piece)) out.push(`${a.name} covers the piece`);
      if (a.r.left < card.left - 1 || a.r.right > card.right + 1) out.push(`${a.name} is cut off`);
      for (const b of boxes.slice(0, i)) if (meet(a.r, b.r)) out.push(`${a.name} covers ${b.name}`);
      const e = document.querySelectorAll("[data-label]")[i]!;
      if (e.scrollWidth > e.clientWidth + 1) out.push(`${a.name} does not fit: ${e.scrollWidth} in ${e.clientWidth}`);
    });
    return out;
  });

test("no label covers another or the piece: every demo job, stage and side, in both units", async ({ page }) => {
  test.setTimeout(300_000);
  for (const units of ["metric", "us"]) {
    expect((await page.request.put("/api/settings", { data: { units } })).ok()).toBe(true);
    for (const id of JOBS) {
      await open(page, id, "master");
      for (const tab of await stageTabs(page).all()) {
        await tab.click();
        for (const view of ["Along", "Across", "From above"]) {
          const button = page.getByRole("button", { name: view, exact: true });
          if ((await button.count()) === 0) continue;
          await button.click();
          await expect(button).toHaveAttribute("aria-pressed", "true");
          // What comes turns and rises first.
          await page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished)));
          expect([units, id, await tab.innerText(), view, await covered(page)]).toEqual([units, id, await tab.innerText(), view, []]);
        }
      }
      await page.getByRole("button", { name: "Along", exact: true }).click();
    }
  }
  await page.request.put("/api/settings", { data: { units: "metric" } });
});

test("the work is played through, and stands still for those who ask for less motion", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "no-preference" });
  await open(page, COMET, "box");
  await stageTabs(page).filter({ hasText: "Master" }).click();
  await page.getByRole("button", { name: "Play the work through" }).click();
  for (const stage of ["Clay bed", "Box", "First half", "Second half"])
    await expect(page.getByRole("tab", { name: stage })).toHaveAttribute("aria-selected", "true", { timeout: 5000 });
  await page.getByRole("button", { name: "Stop" }).click();
  await stageTabs(page).filter({ hasText: "Casting" }).click();
  expect(await page.evaluate(() => document.getAnimations().length)).toBeGreaterThan(0);
  await page.emulateMedia({ reducedMotion: "reduce" });
  await stageTabs(page).filter({ hasText: "Second half" }).click();
  expect(await page.evaluate(() => document.getAnimations().length)).toBe(0);
});

test("a job's page is read before its engine is here: its answer, its route and its tally stand without a script", async ({ browser, server }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto(`${server.url}/jobs/${COMET}`);
  await expect(page.getByTestId("tally-rubber")).toHaveText(/^\d+ g$/);
  await expect(page.getByRole("navigation", { name: "Steps of this job" }).getByRole("button")).toHaveCount(9);
  await expect(page.getByTestId("answer")).toBeVisible();
  await context.close();
});

test("no panel of a demo job is longer than a screen, and a whole job is told in few words", async ({ page }) => {
  test.setTimeout(180_000);
  for (const id of ["demo-eclipse-pillar", "demo-crater-lamp-base", "demo-moon-phase-tile", COMET]) {
    let words = 0;
    await open(page, id, "master");
    const steps = page.getByRole("navigation", { name: "Steps of this job" }).getByRole("button");
    for (const step of await steps.all()) {
      await step.click();
      const panel = page.getByTestId("panel");
      await expect(panel.getByTestId("answer")).toBeVisible();
      const size = await panel.evaluate((e) => ({ high: e.getBoundingClientRect().height, words: (e as HTMLElement).innerText.split(/\s+/).length }));
      expect([id, await step.innerText(), size.high <= 800]).toEqual([id, await step.innerText(), true]);
      words += size.words;
    }
    expect([id, words < 700]).toEqual([id, true]);
  }
});

test("two ways of making a piece are set side by side, and one is kept", async ({ page }) => {
  const id = "demo-dome-finial";
  await open(page, id, "rubber");
  const grams = await page.getByTestId("tally-rubber").innerText();
  await page.getByRole("button", { name: "Compare" }).click();
  const dialog = page.getByRole("dialog", { name: "Compare" });
  await expect(dialog.getByRole("row", { name: /^Rubber/ }).first()).toContainText(grams);
  await dialog.getByRole("combobox", { name: "The other opens as" }).click();
  await page.getByRole("option", { name: "Glove, peeled off" }).click();
  const other = dialog
    .getByRole("row", { name: /^Rubber/ })
    .first()
    .getByRole("cell")
    .nth(1);
  await expect(other).not.toHaveText(grams);
  const kept = (await other.innerText()).replace(", the less", "").trim();
  await dialog.getByRole("button", { name: "Keep the other" }).click();
  await expect(page.getByTestId("tally-rubber")).toHaveText(kept);
  await page.getByRole("button", { name: "Undo (Ctrl+Z)" }).click();
  await expect(page.getByTestId("tally-rubber")).toHaveText(grams);
});

test("on a phone the question comes first, the drawing stays in sight, and bars are thin", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto("/jobs/demo-constellation-bar#master");
  const first = page.getByTestId("panel").getByRole("textbox").first();
  await expect(first).toBeVisible();
  expect((await first.boundingBox())?.y).toBeLessThan(844);
  const card = page.getByRole("region", { name: "Section drawing" });
  // While a size is typed the small drawing is in sight.
  await page.getByTestId("panel").getByRole("textbox").last().focus();
  await expect(card.locator("svg").first()).toBeInViewport();
  const tally = await page.getByRole("complementary", { name: "Tally" }).boundingBox();
  expect(tally!.height).toBeLessThan(844 * 0.15);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await card.getByRole("button", { name: "Drawing" }).click();
  await expect(page.getByTestId("stage")).toBeVisible();
  expect((await page.getByTestId("stage").boundingBox())?.height).toBeGreaterThan(300);
  expect(await covered(page)).toEqual([]);
  const wall = grip(page, "height");
  if ((await wall.count()) > 0) expect((await wall.boundingBox())!.width).toBeGreaterThanOrEqual(43);
  await card.getByRole("button", { name: "Close the drawing" }).click();
  await expect(page.getByTestId("stage")).toHaveCount(0);
});

test("in poor light: every screen keeps its contrast, by the device or by choice", async ({ page }) => {
  test.setTimeout(240_000);
  await page.emulateMedia({ colorScheme: "dark" });
  const paper = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor);
  for (const path of [
    "/",
    `/jobs/${COMET}#rubber`,
    "/jobs/demo-nebula-knob#pairing",
    "/start",
    "/log",
    "/log/demo-pour-02",
    "/rack/demo-mould-10",
    "/calendar",
    "/settings",
  ]) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 }).first()).toBeVisible();
    if (path.startsWith("/jobs")) await expect(page.getByTestId("stage")).toBeVisible();
    await page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished)));
    const { violations } = await new AxeBuilder({ page }).withRules(["color-contrast"]).analyze();
    expect([path, violations.flatMap((v) => v.nodes.map((n) => `${n.target.join(" ")}: ${n.any[0]?.message ?? ""}`)).slice(0, 3)]).toEqual([path, []]);
  }
  const dark = await paper();
  await page.getByRole("radio", { name: "Bright" }).click();
  expect(await paper()).not.toBe(dark);
  await page.reload();
  expect(await paper()).not.toBe(dark);
  await page.emulateMedia({ colorScheme: "light" });
  await page.getByRole("radio", { name: "For poor light" }).click();
  await expect.poll(paper).toBe(dark);
  await page.getByRole("radio", { name: "As this device has it" }).click();
});

test("after a step is chosen reading goes on at its heading, and the keys lead from anywhere but a text field", async ({ page }) => {
  await open(page, COMET, "master");
  await page.keyboard.press("5");
  await expect(page.getByRole("heading", { name: "5. Box" })).toBeFocused();
  await toStep(page, "Rubber");
  await expect(page.getByRole("heading", { name: "6. Rubber" })).toBeFocused();
  await page.keyboard.press("Tab");
  await page.keyboard.press("8");
  await expect(page.getByRole("heading", { name: "8. Cast" })).toBeFocused();
});
