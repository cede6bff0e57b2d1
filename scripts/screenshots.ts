import { chromium, type Page } from "@playwright/test";
import { Server } from "./server";

/** Takes the pictures in docs/screenshots/ anew, from the demo workshop. */
const WIDE = { width: 1280, height: 800 };
type Size = { width: number; height: number };

/** Puts a batch on the bench, passes the hold-point, and pours some of its first part onto the practice scale. */
async function weighing(page: Page): Promise<void> {
  await page
    .getByRole("button", { name: /^Weigh in rubber/ })
    .first()
    .click();
  // Its rubber is past its date: it asks first.
  const on = page.getByRole("button", { name: "Do it all the same" });
  await page.waitForTimeout(1500);
  if (await on.isVisible()) await on.click();
  await page.waitForURL(/\/weigh\//);
  for (const box of await page.getByRole("region", { name: "Stop before you wet or melt anything" }).getByRole("checkbox").all()) await box.click();
  await page.getByRole("radio", { name: "Practice scale" }).click();
  const pan = async (grams: string) => {
    await page.getByLabel("Put on the pan").fill(grams);
    await page.getByRole("button", { name: "Put it on" }).click();
    await page.waitForTimeout(2500);
  };
  await pan("84");
  await page.getByRole("button", { name: "Tare: the cup is on" }).click();
  await pan("205");
  await page.evaluate(() => window.scrollTo(0, 0));
}

/** Waits until every pair's heat is worked out. */
async function worked(page: Page): Promise<void> {
  await page.getByText(/^Working out the heat/).waitFor({ state: "detached", timeout: 90_000 });
}

async function planned(page: Page): Promise<void> {
  await page.getByRole("checkbox", { name: "Comet drawer pull", exact: true }).check();
  await page.getByRole("checkbox", { name: "Dome finial", exact: true }).check();
  await page.waitForTimeout(4000);
}

/** Touches the clay on the drawing. */
const clay = (page: Page) => page.getByRole("list", { name: "On the drawing: ask about it" }).getByRole("button", { name: "Clay" }).click();

/** Brings the photograph that is worked on into sight. */
async function seen(page: Page): Promise<void> {
  await page.getByRole("application", { name: /^Picture/ }).scrollIntoViewIfNeeded();
  await page.evaluate(() => window.scrollBy(0, 180));
  await page.waitForTimeout(800);
}

/** Lays the piece on its side, filled below its top, so that air stays and a vent lets it out. */
async function airy(page: Page): Promise<void> {
  await page.getByRole("button", { name: "In the round" }).click();
  await page.getByRole("radio", { name: "Where air stays" }).click();
  await page.getByRole("button", { name: /^on its left: / }).click();
  await page.getByRole("radio", { name: "Fill here" }).click();
  await page.getByRole("application", { name: /in the round/ }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Vent what stays" }).waitFor();
  await page.waitForTimeout(2500);
}

/** Pours with the mould leant, and looks back at the moment at which air is shut in. */
async function rehearsed(page: Page): Promise<void> {
  await page
    .getByTestId("panel")
    .getByRole("button", { name: /^Sprue, vents, funnel/ })
    .click();
  await page.getByRole("button", { name: "Rehearse the pour" }).click();
  await page.waitForTimeout(3000);
  await page.getByRole("slider", { name: /^Lean it/ }).focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowRight");
  await page.waitForTimeout(3000);
  await page.getByRole("button", { name: "Hold to pour" }).focus();
  await page.keyboard.down(" ");
  await page.getByText(/\d+ of 100\./).waitFor({ timeout: 60_000 });
  await page.keyboard.up(" ");
  const voids = page.getByText(/^A void of/).first();
  await voids.getByRole("button", { name: "Show me" }).click();
  await page.waitForTimeout(1500);
}

/** The casting as it stands on its side while it is filled, in section, with the vents that let its air out. */
async function vented(page: Page): Promise<void> {
  await airy(page);
  await page.getByRole("button", { name: "Vent what stays" }).click();
  await page.waitForTimeout(2500);
  await page.getByRole("button", { name: "Along", exact: true }).click();
  await page.getByRole("tab", { name: "Casting" }).click();
  await page.waitForTimeout(1500);
}

/** Six tiles in one box, from above. */
async function board(page: Page): Promise<void> {
  await page
    .getByTestId("panel")
    .getByRole("button", { name: /^Several in one box/ })
    .click();
  await page.getByRole("textbox", { name: "Along the box", exact: true }).fill("3");
  await page.getByRole("textbox", { name: "Across it", exact: true }).fill("2");
  await page.getByRole("tab", { name: "Box" }).click();
  await page.getByRole("button", { name: "From above" }).click();
  await page.waitForTimeout(1500);
}

interface Shot {
  name: string;
  path: string;
  size?: Size;
  act?: (page: Page) => Promise<void>;
  dark?: boolean;
  /** On a device that shows what is folded. */
  everything?: boolean;
}

const SHOTS: readonly Shot[] = [
  { name: "bench", path: "/" },
  { name: "start", path: "/start" },
  { name: "job", path: "/jobs/demo-comet-drawer-pull#rubber", act: clay },
  { name: "piece-photographs", path: "/jobs/demo-owl-bookend#master", act: seen },
  { name: "job-dark", path: "/jobs/demo-owl-bookend#cast", act: vented, dark: true },
  { name: "job-sheet", path: "/jobs/demo-comet-drawer-pull/sheet" },
  { name: "fit", path: "/fit", act: worked },
  { name: "materials", path: "/materials" },
  { name: "logbook", path: "/log" },
  { name: "rehearsal", path: "/jobs/demo-comet-drawer-pull#cast", act: rehearsed },
  { name: "mould", path: "/rack/demo-mould-10" },
  { name: "piece-air", path: "/jobs/demo-owl-bookend#master", act: airy },
  { name: "calendar", path: "/calendar", act: planned },
  { name: "weigh", path: "/jobs/demo-comet-drawer-pull#out", size: { width: 1024, height: 768 }, act: weighing, everything: true },
  { name: "cupboard", path: "/cupboard" },
  { name: "to-buy", path: "/cupboard", act: (page) => page.getByRole("tab", { name: "Shopping list" }).click() },
  { name: "works", path: "/orders", act: (page) => page.getByRole("tab", { name: /^Works/ }).click() },
  { name: "board", path: "/jobs/demo-moon-phase-tile#master", act: board },
  { name: "phone", path: "/jobs/demo-constellation-bar#master", size: { width: 390, height: 844 } },
];

const server = new Server();
try {
  server.loadDemo();
  await server.start();
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium", args: ["--no-sandbox"] });
  for (const { name, path, size, act, dark, everything } of SHOTS) {
    const page = await browser.newPage({ viewport: size ?? WIDE, locale: "en-GB", colorScheme: dark ? "dark" : "light" });
    if (everything) await page.addInitScript(() => window.localStorage.setItem("zesty-everything", "yes"));
    await page.goto(server.url + path, { waitUntil: "networkidle" });
    // Heat is worked out beside the page.
    await page.waitForTimeout(name === "fit" ? 9000 : 2500);
    await act?.(page);
    await page.waitForTimeout(500);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await page.close();
  }
  await browser.close();
} finally {
  await server.remove();
}
