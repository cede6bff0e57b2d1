import { newJob, type Job } from "@/core/record";
import type { Sent } from "../../data/call";
import { RETRY_MS, SAVE_DELAY_MS } from "../../data/savedDocument";
import type { JobView } from "@/contract/jobs";
import { JobDocument } from "./jobDocument";
import { fakeStorage } from "../../data/fixtures/storage";

const view = (job: Job, revision: number): JobView => ({ id: "j", job, revision, updatedAt: 0, putAwayAt: null, canUndo: revision > 1, canRedo: false });
const named =
  (name: string) =>
  (job: Job): Job => ({ ...job, name });

/** A server that keeps one job the way the real one does: the later of two writers is refused. */
function fakeServer() {
  const server = {
    current: view(newJob("A"), 1),
    down: false,
    hold: null as Promise<void> | null,
    puts: 0,
    send: async (method: string, body: unknown): Promise<Sent<JobView>> => {
      await server.hold;
      if (server.down) return { ok: false, status: 0, error: "unreachable", message: "no answer", current: null, detail: {} };
      const ask = body as { baseRevision: number; job: Job };
      if (ask.baseRevision !== server.current.revision)
        return { ok: false, status: 409, error: "stale", message: "stale", current: server.current, detail: {} };
      if (method === "PUT") server.puts++;
      server.current = view(method === "PUT" ? ask.job : named("undone")(server.current.job), server.current.revision + 1);
      return { ok: true, data: server.current };
    },
  };
  return server;
}

const around = (server: ReturnType<typeof fakeServer>, storage: ReturnType<typeof fakeStorage>) => ({
  put: (body: unknown) => server.send("PUT", body),
  step: (body: unknown) => server.send("POST", body),
  storage,
});

function open(server = fakeServer(), storage = fakeStorage(), initial = server.current) {
  return { server, storage, doc: new JobDocument(initial, around(server, storage)) };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

describe("a job being edited", () => {
  it("gathers quick changes into one save, and keeps them in the browser until then", async () => {
    const { server, storage, doc } = open();
    doc.update(named("B"));
    doc.update(named("C"));
    expect(doc.getState()).toMatchObject({ job: { name: "C" }, save: { kind: "waiting" } });
    expect(storage.kept.size).toBe(1);
    await pass(SAVE_DELAY_MS);
    expect(server).toMatchObject({ puts: 1, current: { job: { name: "C" }, revision: 2 } });
    expect(doc.getState()).toMatchObject({ revision: 2, canUndo: true, save: { kind: "saved" } });
    expect(storage.kept.size).toBe(0);
  });

  it("saves again what was typed while a save was under way", async () => {
    const { server, doc } = open();
    let letGo = () => {};
    server.hold = new Promise((r) => (letGo = r));
    doc.update(named("B"));
    await pass(SAVE_DELAY_MS);
    doc.update(named("C"));
    letGo();
    expect(await doc.flush()).toBe(true);
    expect(server).toMatchObject({ puts: 2, current: { job: { name: "C" } } });
  });

  it("keeps trying an unreachable server, and loses nothing meanwhile", async () => {
    const { server, storage, doc } = open();
    server.down = true;
    doc.update(named("B"));
    await pass(SAVE_DELAY_MS);
    expect(doc.getState().save).toMatchObject({ kind: "failed" });
    expect(storage.kept.size).toBe(1);
    server.down = false;
    await pass(RETRY_MS);
    expect(doc.getState().save.kind).toBe("saved");
    expect(server.current.job.name).toBe("B");
  });

  it.each([
    ["mine", "B"],
    ["theirs", "Other"],
  ] as const)("stops at a save made elsewhere, and on request keeps %s", async (keep, name) => {
    const { server, doc } = open();
    server.current = view(newJob("Other"), 2);
    doc.update(named("B"));
    await pass(SAVE_DELAY_MS);
    expect(doc.getState()).toMatchObject({ job: { name: "B" }, save: { kind: "conflict", theirs: { job: { name: "Other" } } } });
    expect(server.current.job.name).toBe("Other");
    expect(await doc.flush()).toBe(false);
    doc.resolve(keep);
    await pass(1);
    expect(doc.getState()).toMatchObject({ job: { name }, save: { kind: "saved" } });
    expect(server.current.job.name).toBe(name);
  });

  it("picks up an unsaved entry after a reload, and asks if someone saved since", async () => {
    const first = open();
    first.server.down = true;
    first.doc.update(named("B"));
    await pass(SAVE_DELAY_MS);
    first.server.down = false;
    const again = open(first.server, first.storage);
    await again.doc.restore();
    await pass(SAVE_DELAY_MS);
    expect(again.server.current.job.name).toBe("B");

    const third = open(fakeServer(), fakeStorage());
    third.storage.setItem("zesty-job-j", JSON.stringify({ job: newJob("Mine"), revision: 1 }));
    third.server.current = view(newJob("Other"), 2);
    const late = new JobDocument(third.server.current, around(third.server, third.storage));
    await late.restore();
    await pass(SAVE_DELAY_MS);
    expect(late.getState()).toMatchObject({ job: { name: "Mine" }, save: { kind: "conflict" } });
  });

  it.each(["null", "{", '{"job":{"format":9},"revision":1}', '{"job":1}'])("ignores a draft it cannot read: %s", async (text) => {
    const { server, storage, doc } = open();
    storage.setItem("zesty-job-j", text);
    await doc.restore();
    await pass(SAVE_DELAY_MS);
    expect(doc.getState()).toMatchObject({ job: { name: "A" }, save: { kind: "saved" } });
    expect(server.puts).toBe(0);
  });

  it("knows its own last save when it lands after the reload has read the job", async () => {
    const first = open();
    first.doc.update(named("B"));
    const before = first.server.current;
    first.doc.leave();
    await pass(0);
    expect(first.server.current).toMatchObject({ revision: 2, job: { name: "B" } });
    // The new page was handed the job as it stood before that save.
    const again = open(first.server, first.storage, before);
    await again.doc.restore();
    again.doc.update((job) => ({ ...job, note: "and more" }));
    await pass(SAVE_DELAY_MS + 10);
    expect(again.doc.getState()).toMatchObject({ save: { kind: "saved" }, job: { name: "B", note: "and more" } });
    expect(first.server.current.job).toMatchObject({ name: "B", note: "and more" });
    expect(again.storage.kept.size).toBe(0);
  });

  it("saves before it undoes, so that the undo starts from what is on the page", async () => {
    const { server, doc } = open();
    doc.update(named("B"));
    await doc.step("undo");
    expect(server.puts).toBe(1);
    expect(doc.getState()).toMatchObject({ job: { name: "undone" }, revision: 3 });
  });
});
