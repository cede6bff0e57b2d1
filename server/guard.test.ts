import { allowedHosts,BODY_LIMIT,PHOTO_LIMIT,readWithin,safetyHeaders,turnAway,type Asked } from "./guard";

const hosts = allowedHosts("bench.local");
const asked = (patch: Partial<Asked>): Asked => ({ method: "GET", path: "/", host: "127.0.0.1:3210", origin: null, fetchSite: null, fetchMode: null, contentLength: null, ...patch });
const status = (patch: Partial<Asked>) => turnAway(asked(patch), hosts)?.status ?? 200;

describe("the front door", () => {
  it.each<[string, Partial<Asked>, number]>([
    ["a page on the local address", {}, 200],
    ["by name, any case, any port", { host: "LocalHost:99" }, 200],
    ["by IPv6", { host: "[::1]:3210" }, 200],
    ["a configured name", { host: "bench.local" }, 200],
    ["a name nobody configured", { host: "evil.example" }, 421],
    ["a local-looking name", { host: "127.0.0.1.evil.example" }, 421],
    ["no host at all", { host: null }, 421],
    ["a write from this page", { method: "PUT", origin: "http://127.0.0.1:3210", fetchSite: "same-origin" }, 200],
    ["a write from a program", { method: "POST" }, 200],
    ["a write from another site", { method: "POST", origin: "http://evil.example" }, 403],
    ["a write from another port", { method: "POST", origin: "http://127.0.0.1:8080" }, 403],
    ["a write from a sandboxed page", { method: "POST", origin: "null" }, 403],
    ["a cross-site write without origin", { method: "DELETE", fetchSite: "cross-site" }, 403],
    ["a read by another site's script", { origin: "http://evil.example" }, 403],
    ["a picture another site shows", { fetchSite: "cross-site", fetchMode: "no-cors" }, 403],
    ["a link followed from another site", { fetchSite: "cross-site", fetchMode: "navigate" }, 200],
    ["a method nobody needs", { method: "TRACE" }, 405],
    ["an address that cannot be read", { path: "/jobs/%ff" }, 400],
    ["a form sent from another site", { method: "POST", fetchSite: "cross-site", fetchMode: "navigate" }, 403],
    ["a body at the limit", { method: "PUT", contentLength: String(BODY_LIMIT) }, 200],
    ["a body above it", { method: "PUT", contentLength: String(BODY_LIMIT + 1) }, 413],
    ["a photo of that size", { method: "POST", path: "/api/pours/x/photos", contentLength: String(BODY_LIMIT + 1) }, 200],
    ["a photo above its limit", { method: "POST", path: "/api/pours/x/photos", contentLength: String(PHOTO_LIMIT + 1) }, 413],
    ["a length that is no number", { method: "POST", contentLength: "lots" }, 413],
  ])("%s", (_, patch, expected) => expect(status(patch)).toBe(expected));

  it("stops reading a body as soon as it is too long", async () => {
    let given = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(c) {
        given += 1000;
        c.enqueue(new Uint8Array(1000));
      },
    });
    expect(await readWithin(endless, 5000)).toBeNull();
    expect(given).toBeLessThan(10_000);
    expect((await readWithin(new Response("abc").body, 3))?.toString()).toBe("abc");
    expect((await readWithin(null, 3))?.length).toBe(0);
  });

  it("lets scripts run only with this answer's nonce", () => {
    const csp = safetyHeaders("abc", false)["Content-Security-Policy"]!;
    expect(csp).toContain("'nonce-abc'");
    expect(csp).not.toContain("unsafe-eval");
    expect(csp).toContain("frame-ancestors 'none'");
  });
});
