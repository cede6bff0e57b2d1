import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { loadDemo } from "../db/demo";
import { workshopFiles } from "../db/open";
import { MAKE_FILES, makeFile, makeSummary } from "./make";
import { Refusal } from "./refusal";
import { openAt, type Workshop } from "./workshop";

let folder: string;
let w: Workshop;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "zesty-"));
  w = openAt(workshopFiles(folder), () => Date.UTC(2026, 8, 1));
  loadDemo(w.db, Date.UTC(2026, 8, 1));
});
afterAll(() => {
  w.db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});
const refusal = async (jobId: string, name: string): Promise<Refusal> => {
  try {
    await makeFile(w, jobId, name);
  } catch (e) {
    if (e instanceof Refusal) return e;
    throw e;
  }
  throw new Error("nothing was refused");
};

describe("files of the demo's jobs", () => {
  it.each(Object.entries(MAKE_FILES))("%s comes of a two-part block, or is refused in words", async (name, type) => {
    if (name.startsWith("jacket")) return expect((await refusal("demo-comet-drawer-pull", name)).message).toMatch(/block has its box/);
    const made = await makeFile(w, "demo-comet-drawer-pull", name);
    expect(made).toMatchObject({ name: `comet-drawer-pull-${name}`, type });
    expect(made.body.length).toBeGreaterThan(300);
  });

  it("a skin has a jacket and no box, an open mould no sprue former, an unknown job and file none at all", async () => {
    expect((await makeFile(w, "demo-dome-finial", "jacket.stl")).body.length).toBeGreaterThan(10_000);
    expect(await refusal("demo-dome-finial", "box.stl")).toMatchObject({ status: 422, message: "A skin has no box: print its jacket." });
    expect((await refusal("demo-dome-finial", "cut-list.svg")).status).toBe(422);
    expect((await refusal("demo-crater-lamp-base", "sprue.stl")).message).toMatch(/needs no sprue former/);
    expect((await refusal("demo-crater-lamp-base", "../secret")).status).toBe(404);
    expect((await refusal("nobody", "box.stl")).status).toBe(404);
  });

  it("the summary says what the files hold", async () => {
    const block = await makeSummary(w, "demo-comet-drawer-pull");
    expect(block.box!.parts.every((p) => p.fits)).toBe(true);
    expect(block.box!.volumeMl).toBeCloseTo(
      block.box!.parts.reduce((s, p) => s + p.volumeMl, 0),
      9,
    );
    expect(block.sheets).toEqual([expect.objectContaining({ sheets: 1, tooLarge: [] })]);
    const skin = await makeSummary(w, "demo-dome-finial");
    expect([skin.box, skin.jacket!.parts.length, skin.sheets]).toEqual([null, 2, []]);
  });
});
