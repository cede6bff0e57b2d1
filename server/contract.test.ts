import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import * as z from "zod";
import { api } from "../contract";
import { address, type Endpoint } from "../contract/endpoint";
import { allMaterials, putBackMaterial, removeMaterial } from "./materials";
import { bench } from "./clocks";
import { calendarView } from "./calendar";
import { Shops } from "./fixtures/shop";
import { getJob } from "./jobs";
import { getPour, logbook } from "./pours";
import { mouldPage, rack } from "./rack";
import { getSettings } from "./settings";
import { planJob } from "./plans";
import { stockView } from "./stock";
import { costOf, listOrders, listProjects } from "./works";
import { beginWeighing } from "./weighIns";

const endpoints: [string, Endpoint][] = Object.entries(api).flatMap(([area, all]) =>
  Object.entries(all).map(([n, e]): [string, Endpoint] => [`${area}.${n}`, e]),
);

/** Every route file, by the path it answers at, with the methods it exports and what it is made from. */
function routes(folder = "app/api", at = "/api"): Map<string, string> {
  const found = new Map<string, string>();
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) for (const [k, v] of routes(path, `${at}/${name.replace(/^\[(\w+)\]$/, ":$1")}`)) found.set(k, v);
    else if (name === "route.ts") found.set(at, readFileSync(path, "utf8"));
  }
  return found;
}

describe("the contract", () => {
  it("has a route for each of its endpoints, made from it", () => {
    const all = routes();
    for (const [name, e] of endpoints)
      expect([name, all.get(e.path)]).toEqual([name, expect.stringContaining(`export const ${e.method} = serve(api.${name},`)]);
  });

  it("names every route that reads JSON or answers it; the rest are files", () => {
    const files = [...routes()]
      .filter(([, text]) => text.includes("answer("))
      .map(([path]) => path)
      .sort();
    expect(files).toEqual([
      "/api/backup",
      "/api/backup/file/:id",
      "/api/backup/schema",
      "/api/calendar/ics",
      "/api/health",
      "/api/jobs/:id/make/:file",
      "/api/jobs/:id/pictures/:view",
      "/api/log/export",
      "/api/materials/export",
      "/api/materials/schema",
      "/api/odd/:table/:key",
      "/api/operations",
      "/api/operations/:name",
      "/api/patches/:id/photo",
      "/api/photos/:id",
      "/api/stock/list",
    ]);
  });

  it("writes its paths with what they are about, and never out of their place", () => {
    expect(address("/api/jobs/:id/step", { id: "a b/../c" })).toBe("/api/jobs/a%20b%2F..%2Fc/step");
    expect(address("/api/log/export", {}, { table: "log", page: 2 })).toBe("/api/log/export?table=log&page=2");
  });

  it("reads what the workshop really answers, over the wire and back", () => {
    const shops = new Shops();
    try {
      const w = shops.open(true);
      const job = getJob(w, "demo-crater-lamp-base");
      const mould = rack(w, {}).moulds[0]!;
      const answers: [z.ZodType, unknown][] = [
        [api.jobs.read.out, job],
        [api.log.list.out, logbook(w, {})],
        [api.log.read.out, getPour(w, "demo-pour-01")],
        [api.rack.list.out, rack(w, {})],
        [api.rack.read.out, mouldPage(w, mould.id)],
        [api.clocks.bench.out, bench(w)],
        [api.calendar.read.out, calendarView(w)],
        [api.settings.read.out, getSettings(w)],
        [api.materials.list.out, allMaterials(w)],
        [api.stock.read.out, stockView(w)],
        [api.works.orders.out, listOrders(w, {})],
        [api.works.projects.out, listProjects(w, {})],
        [api.works.cost.out, costOf(w, job.id)],
        [api.weigh.begin.out, beginWeighing(w, { jobId: job.id, jobRevision: job.revision, kind: "rubber" })],
      ];
      for (const [schema, answer] of answers) {
        const wire: unknown = JSON.parse(JSON.stringify(answer));
        // Nothing is lost that a page may count on, and nothing is sent that the contract does not know.
        expect(schema.parse(wire)).toEqual(wire);
      }
    } finally {
      shops.close();
    }
  });
});

describe("a material put back", () => {
  it("has the id it had, so that the job that uses it finds it again", () => {
    const shops = new Shops();
    const w = shops.open(true);
    const own = allMaterials(w).find((m) => m.id === "own-dome-25")!;
    const missing = () => planJob(w, getJob(w, "demo-moon-phase-tile")).remarks.filter((r) => r.path === "rubberId" && r.severity === "fault").length;
    removeMaterial(w, own.id);
    expect(missing()).toBe(1);
    expect(putBackMaterial(w, own.id, own).id).toBe("own-dome-25");
    expect(missing()).toBe(0);
    expect(() => putBackMaterial(w, own.id, own)).toThrow(/already/);
    expect(() => putBackMaterial(w, "rubber-platinum-medium-25", own)).toThrow(/your own/);
    shops.close();
  });
});
