import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { choose, expect, saved, startJob, stored, test, toStep } from "./workshop";

/** Fails on any serious or critical finding, naming the element. */
async function accessible(page: Page, where: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations
    .filter((v) => v.impact === "serious" || v.impact === "critical")
    .map(
      (v) =>
        `${where}: ${v.id} at ${v.nodes
          .map((n) => n.target.join(" "))
          .slice(0, 3)
          .join(", ")}`,
    );
  expect(serious).toEqual([]);
}

const STEPS = ["Master", "Cast & rubber", "Opening", "Prepare", "Box", "Rubber", "Strength", "Cast", "Pour & open"];

// Every element of ten pages is looked at: minutes on two slow cores, not seconds.
test.describe.configure({ timeout: 240_000 });

test("bench, logbook and pour have no serious accessibility fault", async ({ page }) => {
  for (const path of [
    "/",
    "/jobs/demo-crater-lamp-base/sheet",
    "/log",
    "/log?outcome=failed",
    "/log/demo-pour-02",
    "/log/demo-pour-11",
    "/rack",
    "/rack/demo-mould-10",
    "/rack/demo-mould-10/label",
    "/calendar",
    "/settings",
    "/no/such/page",
  ]) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await accessible(page, path);
  }
});

test("the weigh-in sheet has no serious accessibility fault, and fits a phone and a tablet", async ({ page }) => {
  await page.goto("/jobs/demo-dome-finial#out");
  await page.getByRole("button", { name: "Weigh in rubber, section 1, detail coat" }).click();
  await page.waitForURL(/\/weigh\//);
  await accessible(page, "hold-point");
  for (const box of await page.getByRole("region", { name: "Stop before you wet or melt anything" }).getByRole("checkbox").all()) await box.click();
  await expect(page.getByTestId("live")).toBeVisible();
  await page.getByRole("radio", { name: "Practice scale" }).click();
  await expect(page.getByRole("button", { name: "Hold to pour" })).toBeVisible();
  await accessible(page, "a part on the scale");
  for (const [width, height] of [
    [390, 844],
    [1024, 768],
    [768, 1024],
  ] as const) {
    await page.setViewportSize({ width, height });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(width);
    // The largest thing on the sheet is the weight.
    expect(await page.getByTestId("live").evaluate((e) => parseFloat(getComputedStyle(e).fontSize))).toBeGreaterThanOrEqual(70);
  }
});

for (const id of ["demo-comet-drawer-pull", "demo-crater-lamp-base"]) {
  test(`no step of ${id} has a serious accessibility fault`, async ({ page }) => {
    await page.goto(`/jobs/${id}`);
    for (const step of STEPS) {
      await toStep(page, step);
      await accessible(page, step);
    }
  });
}

test("the start, the piece in the round, both rehearsals and a patch test have no serious accessibility fault", async ({ page }) => {
  await page.goto("/start");
  await expect(page.getByRole("heading", { name: "What are you moulding?" })).toBeVisible();
  await accessible(page, "start");
  await page.goto("/jobs/demo-owl-bookend");
  await page.getByRole("button", { name: "In the round" }).click();
  await expect(page.getByRole("application", { name: /in the round/ })).toBeVisible();
  await accessible(page, "in the round");
  await page.getByRole("radio", { name: "Where air stays" }).click();
  await expect(page.getByText(/No air stays\.|of air stays/)).toBeVisible({ timeout: 30_000 });
  await accessible(page, "where air stays");
  await toStep(page, "Rubber");
  await page.getByRole("button", { name: "Rehearse it" }).first().click();
  await expect(page.getByRole("button", { name: "Hold to pour" })).toBeVisible({ timeout: 20_000 });
  await accessible(page, "rubber rehearsed");
  await page.keyboard.press("Escape");
  await toStep(page, "Cast");
  await page.getByRole("button", { name: "Rehearse the pour" }).click();
  await expect(page.getByRole("button", { name: "Hold to pour" })).toBeVisible({ timeout: 20_000 });
  await accessible(page, "pour rehearsed");
  await page.keyboard.press("Escape");
  const putty = { kind: "surface", id: "x", name: "Loft putty", note: "", provenance: "", traits: [], cautions: [], copiedFrom: null, densityGMl: null };
  expect((await page.request.post("/api/materials", { data: putty })).status()).toBe(201);
  await startJob(page, "Patch to look at");
  await choose(page, "Made of", "Loft putty");
  await toStep(page, "Cast & rubber");
  await choose(page, "Which rubber?", "Platinum 20 A, 1:1, fast");
  await page
    .getByRole("button", { name: /^Try a patch/ })
    .first()
    .click();
  await expect(page.getByRole("dialog", { name: "Patch test" })).toBeVisible();
  await accessible(page, "patch test asked");
  await page.getByRole("dialog").getByRole("button", { name: "It is on: start the clock" }).click();
  await expect(page.getByRole("heading", { name: /^Patch test:/ })).toBeVisible();
  await accessible(page, "patch test");
});

test("the matrix has no serious accessibility fault", async ({ page }) => {
  await page.goto("/fit");
  await page.getByRole("textbox", { name: "Cast" }).fill("pewter");
  await page.getByRole("grid").getByRole("button").first().click();
  await accessible(page, "matrix");
});

test("materials and what opens over a page have no serious accessibility fault", async ({ page }) => {
  await page.goto("/materials");
  await page.getByLabel("Compare Dome-room 25 A, 1:1").check();
  await accessible(page, "materials");
  await page.getByRole("button", { name: "Edit Dome-room 25 A, 1:1" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await accessible(page, "material editor");
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await accessible(page, "keys");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("option", { name: /Go to Bench/ })).toBeVisible();
  await accessible(page, "palette");
});

test("the keyboard reaches every screen, every step and every job", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Jobs in hand" })).toBeVisible();
  await page.keyboard.press("m");
  await expect(page.getByRole("heading", { name: "Materials", level: 1 })).toBeVisible();
  await page.keyboard.press("l");
  await expect(page.getByRole("heading", { name: "Logbook", level: 1 })).toBeVisible();
  await page.keyboard.press("Control+k");
  await expect(page.getByPlaceholder("Type a job, a screen or an action")).toBeFocused();
  await page.keyboard.type("eclipse");
  await expect(page.getByRole("option", { name: "Eclipse pillar candle" })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the job")).toHaveValue("Eclipse pillar candle");
  // A script can press a key before the page has begun to listen; a hand cannot.
  await expect(async () => {
    await page.keyboard.press("6");
    await expect(page.getByRole("heading", { name: "6. Rubber" })).toBeVisible({ timeout: 500 });
  }).toPass();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("To step 5, Box");
  await page.keyboard.press("Escape");
  await page.keyboard.press("n");
  await expect(page.getByRole("heading", { name: "What are you moulding?" })).toBeVisible();
  await page.getByLabel("What are you making?").focus();
  await page.keyboard.type("By keyboard");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the job")).toHaveValue("By keyboard");
});

test("a list is found through by its first letters, and its keys are no shortcuts", async ({ page }) => {
  await startJob(page, "By its letters");
  await toStep(page, "Cast & rubber");
  const list = page.getByRole("combobox", { name: "Which rubber?" });
  await list.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("listbox")).toBeVisible();
  await page.keyboard.type("Tin 30", { delay: 30 });
  await expect(page.getByRole("option", { name: /^Tin 30 A/ })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(list).toHaveText(/^Tin 30 A/);
  await expect(page.getByRole("dialog")).toHaveCount(0);
});

test("switching units changes every number shown and nothing that is stored", async ({ page }) => {
  const id = await startJob(page, "Both systems");
  await page.getByRole("radio", { name: "Cylinder", exact: true }).click();
  await page.getByRole("textbox", { name: "Diameter" }).fill("4 in");
  await page.getByRole("textbox", { name: "Height" }).fill("50.8 mm");
  await saved(page);
  const before = await stored(page, id);
  await page.getByRole("button", { name: /Units: metric/ }).click();
  try {
    await expect(page.getByRole("textbox", { name: "Diameter" })).toHaveValue("4");
    await expect(page.getByRole("textbox", { name: "Height" })).toHaveValue("2");
    await expect(page.getByText("13.9 fl oz").first()).toBeVisible();
    await page.reload();
    await expect(page.getByRole("button", { name: /Units: US workshop/ })).toBeVisible();
    await toStep(page, "Pour & open");
    await expect(page.getByRole("textbox", { name: "Shop temperature" })).toHaveValue("68");
    expect(await stored(page, id)).toEqual(before);
    await page.getByRole("button", { name: /Units: US/ }).click();
    await expect(page.getByRole("button", { name: /Units: metric/ })).toBeVisible();
  } finally {
    // Whatever went wrong, the next test finds the workshop in its own units.
    await page.request.put("/api/settings", { data: { units: "metric" } });
  }
});

test("a phone shows everything without sideways scrolling, with targets to tap", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const fits = async (where: string) => expect([where, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([where, 390]);
  for (const path of [
    "/",
    "/fit",
    "/materials",
    "/log",
    "/log/demo-pour-08",
    "/jobs/demo-crater-lamp-base/sheet",
    "/rack",
    "/rack/demo-mould-10",
    "/calendar",
    "/settings",
  ]) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await fits(path);
  }
  await page.goto("/jobs/demo-comet-drawer-pull");
  for (const step of STEPS) {
    // A script can tap before the page has begun to listen; a hand cannot.
    await expect(async () => {
      await toStep(page, step);
      await expect(page.getByRole("heading", { name: new RegExp(`\\d\\. ${step}`) })).toBeVisible({ timeout: 1500 });
    }).toPass();
    await fits(step);
  }
  await expect(page.getByTestId("tally-rubber")).toBeInViewport();
  const small = await page
    .locator("main button:visible, main select:visible, main input:visible:not([type=checkbox])")
    .evaluateAll((all) => all.filter((e) => e.getBoundingClientRect().height < 32 && !e.classList.contains("sr-only")).map((e) => e.outerHTML.slice(0, 80)));
  expect(small).toEqual([]);
});

test("a material is copied, edited, questioned and refused in words", async ({ page }) => {
  await page.goto("/materials");
  await page.getByLabel("Find by name or trait").fill("tin");
  await page.getByLabel("Compare Tin 25 A, 10:1, medium").check();
  await page.getByLabel("Compare Tin 30 A, 10:1, heat-resistant").check();
  await expect(page.getByRole("region", { name: "Side by side" }).getByRole("row", { name: /Bears for minutes/ })).toContainText("300 °C");
  await page.getByRole("button", { name: "Copy Tin 25 A, 10:1, medium and edit" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name", { exact: true }).fill("Tin pail, blue lid");
  await dialog.getByLabel("Density, cured, typical").fill("11");
  await expect(dialog.getByText("low, typical and high have to be in that order")).toBeVisible();
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(dialog.getByText(/Not saved yet/)).toBeVisible();
  await dialog.getByLabel("Density, cured, high").fill("12");
  await expect(dialog.getByText(/11 g\/mL is unusual for a mould rubber/)).toBeVisible();
  await dialog.getByLabel("Density, cured, typical").fill("1.12");
  await dialog.getByLabel("Density, cured, high").fill("1.2");
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("rowheader", { name: "Tin pail, blue lid" })).toBeVisible();
  await page.goto("/jobs/demo-eclipse-pillar#pairing");
  await choose(page, "Which rubber?", "Tin pail, blue lid");
  await expect(page.getByTestId("tally-verdict")).not.toHaveText("Do not");
  await page.getByRole("button", { name: "Undo (Ctrl+Z)" }).click();
  await saved(page);
});
