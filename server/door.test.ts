/** @jest-environment node */
import { createServer, request } from "node:http";
import { request as secureRequest } from "node:https";
import { api } from "../contract";
import { keeperOnly } from "../contract/rights";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Endpoint } from "../contract/endpoint";
import { deviceOf, devicesIn, enterByPairing, enterByPassphrase, GUESSES, newPairing, setPassphrase, signOut, signOutAll } from "./door";
import { doorState, pairingCode, setDevice, setDoor, signOutDevice } from "./doorway";
import { refused, Shops } from "./fixtures/shop";
import { tendGate } from "./gate";
import { keepCopy, keptCopies, openKept } from "./kept";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;
const shops = new Shops();
let w: Workshop;
beforeEach(() => {
  w = shops.open(false);
  shops.now = Date.now();
});
afterEach(() => shops.close());

describe("the door", () => {
  const guess = async (passphrase: string, from = "tablet") => {
    try {
      return await enterByPassphrase(w, passphrase, from, "Bench tablet");
    } catch (e) {
      return e instanceof Refusal ? e.status : 0;
    }
  };

  it("keeps no passphrase and nothing a device shows, opens to the right one, and signs devices out when it changes", async () => {
    await expect(setPassphrase(w, { passphrase: "short" })).rejects.toThrow(/at least 10/);
    await setPassphrase(w, { passphrase: "three blue moons" });
    const session = String(await guess("three blue moons"));
    const stored = JSON.stringify([w.db.$client.prepare("select value from settings").all(), w.db.$client.prepare("select * from devices").all()]);
    expect(stored).not.toContain("moons");
    expect(stored).not.toContain(session.split(".")[1]);
    expect(deviceOf(w, session)).toMatchObject({ name: "Bench tablet", may: "bench" });
    const [id = ""] = session.split(".");
    for (const no of [`${session}x`, `${id}.`, id, "", undefined, `.${session}`]) expect(deviceOf(w, no)).toBeNull();
    await setPassphrase(w, { passphrase: "four blue moons" });
    expect(deviceOf(w, session)).toBeNull();
  });

  it("keeps a device that is seen, and signs out one that was not for a month", async () => {
    await setPassphrase(w, { passphrase: "three blue moons" });
    const session = String(await guess("three blue moons"));
    expect(deviceOf(w, session)?.seen).toBe(false);
    for (let i = 0; i < 3; i++) {
      shops.now += 20 * 24 * HOUR;
      expect(deviceOf(w, session)?.seen).toBe(true);
    }
    shops.now += 31 * 24 * HOUR;
    expect(deviceOf(w, session)).toBeNull();
    expect(devicesIn(w)).toEqual([]);
  });

  it("stops guessing after a few, even for the right one, lets the others try; a new passphrase on the first machine ends that", async () => {
    shops.now += 1e9;
    await setPassphrase(w, { passphrase: "three blue moons" });
    for (let i = 0; i < GUESSES.each; i++) expect(await guess("wrong", "thief")).toBe(403);
    expect(await guess("three blue moons", "thief")).toBe(429);
    expect(typeof (await guess("three blue moons", "tablet"))).toBe("string");
    await setDoor(w, true, { passphrase: "five blue moons" });
    expect(typeof (await guess("five blue moons", "thief"))).toBe("string");
    for (let i = 0; i < GUESSES.each; i++) await guess("wrong", "thief");
    shops.now += GUESSES.withinMs + 1;
    expect(typeof (await guess("five blue moons", "thief"))).toBe("string");
  });

  it("pairs one device by one code within five minutes, with the rights it was made for", async () => {
    expect(refused(() => newPairing(w)).status).toBe(422);
    await setPassphrase(w, { passphrase: "three blue moons" });
    const { code } = newPairing(w, "all");
    expect(deviceOf(w, enterByPairing(w, code, "  ") ?? "")).toMatchObject({ name: "Device", may: "all" });
    expect(enterByPairing(w, code)).toBeNull();
    expect(deviceOf(w, enterByPairing(w, newPairing(w).code) ?? "")).toMatchObject({ name: "Device 2", may: "bench" });
    const late = newPairing(w).code;
    shops.now += 6 * 60_000;
    expect(enterByPairing(w, late)).toBeNull();
  });

  it("lists its devices; each is named, given rights and signed out by itself, and stays out when an older copy is opened", async () => {
    await setPassphrase(w, { passphrase: "three blue moons" });
    const [one, two] = [await guess("three blue moons"), await guess("three blue moons")].map(String) as [string, string];
    keepCopy(w, "asked");
    const [first] = devicesIn(w);
    const named = setDevice(w, true, first!.id, { name: "By the kiln", may: "all" });
    expect(named.devices.find((d) => d.id === first!.id)).toMatchObject({ name: "By the kiln", may: "all" });
    expect(refused(() => setDevice(w, false, first!.id, { may: "all" })).status).toBe(403);
    expect(refused(() => setDevice(w, true, first!.id, { name: " " })).status).toBe(400);
    expect(signOutDevice(w, true, one.split(".")[0]!).devices).toHaveLength(1);
    expect([deviceOf(w, one), deviceOf(w, two)?.id]).toEqual([null, two.split(".")[0]]);
    expect(refused(() => signOut(w, one.split(".")[0]!)).status).toBe(404);
    const { workshop: back } = openKept(w, keptCopies(w)[0]!.name);
    expect([deviceOf(back, one), deviceOf(back, two)?.id]).toEqual([null, two.split(".")[0]]);
    signOutAll(back);
    expect(devicesIn(back)).toEqual([]);
    back.db.$client.close();
  });

  it("is set up on the first machine only, and listens behind a passphrase or not at all", async () => {
    expect(doorState(w, true)).toMatchObject({ open: false, wanted: false, passphrase: false, fingerprint: null });
    await expect(setDoor(w, false, { listen: true })).rejects.toThrow(/first machine/);
    await expect(setDoor(w, true, { listen: true })).rejects.toThrow(/Set a passphrase first/);
    await expect(pairingCode(w, true)).rejects.toThrow(/Turn listening on/);
  });
});

describe("what a device that may weigh and log may not", () => {
  const all = Object.entries(api).flatMap(([area, list]) => Object.entries(list as Record<string, Endpoint>).map(([n, e]) => [`${area}.${n}`, e] as const));
  it("is restore, delete, import and take everything away; the bench is open to it", () => {
    const at = (e: Endpoint) => e.path.replace(/:\w+/g, "x-1");
    const kept = all.filter(([, e]) => keeperOnly(e.method, at(e))).map(([n]) => n);
    // Everything that deletes is among them, but for what a bench takes back of its own: a batch, a typed temperature. The door has its own keeper.
    const deletes = all
      .filter(([n, e]) => e.method === "DELETE" && !n.startsWith("door.") && !["weigh.drop", "clocks.forgetReadings"].includes(n))
      .map(([n]) => n);
    expect(kept).toEqual(expect.arrayContaining([...deletes, "kept.open", "errands.start", "backup.piece", "materials.import"]));
    for (const open of ["weigh.begin", "log.log", "clocks.start", "jobs.save", "device.lines"]) expect(kept).not.toContain(open);
    expect(["/api/backup", "/api/backup/", "/api/backup/file/x"].every((p) => keeperOnly("GET", p) && keeperOnly("HEAD", p))).toBe(true);
    expect(keeperOnly("GET", "/api/jobs")).toBe(false);
  });
});

describe("the gate", () => {
  interface Answer {
    status: number;
    headers: Record<string, unknown>;
    text: string;
  }
  interface Asking {
    method?: string;
    headers?: Record<string, string>;
    body?: string;
    plain?: boolean;
  }
  const root = () => readFileSync(join(w.files.folder, "door", "root.crt"), "utf8");
  /** Asks as a device that trusts the workshop's signature and nothing else. */
  const ask = (port: number, path: string, { method = "GET", headers = {}, body, plain = false }: Asking = {}): Promise<Answer> =>
    new Promise((done, fail) => {
      const options = { host: "127.0.0.1", port, path, method, headers: { host: `127.0.0.1:${port}`, ...headers } };
      const r = (plain ? request(options) : secureRequest({ ...options, ca: root(), servername: "localhost" })).on("response", (res) => {
        let text = "";
        res.on("data", (c) => (text += String(c)));
        res.on("end", () => done({ status: res.statusCode ?? 0, headers: res.headers, text }));
      });
      r.on("error", fail);
      r.end(body);
    });

  it("lets nothing through without a device, and everything it may with one, over HTTPS alone", async () => {
    const seen: { url: string | undefined; gate: unknown; cookie: unknown; host: unknown }[] = [];
    let letGoOf = () => {};
    const letGo = new Promise<void>((done) => (letGoOf = done));
    const inner = createServer((req, res) => {
      if (req.url === "/api/endless") {
        const more = setInterval(() => res.write("on and on"), 5);
        res.on("close", () => {
          clearInterval(more);
          letGoOf();
        });
        return;
      }
      seen.push({ url: req.url, gate: req.headers["x-zesty-gate"], cookie: req.headers.cookie, host: req.headers.host });
      res.end("inside");
    });
    await new Promise<void>((done) => inner.listen(0, "127.0.0.1", done));
    const at = inner.address();
    const port = typeof at === "object" && at ? at.port : 0;
    process.env.ZESTY_PORT = String(port);
    process.env.ZESTY_LAN_PORT = String(port === 65535 ? port - 1 : port + 1);
    const lan = Number(process.env.ZESTY_LAN_PORT);
    (globalThis as { zestyWorkshop?: Workshop }).zestyWorkshop = w;
    try {
      await setDoor(w, true, { passphrase: "three blue moons", listen: true });
      const state = doorState(w, true);
      expect(state).toMatchObject({ open: true, fault: null });
      // Plain HTTP is sent on, carries nothing, and is judged by its host.
      const plain = await ask(lan, "/rack/x?a=1", { plain: true });
      expect([plain.status, plain.headers.location, plain.text]).toEqual([308, `https://127.0.0.1:${lan}/rack/x?a=1`, ""]);
      expect((await ask(lan, "/", { plain: true, headers: { host: "evil.example" } })).status).toBe(421);
      // The signature and how to trust it are there before anybody is let in.
      expect((await ask(lan, "/door/trust")).text).toContain(state.fingerprint);
      expect((await ask(lan, "/door/workshop.crt")).text).toBe(root());
      expect((await ask(lan, "/api/jobs")).status).toBe(401);
      const sent = await ask(lan, "/rack/x", { headers: { accept: "text/html" } });
      expect([sent.status, sent.headers.location]).toEqual([303, "/door?to=%2Frack%2Fx"]);
      expect((await ask(lan, "/door", { headers: { host: "evil.example" } })).status).toBe(421);
      const form = { "content-type": "application/x-www-form-urlencoded", origin: `https://127.0.0.1:${lan}` };
      for (const origin of ["https://evil.example", `http://127.0.0.1:${lan}`])
        expect((await ask(lan, "/door", { method: "POST", headers: { ...form, origin }, body: "passphrase=x" })).status).toBe(403);
      expect((await ask(lan, "/door", { method: "POST", headers: form, body: "passphrase=wrong" })).text).toContain("not the workshop");
      const come = await ask(lan, "/door", { method: "POST", headers: form, body: "passphrase=three+blue+moons&to=//evil.example&name=<b>Kiln" });
      expect([come.status, come.headers.location]).toEqual([303, "/"]);
      const set = String((come.headers["set-cookie"] as string[])[0]);
      expect(set).toMatch(/^__Host-.*; Secure; HttpOnly; SameSite=Strict; Path=\//);
      const cookie = set.split(";")[0]!;
      expect(seen).toEqual([]);
      const inside = await ask(lan, "/api/jobs?text=a", { headers: { cookie, "x-zesty-gate": "spoofed" } });
      expect([inside.status, inside.text]).toEqual([200, "inside"]);
      expect(seen).toEqual([{ url: "/api/jobs?text=a", gate: "1", cookie: undefined, host: `127.0.0.1:${port}` }]);
      expect((await ask(lan, "/api/jobs", { headers: { cookie, origin: "https://evil.example" } })).status).toBe(403);
      // It may weigh and log; what it may not is said in words, until the first machine lets it.
      const backup = () => ask(lan, "/api/backup", { headers: { cookie } });
      expect([(await backup()).status, (await backup()).text]).toEqual([403, expect.stringContaining("may weigh and log")]);
      setDevice(w, true, devicesIn(w)[0]!.id, { may: "all" });
      expect((await backup()).status).toBe(200);
      // Whoever hangs up in the middle of a long answer lets go of it behind the gate too.
      await new Promise<void>((begun) => {
        const r = secureRequest({ host: "127.0.0.1", port: lan, path: "/api/endless", headers: { cookie }, ca: root() }, (res) =>
          res.once("data", () => begun(void res.destroy())),
        );
        r.on("error", () => {});
        r.end();
      });
      await letGo;
      // Signed out, it is out at its next word.
      signOutDevice(w, true, devicesIn(w)[0]!.id);
      expect((await ask(lan, "/api/jobs", { headers: { cookie } })).status).toBe(401);
      await setDoor(w, true, { listen: false });
      await expect(ask(lan, "/door")).rejects.toThrow();
    } finally {
      w.db.$client.prepare("delete from settings where key = 'door'").run();
      await tendGate(w);
      inner.close();
      delete (globalThis as { zestyWorkshop?: Workshop }).zestyWorkshop;
      delete process.env.ZESTY_PORT;
      delete process.env.ZESTY_LAN_PORT;
    }
  });
});
