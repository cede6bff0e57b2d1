import type { MouldChange, MouldPage } from "@/contract/log";
import type { SettingsChange } from "@/contract/workshop";
import { Settings } from "@/core/workshop";
import { mouldDocument } from "../features/rack/mouldDocument";
import { settingsDocument } from "../features/settings/settingsDocument";
import type { Sent } from "./call";
import { flushAll, RETRY_MS, SAVE_DELAY_MS } from "./savedDocument";
import { fakeStorage } from "./fixtures/storage";

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
const down = { ok: false, status: 0, error: "unreachable", message: "no answer", current: null, detail: {} } as const;

const blank: MouldPage = {
  mould: {
    id: "m",
    jobId: "j",
    jobName: "Tile",
    name: "Tile, mould 1",
    madeAt: 0,
    place: "",
    note: "",
    expected: null,
    retiredAt: null,
    casts: 0,
    good: 0,
    flawed: 0,
    failed: 0,
    lastCastAt: null,
    rubberFamily: null,
    castFamily: null,
    life: null,
    left: null,
  },
  casts: [],
  cutsLike: null,
  cost: null,
  costPerGood: null,
  labelUrl: null,
  events: [],
};

/** A server that keeps one mould, slowly if asked to. */
function rack() {
  const server = {
    mould: blank.mould,
    asked: [] as MouldChange[],
    down: false,
    slow: null as Promise<void> | null,
    put: async (change: MouldChange): Promise<Sent<MouldPage>> => {
      server.asked.push(change);
      await server.slow;
      if (server.down) return down;
      server.mould = { ...server.mould, ...change } as MouldPage["mould"];
      return { ok: true, data: { ...blank, mould: server.mould } };
    },
  };
  const storage = fakeStorage();
  return { server, storage, open: () => mouldDocument({ ...blank, mould: server.mould }, server.put, storage) };
}

describe("a mould being edited", () => {
  it("keeps a name though its place is typed before the name was sent", async () => {
    const { server, open } = rack();
    const doc = open();
    doc.update({ name: "North tile" });
    doc.update({ place: "Top shelf" });
    expect(doc.getState().view.mould).toMatchObject({ name: "North tile", place: "Top shelf" });
    await pass(SAVE_DELAY_MS);
    expect(server.mould).toMatchObject({ name: "North tile", place: "Top shelf" });
    expect(server.asked).toHaveLength(1);
  });

  it("lets no late answer put an earlier word back", async () => {
    const { server, open } = rack();
    let letGo = () => {};
    server.slow = new Promise((r) => (letGo = r));
    const doc = open();
    doc.update({ place: "Top" });
    await pass(SAVE_DELAY_MS);
    doc.update({ place: "Top shelf" });
    letGo();
    await pass(0);
    expect(doc.getState().view.mould.place).toBe("Top shelf");
    await pass(SAVE_DELAY_MS);
    expect(server.mould.place).toBe("Top shelf");
  });

  it("may stand without a name while it is typed; the rest is saved", async () => {
    const { server, open } = rack();
    const doc = open();
    doc.update({ name: "" });
    doc.update({ note: "left of the door" });
    await pass(SAVE_DELAY_MS);
    expect(doc.getState().view.mould.note).toBe("left of the door");
    expect(server.mould).toMatchObject({ name: "Tile, mould 1", note: "left of the door" });
  });

  it("sends what is waiting, and what is under way, as the page goes away; a later page picks up what did not arrive", async () => {
    const { server, storage, open } = rack();
    server.down = true;
    const doc = open();
    doc.update({ place: "Top shelf" });
    await pass(SAVE_DELAY_MS);
    doc.update({ note: "dry" });
    doc.leave();
    expect(server.asked.at(-1)).toEqual({ place: "Top shelf", note: "dry", was: { place: "", note: "" } });
    await pass(0);
    server.down = false;
    const again = open();
    await again.restore();
    expect(again.getState().view.mould).toMatchObject({ place: "Top shelf", note: "dry" });
    await pass(SAVE_DELAY_MS);
    expect(server.mould).toMatchObject({ place: "Top shelf", note: "dry" });
    expect(storage.kept.size).toBe(0);
  });

  it("is saved before a file is fetched, and the fetch is told where it is not", async () => {
    const { server, open } = rack();
    const doc = open();
    doc.update({ place: "Top shelf" });
    expect(await flushAll()).toBe(true);
    expect(server.mould.place).toBe("Top shelf");
    server.down = true;
    doc.update({ place: "Cellar" });
    expect(await flushAll()).toBe(false);
    server.down = false;
    await pass(RETRY_MS);
    expect(server.mould.place).toBe("Cellar");
    expect(await flushAll()).toBe(true);
  });
});

describe("settings being edited", () => {
  function desk() {
    const server = {
      kept: Settings.parse({}),
      asked: [] as SettingsChange[],
      put: async (change: SettingsChange): Promise<Sent<Settings>> => {
        server.asked.push(change);
        await Promise.resolve();
        const read = Settings.safeParse({ ...server.kept, ...change });
        if (!read.success) {
          const faults = read.error.issues.map((i) => ({ path: i.path.join("."), message: i.message }));
          return { ok: false, status: 400, error: "invalid", message: faults[0]!.message, current: null, detail: { faults } };
        }
        server.kept = read.data;
        return { ok: true, data: server.kept };
      },
    };
    return { server, doc: settingsDocument(server.kept, server.put, fakeStorage()) };
  }

  it("go out once a pause, not once a letter", async () => {
    const { server, doc } = desk();
    for (const workshopName of ["P", "Pe", "Per", "Peri"]) doc.update({ workshopName });
    doc.update({ shopC: 19 });
    await pass(SAVE_DELAY_MS);
    expect(server.asked).toEqual([{ workshopName: "Peri", shopC: 19, was: { workshopName: "My workshop", shopC: 21 } }]);
    expect(doc.getState().save.kind).toBe("saved");
  });

  it("let the rest by where one is refused, and keep the refused one on the page until it is put right", async () => {
    const { server, doc } = desk();
    doc.update({ zone: "Atlantis/Harbour" });
    doc.update({ workshopName: "Perigee Yard" });
    await pass(SAVE_DELAY_MS);
    await pass(5);
    expect(server.kept.workshopName).toBe("Perigee Yard");
    expect(doc.getState().save).toMatchObject({ kind: "failed", message: expect.stringContaining("Atlantis/Harbour") });
    expect(doc.getState().view).toMatchObject({ zone: "Atlantis/Harbour", workshopName: "Perigee Yard" });
    doc.update({ zone: "Europe/Berlin" });
    await pass(SAVE_DELAY_MS);
    expect(server.kept.zone).toBe("Europe/Berlin");
    expect(doc.getState().save.kind).toBe("saved");
  });
});
