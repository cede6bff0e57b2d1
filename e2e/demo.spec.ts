import { expect, test as base } from "@playwright/test";
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "../scripts/server";

/** `npm run demo` itself, in a folder of its own. */
class Demo {
  readonly parent = mkdtempSync(join(tmpdir(), "zesty-demo-"));
  private child: ChildProcess | null = null;
  url = "";

  async start(...args: string[]): Promise<{ output: string; seconds: number }> {
    const port = await freePort();
    const began = Date.now();
    const child = spawn(process.execPath, ["scripts/start.mjs", "demo", ...args], {
      env: { ...process.env, PORT: String(port), ZESTY_DATA: join(this.parent, "data") },
    });
    this.child = child;
    let output = "";
    const ready = new Promise<void>((done, fail) => {
      const hear = (c: Buffer) => {
        output += c.toString();
        if (output.includes("is ready at")) done();
      };
      child.stdout.on("data", hear);
      child.stderr.on("data", hear);
      child.once("exit", () => fail(new Error(output)));
    });
    await ready;
    this.url = /http:\/\/127\.0\.0\.1:\d+/.exec(output)?.[0] ?? "";
    return { output, seconds: (Date.now() - began) / 1000 };
  }

  async stop(): Promise<void> {
    const child = this.child;
    if (!child || child.exitCode !== null) return;
    const gone = new Promise((r) => child.once("exit", r));
    child.kill("SIGTERM");
    await gone;
  }

  async remove(): Promise<void> {
    await this.stop();
    rmSync(this.parent, { recursive: true, force: true });
  }
}

base("npm run demo loads the demo once, keeps a person's data, and starts fresh only when asked", async ({ page }) => {
  const demo = new Demo();
  try {
    expect((await demo.start()).output).toContain("Loaded the demo workshop, Perigee Yard.");
    await page.goto(demo.url);
    await expect(page.getByRole("link", { name: /Nebula knob/ })).toBeVisible();
    await page.request.post(`${demo.url}/api/jobs`, { data: { name: "Mine, kept" } });
    await demo.stop();

    const again = await demo.start();
    expect(again.output).not.toContain("Loaded the demo");
    expect(again.output).toContain("built already");
    await page.goto(demo.url);
    await expect(page.getByRole("link", { name: /Mine, kept/ })).toBeVisible();
    await demo.stop();

    expect((await demo.start("--fresh")).output).toContain("The old workshop is kept in");
    await page.goto(demo.url);
    await expect(page.getByRole("link", { name: /Nebula knob/ })).toBeVisible();
    await expect(page.getByRole("link", { name: /Mine, kept/ })).toHaveCount(0);
    expect(readdirSync(demo.parent).filter((n) => n.startsWith("data.before-"))).toHaveLength(1);
  } finally {
    await demo.remove();
  }
});
