import { readFileSync } from "node:fs";
import { choose, expect, startJob, test, toStep } from "./workshop";

test("the matrix is read by keyboard, narrowed by need, and taken away as CSV", async ({ page }) => {
  await page.goto("/fit");
  const grid = page.getByRole("grid");
  await expect(grid).toBeVisible();
  // A page that does not listen yet takes no focus.
  await expect(grid.getByRole("button").first()).toBeEnabled();
  await grid.getByRole("button").first().focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("End");
  await page.keyboard.press("Enter");
  const pinned = page.getByRole("region", { name: "Pinned pairs" });
  await expect(pinned.getByRole("heading", { name: "General concrete, fine in Acetic sealant made into rubber" })).toBeVisible();
  await expect(pinned).toContainText("Alkaline cement slowly roughens rubber");
  await page.getByRole("button", { name: "Food", exact: true }).click();
  await expect(grid.getByRole("columnheader")).toHaveCount(1);
  await page.getByRole("button", { name: "Soft", exact: true }).click();
  await expect(page.getByText("No rubber here meets all of these")).toBeVisible();
  await page.getByRole("button", { name: "Soft", exact: true }).click();
  await page.getByRole("textbox", { name: "Cast" }).fill("chocolate");
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "CSV" }).click()]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text.split("\r\n")).toHaveLength(2);
  expect(text).toMatch(/^cast,rubber,verdict,reasons,instead\r\n"?Dark chocolate, tempered"?,"?Platinum 22 A, 1:1, food-declared"?,With care,/);
  // Every pair gets its answer, and the line that says otherwise goes.
  await page.getByRole("textbox", { name: "Cast" }).fill("");
  await expect(page.getByText(/^Working out the heat/)).toHaveCount(0, { timeout: 60_000 });
});

test("the heat of the whole grid can be stopped, and gone on with", async ({ page }) => {
  await page.goto("/fit");
  await expect(page.getByText(/^Working out the heat of \d+ pairs/)).toBeVisible();
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  const stopped = page.getByText(/^Stopped: the heat of \d+ pairs? is not worked out/);
  await expect(stopped).toBeVisible();
  const left = await stopped.textContent();
  // Nothing goes on behind it.
  await page.waitForTimeout(1500);
  await expect(stopped).toHaveText(left!);
  await page.getByRole("button", { name: "Go on" }).click();
  await expect(page.getByText(/^Working out the heat/)).toHaveCount(0, { timeout: 90_000 });
  await expect(stopped).toHaveCount(0);
});

test("heat is worked out beside the page, and its pessimistic edge decides", async ({ page }) => {
  await page.goto("/jobs/demo-comet-drawer-pull#rubber");
  await choose(page, "Rubber of the second half", "The same as the first");
  await toStep(page, "Cast & rubber");
  await expect(page.getByText(/The rubber’s skin reaches/)).toBeVisible({ timeout: 15_000 });
  await expect(page.getByRole("img", { name: /Temperature after a pour/ })).toBeVisible();
  await expect(page.getByTestId("tally-verdict")).toHaveText("With care");
  await expect(page.getByText("6 in a row, one every 20 min")).toBeVisible();
  await page.getByRole("textbox", { name: "From pour to pour" }).fill("3 min");
  await expect(page.getByText("6 in a row, one every 3 min")).toBeVisible({ timeout: 15_000 });
  // The same metal with the wide figures of its kind cannot be promised, and is not.
  await choose(page, "What will you cast?", "Lead-free pewter");
  await expect(page.getByTestId("tally-verdict")).toHaveText(/Untested|Do not/, { timeout: 15_000 });
  await page.getByRole("button", { name: "Undo (Ctrl+Z)" }).click();
  await page.getByRole("button", { name: "Undo (Ctrl+Z)" }).click();
});

test("silver is refused, and the way round is one tap away", async ({ page }) => {
  await startJob(page, "Silver moon");
  await page.getByRole("radio", { name: "Cylinder", exact: true }).click();
  await page.getByRole("textbox", { name: "Diameter" }).fill("30");
  await page.getByRole("textbox", { name: "Height" }).fill("8");
  await choose(page, "Made of", "Metal, clean");
  await toStep(page, "Cast & rubber");
  await choose(page, "Which rubber?", "Platinum 25 A, 1:1, medium");
  await choose(page, "What will you cast?", "Silver alloy");
  await expect(page.getByTestId("tally-verdict")).toHaveText("Do not");
  await expect(page.getByText(/no mould rubber bears that, even for a moment/).first()).toBeVisible();
  await expect(page.getByText(/invest the wax for the metal/).first()).toBeVisible();
  await page
    .getByRole("button", { name: /^Do it: cast/ })
    .first()
    .click();
  await expect(page.getByTestId("tally-verdict")).toHaveText("Sound");
});

test("food after concrete is refused for ever, and a new mould is the answer", async ({ page }) => {
  await startJob(page, "Second life");
  await toStep(page, "Cast & rubber");
  await choose(page, "Which rubber?", "Platinum 22 A, 1:1, food-declared");
  await choose(page, "What will you cast?", "Dark chocolate, tempered");
  await page.getByRole("radio", { name: "Something that is not food" }).click();
  await expect(page.getByText(/it can never be a food mould again/).first()).toBeVisible();
  await page.getByRole("button", { name: /Do it: make a new mould/ }).click();
  await expect(page.getByTestId("tally-verdict")).toHaveText("With care");
});

test("a table of materials with three bad rows is shown by line, and the rest kept only on request", async ({ page, request }) => {
  const lines = (await (await request.get("/api/materials/export?format=csv&scope=all")).text()).split("\r\n");
  const head = lines[0]!.split(",");
  const at = head.indexOf("name");
  const row = (name: string, change: (cells: string[]) => string[]) =>
    change(
      lines
        .find((l) => l.includes("rubber-tin-heat-30"))!
        .match(/("([^"]|"")*"|[^,]*)(,|$)/g)!
        .map((c) => c.replace(/,$/, "")),
    )
      .map((c, i) => (i === at ? name : c))
      .slice(0, head.length)
      .join(",");
  const put = (column: string, value: string) => (cells: string[]) => cells.map((c, i) => (head[i] === column ? value : c));
  const text = [
    lines[0],
    row("Good pail", (c) => c),
    row("Odd kind", put("kind", "gum")),
    row("No density", put("densityGMl.typical", "")),
    row("Upside down", put("shoreA.low", "77")),
  ].join("\r\n");
  await page.goto("/materials");
  await page.getByLabel("Import").setInputFiles({ name: "pails.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  const dialog = page.getByRole("dialog", { name: "Some rows are not usable" });
  await expect(dialog.getByRole("row", { name: /3 kind "gum" is not a kind of material/ })).toBeVisible();
  await expect(dialog.getByRole("row", { name: /4 densityGMl.typical is missing/ })).toBeVisible();
  await expect(dialog.getByRole("row", { name: /5 shoreA .*in that order/ })).toBeVisible();
  await expect(page.getByRole("rowheader", { name: "Good pail" })).toHaveCount(0);
  await dialog.getByRole("button", { name: "Keep the 1 good ones" }).click();
  await expect(page.getByRole("rowheader", { name: "Good pail" })).toBeVisible();
  await expect(page.getByRole("rowheader", { name: "Upside down" })).toHaveCount(0);
});

test("a patch test goes from an unknown pair to its verdict", async ({ page }) => {
  // An unknown: a surface nobody has told us anything about.
  const putty = { kind: "surface", id: "x", name: "Attic putty", note: "", provenance: "", traits: [], cautions: [], copiedFrom: null, densityGMl: null };
  expect((await page.request.post("/api/materials", { data: putty })).status()).toBe(201);
  await startJob(page, "Attic find");
  await choose(page, "Made of", "Attic putty");
  await toStep(page, "Cast & rubber");
  await choose(page, "Which rubber?", "Platinum 20 A, 1:1, fast");
  await expect(page.getByTestId("tally-verdict")).toHaveText("Untested");
  await expect(page.getByTestId("save-state")).toHaveText("Saved");
  const job = page.url();
  await page.getByRole("button", { name: "Try a patch: Master against rubber" }).click();
  const dialog = page.getByRole("dialog", { name: "Patch test" });
  await expect(dialog).toContainText("Where it does not show");
  await expect(dialog).toContainText("no slime and no smear");
  await dialog.getByRole("button", { name: "It is on: start the clock" }).click();
  await expect(page.getByRole("heading", { name: "Patch test: Platinum 20 A, 1:1, fast on Attic putty" })).toBeVisible();
  await page.getByRole("radio", { name: "Came away clean and firm" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Too early to call it clean" })).toBeVisible();
  const png = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");
  await page.getByLabel("Add a photo").setInputFiles({ name: "patch.png", mimeType: "image/png", buffer: png });
  await expect(page.getByRole("img", { name: "Photo of this patch test" })).toBeVisible();
  await page.goto("/");
  await page.getByRole("link", { name: /Patch test.*Attic putty/ }).click();
  await page.getByLabel("Notes").fill("Slime all along the edge.");
  await page.getByRole("radio", { name: "Stayed tacky or slimy" }).click();
  await expect(page.getByText("Judged", { exact: true })).toBeVisible();
  await page.goto(job);
  await page.reload();
  await expect(page.getByTestId("tally-verdict")).toHaveText("Do not");
  await expect(page.getByText("Your own patch test of this very pair stayed tacky.").first()).toBeVisible();
});

test("the job sheet carries amounts, cut list, contacts and cautions to paper", async ({ page }) => {
  await page.goto("/jobs/demo-crater-lamp-base");
  await page.getByRole("link", { name: "Job sheet to print" }).click();
  await expect(page.getByRole("heading", { name: "Crater lamp base", level: 1 })).toBeVisible();
  const part = (name: RegExp) => page.locator("section").filter({ has: page.getByRole("heading", { name }) });
  // Each caution where it bites: gloves with the rubber, wet cement with the casting.
  await expect(part(/^At the bench/)).toContainText("Wear gloves");
  await expect(part(/^At the bench/)).toContainText("3540 g");
  await expect(part(/^Cast: General concrete/)).toContainText("Wet cement is alkaline and burns");
  await expect(part(/^Cast: General concrete/)).toContainText("Dry mix");
  await expect(part(/^Cut list/)).toContainText("Wrap strip");
  await expect(page.getByText(/follow local codes and licensed practice/)).toBeVisible();
  await expect(page.getByRole("heading", { name: "What really happened" })).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation", { name: "Screens" })).toBeHidden();
});
