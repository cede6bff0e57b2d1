import { choose, expect, saved, Server, startJob, test, toStep } from "./workshop";

const KINDS = [
  "Tile or plaque",
  "Bowl or planter",
  "Figure",
  "Bust or head",
  "Round turned thing",
  "Candle",
  "Small metal piece",
  "Knob or handle",
  "Leaf",
  "Large panel",
  "Plain block, for blanks",
  "Food bar",
];

test("each of twelve kinds gives its grams in at most four answers, and says what it assumed", async ({ page }) => {
  test.setTimeout(180_000);
  for (const kind of KINDS) {
    await page.goto("/start");
    let answers = 1;
    await page.getByRole("button", { name: new RegExp(`^${kind}`) }).click();
    await expect(page.getByRole("heading", { name: kind })).toBeVisible();
    const sizes = page.locator("main form").getByRole("textbox");
    // The last field is the name, which can wait.
    const n = (await sizes.count()) - 1;
    for (let i = 0; i < n; i++) {
      answers++;
      await sizes.nth(i).fill(["90", "60", "40"][i] ?? "40");
    }
    await page.getByRole("button", { name: "Show me the grams" }).click();
    await expect(page.getByTestId("tally-rubber")).toHaveText(/\d/);
    await expect(page.getByTestId("tally-cast")).toHaveText(/\d/);
    expect([kind, answers <= 4]).toEqual([kind, true]);
    await expect(page.getByRole("region", { name: "Assumed" })).toBeVisible();
  }
});

test("what is assumed can be argued with, or agreed to; a size that is missing is named and nothing is lost", async ({ page }) => {
  await page.goto("/start");
  await page.getByRole("button", { name: /^Tile or plaque/ }).click();
  await page.getByRole("textbox", { name: "Length" }).fill("100");
  await page.getByRole("textbox", { name: "Thickness over all" }).fill("15");
  await page.getByRole("button", { name: "Show me the grams" }).click();
  await expect(page.getByText("Width is still missing.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Length" })).toHaveValue("100");
  await page.getByRole("textbox", { name: "Width" }).fill("100");
  await page.keyboard.press("Enter");
  const assumed = page.getByRole("region", { name: "Assumed" });
  await expect(assumed.getByRole("button", { name: /opens as Open-faced block/ })).toBeVisible();
  await assumed.getByRole("button", { name: /opens as/ }).click();
  await expect(page.getByRole("heading", { name: "3. Opening" })).toBeVisible();
  await choose(page, "How it opens", "Two parts, clay parting");
  await expect(assumed).toHaveCount(0);
  await toStep(page, "Rubber");
  await expect(assumed.getByRole("button", { name: /opens as/ })).toHaveCount(0);
  await expect(assumed.getByRole("button", { name: /cast in/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(assumed.getByRole("button", { name: /opens as/ })).toHaveCount(0);
  await assumed.getByRole("button", { name: "All of it is so" }).click();
  await expect(assumed).toHaveCount(0);
});

test("like an earlier job: its piece, mould and mix under a name of its own", async ({ page }) => {
  await page.goto("/start");
  await page.getByRole("combobox", { name: "Take its piece, mould and mix" }).click();
  await page.getByRole("option", { name: "Comet drawer pull", exact: true }).click();
  await expect(page.getByLabel("Name of the job")).toHaveValue("Comet drawer pull, again");
  await expect(page.getByTestId("tally-rubber")).toHaveText(/\d/);
});

test("the drawing of a new job takes its card as soon as there is something to draw", async ({ page }) => {
  await startJob(page, "Puck");
  await toStep(page, "Master");
  for (const [name, value] of [
    ["Length", "80"],
    ["Width", "60"],
    ["Height", "30"],
  ] as const)
    await page.getByRole("textbox", { name, exact: true }).fill(value);
  const card = page.getByRole("region", { name: "Section drawing" });
  const drawn = card.locator("svg[role=group]");
  await expect(drawn).toBeVisible();
  const share = async () => ((await drawn.boundingBox())?.width ?? 0) / ((await card.boundingBox())?.width ?? 1);
  await expect.poll(share).toBeGreaterThan(0.9);
});

test("the demo workshop is left for an empty one that explains itself, and come back to", async ({ browser }) => {
  const own = new Server();
  own.loadDemo();
  await own.start();
  const page = await browser.newPage({ baseURL: own.url });
  try {
    await page.goto("/settings");
    await page.getByRole("button", { name: "Begin an empty workshop" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Begin an empty one" }).click();
    await expect(page.getByText(/No job yet\. Take the thing you want to copy/)).toBeVisible();
    await page.getByRole("link", { name: "Go back to the workshop that was put aside" }).click();
    await page.getByRole("button", { name: "Open this one" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Open it" }).click();
    await expect(page.getByText("Perigee Yard").first()).toBeVisible();
    await page.goto("/");
    await expect(page.getByRole("link", { name: /Crater lamp base/ }).first()).toBeVisible();
  } finally {
    await page.close();
    await own.remove();
  }
});
