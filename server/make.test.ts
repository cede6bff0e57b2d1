import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { loadDemo } from "../db/demo";
import { workshopFiles } from "../db/open";
import { MAKE_FILES, makeFile, makeSummary } from "./make";
import Papa from "papaparse";
import { calendarFile, calendarView, saveCalendar } from "./calendar";
import { getJob, updateJob } from "./jobs";
import { exportLog } from "./logCsv";
import { logPour, updatePour } from "./pours";
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

  it("carry any name without being led by it: nothing runs, no line is added, no formula begins", async () => {
    const name = `=HYPERLINK("x")</text><script>alert(1)</script>\r\n0\r\nSECTION\r\nBEGIN:VEVENT\u0000\u0007\ud800 🌙 \u202e`.slice(0, 80);
    const { job, revision } = getJob(w, "demo-comet-drawer-pull");
    updateJob(w, "demo-comet-drawer-pull", { baseRevision: revision, job: { ...job, name } });
    const file = async (what: string) => Buffer.from((await makeFile(w, "demo-comet-drawer-pull", what)).body);
    for (const what of Object.keys(MAKE_FILES).filter((f) => !f.startsWith("jacket"))) {
      const made = await makeFile(w, "demo-comet-drawer-pull", what);
      expect(made.name).toMatch(/^[\w.-]+$/);
      expect(made.body.length).toBeGreaterThan(300);
    }
    const svg = (await file("cut-list.svg")).toString();
    expect(svg).not.toMatch(/<script|[\u0000-\u0008]|\ufffd/);
    expect(svg).toContain("&lt;script&gt;");
    const dxf = (await file("cut-list.dxf")).toString().split("\r\n");
    expect(dxf.filter((l) => l === "SECTION")).toHaveLength(3);
    expect((await file("job-sheet.pdf")).subarray(0, 5).toString()).toBe("%PDF-");
    const calendar = calendarView(w);
    const ours = { ...calendar.calendar, jobs: [{ jobId: "demo-comet-drawer-pull", casts: 1, build: true }] };
    saveCalendar(w, { baseRevision: calendar.revision, calendar: ours });
    const first = calendarView(w).tasks[0]!;
    saveCalendar(w, { baseRevision: calendarView(w).revision, calendar: { ...ours, starts: { [first.id]: w.now() + 3_600_000 } } });
    const ics = calendarFile(w).text;
    expect(ics.split(/\r?\n/).filter((l) => l === "BEGIN:VEVENT")).toHaveLength(1);
    const id = logPour(w, { jobId: "demo-comet-drawer-pull", jobRevision: getJob(w, "demo-comet-drawer-pull").revision, kind: "rubber" }).id;
    updatePour(w, id, { notes: "@SUM(1)\r\n=2+3" });
    const rows = Papa.parse<Record<string, string>>(exportLog(w, { table: "log" }).text, { header: true }).data;
    expect(rows.flatMap((r) => Object.values(r)).filter((v) => /^[=@+\t\r]|^-[^\d]/.test(v))).toEqual([]);
    updateJob(w, "demo-comet-drawer-pull", { baseRevision: getJob(w, "demo-comet-drawer-pull").revision, job });
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
