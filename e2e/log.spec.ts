import { readFile } from "node:fs/promises";
import { choose, expect, test } from "./workshop";

test("the logbook is searched, filtered and read mould by mould", async ({ page }) => {
  await page.goto("/log");
  await expect(page.getByRole("status").filter({ hasText: /pours$/ })).toBeVisible();
  await page.getByRole("radio", { name: "Failed" }).click();
  await expect(page.getByText("3 pours")).toBeVisible();
  await page.getByLabel("Find in jobs, materials and notes").fill("pewter");
  await expect(page.getByText("2 pours")).toBeVisible();
  expect(new URL(page.url()).search).toBe("?text=pewter&outcome=failed");
  // What is on the screen goes out as a table.
  const [table] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "These as CSV" }).click()]);
  expect(table.suggestedFilename()).toBe("log.csv");
  const rows = (await readFile(await table.path(), "utf8")).split("\r\n");
  expect(rows).toHaveLength(3);
  expect(rows[1]).toContain("Comet pewter");
  await page.reload();
  await expect(page.getByLabel("Find in jobs, materials and notes")).toHaveValue("pewter");
  await page.getByLabel("Find in jobs, materials and notes").fill("no such words 100 %");
  await expect(page.getByText("No pour fits this")).toBeVisible();
  await page.goto("/log");
  await page
    .getByRole("region", { name: "Yield of each mould" })
    .getByRole("link", { name: /Comet drawer pull, mould 1/ })
    .click();
  await expect(page.getByText("4 pours")).toBeVisible();
  await page.getByRole("link", { name: "All moulds" }).click();
  await expect(page.getByRole("link", { name: "All moulds" })).toHaveCount(0);
});

test("an outcome can be taken back, and the clock runs on", async ({ page }) => {
  await page.goto("/");
  await page
    .getByRole("link", { name: /Crater lamp base: demould/ })
    .first()
    .click();
  await page.getByRole("radio", { name: "Good" }).click();
  await expect(page.getByRole("heading", { name: "Opened" })).toBeVisible();
  await page.getByRole("button", { name: "Not opened after all" }).click();
  await expect(page.getByRole("heading", { name: "On the clock" })).toBeVisible();
  await expect(page.getByRole("radio", { name: "Good" })).not.toBeChecked();
});

test("a job put away leaves the bench, not the log", async ({ page }) => {
  await page.goto("/jobs/demo-constellation-bar");
  await page.getByRole("button", { name: "Put this job away" }).click();
  await expect(page.getByText(/is put away; its log and moulds stay/)).toBeVisible();
  await expect(page.getByRole("link", { name: /Chocolate constellation bar/ })).toHaveCount(0);
  await page.goto("/log?text=constellation");
  await expect(page.getByText("3 pours")).toBeVisible();
});

test("a material taken out can be put back, and jobs that use it say so", async ({ page }) => {
  await page.goto("/materials");
  await page.getByRole("button", { name: "Copy Platinum 10 A, 1:1, soft and edit" }).click();
  await page.getByRole("dialog").getByLabel("Name", { exact: true }).fill("Soft pail");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("rowheader", { name: "Soft pail" })).toBeVisible();
  await page.goto("/jobs/demo-moon-phase-tile#pairing");
  await choose(page, "Which rubber?", "Soft pail");
  await expect(page.getByTestId("save-state")).toHaveText("Saved");
  await page.goto("/materials");
  await page.getByRole("button", { name: "Remove Soft pail" }).click();
  await expect(page.getByRole("rowheader", { name: "Soft pail" })).toHaveCount(0);
  await page.goto("/jobs/demo-moon-phase-tile#pairing");
  await expect(page.getByText("What was chosen here is no longer among the materials: choose another.").first()).toBeVisible();
  await page.getByRole("button", { name: "Undo (Ctrl+Z)" }).click();
  await expect(page.getByTestId("save-state")).toHaveText("Saved");
});
