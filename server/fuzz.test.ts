/** @jest-environment node */
import { readdirSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import fc from "fast-check";
import * as z from "zod";
import { api } from "../contract";
import type { Endpoint } from "../contract/endpoint";
import { ROWS, TABLE_NAMES, type TableName } from "../db/tables";
import { readBackup } from "./backup/read";
import { makeBackup } from "./backup/write";
import { saveCalendar, calendarView } from "./calendar";
import { takeReading } from "./clocks";
import { openEveryPage } from "./fixtures/pages";
import { PNG } from "./fixtures/picture";
import { Shops } from "./fixtures/shop";
import { getJob, jobsInHand, updateJob } from "./jobs";
import { writeOfMould, writeOfPour } from "./life";
import { startPatch } from "./patches";
import { addJobPicture } from "./jobPictures";
import { addPhoto } from "./photos";
import { logbook } from "./pours";
import { rack } from "./rack";
import { updateSettings } from "./settings";
import { beginWeighing } from "./weighIns";
import type { Workshop } from "./workshop";

/** How many tries; FUZZ_RUNS makes it a long search. */
const RUNS = Number(process.env.FUZZ_RUNS ?? 0);
const shops = new Shops();
afterEach(() => shops.close());

/** A workshop with a row in every table. */
async function lived(): Promise<{ w: Workshop; things: Parameters<typeof openEveryPage>[1] }> {
  const w = shops.open(true);
  await addPhoto(w, "demo-pour-01", PNG);
  await addJobPicture(w, "demo-crater-lamp-base", "front", PNG);
  takeReading(w, { c: 17 });
  const tile = getJob(w, "demo-moon-phase-tile");
  updateJob(w, tile.id, { baseRevision: tile.revision, job: { ...tile.job, note: "again" } });
  const batch = beginWeighing(w, { jobId: "demo-crater-lamp-base", jobRevision: getJob(w, "demo-crater-lamp-base").revision, kind: "rubber" });
  const patch = startPatch(w, { pair: "surface-rubber|a|b", contact: "surface-rubber", between: ["a", "b"], shopC: 20, waitH: 10 });
  const { calendar, revision } = calendarView(w);
  saveCalendar(w, { baseRevision: revision, calendar });
  const mould = rack(w, {}).moulds[0]!;
  writeOfMould(w, mould.id, { what: { kind: "torn", where: "at the rim" } });
  writeOfPour(w, "demo-pour-01", { what: { kind: "done", step: "own-1", text: "Wiped" } });
  updateSettings(w, { workshopName: "Perigee Yard" });
  const things = {
    jobs: jobsInHand(w).lines.map((l) => l.id),
    pours: logbook(w, {}).pours.map((p) => p.id),
    moulds: rack(w, {}).moulds.map((m) => m.id),
    batches: [batch.id],
    patches: [patch.id],
  };
  return { w, things };
}

// What is put where something else belongs.
const NUMBERS = [0, -0, -1, 1, 0.5, 1e-300, 1e-9, 1e9, 9e15, 1.8e308, -1e15, 2 ** 53, 8.64e15 + 1];
const TEXTS = [
  "",
  " ",
  "a word",
  "__proto__",
  "constructor",
  "=1+1",
  "\u0000",
  "\ud800",
  "../../etc/passwd",
  "1e999",
  "x".repeat(5000),
  "demo-moon-phase-tile",
];
const odd = fc.oneof(
  fc.constantFrom<unknown>(...NUMBERS),
  fc.constantFrom<unknown>(...TEXTS),
  fc.constantFrom<unknown>(null, true, false, [], {}, [[]], [null], { "": 1 }, JSON.parse('{"__proto__":{"polluted":1}}'), Array(300).fill(7)),
);

type Schema = Record<string, unknown> & {
  properties?: Record<string, Schema>;
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  type?: string;
};

/** Something of the shape a schema asks for, often just outside of it: every field of every endpoint, without a list to keep. */
function nearly(s: Schema, depth = 0): fc.Arbitrary<unknown> {
  const right = ((): fc.Arbitrary<unknown> => {
    const either = s.anyOf ?? s.oneOf;
    if (either) return fc.oneof(...either.map((e) => nearly(e, depth + 1)));
    if (s.const !== undefined) return fc.constant(s.const);
    if (s.enum) return fc.constantFrom(...s.enum);
    if (s.type === "object" && s.properties) {
      const fields = Object.fromEntries(Object.entries(s.properties).map(([k, v]) => [k, fc.option(nearly(v, depth + 1), { nil: undefined, freq: 6 })]));
      return fc.record(fields).map((o) => Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined)));
    }
    if (s.type === "array" && s.items && depth < 8) return fc.array(nearly(s.items, depth + 1), { maxLength: 3 });
    if (s.type === "number" || s.type === "integer")
      return fc.oneof(fc.constantFrom(...NUMBERS), fc.double({ min: -1e4, max: 1e4, noNaN: true }), fc.integer({ min: 0, max: 100 }));
    if (s.type === "boolean") return fc.boolean();
    if (s.type === "string") return fc.constantFrom(...TEXTS);
    return odd;
  })();
  return fc.oneof({ weight: 12, arbitrary: right }, { weight: 1, arbitrary: odd });
}

/** Every route there is, found on the disk, with the methods it answers. */
function routeFiles(folder = "app/api", at = "/api"): [string, string][] {
  return readdirSync(folder).flatMap((name): [string, string][] => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return routeFiles(path, `${at}/${name.replace(/^\[(\w+)\]$/, ":$1")}`);
    return name === "route.ts" ? [[at, resolve(path)]] : [];
  });
}
type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;
const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;
/** These start processes, listen on the network, or put aside the very workshop that is tried: each has tests of its own. */
const APART = new Set(["POST /api/errands", "PUT /api/door", "POST /api/door/pair", "GET /api/backup", "POST /api/kept"]);

describe("whatever is sent to any route", () => {
  it("is answered in words, never by a fault of ours, and leaves every page standing", async () => {
    const { w, things } = await lived();
    (globalThis as { zestyWorkshop?: Workshop }).zestyWorkshop = w;
    const said = jest.spyOn(console, "error").mockImplementation(() => {});
    try {
      const routes: { name: string; path: string; method: string; run: Handler; endpoint: Endpoint | undefined }[] = [];
      const endpoints = Object.values(api).flatMap((area) => Object.values(area) as Endpoint[]);
      for (const [path, file] of routeFiles()) {
        const answers = (await import(file)) as Record<string, Handler>;
        for (const method of METHODS)
          if (answers[method] && !APART.has(`${method} ${path}`))
            routes.push({
              name: `${method} ${path}`,
              path,
              method,
              run: answers[method],
              endpoint: endpoints.find((e) => e.method === method && e.path === path),
            });
      }
      expect(routes.length).toBeGreaterThan(50);
      const ids = [
        ...things.jobs.slice(0, 2),
        ...things.pours.slice(0, 2),
        ...things.moulds.slice(0, 1),
        ...things.batches,
        ...things.patches,
        ...TEXTS.filter((t) => t.length < 100),
      ];
      const asked = fc.constantFrom(...routes).chain((route) => {
        const shape = route.endpoint?.in ? (z.toJSONSchema(route.endpoint.in, { io: "input", unrepresentable: "any" }) as Schema) : null;
        return fc.record({
          route: fc.constant(route),
          body: shape ? nearly(shape) : odd,
          params: fc.record(Object.fromEntries([...route.path.matchAll(/:(\w+)/g)].map((m) => [m[1] ?? "", fc.constantFrom(...ids)]))),
        });
      });
      let tries = 0;
      await fc.assert(
        fc.asyncProperty(asked, async ({ route, body, params }) => {
          const query =
            route.method === "GET" && typeof body === "object" && body !== null
              ? `?${new URLSearchParams(Object.entries(body).map(([k, v]) => [k, String(v)])).toString()}`
              : "";
          const request = new Request(`http://127.0.0.1${encodeURI(route.path)}${query}`, {
            method: route.method,
            ...(route.method === "GET" || route.method === "DELETE" ? {} : { body: JSON.stringify(body) ?? "" }),
          });
          const answer = await route.run(request, { params: Promise.resolve(params as Record<string, string>) });
          if (answer.status >= 500)
            throw new Error(`${route.name} answered ${answer.status}: ${said.mock.calls.map((c) => String((c[0] as Error).stack ?? c[0])).join("\n")}`);
          expect(({} as { polluted?: unknown }).polluted).toBeUndefined();
          if (++tries % 25 === 0) openEveryPage(w, things);
        }),
        { numRuns: RUNS || 400 },
      );
      openEveryPage(w, things);
      // What came in that way goes out in a backup that can be read.
      const zip = join(w.files.folder, "fuzz.zip");
      await makeBackup(w, zip);
      await readBackup(zip, () => {});
    } finally {
      said.mockRestore();
      delete (globalThis as { zestyWorkshop?: Workshop }).zestyWorkshop;
    }
  }, 600_000);
});

describe("whatever lies in any stored field", () => {
  /** Every place in a stored value, as a path of keys. */
  const places = (v: unknown, at: (string | number)[] = []): (string | number)[][] =>
    typeof v === "object" && v !== null && Object.keys(v).length > 0
      ? [at, ...Object.entries(v).flatMap(([k, x]) => places(x, [...at, Array.isArray(v) ? Number(k) : k]))]
      : [at];
  const put = (v: unknown, [key, ...rest]: readonly (string | number)[], x: unknown): unknown => {
    if (key === undefined) return x;
    if (Array.isArray(v)) return v.map((e: unknown, i) => (i === key ? put(e, rest, x) : e));
    return { ...(v as object), [key]: put((v as Record<string, unknown>)[key], rest, x) };
  };

  it("takes no page with it, and no backup", async () => {
    const { w, things } = await lived();
    const { $client } = w.db;
    /** Table, column and place of everything that is stored: from the tables themselves, so that nothing new is left out. */
    const fields: { table: string; column: string; rowid: number; place: (string | number)[]; its: typeof things }[] = [];
    const only = (...ids: unknown[]): string[] => ids.filter((id) => typeof id === "string");
    const named: Record<TableName, string> = {
      jobRevisions: "job_revisions",
      weighIns: "weigh_ins",
      jobPictures: "job_pictures",
      stockMoves: "stock_moves",
    } as Record<TableName, string>;
    for (const t of TABLE_NAMES) {
      const table = named[t] ?? t;
      const rows = $client.prepare(`select rowid as rowid_, * from "${table}" limit 3`).all() as Record<string, unknown>[];
      expect([t, rows.length > 0]).toEqual([t, true]);
      expect(Object.keys(rows[0] ?? {}).length - 1).toBeGreaterThanOrEqual(Object.keys(ROWS[t].shape).length);
      for (const { rowid_, ...row } of rows) {
        // Lists are opened whole; of single things, those this row is or belongs to.
        const its = {
          jobs: only(row.job_id, table === "jobs" && row.id),
          pours: only(row.pour_id, table === "pours" && row.id, t === "settings" && things.pours[0]),
          moulds: only(row.mould_id, table === "moulds" && row.id),
          batches: t === "weighIns" || t === "settings" || t === "materials" ? things.batches : [],
          patches: only(table === "patches" && row.id),
        };
        for (const [column, value] of Object.entries(row)) {
          const document: unknown = typeof value === "string" && /^[{[]/.test(value) ? JSON.parse(value) : null;
          for (const place of document === null ? [[]] : places(document)) fields.push({ table, column, rowid: Number(rowid_), place, its });
        }
      }
    }
    expect(fields.length).toBeGreaterThan(2000);
    const said = jest.spyOn(console, "error").mockImplementation(() => {});
    $client.pragma("foreign_keys = OFF");
    let tries = 0;
    try {
      await fc.assert(
        fc.asyncProperty(fc.constantFrom(...fields), odd, async ({ table, column, rowid, place, its }, x) => {
          const was = $client.prepare(`select "${column}" as v from "${table}" where rowid = ?`).get(rowid) as { v: unknown };
          const bare = typeof x === "number" || typeof x === "string" || x === null ? x : JSON.stringify(x);
          const now = place.length === 0 ? bare : JSON.stringify(put(JSON.parse(String(was.v)), place, x));
          try {
            $client.prepare(`update "${table}" set "${column}" = ? where rowid = ?`).run(now, rowid);
          } catch {
            // The database itself does not take it.
            return;
          }
          try {
            openEveryPage(w, its);
            if (++tries % 20 === 0) {
              const zip = join(w.files.folder, "fuzz.zip");
              await makeBackup(w, zip);
            }
            expect(said.mock.calls.map((c) => c[0])).toEqual([]);
          } catch (e) {
            throw new Error(`${table}.${column} ${place.join(".")} = ${JSON.stringify(x)?.slice(0, 80)}: ${String((e as Error).stack)}`);
          } finally {
            said.mockClear();
            $client.prepare(`update "${table}" set "${column}" = ? where rowid = ?`).run(was.v, rowid);
          }
        }),
        { numRuns: RUNS || 120 },
      );
    } finally {
      said.mockRestore();
    }
  }, 600_000);
});
