/** @jest-environment node */
import { X509Certificate } from "node:crypto";
import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { createServer } from "node:https";
import { request } from "node:https";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { certificateFor, makeShown } from "./certificate";
import { Shops } from "./fixtures/shop";

const shops = new Shops();
beforeEach(() => void (shops.now = Date.now()));
afterEach(() => shops.close());
const NAMES = ["localhost", "127.0.0.1", "192.168.7.20", "bench.local", "kiln"];

/** Asks a server that shows this chain, as a device that trusts nothing but `root`; the name it is asked under decides. */
async function asked(c: { key: string; chain: string; root: string }, servername: string): Promise<string> {
  const server = createServer({ key: c.key, cert: c.chain }, (_, res) => res.end("inside"));
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  try {
    return await new Promise<string>((done) => {
      const r = request({ host: "127.0.0.1", port: (server.address() as AddressInfo).port, ca: c.root, servername, headers: { host: servername } }, (res) =>
        res.on("data", (d) => done(String(d))),
      );
      r.on("error", (e) => done(`refused: ${e.message}`));
      r.end();
    });
  } finally {
    server.closeAllConnections();
    server.close();
  }
}

describe("the workshop's own certificate", () => {
  it("is made once, its keys for the owner alone, and a device that trusts it is let in without a warning", async () => {
    const w = shops.open(false);
    const c = certificateFor(w, NAMES);
    expect(certificateFor(w, NAMES)).toEqual(c);
    const folder = join(w.files.folder, "door");
    for (const name of readdirSync(folder).filter((n) => n.endsWith(".key"))) expect(statSync(join(folder, name)).mode & 0o77).toBe(0);
    expect(c.fingerprint).toBe(new X509Certificate(c.root).fingerprint256.replaceAll(":", " "));
    for (const name of ["bench.local", "localhost", "kiln"]) expect([name, await asked(c, name)]).toEqual([name, "inside"]);
    expect(await asked(c, "elsewhere.example")).toMatch(/refused/);
    const gate = new X509Certificate(c.chain);
    expect([gate.ca, gate.checkIP("192.168.7.20"), gate.checkIP("8.8.8.8")]).toEqual([false, "192.168.7.20", undefined]);
  });

  it("is made anew for another address and before it runs out; what devices trust stays", () => {
    const w = shops.open(false);
    const first = certificateFor(w, NAMES);
    const moved = certificateFor(w, [...NAMES, "10.0.0.9"]);
    expect([moved.root === first.root, moved.chain === first.chain]).toEqual([true, false]);
    shops.now += 370 * 24 * 3_600_000;
    const renewed = certificateFor(w, [...NAMES, "10.0.0.9"]);
    expect([renewed.root === first.root, renewed.chain === moved.chain]).toEqual([true, false]);
    // A file that was damaged is made anew.
    writeFileSync(join(w.files.folder, "door", "gate.crt"), "no certificate");
    expect(certificateFor(w, NAMES).root).toBe(first.root);
  });

  it("vouches for nothing on the internet, not even signed by itself", async () => {
    const w = shops.open(false);
    const c = certificateFor(w, NAMES);
    const root = { key: readFileSync(join(w.files.folder, "door", "root.key"), "utf8"), cert: c.root };
    const forged = makeShown(root, shops.now, ["bank.example"]);
    expect(await asked({ key: forged.key, chain: forged.cert + root.cert, root: c.root }, "bank.example")).toMatch(/permitted subtree violation/);
    // A machine that goes by another name of its own has another root, which says so.
    expect(certificateFor(w, [...NAMES, "workshop.lan"]).root).not.toBe(c.root);
  });
});
