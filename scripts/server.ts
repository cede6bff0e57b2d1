import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** A port nothing listens on at the moment. */
export const freePort = () =>
  new Promise<number>((done, fail) => {
    const probe = createServer();
    probe.once("error", fail);
    probe.listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => (typeof address === "object" && address ? done(address.port) : fail(new Error("no port"))));
    });
  });

/** A real server on a data folder of its own, the way `npm run demo` starts it. */
export class Server {
  readonly folder = mkdtempSync(join(tmpdir(), "zesty-e2e-"));
  private child: ChildProcess | null = null;
  private port = 0;

  get pid(): number | undefined {
    return this.child?.pid;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  loadDemo(): void {
    const made = spawnSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/load-demo.ts"], {
      env: { ...process.env, ZESTY_DATA: this.folder },
      encoding: "utf8",
    });
    if (made.status !== 0) throw new Error(made.stderr);
  }

  /** Starts it; waits until it answers. */
  async start(env: Record<string, string> = {}): Promise<void> {
    if (this.port === 0) this.port = await freePort();
    this.child = spawn(
      process.execPath,
      ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(this.port), "--keepAliveTimeout", "120000"],
      {
        env: { ...process.env, NODE_ENV: "production", NEXT_TELEMETRY_DISABLED: "1", ZESTY_DATA: this.folder, ZESTY_PORT: String(this.port), ...env },
        stdio: "ignore",
      },
    );
    for (let i = 0; i < 200; i++) {
      if (
        await fetch(`${this.url}/api/health`).then(
          () => true,
          () => false,
        )
      )
        return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error("The server did not start.");
  }

  /** Ends the process at once, as a power cut would. */
  async kill(): Promise<void> {
    const child = this.child;
    if (!child || child.exitCode !== null) return;
    const gone = new Promise((r) => child.once("exit", r));
    child.kill("SIGKILL");
    await gone;
    this.child = null;
  }

  async remove(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
