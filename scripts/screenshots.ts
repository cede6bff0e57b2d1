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

/** Puts a batch of something on the bench, weighs it as it is wanted, and starts its clock: what is done from then on. */
const doing =
  (what: RegExp) =>
  async (page: Page): Promise<void> => {
    await page.getByRole("button", { name: what }).first().click();
    const on = page.getByRole("button", { name: "Do it all the same" });
    await page.waitForTimeout(1500);
    if (await on.isVisible()) await on.click();
    await page.waitForURL(/\/weigh\//);
    const id = new URL(page.url()).pathname.split("/").at(-1) ?? "";
    const open = page.getByRole("region", { name: "Stop before you wet or melt anything" }).locator("[role=checkbox][aria-checked=false]");
    await open.first().waitFor();
    for (let left = await open.count(); left > 0; left--) {
      await open.first().click();
      await page.waitForTimeout(300);
    }
    const { weighIn } = (await (await page.request.get(new URL(`/api/weigh/${id}`, page.url()).href)).json()) as {
      weighIn: { parts: { name: string; targetG: number }[] };
    };
    for (const p of weighIn.parts) {
      await page.getByRole("textbox", { name: `${p.name} in the cup`, exact: true }).fill(p.targetG.toFixed(1));
      await page.getByRole("button", { name: "Take what I typed" }).click();
    }
    await page.getByRole("button", { name: /: start the clock/ }).click();
    await page.waitForTimeout(1500);
    await page.evaluate(() => window.scrollTo(0, 0));
  };

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

async function compared(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Compare" }).click();
  await page.getByRole("combobox", { name: "The other opens as" }).click();
  await page.getByRole("option", { name: "Two parts, clay parting" }).click();
  await page.waitForTimeout(800);
}

/** Brings the photograph that is worked on into sight. */
async function seen(page: Page): Promise<void> {
  await page.getByRole("application", { name: /^Picture/ }).scrollIntoViewIfNeeded();
  await page.evaluate(() => window.scrollBy(0, 180));
  await page.waitForTimeout(800);
}

/** Turns the piece over in the round, with a pull tried on it. */
async function round(page: Page): Promise<void> {
  await page.getByRole("button", { name: "In the round" }).click();
  await page.waitForTimeout(2500);
  await page.getByRole("combobox", { name: "Halves part" }).click();
  await page.getByRole("option", { name: "Front and back" }).click();
  await page.waitForTimeout(2000);
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

/** Pours a narrow sprue until the metal fails. */
async function rehearsed(page: Page): Promise<void> {
  await page
    .getByTestId("panel")
    .getByRole("button", { name: /^Sprue, vents, funnel/ })
    .click();
  await page.getByRole("button", { name: "Rehearse the pour" }).click();
  await page.waitForTimeout(3000);
  await page.getByRole("button", { name: "Hold to pour" }).focus();
  await page.keyboard.down(" ");
  await page.waitForTimeout(4200);
}

const unfold =
  (title: string) =>
  async (page: Page): Promise<void> => {
    await page.getByTestId("panel").getByRole("button", { name: title }).first().click();
    await page.waitForTimeout(2500);
  };

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
  { name: "piece-round", path: "/jobs/demo-comet-modelled#master", act: round },
  { name: "job-dark", path: "/jobs/demo-dome-finial#opening", dark: true },
  { name: "compare", path: "/jobs/demo-dome-finial#rubber", act: compared },
  { name: "heat", path: "/jobs/demo-comet-drawer-pull#pairing", act: unfold("Heat") },
  { name: "job-sheet", path: "/jobs/demo-comet-drawer-pull/sheet" },
  { name: "fit", path: "/fit", act: worked },
  { name: "materials", path: "/materials" },
  { name: "logbook", path: "/log" },
  { name: "rehearsal", path: "/jobs/demo-comet-modelled#cast", act: rehearsed },
  { name: "mould", path: "/rack/demo-mould-10" },
  { name: "piece-air", path: "/jobs/demo-owl-bookend#master", act: airy },
  { name: "calendar", path: "/calendar", act: planned },
  { name: "weigh", path: "/jobs/demo-comet-drawer-pull#out", size: { width: 1024, height: 768 }, act: weighing, everything: true },
  { name: "weigh-metal", path: "/jobs/demo-comet-drawer-pull#out", act: doing(/^Weigh in comet pewter/), everything: true },
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
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await page.close();
  }
  await browser.close();
} finally {
  await server.remove();
}
