import { chromium } from "@playwright/test";
import { Server } from "./server";

/** Takes the pictures in docs/screenshots/ anew, from the demo workshop. */
const WIDE = { width: 1280, height: 800 };
const SHOTS: [name: string, path: string, size?: { width: number; height: number }][] = [
  ["bench", "/"],
  ["job-pairing", "/jobs/demo-nebula-knob#pairing"],
  ["heat", "/jobs/demo-comet-drawer-pull#pairing", { width: 1280, height: 1500 }],
  ["chain", "/jobs/demo-nebula-knob#prepare"],
  ["fit", "/fit"],
  ["job-sheet", "/jobs/demo-crater-lamp-base/sheet"],
  ["job-opening", "/jobs/demo-dome-finial#opening"],
  ["job-strength", "/jobs/demo-crater-lamp-base#strength", { width: 1280, height: 1100 }],
  ["job-jacket", "/jobs/demo-dome-finial#box"],
  ["job-box", "/jobs/demo-comet-drawer-pull#box"],
  ["job-rubber", "/jobs/demo-comet-drawer-pull#rubber"],
  ["job-cast", "/jobs/demo-moon-phase-tile#cast"],
  ["job-out", "/jobs/demo-crater-lamp-base#out"],
  ["materials", "/materials"],
  ["logbook", "/log"],
  ["pour", "/log/demo-pour-08"],
  ["phone", "/jobs/demo-comet-drawer-pull#rubber", { width: 390, height: 844 }],
];

const server = new Server();
try {
  server.loadDemo();
  await server.start();
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium", args: ["--no-sandbox"] });
  for (const [name, path, size] of SHOTS) {
    const page = await browser.newPage({ viewport: size ?? WIDE, locale: "en-GB" });
    await page.goto(server.url + path, { waitUntil: "networkidle" });
    // Heat is worked out beside the page.
    await page.waitForTimeout(name === "fit" ? 9000 : 2500);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await page.close();
  }
  await browser.close();
} finally {
  await server.remove();
}
