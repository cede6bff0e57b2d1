import type { Page } from "@playwright/test";
import { choose, expect, field, saved, startJob, test, toStep } from "./workshop";

const LAMP = [
  [0, 95],
  [14, 95],
  [40, 82],
  [58, 64],
  [74, 48],
  [92, 40],
  [100, 33],
] as const;

/** Types a turned outline point by point, the top first so that heights never cross. */
async function outline(page: Page, points: readonly (readonly [number, number])[]): Promise<void> {
  await page.getByRole("radio", { name: "Turned profile" }).click();
  await page.getByRole("button", { name: "Draw an outline to change" }).click();
  for (let i = 3; i < points.length; i++) await page.getByRole("button", { name: "Add a point on top" }).click();
  for (let i = points.length; i > 0; i--) {
    const [z, r] = points[i - 1]!;
    await field(page, `Height of point ${i}`).fill(String(z));
    await field(page, `Radius of point ${i}`).fill(String(r));
  }
}

/** Words of a PDF, in reading order. */
async function pdfText(bytes: Buffer): Promise<string> {
  const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
  const doc = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: doc.numPages }, async (_, i) => {
      const { items } = await (await doc.getPage(i + 1)).getTextContent();
      return items.map((t) => ("str" in t ? t.str : "")).join(" ");
    }),
  );
  return pages.join(" ").replace(/\s+/g, " ");
}

test("the print view of a job and the file beside it say the same of its heat", async ({ page }) => {
  await page.goto("/jobs/demo-comet-drawer-pull/sheet");
  const sheet = page.getByRole("article");
  await expect(sheet.getByText("With care").first()).toBeVisible();
  const text = await pdfText(await (await page.request.get("/api/jobs/demo-comet-drawer-pull/make/job-sheet.pdf")).body());
  expect(text).toMatch(/with care/i);
  expect(text).not.toMatch(/untested/i);
  expect(await sheet.textContent()).not.toMatch(/untested/i);
});

test("the crater lamp base is designed from nothing to its job sheet, and concrete tells on soft walls", async ({ page }) => {
  const id = await startJob(page, "Rim lamp base");
  await outline(page, LAMP);
  await expect(page.getByText("1.64 L").first()).toBeVisible();
  await choose(page, "Made of", "Wood, sealed");
  await toStep(page, "Cast & rubber");
  await choose(page, "What will you cast?", "Casting plaster");
  await choose(page, "Which rubber?", "Platinum 10 A, 1:1, soft");
  await toStep(page, "Opening");
  await expect(page.getByRole("combobox", { name: "How it opens" })).toHaveText("Open-faced block");
  await expect(page.getByText("Lets go", { exact: true })).toBeVisible();
  await toStep(page, "Prepare");
  await choose(page, "Release", "Paste wax");
  await toStep(page, "Box");
  await choose(page, "Box", "Cylinder wrap");
  await field(page, "Wall, at least").fill("8");
  await field(page, "Cover").fill("15");
  await choose(page, "Built from", "Flexible plastic sheet, 1 mm");
  await expect(page.getByText(/The seam of the wrap carries/)).toBeVisible();

  await toStep(page, "Strength");
  await field(page, "Allowed at most").fill("0.7");
  const verdict = page.getByText("Close", { exact: true }).first();
  await expect(verdict).toBeVisible();
  await toStep(page, "Cast & rubber");
  await choose(page, "What will you cast?", "General concrete, fine");
  await toStep(page, "Strength");
  await expect(page.getByText("Bulges too far").first()).toBeVisible();
  await expect(page.getByText(/Make them thicker, put boards and straps round them/)).toBeVisible();
  await expect(page.getByLabel("On the drawing: ask about it").getByText(/bulge, drawn \d+ × too large/)).toBeVisible();
  const row = (name: RegExp) => page.getByRole("row", { name });
  await expect(row(/General concrete/)).toContainText("Bulges too far");
  await expect(row(/Beeswax/)).toContainText("Holds");

  // Dragging the wall takes the bulge down and the rubber up.
  const drag = page.getByRole("slider", { name: /Thickness of the walls/ });
  await expect(page.getByTestId("tally-rubber")).toHaveText(/\d g$/);
  const before = await page.getByTestId("tally-rubber").innerText();
  while (Number(await drag.getAttribute("aria-valuenow")) < 20) await drag.press("ArrowRight");
  await expect(page.getByText("Holds", { exact: true }).first()).toBeVisible();
  await expect(page.getByTestId("tally-rubber")).not.toHaveText(before);
  await expect(page.getByText(/Stands alone from [\d.]+ mm/)).toBeVisible();
  await saved(page);

  await page.getByRole("link", { name: "Job sheet to print" }).click();
  await expect(page.getByRole("heading", { name: "Order of work: open-faced block" })).toBeVisible();
  await expect(page.getByText("Walls bulge, standing alone")).toBeVisible();
  const pdf = await page.request.get(`/api/jobs/${id}/make/job-sheet.pdf`);
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  const text = await pdfText(await pdf.body());
  for (const words of [
    "Rim lamp base",
    "scale 1 : 2",
    "Wrap strip",
    "Pour the rubber to 115 mm",
    "Wet cement is alkaline",
    "What really happened",
    "Walls bulge, standing alone",
  ])
    expect(text).toContain(words);
});

test("a glove goes from coats to its job sheet", async ({ page }) => {
  const id = await startJob(page, "Dome finial");
  await outline(page, [
    [0, 22],
    [30, 26],
    [60, 14],
    [90, 20],
    [110, 8],
  ]);
  await choose(page, "Made of", "Wood, sealed");
  await toStep(page, "Cast & rubber");
  await choose(page, "What will you cast?", "Casting plaster");
  await choose(page, "Which rubber?", "Platinum 30 A, 1:1, brushable");
  await toStep(page, "Opening");
  await choose(page, "How it opens", "Glove, peeled off");
  await expect(page.getByText(/peel the glove off like a sock/)).toBeVisible();
  // Passing 26 mm out through 22 mm; and the head through the neck: a third again.
  await expect(page.getByTestId("answer")).toContainText("43 %");
  await field(page, "Coats in all").fill("5");
  await expect(page.getByText(/Coat 5, 1.6 mm/)).toBeVisible();
  await toStep(page, "Rubber");
  await expect(page.getByRole("heading", { name: /^Detail coat/ })).toBeVisible();
  await expect(page.getByText(/Takes the next coat from about/).first()).toBeVisible();
  await toStep(page, "Jacket");
  await expect(page.getByText(/A skin needs no box/)).toBeVisible();
  await saved(page);
  await page.goto(`/jobs/${id}/sheet`);
  await expect(page.getByRole("heading", { name: "Order of work: glove, peeled off" })).toBeVisible();
  await expect(page.getByRole("heading", { name: /^Coat 5/ })).toBeVisible();
});

test("a skin in sections gets its jacket, its bolts, its printed halves and its job sheet", async ({ page }) => {
  const id = await startJob(page, "Comet bust");
  await outline(page, [
    [0, 60],
    [40, 62],
    [80, 35],
    [120, 50],
    [160, 40],
    [180, 15],
  ]);
  await choose(page, "Made of", "Wood, sealed");
  await toStep(page, "Cast & rubber");
  await choose(page, "What will you cast?", "Casting plaster");
  await choose(page, "Which rubber?", "Platinum 30 A, 1:1, brushable");
  await toStep(page, "Opening");
  await choose(page, "How it opens", "Brushed skin in sections, with a jacket");
  // Sections meet rubber to rubber: without release they become one.
  await toStep(page, "Prepare");
  await expect(page.getByTestId("tally-verdict")).toHaveText("Do not");
  await choose(page, "Release", "Paste wax");
  await expect(page.getByTestId("tally-verdict")).not.toHaveText("Do not");
  await toStep(page, "Jacket");
  await expect(page.getByText(/does not keep its own shape/)).toBeVisible();
  await choose(page, "Jacket behind the rubber", "Plaster and cloth");
  await expect(page.getByTestId("answer")).toContainText("It has a waist, so two halves pull apart sideways");
  await toStep(page, "Opening");
  await page.getByRole("button", { name: "Name an undercut" }).click();
  await page.getByRole("radio", { name: "Left", exact: true }).click();
  await page.getByRole("button", { name: "Name an undercut" }).click();
  await toStep(page, "Jacket");
  await expect(page.getByTestId("answer")).toContainText("a part is pulled to each of those sides, and one covers the rest");
  await toStep(page, "Opening");
  await page.getByRole("button", { name: "Remove the undercut on the front" }).click();
  await page.getByRole("button", { name: "Remove the undercut on the left" }).click();
  await toStep(page, "Jacket");
  await page.getByRole("tablist", { name: "Shown on the drawing" }).getByRole("tab", { name: "Jacket" }).click();
  await expect(page.getByLabel("On the drawing: ask about it")).toContainText("Bolt");
  await page.getByRole("button", { name: /^Jacket 12 mm: change/ }).click();
  await page
    .getByRole("group", { name: /^Section/ })
    .locator("..")
    .getByRole("textbox", { name: "Jacket" })
    .fill("15");
  await expect(field(page, "Thick")).toHaveValue("15");
  await page.getByText("Files to cut and print from").click();
  await page.getByRole("button", { name: "How many parts and sheets?" }).click();
  await expect(page.getByText("2 printed parts")).toBeVisible();
  await expect(page.getByText("Every part fits the bed.")).toBeVisible();
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Jacket, 3MF" }).click()]);
  expect(file.suggestedFilename()).toBe("comet-bust-jacket.3mf");
  await toStep(page, "Strength");
  await expect(page.getByText("Held", { exact: true })).toBeVisible();
  await page.goto(`/jobs/${id}/sheet`);
  await expect(page.getByRole("heading", { name: "Jacket: plaster and cloth" })).toBeVisible();
  const text = await pdfText(await (await page.request.get(`/api/jobs/${id}/make/job-sheet.pdf`)).body());
  for (const words of [
    "Second part of the jacket",
    "Bolts along the flanges",
    "Section 2, high points and flanges",
    "reinforcing cloth",
    "The flange of the section before",
  ])
    expect(text).toContain(words);
});

test("plugs, inserts and a hollow casting are planned, drawn and refused in words", async ({ page }) => {
  const id = await startJob(page, "Shade ring");
  await field(page, "Length").fill("200");
  await field(page, "Width").fill("120");
  await field(page, "Height").fill("80");
  await choose(page, "Made of", "Wood, sealed");
  await toStep(page, "Cast & rubber");
  await choose(page, "What will you cast?", "General concrete, fine");
  await choose(page, "Which rubber?", "Platinum 25 A, 1:1, medium");
  await toStep(page, "Opening");
  await choose(page, "How it opens", "More parts, with loose plugs");
  await expect(page.getByText(/No plug is named yet/)).toBeVisible();
  await page.getByRole("button", { name: "Add a plug" }).click();
  await field(page, "Name").fill("Cable hole");
  await field(page, "Diameter").fill("10");
  await field(page, "Length").fill("60");
  await expect(page.getByText(/Cast cable hole into its hole/)).toBeVisible();
  await expect(page.getByLabel("On the drawing: ask about it")).toContainText("Loose plug");
  await toStep(page, "Strength");
  await expect(page.getByText(/60 mm long on 10 mm sags/)).toBeVisible();
  await choose(page, "Jacket or boards", "Boards or timber frame");
  await choose(page, "Boards cut from", "Plywood, 12 mm");
  await expect(page.getByText("Held", { exact: true })).toBeVisible();
  await page.getByText("Will it go where it has to").click();
  await page.getByRole("button", { name: "Check a shelf" }).click();
  await expect(page.getByText("Shelf: it goes.")).toBeVisible();
  await field(page, "carries").fill("2 kg");
  await expect(page.getByText("Shelf: no.")).toBeVisible();
  await toStep(page, "Cast");
  await page.getByRole("button", { name: "Add something that goes inside" }).click();
  await field(page, "Length").fill("300");
  await expect(page.getByText(/does not fit where it is put/)).toBeVisible();
  await field(page, "Length").fill("50");
  await choose(page, "Made of", "Rolled round in coats");
  await expect(page.getByText(/The mouth is 0 mm; rolled round by hand/)).toBeVisible();
  await expect(page.getByText("Comes back or is left")).toHaveCount(2);
  await expect(page.getByRole("region", { name: "Layer 1, coat 2 of 2" })).toContainText("Stays");
  // Each step of the route shows its own share of the order, and the stop before the pour names what goes in.
  await toStep(page, "Rubber");
  await expect(page.getByText(/Pour the second half to/)).toBeVisible();
  await toStep(page, "Pour & open");
  await expect(page.getByText(/1 × armature rod/)).toBeVisible();
  await saved(page);
  const sheets = await (await page.request.get(`/api/jobs/${id}/make/sheets.dxf`)).text();
  expect(sheets).toContain("Board, long");
  expect((await page.request.get(`/api/jobs/${id}/make/jacket.stl`)).status()).toBe(422);
  expect((await page.request.get(`/api/jobs/${id}/make/secrets.txt`)).status()).toBe(404);
});
