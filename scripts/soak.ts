import { randomUUID } from "node:crypto";
import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { request as secureRequest } from "node:https";
import { join } from "node:path";
import { performance } from "node:perf_hooks";
import type { ErrandView } from "../contract/workshop";
import { ClockState } from "../core/clock";
import { PIECE_BYTES } from "../contract/limits";
import { freePort, Server } from "./server";
import { fillShop, fillYear } from "./year";

/**
 * `npm run soak -- --minutes N`: a workshop of a year, two tablets at the gate that write all the time, a server that is killed
 * again and again, and between that backups, restores of them, and looks through everything. What was acknowledged has to be there
 * at the end. Figures go into docs/benchmarks.md.
 */
const minutes = Number(process.argv[process.argv.indexOf("--minutes") + 1]);
if (!process.argv.includes("--minutes") || !(minutes > 0 && minutes <= 24 * 60)) {
  console.error("npm run soak -- --minutes N: a number of minutes above 0, at most a day.");
  process.exit(2);
}
const JOBS = 400;
const POURS = 8000;
const PICTURES = 300;
const until = Date.now() + minutes * 60_000;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
const at = (sorted: readonly number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? NaN;
const spread = (times: number[]): string => {
  times.sort((a, b) => a - b);
  return `p50 ${at(times, 0.5).toFixed(0)} ms, p95 ${at(times, 0.95).toFixed(0)} ms, longest ${(times.at(-1) ?? NaN).toFixed(0)} ms of ${times.length}`;
};
const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;
/** Memory of a process as the system counts it, bytes; 0 once it is gone. */
function memoryOf(pid: number | undefined): number {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid ?? 0}/status`, "utf8"))?.[1] ?? 0) * 1024;
  } catch {
    return 0;
  }
}
const childrenOf = (pid: number | undefined): number[] => {
  try {
    return readFileSync(`/proc/${pid ?? 0}/task/${pid ?? 0}/children`, "utf8")
      .trim()
      .split(/\s+/)
      .filter(Boolean)
      .map(Number);
  } catch {
    return [];
  }
};

const server = new Server();
const lan = await freePort();
const env = { ZESTY_LAN_PORT: String(lan) };
/** What was acknowledged, and has to be there at the end. */
const kept = { jobs: new Map<string, string>(), pours: new Set<string>(), timers: new Set<string>(), pictures: new Set<string>() };
const told = { acts: 0, refused: 0, away: 0, kills: 0, backups: 0, restores: 0, checks: 0 };
const times = { quiet: [] as number[], busy: [] as number[], backup: [] as number[], read: [] as number[], restore: [] as number[], start: [] as number[] };
const memory = { server: 0, errand: 0 };
let errandRuns = false;
let up = true;
const faults: string[] = [];

interface Answer {
  status: number;
  body: Buffer;
  cookie: string | null;
}
/** Asks through the gate, as a tablet does; trusts the workshop's certificate and nothing else. */
function throughGate(path: string, method = "GET", body?: Buffer | string, headers: Record<string, string> = {}): Promise<Answer> {
  return new Promise((done, fail) => {
    const ca = readFileSync(join(server.folder, "door", "root.crt"));
    const r = secureRequest(
      { host: "127.0.0.1", port: lan, path, method, ca, servername: "localhost", headers: { host: `127.0.0.1:${lan}`, ...headers } },
      (res) => {
        const chunks: Buffer[] = [];
        res.on("data", (c: Buffer) => chunks.push(c));
        res.on("error", fail);
        res.on("end", () => done({ status: res.statusCode ?? 0, body: Buffer.concat(chunks), cookie: res.headers["set-cookie"]?.[0]?.split(";")[0] ?? null }));
      },
    );
    r.on("error", fail);
    r.setTimeout(60_000, () => r.destroy(new Error("no answer in a minute")));
    r.end(body);
  });
}

async function tablet(n: number, cookie: string, picture: Buffer): Promise<void> {
  let turn = 0;
  const ask = async (path: string, method: string, body?: unknown): Promise<Record<string, unknown> | null> => {
    const from = performance.now();
    const bytes = Buffer.isBuffer(body) ? body : body === undefined ? undefined : JSON.stringify(body);
    const a = await throughGate(path, method, bytes, { cookie });
    (errandRuns ? times.busy : times.quiet).push(performance.now() - from);
    if (a.status >= 500 && a.status !== 503 && a.status !== 502) faults.push(`${method} ${path} answered ${a.status}: ${a.body.toString().slice(0, 200)}`);
    if (a.status >= 300) {
      told.refused++;
      return null;
    }
    if (method !== "GET") told.acts++;
    return JSON.parse(a.body.toString()) as Record<string, unknown>;
  };
  while (Date.now() < until) {
    try {
      turn++;
      const job = await ask("/api/jobs", "POST", { key: randomUUID(), name: `Tablet ${n}, turn ${turn}` });
      if (job) {
        const id = String(job.id);
        kept.jobs.set(id, "");
        const read = await ask(`/api/jobs/${id}`, "GET");
        if (read) {
          const note = `note ${turn}`;
          const saved = await ask(`/api/jobs/${id}`, "PUT", { baseRevision: read.revision, job: { ...(read.job as object), note } });
          if (saved) kept.jobs.set(id, note);
        }
      }
      const timer = await ask("/api/clocks", "POST", { key: randomUUID(), label: `Stir ${n}-${turn}`, minutes: 60 * 24 * 50 });
      if (timer) kept.timers.add(ClockState.parse(timer).clock.id);
      await ask("/api/readings", "POST", { c: 20 + Math.sin(turn), source: "thermometer" });
      const pour = await ask("/api/pours", "POST", { key: randomUUID(), jobId: "demo-crater-lamp-base", jobRevision: 2, kind: "rubber" });
      if (pour) {
        kept.pours.add(String(pour.id));
        const photo = await ask(`/api/pours/${String(pour.id)}/photos`, "POST", picture);
        if (photo) kept.pictures.add(String(photo.id));
      }
      for (const path of ["/api/clocks", "/api/moulds", "/api/pours?text=piece"]) await ask(path, "GET");
    } catch {
      told.away++;
      await pause(200);
    }
    await pause(40);
  }
}

async function errand(ask: object): Promise<ErrandView | null> {
  errandRuns = true;
  try {
    const begun = await fetch(`${server.url}/api/errands`, { method: "POST", body: JSON.stringify(ask) });
    if (!begun.ok) return null;
    let e = (await begun.json()) as ErrandView;
    while (e.state === "running") {
      await pause(150);
      for (const pid of childrenOf(server.pid)) memory.errand = Math.max(memory.errand, memoryOf(pid));
      e = (await (await fetch(`${server.url}/api/errands/${e.id}`)).json()) as ErrandView;
    }
    if (e.state !== "done") faults.push(`${JSON.stringify(ask)} ended ${e.state}: ${e.message ?? ""}`);
    return e.state === "done" ? e : null;
  } finally {
    errandRuns = false;
  }
}

/** A backup, read and restored over what has been done since; then a look through it all. */
async function backAndForth(): Promise<void> {
  const from = performance.now();
  const made = await errand({ do: "backup" });
  if (!made) return;
  times.backup.push(performance.now() - from);
  told.backups++;
  const zip = Buffer.from(await (await fetch(`${server.url}/api/backup/file/${made.id}`)).arrayBuffer());
  const upload = randomUUID();
  for (let byte = 0; byte < zip.length; byte += PIECE_BYTES)
    await fetch(`${server.url}/api/backup/piece/${upload}/${byte}`, { method: "POST", body: new Uint8Array(zip.subarray(byte, byte + PIECE_BYTES)) });
  const reading = performance.now();
  const read = await errand({ do: "read", upload });
  if (!read) return;
  times.read.push(performance.now() - reading);
  const restoring = performance.now();
  if (!(await errand({ do: "restore", token: upload, way: "add" }))) return;
  times.restore.push(performance.now() - restoring);
  told.restores++;
  const check = await errand({ do: "check" });
  const found = check?.result as { damage: string[]; broken: number; lost: string[]; odd: unknown[] } | undefined;
  if (!found) return;
  told.checks++;
  if (found.damage.length + found.broken + found.lost.length + found.odd.length > 0)
    faults.push(`The look through found ${JSON.stringify(found).slice(0, 300)}`);
}

async function killAndStart(): Promise<void> {
  up = false;
  await server.kill();
  told.kills++;
  const from = performance.now();
  await server.start(env);
  times.start.push(performance.now() - from);
  up = true;
}

/** What a folder takes on the disk: a picture that a copy shares with the workshop is counted once. */
function sizeOf(folder: string, seen = new Set<number>()): number {
  return readdirSync(folder, { withFileTypes: true }).reduce((sum, f) => {
    if (f.isDirectory()) return sum + sizeOf(join(folder, f.name), seen);
    const { ino, size } = statSync(join(folder, f.name));
    return seen.has(ino) ? sum : (seen.add(ino), sum + size);
  }, 0);
}

try {
  console.error(`A year of a workshop: ${JOBS} jobs, ${POURS} castings, ${PICTURES} pictures, a thermometer's word every ten minutes …`);
  fillYear(server.folder, { jobs: JOBS, pours: POURS });
  await fillShop(server.folder, { pictures: PICTURES });
  const before = sizeOf(server.folder);
  await server.start(env);
  await fetch(`${server.url}/api/door`, { method: "PUT", body: JSON.stringify({ passphrase: "three blue moons", listen: true }) });
  const form = { "content-type": "application/x-www-form-urlencoded" };
  const come = async (name: string) => (await throughGate("/door", "POST", `passphrase=three+blue+moons&name=${name}`, form)).cookie ?? "";
  const cookies = [await come("One"), await come("Two")];
  const someName = readdirSync(join(server.folder, "photos"))[0] ?? "";
  const picture = readFileSync(join(server.folder, "photos", someName));
  const watch = setInterval(() => (memory.server = Math.max(memory.server, memoryOf(server.pid))), 500);
  const tablets = cookies.map((c, i) => tablet(i + 1, c, picture));
  for (let round = 0; Date.now() < until; round++) {
    // Kills fall anywhere: between acts, in the middle of one, and in the middle of what runs beside the server.
    await pause(2000 + ((round * 7919) % 5000));
    if (round % 4 === 3) await backAndForth();
    else if (round % 4 === 1) {
      const running = errand({ do: "backup" }).catch(() => null);
      await pause(500 + ((round * 104_729) % 2500));
      const before = faults.length;
      await killAndStart();
      await running;
      // An errand that was killed with its server is no fault.
      faults.length = before;
    } else await killAndStart();
    console.error(
      `${((until - Date.now()) / 60_000).toFixed(1)} min left: ${told.acts} acts, ${told.kills} kills, ${told.backups} backups, ${told.restores} restores`,
    );
  }
  await Promise.all(tablets);
  clearInterval(watch);
  if (!up) throw new Error("The server is down at the end.");
  await backAndForth();

  // What was acknowledged is there.
  const lost: string[] = [];
  for (const [id, note] of kept.jobs) {
    const a = await fetch(`${server.url}/api/jobs/${id}`);
    if (!a.ok || (note !== "" && ((await a.json()) as { job: { note: string } }).job.note !== note)) lost.push(`job ${id}`);
  }
  const clocks = JSON.stringify(await (await fetch(`${server.url}/api/clocks`)).json());
  for (const id of kept.timers) if (!clocks.includes(id)) lost.push(`timer ${id}`);
  for (const id of kept.pours) if (!(await fetch(`${server.url}/api/pours/${id}`)).ok) lost.push(`pour ${id}`);
  for (const id of kept.pictures) if (!(await fetch(`${server.url}/api/photos/${id}`)).ok) lost.push(`picture ${id}`);
  const all = kept.jobs.size + kept.timers.size + kept.pours.size + kept.pictures.size;

  const rows: [string, string][] = [
    [
      "ran for",
      `${minutes} min; ${told.acts} acknowledged acts of two tablets over HTTPS, ${told.kills} kills, ${told.backups} backups read back, ${told.restores} restores, ${told.checks} looks through`,
    ],
    ["lost of what was acknowledged", `${lost.length} of ${all} jobs, timers, pours and pictures`],
    ["faults", faults.length === 0 ? "none" : `${faults.length}: ${faults.slice(0, 3).join("; ")}`],
    ["an act or a page's question, nothing else running", spread(times.quiet)],
    ["the same while a backup, a reading, a restore or a look through runs", spread(times.busy)],
    ["a backup, written and read back", spread(times.backup)],
    ["reading and comparing one", spread(times.read)],
    ["restoring one (add what is missing)", spread(times.restore)],
    ["start after a kill, until it answers", spread(times.start)],
    ["the data folder, before and after", `${megabytes(before)}, ${megabytes(sizeOf(server.folder))}`],
    [
      "of it, after",
      readdirSync(server.folder, { withFileTypes: true })
        .map((f) => `${f.name} ${megabytes(f.isDirectory() ? sizeOf(join(server.folder, f.name)) : statSync(join(server.folder, f.name)).size)}`)
        .join(", "),
    ],
    ["most memory: the server; what runs beside it", `${megabytes(memory.server)}; ${megabytes(memory.errand)}`],
    ["refused in words while killed, restoring or stale; not reached", `${told.refused}; ${told.away}`],
  ];
  const table = `| a year's workshop, soaked | measured |\n| --- | --- |\n${rows.map((r) => `| ${r.join(" | ")} |`).join("\n")}\n`;
  console.log(table);
  const path = "docs/benchmarks.md";
  const [start, end] = ["<!-- soak -->", "<!-- /soak -->"];
  const doc = readFileSync(path, "utf8");
  const [head = "", rest = ""] = doc.split(start);
  if (rest.includes(end)) writeFileSync(path, `${head}${start}\n\n${table}\n${end}${rest.split(end)[1] ?? ""}`);
  if (lost.length > 0 || faults.length > 0) {
    console.error([...lost, ...faults].slice(0, 40).join("\n"));
    process.exitCode = 1;
  }
} finally {
  await server.remove();
}
