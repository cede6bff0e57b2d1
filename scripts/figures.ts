import { gzipSync } from "node:zlib";
import { chromium, type Browser, type Locator, type Page } from "@playwright/test";
import { PIECE_KINDS, pieceKind, type PieceKind } from "../core/start";

// What the page costs a person: answers, acts, words and keys for each kind of piece, and what the drawing and the browser give back.

declare global {
  interface Window {
    /** What the page itself counts while it is measured. */
    counted: { frames: number[]; longest: Map<number, number>; shifted: number };
  }
}

type Say = (what: string, measured: string, aim?: string) => void;
const SCREEN = { width: 1280, height: 800 };
const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN;
const share = (list: readonly number[], p: number): number => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * p))] ?? NaN;
const span = (list: readonly number[]): string => `${Math.min(...list)} to ${Math.max(...list)}, median ${median(list)}`;

const openPage = async (browser: Browser): Promise<Page> => (await browser.newContext({ viewport: SCREEN })).newPage();
const settled = (page: Page) => page.getByTestId("stage").waitFor();

/** Starts a kind of piece with the pointer and its sizes typed; how many answers it took to the first gram. */
async function start(page: Page, url: string, kind: PieceKind): Promise<{ answers: number; acts: number }> {
  await page.goto(`${url}/start`);
  const { label, asks } = pieceKind(kind);
  let acts = 0;
  const act = async (what: Promise<void>) => {
    acts++;
    await what;
  };
  await act(page.getByRole("button", { name: new RegExp(`^${label}`) }).click());
  const sizes = page.locator("main form").getByRole("textbox");
  for (const [i, a] of asks.entries()) await act(sizes.nth(i).fill(String(a.sampleMm)));
  await act(page.getByRole("button", { name: "Show me the grams" }).click());
  await settled(page);
  const grams = await page.getByTestId("tally-rubber").innerText();
  if (!/\d/.test(grams)) throw new Error(`${kind} gives no grams`);
  return { answers: 1 + asks.length, acts };
}

/** Logs every pour of the mould and one casting, each as poured just now; how many acts that took. */
async function logAll(page: Page): Promise<number> {
  let acts = 1;
  await page.getByRole("navigation", { name: "Steps of this job" }).getByRole("button", { name: /^9\./ }).click();
  // By its place: while a dialog asks, nothing behind it has a role.
  const stand = page.locator('section[aria-label="Where it stands"]');
  for (let i = 0; i < 60; i++) {
    if (await stand.getByText(/is in the mould/).count()) return acts;
    const before = await stand.innerText();
    await page
      .getByTestId("panel")
      .getByRole("button", { name: /^Poured .*: log it$/ })
      .first()
      .click();
    acts++;
    const allTheSame = page.getByRole("button", { name: "Do it all the same" });
    for (let waited = 0; waited < 100 && (await stand.innerText()) === before; waited++) {
      if (await allTheSame.count()) {
        await allTheSame.click();
        acts++;
      }
      await page.waitForTimeout(50);
    }
  }
  throw new Error("The casting was never logged.");
}

/** Tabs on until an element has the focus; how many keys that took. */
async function tabTo(page: Page, to: Locator): Promise<number> {
  for (let keys = 1; keys < 200; keys++) {
    await page.keyboard.press("Tab");
    if (await to.evaluate((e) => e === document.activeElement).catch(() => false)) return keys;
  }
  throw new Error("It cannot be reached by Tab.");
}

/** The same piece from the bench to a logged pour of rubber without a pointer: keys pressed. */
async function byKeys(page: Page, url: string, kind: PieceKind): Promise<number> {
  const { label, asks } = pieceKind(kind);
  await page.goto(url);
  await page.getByRole("heading", { level: 1 }).waitFor();
  await page.waitForTimeout(300);
  let keys = 1;
  await page.keyboard.press("n");
  const button = page.getByRole("button", { name: new RegExp(`^${label}`) });
  await button.waitFor();
  keys += (await tabTo(page, button)) + 1;
  await page.keyboard.press("Enter");
  const sizes = page.locator("main form").getByRole("textbox");
  await sizes.first().waitFor();
  for (const [i, a] of asks.entries()) {
    const at = sizes.nth(i);
    if (!(await at.evaluate((e) => e === document.activeElement))) keys += await tabTo(page, at);
    await page.keyboard.type(String(a.sampleMm));
    keys += String(a.sampleMm).length;
  }
  keys++;
  await page.keyboard.press("Enter");
  await settled(page);
  keys++;
  await page.keyboard.press("9");
  const log = page
    .getByTestId("panel")
    .getByRole("button", { name: /^Poured .*: log it$/ })
    .first();
  await log.waitFor();
  keys += (await tabTo(page, log)) + 1;
  await page.keyboard.press("Enter");
  const anyway = page.getByRole("button", { name: "Do it all the same" });
  await page.waitForTimeout(400);
  if (await anyway.count()) {
    keys += (await tabTo(page, anyway)) + 1;
    await page.keyboard.press("Enter");
  }
  return keys;
}

/** Words that are seen in the nine panels of a job, nothing unfolded. */
async function words(page: Page): Promise<number> {
  let sum = 0;
  for (const step of await page.getByRole("navigation", { name: "Steps of this job" }).getByRole("button").all()) {
    await step.click();
    await page.waitForTimeout(150);
    sum += (await page.getByTestId("panel").innerText()).split(/\s+/).length;
  }
  return sum;
}

async function kinds(browser: Browser, url: string, say: Say): Promise<void> {
  const all: { answers: number; acts: number; words: number; keys: number; share: number }[] = [];
  for (const kind of PIECE_KINDS) {
    const page = await openPage(browser);
    const begun = await start(page, url, kind);
    const card = await page.getByRole("region", { name: "Section drawing" }).boundingBox();
    // A finished job is one nobody argues with any more.
    await page.getByRole("button", { name: "All of it is so" }).click();
    begun.acts++;
    const told = await words(page);
    const logged = await logAll(page);
    const keys = await byKeys(page, url, kind);
    all.push({
      answers: begun.answers,
      acts: begun.acts + logged,
      words: told,
      keys,
      share: Math.round((100 * (card?.width ?? 0) * (card?.height ?? 0)) / (SCREEN.width * SCREEN.height)),
    });
    console.error(kind, JSON.stringify(all.at(-1)));
    await page.context().close();
  }
  const of = (key: keyof (typeof all)[number]) => all.map((k) => k[key]);
  say("answers to the first gram, twelve kinds", span(of("answers")), "at most 4");
  say("acts from the start to every pour of the mould and a casting in the log", span(of("acts")));
  say("words seen in all nine panels of a job that is agreed to", span(of("words")), "under 600");
  say("keys from the bench to the first pour in the log", span(of("keys")), "under 150");
  say("share of the screen the drawing has, %", span(of("share")));
}

/** Counts the time from frame to frame from now on. As text: what compiles this file names its functions, and the page knows no such helper. */
const countFrames = (page: Page): Promise<unknown> =>
  page.evaluate(`
    window.counted = { frames: [], longest: new Map(), shifted: 0 };
    let last = performance.now();
    requestAnimationFrame(function tick(now) {
      window.counted.frames.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    });`);

/** A pour rehearsed while it runs: the section and the body fill. */
async function rehearsing(browser: Browser, url: string, say: Say): Promise<void> {
  for (const id of ["demo-comet-drawer-pull", "demo-comet-modelled"]) {
    const page = await openPage(browser);
    await page.goto(`${url}/jobs/${id}#cast`, { waitUntil: "networkidle" });
    await settled(page);
    await page
      .getByTestId("panel")
      .getByRole("button", { name: /^Sprue, vents, funnel/ })
      .click();
    await page.getByRole("button", { name: "Rehearse the pour" }).first().click();
    const pour = page.getByRole("button", { name: "Hold to pour" });
    await pour.waitFor({ timeout: 30_000 });
    await page.waitForTimeout(1500);
    await pour.focus();
    await page.keyboard.down(" ");
    await countFrames(page);
    await page.waitForTimeout(4000);
    const frames = (await page.evaluate(() => window.counted.frames)).slice(3);
    await page.keyboard.up(" ");
    say(
      `a pour rehearsed in ${id} in Chromium, drawn by the processor, from frame to frame`,
      `median ${median(frames).toFixed(1)} ms, p95 ${share(frames, 0.95).toFixed(1)} ms`,
      "60 frames a second, or fewer parts",
    );
    await page.context().close();
  }
}

async function dragging(browser: Browser, url: string, say: Say): Promise<void> {
  for (const id of ["demo-crater-lamp-base", "demo-comet-drawer-pull"]) {
    const page = await openPage(browser);
    await page.goto(`${url}/jobs/${id}#rubber`, { waitUntil: "networkidle" });
    await settled(page);
    const box = await page.locator('[data-grip="wall"]').boundingBox();
    if (!box) throw new Error("The wall has no handle.");
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await countFrames(page);
    for (let i = 1; i <= 90; i++) await page.mouse.move(x + 30 * Math.sin(i / 9), y);
    await page.mouse.up();
    const frames = (await page.evaluate(() => window.counted.frames)).slice(3);
    say(
      `dragging the wall of ${id} in Chromium, from frame to frame`,
      `median ${median(frames).toFixed(1)} ms, p95 ${share(frames, 0.95).toFixed(1)} ms`,
      "median under 16.7 ms",
    );
    await page.context().close();
  }
}

/** What is done in a sitting at a job, and how long the page takes to show that it heard. */
async function interactions(browser: Browser, url: string, say: Say): Promise<void> {
  const page = await openPage(browser);
  await page.addInitScript(() => {
    const longest = new Map<number, number>();
    new PerformanceObserver((list) => {
      for (const e of list.getEntries() as (PerformanceEntry & { interactionId?: number })[])
        if (e.interactionId) longest.set(e.interactionId, Math.max(longest.get(e.interactionId) ?? 0, e.duration));
    }).observe({ type: "event", durationThreshold: 16, buffered: true } as PerformanceObserverInit);
    window.counted = { frames: [], longest, shifted: 0 };
  });
  await page.goto(`${url}/jobs/demo-comet-drawer-pull#master`, { waitUntil: "networkidle" });
  await settled(page);
  let done = 0;
  const click = async (what: Locator) => {
    done++;
    await what.click();
    await page.waitForTimeout(120);
  };
  for (const step of await page.getByRole("navigation", { name: "Steps of this job" }).getByRole("button").all()) await click(step);
  for (const tab of await page.getByRole("tablist", { name: "Shown on the drawing" }).getByRole("tab").all()) await click(tab);
  for (const view of ["Across", "From above", "Along"]) await click(page.getByRole("button", { name: view, exact: true }));
  for (const stuff of await page.getByRole("list", { name: "On the drawing: ask about it" }).getByRole("button").all()) await click(stuff);
  const grip = page.locator('[data-grip="wall"]');
  await grip.focus();
  for (let i = 0; i < 12; i++) {
    done++;
    await page.keyboard.press(i % 2 ? "ArrowLeft" : "ArrowRight");
    await page.waitForTimeout(80);
  }
  const heard = await page.evaluate(() => [...window.counted.longest.values()]);
  // What is not reported took less than the least that is.
  const all = [...heard, ...Array.from({ length: Math.max(0, done - heard.length) }, () => 16)];
  say(
    "interaction to next paint at a job",
    `p75 ${share(all, 0.75).toFixed(0)} ms, p98 ${share(all, 0.98).toFixed(0)} ms over ${all.length}`,
    "p75 under 100 ms",
  );
  await page.context().close();
}

async function shifts(browser: Browser, url: string, say: Say): Promise<void> {
  for (const path of ["/", "/start", "/jobs/demo-crater-lamp-base", "/jobs/demo-comet-drawer-pull#box", "/log", "/rack/demo-mould-10"]) {
    const page = await openPage(browser);
    await page.addInitScript(() => {
      window.counted = { frames: [], longest: new Map(), shifted: 0 };
      new PerformanceObserver((list) => {
        for (const e of list.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[])
          if (!e.hadRecentInput) window.counted.shifted += e.value;
      }).observe({ type: "layout-shift", buffered: true });
    });
    await page.goto(url + path, { waitUntil: "networkidle" });
    await page.waitForTimeout(800);
    const shifted = await page.evaluate(() => window.counted.shifted);
    say(`layout shift while ${path} loads`, shifted.toFixed(3), "under 0.02");
    await page.context().close();
  }
}

async function scripts(url: string, say: Say): Promise<void> {
  for (const [path, aim] of [
    ["/jobs/demo-crater-lamp-base", "under 200 kB"],
    ["/jobs/demo-crater-lamp-base/sheet", "under 200 kB"],
  ] as const) {
    const html = await (await fetch(url + path)).text();
    const files = new Set([...html.matchAll(/<script[^>]*\ssrc="([^"]+)"[^>]*>/g)].filter((m) => !/nomodule/i.test(m[0])).map((m) => m[1] ?? ""));
    let bytes = 0;
    for (const src of files) bytes += gzipSync(Buffer.from(await (await fetch(url + src)).arrayBuffer())).length;
    say(`first-load JavaScript of ${path}`, `${(bytes / 1000).toFixed(0)} kB gzipped in ${files.size} files`, aim);
  }
}

/** Every figure of the page, on a workshop of its own with the demo in it. */
export async function figures(url: string, say: Say): Promise<void> {
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium", args: ["--no-sandbox"] });
  try {
    await scripts(url, say);
    await shifts(browser, url, say);
    await dragging(browser, url, say);
    await rehearsing(browser, url, say);
    await interactions(browser, url, say);
    await kinds(browser, url, say);
  } finally {
    await browser.close();
  }
}
