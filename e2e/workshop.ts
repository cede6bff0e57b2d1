import { test as base, expect, type Page } from "@playwright/test";
import { Server } from "../scripts/server";

const withServer = () =>
  base.extend<{ everything: boolean }, { server: Server }>({
    // Most tests reach for what stands behind a line; those of the page itself see it as a newcomer does.
    everything: [true, { option: true }],
    context: async ({ context, everything }, give) => {
      if (everything) await context.addInitScript(() => window.localStorage.setItem("zesty-everything", "yes"));
      await give(context);
    },
    server: [
      // The name of the first argument is fixed by the test runner.
      async ({}, give) => {
        const server = new Server();
        server.loadDemo();
        await server.start();
        await give(server);
        await server.remove();
      },
      { scope: "worker", timeout: 60_000 },
    ],
    baseURL: async ({ server }, give) => give(server.url),
  });

/** Tests on the demo workshop share one server per worker; those that kill or break one start their own. */
export const test = withServer();
/** The same on servers of their own, for tests that write into the log what others count. */
export const testApart = withServer();
export const testAfter = withServer();
export const testStage = withServer();
export const testPiece = withServer();
export const testStock = withServer();

export { expect, Server };

/** Starts a job from the bench, as a person does. */
export async function startJob(page: Page, name: string): Promise<string> {
  await page.goto("/");
  await page.getByRole("link", { name: "Start a job" }).first().click();
  await page.getByLabel("What are you making?").fill(name);
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByLabel("Name of the job")).toHaveValue(name);
  return new URL(page.url()).pathname.split("/").at(-1) ?? "";
}

export const saved = (page: Page) => expect(page.getByTestId("save-state")).toHaveText("Saved");
export const toStep = (page: Page, name: string) =>
  page
    .getByRole("navigation", { name: "Steps of this job" })
    .getByRole("button", { name: new RegExp(`^\\d\\. ${name} ,`) })
    .click();
/** Chooses an entry of a list. */
export async function choose(page: Page, label: string, entry: string): Promise<void> {
  await page.getByRole("combobox", { name: label }).click();
  await page.getByRole("option", { name: entry, exact: true }).click();
}

export const field = (page: Page, name: string) => page.getByRole("textbox", { name, exact: true });

export interface StoredJob {
  revision: number;
  job: {
    name: string;
    note: string;
    master: { shape: string; sizes: Record<string, number>; profile: { zMm: number; radiusMm: number }[] };
    mould: { wallMm: number };
  };
}

/** The job as the server has it. */
export async function stored(page: Page, id: string): Promise<StoredJob> {
  return (await (await page.request.get(`/api/jobs/${id}`)).json()) as StoredJob;
}

/** Begins to weigh something in; what speaks against it is asked, and let be. Returns the batch's id. */
export async function weighIn(page: Page, job: string, what: RegExp): Promise<string> {
  await page.goto(`/jobs/${job}#out`);
  await page.getByRole("button", { name: what }).click();
  const on = page.getByRole("button", { name: "Do it all the same" });
  await expect(async () => {
    if (await on.isVisible()) await on.click();
    expect(page.url()).toMatch(/\/weigh\//);
  }).toPass();
  return new URL(page.url()).pathname.split("/").at(-1) ?? "";
}

/** Ticks every point of the hold-point; the last one done, it makes way. */
export async function tickHold(page: Page): Promise<void> {
  const open = page.getByRole("region", { name: "Stop before you wet or melt anything" }).locator("[role=checkbox][aria-checked=false]");
  await expect(open.first()).toBeVisible();
  for (let left = await open.count(); left > 0; left--) {
    await open.first().click();
    await expect(open).toHaveCount(left - 1);
  }
  await expect(page.getByRole("heading", { name: "Stop before you wet or melt anything" })).toHaveCount(0);
}
