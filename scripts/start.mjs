#!/usr/bin/env node
// Starts everything: `npm run demo | dev | check | test | bench | soak | op`. Uses only Node's own modules, so it runs before anything is installed.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { delimiter, dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const root = resolve(dirname(fileURLToPath(import.meta.url)), "..");
process.chdir(root);
const HOST = "127.0.0.1";
/** How long the server may take to end before it is ended, ms. */
const STOP_MS = 1500;
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: "1" };
const [mode = "demo", ...rest] = process.argv.slice(2);

/** Progress goes to standard error, so that `op` prints nothing but its answer on standard output. */
const say = (line) => console.error(line);
const give = (message) => {
  say(`\n${message}\n`);
  process.exit(1);
};

const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 15)) give(`Zesty Ladle needs Node 20.15 or newer; this is ${process.version}.`);

const tool = (name) =>
  ({
    tsc: "node_modules/typescript/bin/tsc",
    eslint: "node_modules/eslint/bin/eslint.js",
    depcruise: "node_modules/dependency-cruiser/bin/dependency-cruise.mjs",
    jest: "node_modules/jest/bin/jest.js",
    knip: "node_modules/knip/bin/knip.js",
    prettier: "node_modules/prettier/bin/prettier.cjs",
    next: "node_modules/next/dist/bin/next",
    playwright: "node_modules/@playwright/test/cli.js",
    tsx: "node_modules/tsx/dist/cli.mjs",
  })[name];

/** Runs one of the project's own tools to its end; returns its exit code. */
function run(name, args, extra = {}) {
  const { status, error } = spawnSync(process.execPath, [tool(name), ...args], {
    stdio: ["inherit", extra.quiet ? 2 : "inherit", "inherit"],
    env: { ...env, ...extra.env },
  });
  if (error) say(String(error));
  return status ?? 1;
}

const hashOf = (paths) => {
  const hash = createHash("sha256").update(process.version + process.arch);
  const walk = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) walk(join(path, name));
    else hash.update(path).update("\0").update(readFileSync(path)).update("\0");
  };
  paths.forEach(walk);
  return hash.digest("hex");
};
const stamped = (file, stamp) => existsSync(file) && readFileSync(file, "utf8") === stamp;

/** Installs exactly what the lock file says, unless it is there already. */
function ensureInstalled() {
  const stamp = hashOf(["package-lock.json"]);
  const mark = "node_modules/.zesty-installed";
  if (stamped(mark, stamp)) return;
  say("Installing packages (a few minutes the first time, longer where the database has to be compiled) …");
  const npm = process.env.npm_execpath;
  const [command, args] = npm && /\.[cm]?js$/.test(npm) ? [process.execPath, [npm]] : [process.platform === "win32" ? "npm.cmd" : "npm", []];
  const { status } = spawnSync(command, [...args, "ci", "--include=dev", "--no-audit", "--no-fund", "--loglevel=error"], {
    stdio: ["inherit", 2, "inherit"],
    env: { ...env, NODE_ENV: "" },
    shell: command === "npm.cmd",
  });
  if (status !== 0)
    give(
      "Installing failed. It needs the npm registry, and python3, make and a C++ compiler for the database (on Debian: apt-get install -y python3 make g++). Fix what is said above, and run the same command again.",
    );
  writeFileSync(mark, stamp);
}

/** The folders the arrows of the architecture run between. */
const ROOMS = ["app", "ui", "contract", "server", "db", "make", "core", "workers"];
const SOURCES = [
  ...ROOMS,
  "public",
  "scripts/errand.ts",
  "scripts/operation.ts",
  "proxy.ts",
  "instrumentation.ts",
  "next.config.ts",
  "postcss.config.mjs",
  "tsconfig.json",
  "package-lock.json",
];

/** Builds the production application, unless this very source is built already. Returns false if it does not build. */
async function build() {
  const stamp = hashOf(SOURCES);
  const mark = ".next/zesty-built";
  if (stamped(mark, stamp)) {
    say("This source is built already.");
    return true;
  }
  rmSync(mark, { force: true });
  say("Building the application …");
  if (run("next", ["build"], { quiet: true, env: { NODE_ENV: "production" } }) !== 0) return false;
  // What takes long runs in a process of its own: in one file it starts in a second, not in five.
  const { build: bundle } = await import("esbuild");
  await bundle({
    entryPoints: { errand: "scripts/errand.ts", operation: "scripts/operation.ts" },
    outdir: ".next",
    outExtension: { ".js": ".mjs" },
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    logLevel: "warning",
  });
  writeFileSync(mark, stamp);
  return true;
}

const portTaken = (port) =>
  new Promise((done) => {
    const socket = connect({ host: HOST, port });
    socket.once("connect", () => done(!socket.destroy() || true));
    socket.once("error", () => done(false));
  });

async function freePort() {
  const port = Number(process.env.PORT ?? 3210);
  if (!Number.isInteger(port) || port < 1 || port > 65535) give(`PORT is "${process.env.PORT}": it has to be a whole number from 1 to 65535.`);
  if (await portTaken(port))
    give(
      `Something already listens on port ${port}; perhaps Zesty Ladle is running at http://${HOST}:${port}. Stop it, or choose another port: PORT=${port + 1} npm run ${mode}`,
    );
  return port;
}

async function untilReady(port, child) {
  for (let i = 0; i < 600 && child.exitCode === null; i++) {
    const answer = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
    if (answer) return answer.ok || (await answer.json().catch(() => ({}))).message || `it answered ${answer.status}`;
    await new Promise((r) => setTimeout(r, 100));
  }
  return "it did not start";
}

/** Starts the server and hands it the terminal until it ends. */
async function serve(args, nodeEnv) {
  const port = await freePort();
  const child = spawn(process.execPath, [tool("next"), ...args, "-H", HOST, "-p", String(port)], {
    stdio: ["inherit", "ignore", "inherit"],
    env: { ...env, NODE_ENV: nodeEnv, ZESTY_PORT: String(port) },
  });
  // Open pages keep asking, so the server would never find a quiet moment to end in. What it acknowledged is on the disk.
  for (const signal of ["SIGINT", "SIGTERM"])
    process.on(signal, () => {
      child.kill(signal);
      setTimeout(() => child.kill("SIGKILL"), STOP_MS).unref();
    });
  child.on("exit", (code) => process.exit(code ?? 0));
  const ready = await untilReady(port, child);
  if (ready === true)
    console.log(`\n  Zesty Ladle is ready at http://${HOST}:${port}\n  Its data is in ${resolve(env.ZESTY_DATA || "data")}. Stop it with Ctrl+C.\n`);
  else say(`\n${ready}\n`);
}

async function demo() {
  const unknown = rest.filter((a) => a !== "--fresh");
  if (unknown.length > 0) give(`"${unknown.join(" ")}" is not known here. The only option is --fresh: start again with new demo data.`);
  await freePort();
  ensureInstalled();
  if (!(await build())) give("The application does not build; see above.");
  const data = resolve(env.ZESTY_DATA || "data");
  if (rest.includes("--fresh") && existsSync(data)) {
    const aside = `${data}.before-${new Date().toISOString().replace(/[:.]/g, "-")}`;
    renameSync(data, aside);
    say(`Starting fresh. The old workshop is kept in ${aside}.`);
  }
  if (run("tsx", ["scripts/load-demo.ts"], { quiet: true }) !== 0) process.exit(1);
  await serve(["start"], "production");
}

/** Path of a Chromium on this machine, or null. */
function findChromium() {
  if (process.env.CHROMIUM_PATH) return existsSync(process.env.CHROMIUM_PATH) ? process.env.CHROMIUM_PATH : null;
  const folders = [...(process.env.PATH ?? "").split(delimiter), "/usr/bin", "/usr/local/bin"];
  return folders.flatMap((f) => ["chromium", "chromium-browser"].map((n) => join(f, n))).find(existsSync) ?? null;
}

/** Finds Chromium, or installs Debian's where this user may; says exactly what to run where not. */
function ensureChromium() {
  const found = findChromium();
  if (found) return found;
  const may = process.getuid?.() === 0 ? [] : spawnSync("sudo", ["-n", "true"]).status === 0 ? ["sudo", "-n"] : null;
  const apt = (...args) =>
    spawnSync([...may, "apt-get", ...args][0], [...may, "apt-get", ...args].slice(1), {
      stdio: ["ignore", 2, "inherit"],
      env: { ...env, DEBIAN_FRONTEND: "noninteractive" },
    }).status === 0;
  if (may && existsSync("/usr/bin/apt-get")) {
    say("Installing Chromium for the interface tests …");
    if (apt("update", "-qq") && apt("install", "-y", "-qq", "chromium") && findChromium()) return findChromium();
  }
  say(
    "\nThe interface tests need Chromium, and it could not be installed from here. Run:\n\n    sudo apt-get update && sudo apt-get install -y chromium\n\nor set CHROMIUM_PATH to one you have, and run npm test again.\n",
  );
  return null;
}

function readJson(path) {
  try {
    return JSON.parse(readFileSync(path, "utf8"));
  } catch {
    return null;
  }
}

async function test() {
  ensureInstalled();
  const results = join(tmpdir(), `zesty-test-${process.pid}`);
  mkdirSync(results, { recursive: true });
  const lines = [];
  const tally = (name, passed, failed) => {
    lines.push({ name, passed, failed });
    say(`${failed === 0 ? "✓" : "✗"} ${name}: ${passed} passed, ${failed} failed`);
  };
  const check = (name, ok) => tally(name, ok ? 1 : 0, ok ? 0 : 1);

  // Next writes the types of its routes; without them the type check would not know the pages.
  check("route types", run("next", ["typegen"], { quiet: true }) === 0);
  check("type check", run("tsc", ["--noEmit"]) === 0);
  check("lint", run("eslint", ["."]) === 0);
  check("format", run("prettier", ["--check", "--log-level=warn", "."]) === 0);
  check("architecture", run("depcruise", ["--config", ".dependency-cruiser.cjs", ...ROOMS]) === 0);

  const unitFile = join(results, "jest.json");
  const unitCode = run("jest", ["--json", `--outputFile=${unitFile}`, ...(process.env.CI ? ["--ci"] : [])], { quiet: true });
  const unit = readJson(unitFile);
  tally("unit tests", unit?.numPassedTests ?? 0, unit ? unit.numFailedTests + unit.numRuntimeErrorTestSuites || Number(unitCode !== 0) : 1);

  const built = await build();
  check("production build", built);
  const chromium = built ? ensureChromium() : null;
  if (chromium) {
    const e2eFile = join(results, "playwright.json");
    const code = run("playwright", ["test", "--reporter=line,json"], {
      quiet: true,
      env: { PLAYWRIGHT_JSON_OUTPUT_NAME: e2eFile, CHROMIUM_PATH: chromium, FORCE_COLOR: "0" },
    });
    const stats = readJson(e2eFile)?.stats;
    tally("interface tests", (stats?.expected ?? 0) + (stats?.flaky ?? 0), stats ? stats.unexpected || Number(code !== 0) : 1);
    if (stats?.flaky) say(`${stats.flaky} interface tests passed only on a second try.`);
  } else tally("interface tests", 0, 1);

  rmSync(results, { recursive: true, force: true });
  const sum = (key) => lines.reduce((n, l) => n + l[key], 0);
  console.log(`${sum("passed")} passed, ${sum("failed")} failed`);
  process.exit(sum("failed") === 0 && sum("passed") > 0 ? 0 : 1);
}

/** What is worth knowing after every change, in the order of what is quickest to say no: types, arrows, unused code, lint, tests of the rooms that changed. */
const lines = (command, args) => spawnSync(command, args, { encoding: "utf8" }).stdout?.split("\n").filter(Boolean) ?? [];

/** Folders of the rooms in which something is not committed yet, as jest takes them: core/mould, server, ui/features/rack. */
function changedRooms() {
  const files = [...lines("git", ["diff", "--name-only", "HEAD"]), ...lines("git", ["ls-files", "--others", "--exclude-standard"])];
  const depth = (file) => (file.startsWith("ui/features/") ? 3 : /^(core|ui)\//.test(file) ? 2 : 1);
  const rooms = new Set(files.filter((f) => /\.(m?[jt]sx?)$/.test(f) && f.includes("/")).map((f) => `^${root}/${f.split("/").slice(0, depth(f)).join("/")}/`));
  // Nothing changed, nothing to test: a pattern that fits no file.
  return rooms.size > 0 ? [...rooms] : ["^$"];
}

function checkAll() {
  ensureInstalled();
  const steps = [
    ["types", "tsc", ["--noEmit"]],
    ["arrows", "depcruise", ["--config", ".dependency-cruiser.cjs", "--output-type", "err", ...ROOMS]],
    ["unused code", "knip", ["--no-progress"]],
    ["format", "prettier", ["--check", "--log-level=warn", "--cache", "."]],
    ["lint", "eslint", ["--cache", "--cache-location", "node_modules/.cache/eslint/", "."]],
    ["tests of the rooms that changed", "jest", rest.length ? rest : [...changedRooms(), "--passWithNoTests"]],
  ];
  const failed = steps.filter(([name, program, args]) => {
    const from = Date.now();
    const bad = run(program, args, { quiet: true }) !== 0;
    say(`${bad ? "✗" : "✓"} ${name}, ${((Date.now() - from) / 1000).toFixed(1)} s`);
    return bad;
  });
  process.exit(failed.length === 0 ? 0 : 1);
}

switch (mode) {
  case "check":
    checkAll();
    break;
  case "demo":
    await demo();
    break;
  case "dev":
    await freePort();
    ensureInstalled();
    await serve(["dev"], "development");
    break;
  case "test":
    await test();
    break;
  case "bench":
    ensureInstalled();
    if (!(await build())) give("The application does not build; see above.");
    process.exit(run("tsx", ["scripts/bench.ts", ...rest]));
    break;
  case "soak":
    ensureInstalled();
    if (!(await build())) give("The application does not build; see above.");
    process.exit(run("tsx", ["scripts/soak.ts", ...rest]));
    break;
  case "op":
    ensureInstalled();
    process.exit(run("tsx", ["scripts/op.ts", ...rest]));
    break;
  default:
    give(`"${mode}" is not one of demo, dev, check, test, bench, soak, op.`);
}
