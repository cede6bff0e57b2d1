import { request as httpRequest } from "node:http";
import { expect, test } from "./workshop";

/** A raw request, since a browser would not send a foreign Host. */
const raw = (url: string, method: string, headers: Record<string, string>, body = "") =>
  new Promise<{ status: number; headers: Record<string, string | string[] | undefined>; text: string }>((done, fail) => {
    const request = httpRequest(
      url,
      { method, headers: { ...(body ? { "Content-Length": String(Buffer.byteLength(body)) } : {}), ...headers } },
      (response) => {
        let text = "";
        response.on("data", (c: Buffer) => (text += c.toString()));
        response.on("end", () => done({ status: response.statusCode ?? 0, headers: response.headers, text }));
      },
    );
    request.on("error", fail);
    request.end(body);
  });

test("only configured host names are answered", async ({ server }) => {
  expect((await raw(`${server.url}/`, "GET", { Host: "evil.example" })).status).toBe(421);
  expect((await raw(`${server.url}/api/jobs`, "GET", { Host: "evil.example" })).status).toBe(421);
  expect((await raw(`${server.url}/api/health`, "GET", { Host: "localhost" })).status).toBe(200);
});

test("writes and operations from another site are refused, and change nothing", async ({ server, request }) => {
  const before = await (await request.get("/api/settings")).text();
  const foreign = { Origin: "http://evil.example", "Content-Type": "application/json" };
  expect((await raw(`${server.url}/api/settings`, "PUT", foreign, '{"workshopName":"Owned"}')).status).toBe(403);
  expect((await raw(`${server.url}/api/operations/cast.batch`, "POST", foreign, '{"castId":"cast-plaster","cavityMl":250}')).status).toBe(403);
  expect((await raw(`${server.url}/api/jobs/demo-nebula-knob`, "DELETE", { "Sec-Fetch-Site": "cross-site" })).status).toBe(403);
  expect(await (await request.get("/api/settings")).text()).toBe(before);
});

test("bodies above the stated limit are refused, announced or not", async ({ server }) => {
  const announced = await raw(
    `${server.url}/api/operations/plan`,
    "POST",
    { "Content-Length": "300000", "Content-Type": "application/json" },
    "x".repeat(300_000),
  );
  expect(announced.status).toBe(413);
  expect(announced.text).toContain("at most 256 KB");
  const chunked = await fetch(`${server.url}/api/operations/plan`, {
    method: "POST",
    body: new Blob(["x".repeat(400_000)]).stream(),
    duplex: "half",
  } as RequestInit);
  expect(chunked.status).toBe(413);
});

test("every answer carries its safety headers, and no banner", async ({ request, page }) => {
  for (const path of ["/", "/log", "/api/health", "/no/such/page"]) {
    const headers = (await request.get(path)).headers();
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["content-security-policy"]).toContain("default-src 'self'");
    expect(headers["x-powered-by"]).toBeUndefined();
  }
  const foreign: string[] = [];
  page.on("request", (r) => {
    if (!["127.0.0.1", ""].includes(new URL(r.url()).hostname)) foreign.push(r.url());
  });
  const complaints: string[] = [];
  page.on("console", (m) => m.type() === "error" && complaints.push(m.text()));
  for (const path of ["/", "/materials", "/log", "/jobs/demo-crater-lamp-base"]) await page.goto(path, { waitUntil: "networkidle" });
  expect(foreign).toEqual([]);
  expect(complaints).toEqual([]);
});

test("operations answer over HTTP, and bad input is never a 500", async ({ request }) => {
  const list = (await (await request.get("/api/operations")).json()) as { name: string }[];
  expect(list.map((o) => o.name)).toContain("mould.layout");
  const plaster = await request.post("/api/operations/cast.batch", {
    data: { castId: "cast-plaster", cavityMl: 250, waterPer100: 70 },
  });
  const batch = (await plaster.json()) as { components: { name: string; massG: number }[] };
  expect(batch.components.map((c) => [c.name, Math.round(c.massG)])).toEqual([
    ["Water", 162],
    ["Powder", 232],
  ]);
  for (const { name } of list) {
    for (const body of ["", "null", "[]", '"x"', "{", '{"job":{}}', '{"volumeMl":"1e999","castId":7}']) {
      const answer = await request.post(`/api/operations/${name}`, {
        data: Buffer.from(body),
        headers: { "Content-Type": "application/json" },
      });
      expect([name, body, answer.status()]).toEqual([name, body, 400]);
    }
  }
  expect((await request.post("/api/operations/no.such", { data: {} })).status()).toBe(404);
  expect((await request.get("/api/photos/..%2F..%2Fworkshop.sqlite")).status()).toBe(404);
});

test("materials go out as files that name their own shape", async ({ request }) => {
  const schema = (await (await request.get("/api/materials/schema")).json()) as { properties: Record<string, unknown> };
  expect(Object.keys(schema.properties)).toEqual(["format", "version", "materials"]);
  const json = await request.get("/api/materials/export?format=json&scope=all");
  expect(json.headers()["content-disposition"]).toContain('filename="materials.json"');
  const file = (await json.json()) as { format: string; materials: { id: string }[] };
  expect(file.format).toBe("zesty-materials");
  const csv = await request.get("/api/materials/export?format=csv&scope=all");
  expect(csv.headers()["content-type"]).toContain("text/csv");
  expect((await csv.text()).split("\r\n")).toHaveLength(file.materials.length + 1);
  for (const body of [{}, { format: "csv" }, { format: "xml", text: "" }, { format: "csv", text: "", more: 1 }]) {
    expect((await request.post("/api/materials/import", { data: body })).status()).toBe(400);
  }
  const refused = await request.post("/api/materials/import", { data: { format: "json", text: "[{}]" } });
  expect([refused.status(), ((await refused.json()) as { error: string }).error]).toEqual([422, "bad-rows"]);
});
