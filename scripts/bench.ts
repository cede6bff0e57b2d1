import { performance } from "node:perf_hooks";
import { gzipSync } from "node:zlib";
import { chromium } from "@playwright/test";
import { buildScene } from "../core/draw";
import { dossierOf, newJob, type Job } from "../core/record";
import { fitMatrix, standardHeat, wantsHeat } from "../core/fit";
import { Conduction, heatKey, heatStudy, type HeatStudy } from "../core/heat";
import { catalogueOf } from "../core/material";
import { tasksOf } from "../core/plan";
import { plan } from "../core/plan/plan";
import { solve, type Task } from "../core/schedule";
import { demoJobs, demoMaterials } from "../db/demo";
import { layerDefault } from "../core/mould";
import { withWall } from "../core/mould/trade";
import { benchPiece } from "./benchPiece";
import { fillCupboard, JOBS, LOTS } from "./benchStock";
import { figures } from "./figures";
import { openWorkshop, workshopFiles } from "../db/open";
import { Server } from "./server";
import { fillShelf, fillYear } from "./year";

const OPEN_PAGES = 50;
const RUBBERS = 3000;
const PAGES = [
  "/",
  "/jobs/demo-crater-lamp-base",
  "/fit",
  "/materials",
  "/log",
  "/log?text=crater",
  "/log?outcome=failed&page=20",
  "/log/demo-pour-02",
  "/log/demo-pour-11",
  "/rack",
  "/rack/demo-mould-10",
  "/calendar",
];

const rows: [string, string, string][] = [];
const say = (what: string, measured: string, aim = "") => {
  rows.push([what, measured, aim]);
  console.error(`${what}: ${measured}`);
};
const at = (sorted: readonly number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN;
const spread = (times: number[], unit: string): string => {
  times.sort((a, b) => a - b);
  return `p50 ${at(times, 0.5).toFixed(2)} ${unit}, p95 ${at(times, 0.95).toFixed(2)} ${unit}`;
};

function benchPlan(): void {
  const catalogue = catalogueOf(demoMaterials());
  const demo = demoJobs().map((d) => d.job);
  // Every demo job once more, its casting rolled in five coats and backed; a vessel keeps its lump.
  const layers = [
    { ...layerDefault, thicknessMm: 1, coats: 5 },
    { ...layerDefault, way: "laid" as const, thicknessMm: 2 },
  ];
  const layered = demo.map((job) => ({ ...job, inside: { ...job.inside, layers } }));
  for (const [what, jobs, aim] of [
    ["plan() of the demo jobs", demo, "well under 5 ms"],
    ["plan() of the same in six coats", layered, "median under 3 ms"],
  ] as const) {
    const once = () =>
      jobs.map((job) => {
        const t = performance.now();
        plan(dossierOf(job, catalogue));
        return performance.now() - t;
      });
    for (let i = 0; i < 100; i++) once();
    say(what, spread(Array.from({ length: 400 }, once).flat(), "ms"), aim);
  }
}

/** Dragging a wall: every frame is another wall, so nothing is known beforehand. Plan, stiffness and drawing together. */
function benchDrag(): void {
  const catalogue = catalogueOf(demoMaterials());
  const base = newJob("x");
  const flat: Job = {
    ...base,
    master: { ...base.master, shape: "box", sizes: { lengthMm: 220, widthMm: 130, heightMm: 90 } },
    rubberId: "own-dome-25",
    castId: "cast-concrete",
    boxId: "box-plywood-12",
  };
  const lamp = demoJobs().find((d) => d.id === "demo-crater-lamp-base")?.job ?? base;
  const skin: Job = { ...lamp, jacket: "plaster", mould: { ...lamp.mould, opening: "skin" } };
  for (const [what, job] of [
    ["block with flat walls", flat],
    ["block with round walls", lamp],
    ["brushed skin with its jacket", skin],
  ] as const) {
    let frame = 0;
    const once = () => {
      const wallMm = 6 + (frame++ % 400) * 0.1 + frame * 1e-6;
      const mould = withWall(job.mould, job.mould.opening === "skin" ? "skin" : "block", wallMm);
      const t = performance.now();
      const p = plan(dossierOf({ ...job, mould }, catalogue));
      buildScene({ plan: p, mould, stage: "cast", panelMm: 5 });
      return performance.now() - t;
    };
    for (let i = 0; i < 60; i++) once();
    say(`a frame of dragging the wall: ${what}`, spread(Array.from({ length: 300 }, once), "ms"), "16 ms: 60 frames a second");
  }
}

/** The same in the browser: the slider moved every frame, and how long each frame took. */
async function benchBrowserDrag(url: string): Promise<void> {
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium", args: ["--no-sandbox"] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${url}/jobs/demo-crater-lamp-base#strength`, { waitUntil: "networkidle" });
    const slider = page.getByRole("slider", { name: /Thickness of the walls/ });
    await slider.waitFor();
    const frames = await slider.evaluate(async (el) => {
      const times: number[] = [];
      let last = performance.now();
      for (let i = 0; i < 300; i++) {
        el.dispatchEvent(new KeyboardEvent("keydown", { key: i % 60 < 30 ? "ArrowRight" : "ArrowLeft", bubbles: true }));
        await new Promise((done) => requestAnimationFrame(done));
        const now = performance.now();
        if (i > 150) times.push(now - last);
        last = now;
      }
      return times;
    });
    say("the same in Chromium, from frame to frame", spread(frames, "ms"), "16.7 ms");
  } finally {
    await browser.close();
  }
}

/** The grid of verdicts of a shelf nobody has: how long until it stands in the browser. */
async function benchShelf(): Promise<void> {
  const shelf = new Server();
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium", args: ["--no-sandbox"] });
  try {
    shelf.loadDemo();
    fillShelf(shelf.folder, RUBBERS);
    await shelf.start();
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(shelf.url);
    const t = performance.now();
    await page.goto(`${shelf.url}/fit`);
    await page.getByRole("grid").waitFor();
    const stood = performance.now() - t;
    await page.getByText(/^Working out the heat/).waitFor({ state: "detached", timeout: 300_000 });
    say(
      `/fit with ${RUBBERS} own rubbers, until the grid stands; with all heat of the page`,
      `${(stood / 1000).toFixed(1)} s; ${((performance.now() - t) / 1000).toFixed(1)} s`,
    );
  } finally {
    await browser.close();
    await shelf.remove();
  }
}

/** The cupboard after years: how long its page takes to come, once what every job takes is known. */
async function benchCupboard(): Promise<void> {
  const shop = new Server();
  try {
    shop.loadDemo();
    const db = openWorkshop(workshopFiles(shop.folder));
    fillCupboard(db, Date.now());
    db.$client.close();
    await shop.start();
    const t = performance.now();
    for (;;) {
      const { pending } = (await (await fetch(`${shop.url}/api/stock`)).json()) as { pending: number };
      if (pending === 0) break;
    }
    const cold = performance.now() - t;
    const times: number[] = [];
    for (let i = 0; i < OPEN_PAGES; i++) {
      const from = performance.now();
      await (await fetch(`${shop.url}/cupboard`)).text();
      times.push(performance.now() - from);
    }
    say(
      `/cupboard with ${LOTS.toLocaleString("en")} packs and ${JOBS} jobs in hand; until all needs are known, from cold`,
      `${spread(times, "ms")}; ${(cold / 1000).toFixed(1)} s`,
      "p95 under 100 ms",
    );
  } finally {
    await shop.remove();
  }
}

/** One simulation of half an hour, and a matrix of 20 × 20 with its heat worked out from cold. */
function benchHeat(): void {
  const catalogue = catalogueOf(demoMaterials());
  const rubber = { kWMK: 0.25, rhoKgM3: 1200, cJKgK: 1300 };
  const tin = { kWMK: 50, rhoKgM3: 7000, cJKgK: 240, melt: { solidusC: 241, liquidusC: 245, latentJKg: 59_000, kLiquidWMK: 30, cLiquidJKgK: 250 } };
  const once = () => {
    const t = performance.now();
    new Conduction({
      symmetry: "plate",
      layers: [
        { thicknessMm: 5, substance: tin, initialC: 290 },
        { thicknessMm: 20, substance: rubber, initialC: 22 },
      ],
      inner: { kind: "insulated" },
      outer: { kind: "air", hWM2K: 8, ambientC: 22 },
    }).run(1800);
    return performance.now() - t;
  };
  for (let i = 0; i < 5; i++) once();
  say("30 minutes of heat on the default grid", spread(Array.from({ length: 40 }, once), "ms"), "under 100 ms");
  const many = {
    ...catalogue,
    rubbers: [...catalogue.rubbers, ...catalogue.rubbers].slice(0, 20).map((r, i) => ({ ...r, id: `r${i}` })),
    casts: [...catalogue.casts, ...catalogue.casts].slice(0, 20).map((c, i) => ({ ...c, id: `c${i}` })),
  };
  const t = performance.now();
  const studies = new Map<string, HeatStudy>();
  for (const r of many.rubbers)
    for (const c of many.casts) {
      if (!wantsHeat(r, c)) continue;
      const key = heatKey(standardHeat(r, c));
      if (!studies.has(key)) studies.set(key, heatStudy(standardHeat(r, c)));
    }
  fitMatrix(many, studies);
  say("matrix of 20 × 20 with computed heat, from cold", `${((performance.now() - t) / 1000).toFixed(1)} s for ${studies.size} studies`);
}

/** Calendars of one to three of the demo's largest jobs, as the page's worker looks for them. */
function benchSchedule(): void {
  const catalogue = catalogueOf(demoMaterials());
  const jobs = demoJobs();
  const waking = Array.from({ length: 28 }, (_, d): [number, number] => [d * 1440, d * 1440 + 900]);
  const of = (id: string): Task[] => {
    const job = jobs.find((j) => j.id === id)?.job;
    return job ? tasksOf(id, plan(dossierOf(job, catalogue)), { casts: 2, build: true, degas: true, degasMin: 5, pourGMin: 400 }) : [];
  };
  for (const ids of [
    ["demo-dome-finial"],
    ["demo-dome-finial", "demo-comet-drawer-pull"],
    ["demo-dome-finial", "demo-comet-drawer-pull", "demo-crater-lamp-base"],
  ]) {
    const tasks = ids.flatMap(of);
    const times: number[] = [];
    let proved = true;
    for (let i = 0; i < 12; i++) {
      const t = performance.now();
      const s = solve({ tasks, waking, hands: 1, pinned: new Map() });
      times.push(performance.now() - t);
      proved &&= s.ok && s.proved;
    }
    say(
      `calendar of ${ids.length} ${ids.length === 1 ? "job" : "jobs"}, ${tasks.length} steps`,
      `${spread(times, "ms")}${proved ? ", proved best" : ", not proved best"}`,
    );
  }
}

/** Fifty pages that ask for the clocks every five seconds, for half a minute. */
async function benchClocks(url: string): Promise<void> {
  const times: number[] = [];
  const until = performance.now() + 30_000;
  const page = async (i: number) => {
    await new Promise((done) => setTimeout(done, (i / OPEN_PAGES) * 5000));
    while (performance.now() < until) {
      const t = performance.now();
      const answer = await fetch(`${url}/api/clocks`);
      await answer.arrayBuffer();
      times.push(performance.now() - t);
      await new Promise((done) => setTimeout(done, 5000));
    }
  };
  await Promise.all(Array.from({ length: OPEN_PAGES }, (_, i) => page(i)));
  say(`clocks asked by ${OPEN_PAGES} open pages`, `${spread(times, "ms")}, ${times.length} answers`, "p95 under 100 ms");
}

async function benchPages(url: string): Promise<void> {
  for (const path of PAGES) {
    const times: number[] = [];
    for (let i = 0; i < 65; i++) {
      const t = performance.now();
      const answer = await fetch(url + path);
      await answer.text();
      if (!answer.ok) throw new Error(`${path} answered ${answer.status}`);
      if (i >= 5) times.push(performance.now() - t);
    }
    say(`page ${path}`, spread(times, "ms"), "p95 under 100 ms");
  }
}

async function benchOperations(url: string): Promise<void> {
  const asks: [string, unknown][] = [
    ["cast.batch", { castId: "cast-plaster", cavityMl: 250 }],
    ["plan", { job: demoJobs()[0]?.job }],
  ];
  for (const [name, body] of asks) {
    const until = performance.now() + 3000;
    let n = 0;
    const one = async () => {
      while (performance.now() < until) {
        const answer = await fetch(`${url}/api/operations/${name}`, { method: "POST", body: JSON.stringify(body) });
        await answer.arrayBuffer();
        if (!answer.ok) throw new Error(`${name} answered ${answer.status}`);
        n++;
      }
    };
    await Promise.all(Array.from({ length: 8 }, one));
    say(`operation ${name}, 8 at once`, `${Math.round(n / 3)} a second`);
  }
}

async function benchScripts(url: string): Promise<void> {
  const jobs = (await (await fetch(`${url}/api/jobs/demo-moon-phase-tile`)).json()) as { revision: number };
  const batch = (await (
    await fetch(`${url}/api/weigh`, { method: "POST", body: JSON.stringify({ jobId: "demo-moon-phase-tile", jobRevision: jobs.revision, kind: "rubber" }) })
  ).json()) as { id: string };
  for (const path of [
    "/",
    "/jobs/demo-crater-lamp-base",
    "/fit",
    "/materials",
    "/log",
    "/log/demo-pour-11",
    "/rack/demo-mould-10",
    "/calendar",
    "/settings",
    `/weigh/${batch.id}`,
  ]) {
    const html = await (await fetch(url + path)).text();
    const scripts = new Set([...html.matchAll(/<script[^>]*\ssrc="([^"]+)"[^>]*>/g)].filter((m) => !/nomodule/i.test(m[0])).map((m) => m[1] ?? ""));
    let bytes = 0;
    for (const src of scripts) bytes += gzipSync(Buffer.from(await (await fetch(url + src)).arrayBuffer())).length;
    say(`first-load JavaScript of ${path.replace(batch.id, "…")}`, `${(bytes / 1000).toFixed(0)} kB gzipped in ${scripts.size} files`, "at most 300 kB");
  }
}

/** What the page costs a person, on a workshop with nothing but the demo in it. */
async function benchFigures(): Promise<void> {
  const alone = new Server();
  try {
    alone.loadDemo();
    await alone.start();
    await figures(alone.url, say);
  } finally {
    await alone.remove();
  }
}

/** Everything, or only what the page costs a person, what reading a piece takes, or the cupboard: `npm run bench -- --page`, `-- --piece`, `-- --stock`. */
const onlyPage = process.argv.includes("--page");
const onlyPiece = process.argv.includes("--piece");
const onlyStock = process.argv.includes("--stock");

const server = new Server();
try {
  if (!onlyPage && !onlyStock) await benchPiece(say);
  if (!onlyPiece && !onlyStock) await benchFigures();
  if (!onlyPage && !onlyPiece) await benchCupboard();
  if (!onlyPage && !onlyPiece && !onlyStock) await benchRest();
} finally {
  await server.remove();
}

async function benchRest(): Promise<void> {
  benchPlan();
  benchDrag();
  benchHeat();
  benchSchedule();
  fillYear(server.folder, { jobs: 1000, pours: 20_000 });
  await server.start();
  await benchPages(server.url);
  await benchClocks(server.url);
  await benchBrowserDrag(server.url);
  await benchOperations(server.url);
  await benchScripts(server.url);
  await benchShelf();
}
console.log("\n| what | measured | aim |\n| --- | --- | --- |");
for (const row of rows) console.log(`| ${row.join(" | ")} |`);
