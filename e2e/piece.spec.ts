import { readFile } from "node:fs/promises";
import type { Locator, Page } from "@playwright/test";
import sharp from "sharp";
import type { Point } from "../core/body";
import { paint } from "../core/photo/fixtures/pictures";
import { moved } from "../core/mesh";
import { prismOn, ring, turnedSolid } from "../core/mesh/fixtures/solids";
import { binaryPly, binaryStl, modelXml, obj, package3mf, textStl } from "../shape/fixtures/files";
import { choose, expect, field, saved, testPiece as test, toStep } from "./workshop";

const file = (name: string, bytes: Uint8Array) => ({ name, mimeType: "application/octet-stream", buffer: Buffer.from(bytes) });
const start = async (page: Page, from: string) => {
  await page.goto("/start");
  await page.getByRole("button", { name: new RegExp(`^${from}`) }).click();
  await expect(page.getByRole("heading", { name: "1. Master" })).toBeVisible();
};
/** Opens the line that holds something; a step that has only just come may still be settling. */
const unfolded = async (page: Page, line: RegExp, what: Locator) =>
  expect(async () => {
    if (!(await what.isVisible())) await page.getByRole("button", { name: line }).click();
    await expect(what).toBeVisible({ timeout: 1500 });
  }).toPass();
const finial = turnedSolid(
  [
    [30, 0],
    [34, 4],
    [40, 25],
    [38, 50],
    [26, 72],
    [20, 80],
    [30, 92],
    [28, 120],
    [4, 133],
  ],
  96,
);
const volume = (page: Page) => page.getByTestId("answer");

test("a model becomes the piece: its true outline, its grams, and which way it leaves its mould", async ({ page }) => {
  await start(page, "From a model file");
  const pick = page.locator('input[type="file"]');
  await pick.setInputFiles(file("finial.stl", binaryStl(finial)));
  await expect(page.getByText("finial.stl")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/Two halves that part .* let all of it go|catch .* of its surface/)).toBeVisible();
  await expect(page.getByTestId("tally-rubber")).toHaveText(/\d/);
  const mm = (await volume(page).textContent())!;
  // The file does not say its unit: in centimetres it is a thousand times as much.
  await page.getByRole("radio", { name: "cm", exact: true }).click();
  // Read anew with all its layers: seconds on two slow cores.
  await expect(volume(page)).not.toHaveText(mm, { timeout: 30_000 });
  await page.getByRole("radio", { name: "mm", exact: true }).click();
  await expect(volume(page)).toHaveText(mm, { timeout: 30_000 });
  await saved(page);
  await page.reload();
  await toStep(page, "Master");
  await expect(volume(page)).toHaveText(mm);
});

test("each kind of file is read, and one that is damaged says what is wrong and loses nothing", async ({ page }) => {
  test.setTimeout(120_000);
  await start(page, "From a model file");
  const hoop = ring(40, 12, 48, 24);
  const pick = page.locator('input[type="file"]');
  for (const [name, bytes] of [
    ["hoop.obj", obj(hoop)],
    ["hoop.ply", binaryPly(hoop, true)],
    ["hoop.3mf", package3mf(modelXml(hoop))],
    ["hoop-text.stl", textStl(hoop)],
  ] as const) {
    await pick.setInputFiles(file(name, bytes));
    await expect(page.getByText(name)).toBeVisible({ timeout: 30_000 });
  }
  const before = (await volume(page).textContent())!;
  await pick.setInputFiles(file("broken.stl", binaryStl(hoop).slice(0, 2000)));
  await expect(page.getByText(/ends after .*cut off/)).toBeVisible();
  await expect(page.getByText("hoop-text.stl")).toBeVisible();
  await expect(volume(page)).toHaveText(before);
});

test("reading a large model can be stopped", async ({ page }) => {
  await start(page, "From a model file");
  await page.locator('input[type="file"]').setInputFiles(file("large.stl", binaryStl(ring(40, 12, 600, 300))));
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await expect(page.getByRole("button", { name: "Stop", exact: true })).toHaveCount(0);
  await expect(page.getByText("large.stl")).toHaveCount(0);
});

const JUG_HIGH = 180;
const jug = (z: number) => 45 + 18 * Math.sin((z / JUG_HIGH) * Math.PI * 1.6) * (1 - z / 400);

/** A picture of the jug, three points to a millimetre, over plain wood, as a camera would pack it. */
async function picture(): Promise<Buffer> {
  const [width, height] = [600, 700];
  const rows = Array.from({ length: 121 }, (_, i) => (JUG_HIGH * i) / 120);
  const at = (side: 1 | -1) => rows.map((z): Point => [width / 2 + side * 3 * jug(z), 620 - 3 * z]);
  const { picture: p } = paint({
    width,
    height,
    outline: [...at(1), ...at(-1).reverse()],
    tap: [300, 400],
    piece: (x) => [0.6 - x / 3000, 0.58 - x / 3000, 0.5 - x / 3000],
    round: () => [0.3, 0.17, 0.09],
    shadow: { light: 0.6, dx: 14, dy: 8, soft: 8 },
  });
  return sharp(Buffer.from(p.rgba), { raw: { width, height, channels: 4 } })
    .jpeg({ quality: 90 })
    .toBuffer();
}

test("a jug from two photographs, to its job sheet; its pictures stay with the job", async ({ page }) => {
  test.setTimeout(120_000);
  await start(page, "From photographs");
  for (const view of ["Front", "Side"]) {
    await page.getByRole("radio", { name: view, exact: true }).click();
    await page.locator('input[type="file"]').setInputFiles({ name: `${view}.jpg`, mimeType: "image/jpeg", buffer: await picture() });
    const board = page.getByRole("application", { name: /^Picture/ });
    await expect(board).toBeVisible();
    await board.focus();
    await page.keyboard.press("Enter");
    // Typed while the outline is still being looked for. The marks stand 360 points apart: 120 mm at three points to a millimetre.
    await field(page, "Between the two marks").fill("120 mm");
    await expect(page.getByRole("radio", { name: `${view} ✓` })).toBeVisible({ timeout: 30_000 });
    await field(page, "Camera stood away").fill("2 m");
    await page.keyboard.press("Tab");
  }
  let truth = 0;
  for (let i = 0; i < 1000; i++) truth += Math.PI * jug(((i + 0.5) * JUG_HIGH) / 1000) ** 2 * (JUG_HIGH / 1000);
  await saved(page);
  await expect
    .poll(async () => {
      const id = new URL(page.url()).pathname.split("/").at(-1)!;
      const { job } = await (await page.request.get(`/api/jobs/${id}`)).json();
      return Math.abs(job.master.photographs.volumeMl / (truth / 1000) - 1) < 0.05 && job.master.photographs.shots.length === 2;
    })
    .toBe(true);
  await page.reload();
  await page.getByRole("tab", { name: "Master", exact: true }).click();
  const kept = page.getByRole("list", { name: "Photographs it was measured from" });
  await expect(kept.getByRole("img")).toHaveCount(2);
  const type = await page.evaluate(
    async (of) => (await fetch(`/api/jobs/${of}/pictures/front`)).headers.get("content-type"),
    new URL(page.url()).pathname.split("/").at(-1),
  );
  expect(type).toBe("image/jpeg");
  await toStep(page, "Rubber");
  await page
    .getByRole("link", { name: /sheet|print/i })
    .first()
    .click();
  await expect(page).toHaveURL(/sheet/);
  await expect(page.getByText(/\d+ g/).first()).toBeVisible();
});

test("the piece in the round: turned by keys, a pull tried, cut through", async ({ page }) => {
  await start(page, "From a model file");
  await page.locator('input[type="file"]').setInputFiles(file("hoop.obj", obj(ring(40, 12, 48, 24))));
  await expect(page.getByText("hoop.obj")).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "In the round" }).click();
  const round = page.getByRole("application", { name: /in the round/ });
  await expect(round.locator("canvas")).toBeVisible();
  const look = async () => (await round.screenshot()).toString("base64");
  const first = await look();
  await round.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press("ArrowRight");
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowUp");
  expect(await look()).not.toBe(first);
  await choose(page, "Halves part", "Up and down");
  await expect(page.getByText("nothing is caught")).toBeVisible();
  await choose(page, "Halves part", "Left and right");
  await expect(page.getByText(/is caught, by up to 1\d/)).toBeVisible();
  const whole = await look();
  await page.getByRole("slider", { name: "Cut through, front to back" }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("PageDown");
  expect(await look()).not.toBe(whole);
});

test("an outline drawn by hand from above, to its height; a turned piece measured by tape", async ({ page }) => {
  await start(page, "From photographs");
  await page.getByRole("radio", { name: "From above", exact: true }).click();
  await page.locator('input[type="file"]').setInputFiles({ name: "top.jpg", mimeType: "image/jpeg", buffer: await picture() });
  await page.getByRole("radio", { name: "Draw by hand" }).click();
  const board = page.getByRole("application", { name: /^Picture/ });
  await board.scrollIntoViewIfNeeded();
  const box = (await board.boundingBox())!;
  // A square of half the picture's width: 300 of 600 points.
  for (const [x, y] of [
    [0.25, 0.2],
    [0.75, 0.2],
    [0.75, 0.2 + 300 / 700],
    [0.25, 0.2 + 300 / 700],
  ] as const)
    await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
  await expect(page.getByRole("slider", { name: "Point 4 of the outline" })).toBeVisible();
  await field(page, "Between the two marks").fill("120 mm");
  await field(page, "How high it stands").fill("20 mm");
  await page.keyboard.press("Tab");
  // 360 points are 120 mm, so the square is 100 mm: 200 mL.
  await expect(volume(page)).toHaveText(/(19\d|20\d) mL/);
  await page.getByRole("radio", { name: "Turned profile" }).click();
  await page.getByRole("button", { name: "Draw an outline to change" }).click();
  await page.getByRole("radio", { name: "Girth by tape" }).click();
  await field(page, "Girth of point 1").fill("314.16 mm");
  await page.keyboard.press("Tab");
  await page.getByRole("radio", { name: "Radius", exact: true }).click();
  await expect(field(page, "Radius of point 1")).toHaveValue("50");
});

test("a model imported, its pull chosen, a face marked: the advice changes; a hole becomes a plug", async ({ page }) => {
  test.setTimeout(90_000);
  await start(page, "From a model file");
  await page.locator('input[type="file"]').setInputFiles(file("finial.stl", binaryStl(finial)));
  await expect(page.getByText(/let all of it go|of its surface/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "In the round" }).click();
  const round = page.getByRole("application", { name: /in the round/ });
  await expect(round.locator("canvas")).toBeVisible();
  await choose(page, "Halves part", "Front and back");
  await expect(page.getByText(/^Seam \d/)).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText(/crosses where you want none/)).toHaveCount(0);
  // Seen from the side the seam runs down its middle: what is touched there is on it.
  await page.getByRole("button", { name: "Side", exact: true }).click();
  await page.getByRole("radio", { name: "No seam here" }).click();
  await round.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/of it crosses where you want none/)).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText(/^Turned \d+° the seam keeps off your marks/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Look at that" }).click();
  await expect(page.getByText(/crosses where you want none/)).toHaveCount(0, { timeout: 30_000 });
  // The mark is kept with the job.
  await saved(page);
  await page.reload();
  await page.getByRole("button", { name: "In the round" }).click();
  await page.getByRole("button", { name: "Wipe the marks" }).click();
  await expect(page.getByRole("button", { name: "Wipe the marks" })).toHaveCount(0);
});

test("measured by touch in the round, and laid on another face", async ({ page }) => {
  test.setTimeout(60_000);
  await start(page, "From a model file");
  await page.locator('input[type="file"]').setInputFiles(file("finial.stl", binaryStl(finial)));
  await expect(page.getByText(/let all of it go|of its surface/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "In the round" }).click();
  const round = page.getByRole("application", { name: /in the round, .* by 133 mm\./ });
  await expect(round.locator("canvas")).toBeVisible();
  await page.getByRole("button", { name: "Side", exact: true }).click();
  await page.getByRole("radio", { name: "Measure" }).click();
  await round.focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Enter");
  await expect(round.getByRole("status")).toHaveText(/^\d+(\.\d+)? mm$/);
  await page.getByRole("radio", { name: "Lay on a face" }).click();
  await round.focus();
  await page.keyboard.press("Enter");
  // Lying on its side it is no longer as tall as it was.
  await expect(page.getByRole("application", { name: /in the round/ })).not.toHaveAccessibleName(/by 133 mm\./, { timeout: 30_000 });
});

test("a handle joined on and a bore taken away; girths by tape; every way to open in a row", async ({ page }) => {
  test.setTimeout(60_000);
  await page.goto("/jobs/demo-moon-phase-tile");
  await toStep(page, "Master");
  await expect(volume(page)).toHaveText(/Volume of the master/);
  const before = (await volume(page).textContent())!;
  const add = page.getByRole("button", { name: "Add a part" });
  await unfolded(page, /^Joined on, taken away/, add);
  await add.click();
  await expect(volume(page)).not.toHaveText(before);
  const joined = (await volume(page).textContent())!;
  await page.getByRole("radio", { name: "Taken away" }).click();
  await expect(volume(page)).not.toHaveText(joined);
  await page.getByRole("button", { name: "Remove Part 1" }).click();
  await expect(volume(page)).toHaveText(before);
  await toStep(page, "Opening");
  await page.getByRole("button", { name: "All ways in a row" }).click();
  await expect(page.locator("li").filter({ hasText: "Take it" })).toHaveCount(10, { timeout: 20_000 });
  await page.getByRole("radio", { name: "Least rubber" }).click();
  const grams = await page.locator('[role="dialog"] ol .figure').allTextContents();
  const known = grams.filter((g) => /g$/.test(g)).map((g) => Number.parseFloat(g) * (g.endsWith("kg") ? 1000 : 1));
  expect(known.length).toBeGreaterThan(3);
  expect([...known].sort((a, b) => a - b)).toEqual(known);
  await page.getByRole("button", { name: "Take One-piece block, slit afterwards" }).click();
  await expect(page.getByRole("combobox", { name: "How it opens" })).toHaveText(/slit/);
  await toStep(page, "Master");
  const tape = page.getByRole("radio", { name: "Girths by tape" });
  await unfolded(page, /^Shape/, tape);
  await tape.click();
  await page.getByRole("button", { name: /near the back/ }).click();
  await page.getByRole("button", { name: /further up/ }).click();
  await expect(volume(page)).toHaveText(/\d/);
});

test("where air stays in the owl, which way up lets it out, and the map of its first coat", async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto("/jobs/demo-owl-bookend");
  await page.getByRole("button", { name: "In the round" }).click();
  await page.getByRole("radio", { name: "Where air stays" }).click();
  await expect(page.getByText("No air stays.")).toBeVisible({ timeout: 20_000 });
  // On its side its neck keeps some; filled where it is touched, below the top, it keeps more, until it is vented.
  await page.getByRole("button", { name: /^on its left: / }).click({ timeout: 30_000 });
  const stays = page.getByText(/of air stays/);
  await expect(stays).toBeVisible();
  const little = (await stays.textContent())!;
  await page.getByRole("radio", { name: "Fill here" }).click();
  await page.getByRole("application", { name: /in the round/ }).focus();
  await page.keyboard.press("Enter");
  await expect(stays).not.toHaveText(little);
  await page.getByRole("button", { name: "Vent what stays" }).click();
  await expect(page.getByText(/vents?, to the top of the funnel/)).toBeVisible();
  await saved(page);
  await page.getByRole("radio", { name: "First coat" }).click();
  await expect(page.getByText(/^Rubber poured round it shuts/)).toBeVisible();
  // How it stands, its sprue and its vents are kept with the job.
  await page.reload();
  await page.getByRole("button", { name: "In the round" }).click();
  await page.getByRole("radio", { name: "Where air stays" }).click();
  await expect(page.getByText(/Filled where you touched/)).toBeVisible({ timeout: 20_000 });
});

/** A hand as it grows: a palm 60 wide and 50 high, four fingers of their own lengths up from it, 24 thick. */
function hand() {
  const tall = [95, 108, 112, 90];
  const outline: [number, number][] = [
    [0, 0],
    [60, 0],
  ];
  for (let i = 3; i >= 0; i--) outline.push([16 * i + 12, 50], [16 * i + 12, tall[i]!], [16 * i, tall[i]!], [16 * i, 50]);
  const caps: [number, number, number][] = [];
  const foot = [...outline.keys()].filter((k) => k > 0 && outline[k]![1] <= 50);
  for (let k = 0; k + 1 < foot.length; k++) caps.push([0, foot[k]!, foot[k + 1]!]);
  for (let i = 0; i < 4; i++) caps.push([2 + 4 * i, 3 + 4 * i, 4 + 4 * i], [2 + 4 * i, 4 + 4 * i, 5 + 4 * i]);
  return moved(prismOn(outline, caps, 24), [
    [1, 0, 0],
    [0, 0, -1],
    [0, 1, 0],
  ]);
}

/** Opens the rehearsal of a casting, from its step. */
async function rehearsal(page: Page): Promise<Locator> {
  const open = page.getByRole("button", { name: "Rehearse the pour" });
  await unfolded(page, /^Sprue, vents, funnel/, open);
  await open.click();
  const pour = page.getByRole("button", { name: "Hold to pour" });
  await expect(pour).toBeVisible({ timeout: 20_000 });
  return pour;
}

test("a hand in resin is cast wrist up: fingers keep their air the other way, and drawing and order of work follow", async ({ page }) => {
  test.setTimeout(120_000);
  await start(page, "From a model file");
  await page.locator('input[type="file"]').setInputFiles(file("hand.stl", binaryStl(hand())));
  await expect(page.getByText(/let all of it go|of its surface/)).toBeVisible({ timeout: 30_000 });
  await toStep(page, "Cast & rubber");
  await choose(page, "What will you cast?", "Fast urethane resin");
  await toStep(page, "Opening");
  await choose(page, "How it opens", "Two parts, clay parting");
  await page.getByRole("button", { name: "In the round" }).click();
  await page.getByRole("radio", { name: "Where air stays" }).click();
  // Fingers up, filled at the longest: three keep their tips full of air.
  await expect(page.getByText(/of air stays/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: /^head down/ }).click({ timeout: 40_000 });
  await expect(page.getByText("No air stays.")).toBeVisible({ timeout: 20_000 });
  await saved(page);
  await toStep(page, "Opening");
  await expect(page.getByText(/Turn the banded mould over, to be filled through what was its floor/).first()).toBeVisible();
});

test("a mould is leaned while it fills and set straight again, and rubber is rehearsed before it is mixed", async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto("/jobs/demo-comet-drawer-pull");
  await toStep(page, "Cast");
  const pour = await rehearsal(page);
  const lean = page.getByRole("slider", { name: /^Lean it/ });
  await expect(lean).toBeVisible({ timeout: 20_000 });
  await lean.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowRight");
  await expect(page.getByText("20° right")).toBeVisible();
  await pour.hover();
  await page.mouse.down();
  // Some of it is in, then it is set straight with the hand still pouring.
  await expect(page.getByRole("img", { name: /The mould in section, [1-9]/ })).toBeVisible({ timeout: 20_000 });
  await lean.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowLeft");
  await expect(page.getByText("straight", { exact: true })).toBeVisible();
  await expect(page.getByText(/\d+ of 100\./)).toBeVisible({ timeout: 60_000 });
  await page.mouse.up();
  const file = page.waitForEvent("download");
  await page.getByRole("link", { name: "Keep this pour as a file" }).click();
  const kept = JSON.parse(await readFile(await (await file).path(), "utf8")) as { leanDeg: number; turns: { leanDeg: number; filledMl: number }[] };
  expect(kept.leanDeg).toBe(20);
  expect(kept.turns.at(-1)?.leanDeg).toBe(0);
  expect(kept.turns.at(-1)?.filledMl).toBeGreaterThan(0);
  // Anybody who opens it gets the same casting.
  const score = await page
    .getByText(/\d+ of 100\.$/)
    .first()
    .textContent();
  const text = JSON.stringify(kept);
  await page.reload();
  await rehearsal(page);
  await expect(pour).toBeVisible({ timeout: 20_000 });
  await page.getByLabel("Open a pour from a file").setInputFiles({ name: "wrong.json", mimeType: "application/json", buffer: Buffer.from("{}") });
  await expect(page.getByText(/^This file is no pour/)).toBeVisible();
  await page.getByLabel("Open a pour from a file").setInputFiles({ name: "rehearsal.json", mimeType: "application/json", buffer: Buffer.from(text) });
  await expect(page.getByText("As it was kept in the file, with its own cuts.")).toBeVisible({ timeout: 20_000 });
  expect(
    await page
      .getByText(/\d+ of 100\.$/)
      .first()
      .textContent(),
  ).toBe(score);

  await page.goto("/jobs/demo-owl-bookend");
  await toStep(page, "Rubber");
  await page.getByRole("button", { name: "Rehearse it" }).first().click();
  const dialog = page.getByRole("dialog", { name: "Rehearse the rubber" });
  await dialog.getByRole("button", { name: "Hold to pour" }).focus();
  await page.keyboard.down(" ");
  await expect(dialog.getByText("A good pour of rubber.")).toBeVisible({ timeout: 60_000 });
  await page.keyboard.up(" ");
});

test("rubber is poured into a box that leans: its side and height told, drawn so, poured so, and set down level in time", async ({ page, request }) => {
  test.setTimeout(150_000);
  await page.goto("/jobs/demo-owl-bookend");
  await toStep(page, "Opening");
  await choose(page, "How it opens", "Two parts, poured whole and cut");
  await toStep(page, "Rubber");
  await page.getByRole("button", { name: "Rehearse it" }).first().click();
  const dialog = page.getByRole("dialog", { name: "Rehearse the rubber" });
  const held = dialog.getByRole("region", { name: "How it is held" });
  await expect(held.getByText(/^It hangs by its sprue former from a bar/)).toBeVisible({ timeout: 20_000 });
  await held.getByText("The master on its head").click();
  await expect(held.getByText("It stands on its sprue former.")).toBeVisible();
  await held.getByRole("button", { name: "Which way shuts in least air?" }).click();
  const ways = held.getByRole("list", { name: "Ways to hold it" });
  await expect(ways.getByRole("button", { name: /^on its head, level/ })).toHaveAttribute("aria-pressed", "true", { timeout: 60_000 });
  await held.getByRole("slider", { name: "Wedged up" }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowRight");
  await expect(held.getByText(/Set it down level when the rubber stands/)).toBeVisible();

  // Nobody sets it down: what does not stay in runs over, and what stays sets aslant.
  const pour = dialog.getByRole("button", { name: "Hold to pour" });
  const lean = dialog.getByRole("slider", { name: "Lean the box" });
  await expect(lean).toHaveAttribute("aria-valuetext", "15 degrees to the right", { timeout: 20_000 });
  await dialog.getByRole("slider", { name: "Your hand pours, a second" }).focus();
  await page.keyboard.press("End");
  await pour.focus();
  await page.keyboard.down(" ");
  await page.waitForTimeout(1500);
  await page.keyboard.up(" ");
  await dialog.getByRole("button", { name: "Put the pot down" }).click();
  await expect(dialog.getByText(/It stands 15° aslant/)).toBeVisible();
  // Again, and set down level while it is poured.
  await pour.focus();
  await page.keyboard.down(" ");
  await page.waitForTimeout(1500);
  await page.keyboard.up(" ");
  await lean.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowLeft");
  await expect(lean).toHaveAttribute("aria-valuetext", "straight");
  await pour.focus();
  await page.keyboard.down(" ");
  await expect(dialog.getByText("A good pour of rubber.")).toBeVisible({ timeout: 60_000 });
  await page.keyboard.up(" ");
  await dialog.getByText("Into a closed box or jacket").click();
  await expect(dialog.getByText(/^Through a hole of/)).toBeVisible();
  await page.keyboard.press("Escape");

  // The drawing leans with it, is leant by its handle, and the order of work says how.
  await expect
    .poll(
      async () => ((await (await request.get("/api/jobs/demo-owl-bookend")).json()) as { job: { mould: { stands: unknown[]; onHead: boolean } } }).job.mould,
    )
    .toMatchObject({ onHead: true, stands: [{ part: "whole", leanDeg: 15, towardsDeg: 0 }] });
  await page.getByRole("tab", { name: "Rubber pour" }).click();
  const grip = page.getByRole("slider", { name: /^How it leans/ });
  await grip.focus();
  await page.keyboard.press("ArrowLeft");
  await expect(grip).toHaveAttribute("aria-valuenow", "-20");
  await expect(page.getByText(/First wedge the box up 20°, its right side low/).first()).toBeVisible();
});

test("the comet pull rehearsed: a narrow sprue freezes short, the sprue as proposed comes good, by keyboard", async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto("/jobs/demo-comet-drawer-pull");
  await toStep(page, "Cast");
  const pour = await rehearsal(page);
  await expect(pour).toBeVisible({ timeout: 20_000 });
  await page.getByRole("radio", { name: "A narrow sprue" }).click();
  await page.getByRole("slider", { name: "Sprue" }).focus();
  await page.keyboard.press("Home");
  await pour.focus();
  await page.keyboard.down(" ");
  await expect(page.getByText("Not a good casting.")).toBeVisible({ timeout: 60_000 });
  await page.keyboard.up(" ");
  await expect(page.getByText(/is missing: (it froze|its own skin held it)/).first()).toBeVisible();
  await expect(page.getByText(/^With the sprue opened to/)).toBeVisible();
  await page.getByRole("radio", { name: "As proposed" }).click();
  // The body fills as the section does; air leaves by the vent, and a crust grows from the mould's face.
  const round = page.getByRole("application", { name: /^The casting in the round, as it fills/ });
  const section = page.getByRole("img", { name: /^The mould in section/ });
  const coloured = (hex: string) =>
    section.evaluate(
      (c: HTMLCanvasElement, rgb) => {
        const { data } = c.getContext("2d")!.getImageData(0, 0, c.width, c.height);
        let n = 0;
        for (let i = 0; i < data.length; i += 4) if (rgb.every((v, k) => Math.abs(data[i + k]! - v) < 12)) n++;
        return n;
      },
      [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)),
    );
  const [BREATH, SOLID, MELT] = ["#5f8f88", "#42305c", "#8a6fae"];
  await expect(round).toBeVisible();
  await page.evaluate(() => new Promise((done) => setTimeout(done, 800)));
  const empty = await round.screenshot();
  expect(await coloured(MELT)).toBe(0);
  await pour.focus();
  await page.keyboard.down(" ");
  await expect(async () => expect(await coloured(BREATH)).toBeGreaterThan(3)).toPass({ intervals: [50] });
  await expect(page.getByText(/\d+ of 100\./)).toBeVisible({ timeout: 60_000 });
  await page.keyboard.up(" ");
  expect(await coloured(SOLID)).toBeGreaterThan(200);
  expect(await coloured(MELT)).toBeGreaterThan(1000);
  expect((await round.screenshot()).equals(empty)).toBe(false);
  await expect(page.getByText("A good casting.")).toBeVisible();
  await expect(page.getByText(/^Best so far at this: \d+ of 100/)).toBeVisible();
  // Each exercise says the best of it.
  await expect(page.getByRole("radio", { name: /^As proposed: \d+$/ })).toBeChecked();
  await expect(page.getByRole("radio", { name: /^A narrow sprue: \d+$/ })).not.toBeChecked();
  // And each piece of the demo how many of them came good; from there one goes to a harder one.
  const practice = page.getByRole("region", { name: "To practise on" });
  await expect(practice.getByRole("listitem").first()).toContainText("1 of 6 good");
  await expect(practice.getByRole("listitem").last()).toContainText("0 of 5 good");
  await practice.getByRole("link", { name: "Owl bookend" }).click();
  await expect(page.getByLabel("Name of the job")).toHaveValue("Owl bookend");
});
