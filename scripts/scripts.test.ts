import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import sharp from "sharp";
import { block } from "../core/mesh/fixtures/solids";
import { paint, shapes } from "../core/photo/fixtures/pictures";
import { binaryStl } from "../shape/fixtures/files";

let folder: string;
beforeEach(() => void (folder = mkdtempSync(join(tmpdir(), "zesty-scripts-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const node = (args: string[], input = "", env: Record<string, string> = {}) =>
  spawnSync(process.execPath, args, { input, encoding: "utf8", env: { ...process.env, ZESTY_DATA: join(folder, "data"), ...env } });
const tsx = (script: string, args: string[] = [], input = "", env: Record<string, string> = {}) =>
  node(["node_modules/tsx/dist/cli.mjs", script, ...args], input, env);

describe("npm run op", () => {
  it("prints an answer as JSON on standard output", () => {
    const ran = tsx("scripts/op.ts", ["cast.batch"], '{"castId":"cast-beeswax","cavityMl":180}');
    expect(ran.status).toBe(0);
    expect((JSON.parse(ran.stdout) as { mixG: number }).mixG).toBeCloseTo(172.8, 6);
  });

  it.each([
    ["a fault, by its path", "rubber.batch", '{"rubberId":"rubber-tin-medium-25","volumeMl":-1}', /^volumeMl: .*more than 0/],
    ["a field it does not know", "cast.batch", '{"castId":"cast-plaster","cavityMl":1,"cavityMI":2}', /cavityMI/],
    ["what is not JSON", "plan", "{", /Standard input is not JSON/],
    ["no such operation", "mould.guess", "{}", /no operation "mould.guess"/],
  ])("says %s on standard error, with exit code 2", (_, name, input, words) => {
    const ran = tsx("scripts/op.ts", [name], input);
    expect([ran.status, ran.stdout]).toEqual([2, ""]);
    expect(ran.stderr).toMatch(words);
  });

  it("takes a model or a picture by its path", async () => {
    const part = join(folder, "part.stl");
    writeFileSync(part, binaryStl(block(10, 20, 30)));
    const measured = tsx("scripts/op.ts", ["model.measure", "--file", part], '{"heightsMm":[15]}');
    expect(measured.status).toBe(0);
    const m = JSON.parse(measured.stdout) as { verdict: string; volumeMm3: number; levels: { areaMm2: number; girthMm: number }[]; says: string[] };
    expect(m.verdict).toBe("read");
    expect(m.volumeMm3).toBeCloseTo(6000, 6);
    expect(m.levels[0]!.girthMm).toBeCloseTo(60, 6);
    expect(m.says[0]).toMatch(/does not say its unit/);

    const { picture, tap } = paint({
      width: 160,
      height: 120,
      outline: shapes(160, 120).oval!,
      tap: [80, 60],
      piece: () => [0.6, 0.2, 0.1],
      round: () => [0.5, 0.5, 0.5],
    });
    const photo = join(folder, "oval.png");
    await sharp(Buffer.from(picture.rgba), { raw: { width: 160, height: 120, channels: 4 } }).toFile(photo);
    const found = tsx(
      "scripts/op.ts",
      ["photo.outline", `--file=${photo}`],
      JSON.stringify({
        tapPx: tap,
        scale: {
          pointsPx: [
            [0, 0],
            [100, 0],
          ],
          distanceMm: 50,
        },
      }),
    );
    const o = JSON.parse(found.stdout) as { areaMm2: number; outlinePx: number[][][] };
    // An oval of 36 × 1.2 by 36 × 0.8 points, each half a millimetre.
    expect(o.areaMm2 / (Math.PI * 36 * 1.2 * 36 * 0.8 * 0.25)).toBeCloseTo(1, 1);
    expect(o.outlinePx).toHaveLength(1);
  });

  it.each([
    ["a damaged file", ["model.measure", "--file", "package.json"], /no model that can be read/],
    ["no such file", ["model.measure", "--file", "nowhere.stl"], /cannot be read/],
    ["what is no picture", ["photo.outline", "--file", "package.json"], /picture cannot be read/],
    ["no file", ["model.pull"], /needs a model/],
    ["a file it does not take", ["cast.batch", "--file", "package.json"], /takes no file/],
  ])("refuses %s with exit code 2", (_, args, words) => {
    const ran = tsx("scripts/op.ts", args, "{}");
    expect([ran.status, ran.stdout]).toEqual([2, ""]);
    expect(ran.stderr).toMatch(words);
  });

  it("lists every operation when none is named", () => {
    expect(tsx("scripts/op.ts").stdout).toMatch(/^fit\.check +Judge every contact/m);
  });
});

describe("the generated page of operations", () => {
  it("is the one the schemas make today", () => {
    const before = readFileSync("docs/operations.md", "utf8");
    const made = tsx("scripts/operations-doc.ts", [join(folder, "operations.md")]);
    expect(made.status).toBe(0);
    expect(readFileSync(join(folder, "operations.md"), "utf8")).toBe(before);
  });
});

describe("loading the demo", () => {
  it("fills a new workshop once, and never touches one in use", () => {
    expect(tsx("scripts/load-demo.ts").stdout).toMatch(/Loaded the demo workshop/);
    const again = tsx("scripts/load-demo.ts");
    expect([again.status, again.stdout]).toEqual([0, expect.stringMatching(/^Opening the workshop/)]);
  });

  it("says what is wrong with a file that is no workshop, and leaves it alone", () => {
    tsx("scripts/load-demo.ts");
    const file = join(folder, "data", "workshop.sqlite");
    writeFileSync(file, "a shopping list");
    const ran = tsx("scripts/load-demo.ts");
    expect(ran.status).toBe(1);
    expect(ran.stderr).toMatch(/is not usable .* Put a good copy in its place/);
    expect(readFileSync(file, "utf8")).toBe("a shopping list");
  });
});

describe("starting", () => {
  it.each([
    ["an unknown command", ["brew"], {}, /"brew" is not one of demo, dev, check, test, bench, soak, op/],
    ["an unknown option", ["demo", "--wipe"], {}, /"--wipe" is not known here\. The only option is --fresh/],
    ["a port that is no number", ["demo"], { PORT: "lots" }, /PORT is "lots": it has to be a whole number/],
  ])("refuses %s in words", (_, args, env, words) => {
    const ran = node(["scripts/start.mjs", ...args], "", env);
    expect(ran.status).toBe(1);
    expect(ran.stderr).toMatch(words);
    expect(existsSync(join(folder, "data"))).toBe(false);
  });

  it("says which port is taken, and how to choose another, before it touches any data", async () => {
    const holder = createServer();
    await new Promise<void>((done) => holder.listen(0, "127.0.0.1", done));
    const address = holder.address();
    const port = typeof address === "object" && address ? address.port : 0;
    const ran = node(["scripts/start.mjs", "demo", "--fresh"], "", { PORT: String(port) });
    await new Promise((done) => holder.close(done));
    expect(ran.status).toBe(1);
    expect(ran.stderr).toContain(`PORT=${port + 1} npm run demo`);
    expect(readdirSync(folder)).toEqual([]);
  });
});

describe("workers", () => {
  const files = (folder: string): string[] =>
    readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
      e.isDirectory() ? files(join(folder, e.name)) : /\.tsx?$/.test(e.name) ? [join(folder, e.name)] : [],
    );

  it("are started only by files that also import their type, so that the architecture rule sees what they reach", () => {
    const started = files("ui").flatMap((file) =>
      [...readFileSync(file, "utf8").matchAll(/new Worker\(new URL\("([^"]+)"/g)].map((m) => ({ file, worker: join(dirname(file), m[1] ?? "") })),
    );
    expect(started.map((s) => s.worker).sort()).toEqual(readdirSync("workers").map((w) => join("workers", w)));
    for (const { file, worker } of started) expect(readFileSync(file, "utf8")).toContain(`from "@/${worker.replace(/\.ts$/, "")}"`);
  });
});
