import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { choose, expect, field, tickHold, testStock as test, toStep } from "./workshop";

// Two slow cores.
test.describe.configure({ timeout: 180_000 });

/** Puts a pack into the cupboard, as a person does. */
async function putIn(page: Page, pack: string, batch: string): Promise<void> {
  await page.getByRole("button", { name: "Put something in" }).click();
  const box = page.getByRole("dialog", { name: "Into the cupboard" });
  await box.getByRole("combobox", { name: "Which pack" }).click();
  await page.getByRole("option", { name: pack }).click();
  await box.getByRole("textbox", { name: "Number on the tubs" }).fill(batch);
  await box.getByRole("button", { name: "It stands there" }).click();
  await expect(box).toHaveCount(0);
}

const medium = (page: Page) => page.getByRole("region", { name: "Platinum 25 A, 1:1, medium" });

test("a planter from half-used kits: what to open, what to buy, what is weighed comes out of them, the rest into a small mould", async ({ page }) => {
  // A bowl in the medium rubber, and a knob that waits for the same.
  await page.goto("/start");
  await page.getByRole("button", { name: /^Bowl or planter/ }).click();
  const sizes = page.getByRole("main").getByRole("textbox");
  await sizes.nth(0).fill("120");
  await sizes.nth(1).fill("120");
  await sizes.nth(2).fill("80");
  await page.getByRole("textbox", { name: "Name, if you like" }).fill("Planter");
  await page.getByRole("button", { name: "Show me the grams" }).click();
  await expect(page.getByTestId("tally-rubber")).toHaveText(/\d/);
  await toStep(page, "Cast & rubber");
  await choose(page, "Rubber", "Platinum 25 A, 1:1, medium");
  await expect(page.getByTestId("save-state")).toHaveText("Saved");

  await page.goto("/cupboard");
  await expect(medium(page)).toContainText("Planter");
  for (const batch of ["K-1", "K-2", "K-3"]) await putIn(page, "Platinum 25 A, 1:1, medium: 1 kg kit", batch);
  await expect(medium(page).getByRole("button", { name: /^1 kg kit/ })).toHaveCount(4);
  await page
    .getByRole("button", { name: /^1 kg kit/ })
    .filter({ hasText: "sealed" })
    .first()
    .click();
  await page.getByRole("dialog").getByRole("radio", { name: "Part B" }).click();
  await page.getByRole("dialog").getByRole("textbox", { name: "The tub on the scale" }).fill("380");
  await page.getByRole("dialog").getByRole("textbox", { name: "The tub alone" }).fill("80");
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /^It is/ })
    .click();
  await expect(page.getByRole("dialog").getByText("300 g", { exact: true })).toBeVisible();
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();
  // What is opened already is used up first.
  await expect(medium(page)).toContainText(/Open first: 1 kg kit \(Shelf 1, right\)/);

  await page.getByRole("tab", { name: "Shopping list" }).click();
  await expect(page.getByText("All of it")).toBeVisible();
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "CSV" }).click()]);
  expect(file.suggestedFilename()).toBe("to-buy.csv");

  // A rest in the cup: the knob's mould takes it.
  await page.getByRole("tab", { name: "A rest left over" }).click();
  await choose(page, "Of what", "Platinum 25 A, 1:1, medium");
  await field(page, "In the cup").fill("4000");
  await page.getByRole("button", { name: "Where could it go?" }).click();
  await expect(page.getByRole("status").filter({ hasText: "poured on" })).toContainText("Planter");
  await field(page, "In the cup").fill("1");
  await page.getByRole("button", { name: "Where could it go?" }).click();
  await expect(page.getByText("Nothing that waits takes so little")).toBeVisible();
});

test("what is weighed at the bench comes out of its tub, and the pour says out of which", async ({ page }) => {
  await page.goto("/cupboard");
  const bag = page.getByRole("region", { name: "Casting plaster" }).getByRole("button", { name: /^25 kg bag/ });
  const before = (await bag.textContent())!;
  await page.goto("/jobs/demo-moon-phase-tile#out");
  await page
    .getByRole("button", { name: /^Weigh in casting plaster/i })
    .first()
    .click();
  const on = page.getByRole("button", { name: "Do it all the same" });
  await expect(async () => {
    if (await on.isVisible()) await on.click();
    expect(page.url()).toMatch(/\/weigh\//);
  }).toPass();
  await tickHold(page);
  const id = new URL(page.url()).pathname.split("/").at(-1)!;
  const view = (await (await page.request.get(`/api/weigh/${id}`)).json()) as { weighIn: { parts: { targetG: number }[]; cups: unknown[] } };
  const act = async (data: object) => expect((await page.request.post(`/api/weigh/${id}/acts`, { data })).ok()).toBe(true);
  const { parts, cups } = view.weighIn;
  for (let cup = 0; cup < cups.length; cup++)
    for (let part = 0; part < parts.length; part++) await act({ do: "weigh", cup, part, was: null, grams: parts[part]!.targetG / cups.length, way: "typed" });
  for (let cup = 0; cup < cups.length; cup++) for (const done of ["stir", "empty"]) await act({ do: done, cup });
  const { pourId } = (await (await page.request.post(`/api/weigh/${id}/finish`, { data: {} })).json()) as { pourId: string };
  await page.goto(`/log/${pourId}`);
  await expect(page.getByText("Out of", { exact: true })).toBeVisible();
  await page.goto("/cupboard");
  await expect(bag).not.toHaveText(before);
  await bag.click();
  await expect(page.getByRole("dialog").getByText(/Powder taken for Moon-phase tile/)).toBeVisible();
});

test("a brushing day: every tub to fill before the first is mixed, with its mark", async ({ page }) => {
  await page.goto("/cupboard");
  await page.getByRole("tab", { name: "Brushing day" }).click();
  await choose(page, "Which job", "Dome finial");
  const list = page.getByRole("region", { name: "Tubs for Dome finial" });
  await expect(list.getByText("1A", { exact: true })).toBeVisible();
  await expect(list.getByText("1B", { exact: true })).toBeVisible();
  await expect(list.getByText(/tubs of Platinum 30 A, 1:1, brushable/)).toBeVisible();
  await expect(list.getByText("Part A in all")).toBeVisible();
});

test("an order across two jobs: how many to pour, by when, and what has gone out", async ({ page }) => {
  await page.goto("/orders");
  await page.getByRole("button", { name: "Take an order" }).click();
  const box = page.getByRole("dialog", { name: "An order" });
  await box.getByRole("button", { name: "Keep the order" }).click();
  await expect(box.getByRole("alert")).toHaveText("Say for whom, or what for.");
  await box.getByRole("textbox", { name: "For whom, or what for" }).fill("The planetarium next door");
  await box.getByLabel("By the end of").fill("2027-06-30");
  await box.getByRole("button", { name: "Another piece" }).click();
  for (const [i, [piece, good]] of [
    ["Moon-phase tile", "5"],
    ["Crater lamp base", "2"],
  ].entries()) {
    await box.getByRole("combobox", { name: "Which piece" }).nth(i).click();
    await page.getByRole("option", { name: piece!, exact: true }).click();
    await box.getByRole("textbox", { name: "Good ones" }).nth(i).fill(good!);
  }
  await box.getByRole("button", { name: "Keep the order" }).click();
  const card = page.getByRole("article", { name: "The planetarium next door" });
  await expect(card).toContainText("In time, nine times in ten");
  await expect(card).toContainText("Crater lamp base");
  // Pressure pots hold one casting each: said of a piece, its days count with them.
  const mine = page.getByRole("dialog", { name: "This order" });
  const done = card.getByText(/^done by /);
  const free = await done.textContent();
  await card.getByRole("button", { name: "Change" }).click();
  await mine
    .getByRole("group", { name: "Crater lamp base" })
    .getByRole("textbox", { name: /^Boxes or jackets/ })
    .fill("1");
  await mine
    .getByRole("group", { name: "Crater lamp base" })
    .getByRole("checkbox", { name: /sets under pressure/ })
    .click();
  await expect(mine.getByText("1 pot, boxes as told")).toBeVisible();
  await mine.getByRole("button", { name: "Keep the order" }).click();
  await expect(mine).toBeHidden();
  await expect(done).toHaveText(free!);
  await card.getByRole("button", { name: "Change" }).click();
  await expect(mine.getByRole("group", { name: "Crater lamp base" }).getByRole("checkbox", { name: /sets under pressure/ })).toBeChecked();
  await page.keyboard.press("Escape");
  const sent = card.getByRole("button", { name: /gone out$/ }).first();
  const was = (await card.textContent())!;
  await sent.click();
  await expect(card).not.toHaveText(was);
  await page.getByRole("tab", { name: "Works in parts and editions" }).click();
  const work = page.getByRole("article", { name: /Reading corner/ });
  await expect(work).toContainText("1/12");
  await work.getByRole("textbox", { name: "Where it goes" }).fill("a reader by the sea");
  await work.getByRole("button", { name: "Give it number 2" }).click();
  await expect(work).toContainText("2/12 from before, to a reader by the sea");
});

test("several tiles in one box, an old mould without rubber to pour, and what a good one costs", async ({ page }) => {
  await page.goto("/start");
  await page.getByRole("button", { name: /^Tile or plaque/ }).click();
  const sizes = page.getByRole("main").getByRole("textbox");
  for (const [i, v] of ["60", "60", "10"].entries()) await sizes.nth(i).fill(v);
  await page.getByRole("checkbox", { name: "I have its mould already" }).click();
  await page.getByRole("button", { name: "Show me the grams" }).click();
  await expect(page.getByTestId("tally-cast")).toHaveText(/\d/);
  await toStep(page, "Pour & open");
  // Nothing of it is to be poured: a casting is next.
  await expect(page.getByText(/^Next:/)).toContainText(/plaster/i);
  await page.getByRole("button", { name: "Costs" }).click();
  await expect(page.getByRole("dialog", { name: "What it costs" }).getByText("A good one costs")).toBeVisible();
  await page.getByRole("button", { name: "Close" }).click();
  await toStep(page, "Master");
  const box = field(page, "Along the box");
  await expect(box).toBeVisible();
  await box.fill("3");
  await field(page, "Across it").fill("2");
  await expect(page.getByRole("table", { name: /Middles on the board/ }).getByRole("row")).toHaveCount(7);
  await page.getByRole("button", { name: "From above" }).click();
});

test("cupboard and orders have no serious accessibility fault, and fit a phone", async ({ page }) => {
  for (const path of ["/cupboard", "/orders"]) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(path);
    for (const tab of await page.getByRole("tab").all()) {
      await tab.click();
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.filter((v) => v.impact === "serious" || v.impact === "critical").map((v) => `${path} ${place(v)}`)).toEqual([]);
    }
    await page.setViewportSize({ width: 390, height: 844 });
    await page.reload();
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
});

const place = (v: { id: string; nodes: { target: unknown[] }[] }) =>
  `${v.id} at ${v.nodes
    .map((n) => n.target.join(" "))
    .slice(0, 3)
    .join(", ")}`;
