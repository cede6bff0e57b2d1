import { createServer, request as ask, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { createServer as createSecureServer, type Server as SecureServer } from "node:https";
import { createServer as createListener, type Server as Listener, type Socket } from "node:net";
import { hostname, networkInterfaces } from "node:os";
import { keeperOnly } from "../contract/rights";
import { certificateFor, type Certificate } from "./certificate";
import { allowedHosts, bodyLimit, safetyHeaders, turnAway } from "./guard";
import { deviceOf, enterByPairing, enterByPassphrase, hasPassphrase, SESSION_S } from "./door";
import { getSettings } from "./settings";
import { Refusal } from "./refusal";
import { workshop, type Workshop } from "./workshop";

/** Marks what came through the gate, so that the doors' own keys are kept on the first machine. Stripped from what comes in. */
export const GATE_HEADER = "x-zesty-gate";
/** Sent over HTTPS to this very host only; a browser takes the prefix at its word. */
const COOKIE = "__Host-zesty_device";
/** Where a device learns to trust the workshop's certificate, before it is let in. */
export const TRUST_PATH = "/door/trust";
const CERTIFICATE_PATH = "/door/workshop.crt";

/** Where the application itself answers, on this machine only, and where the gate does, for the network. */
const innerPort = (): number => Number(process.env.ZESTY_PORT ?? process.env.PORT ?? 3210);
const gatePort = (): number => Number(process.env.ZESTY_LAN_PORT ?? innerPort() + 1);

/** This machine's addresses on the local network. */
const lanAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((a) => a.family === "IPv4" && !a.internal)
    .map((a) => a.address);

const gateHosts = (): string[] => {
  const name = hostname().toLowerCase();
  return [...allowedHosts(), ...lanAddresses(), name, `${name}.local`];
};

/** Address of a page for devices on the network; null where this machine has none. */
export function lanUrl(path: string): string | null {
  const [address] = lanAddresses();
  return address ? `https://${address}:${gatePort()}${path}` : null;
}

/** What the certificate stands for: names and addresses a device on the network can call this machine by. */
const certified = (): string[] => [...new Set(gateHosts())].filter((n) => /^[a-z0-9.-]+$/.test(n)).sort();

interface Gate {
  listener: Listener;
  secure: SecureServer;
  plain: Server;
  sockets: Set<Socket>;
  certificate: Certificate;
  port: number;
  renewing: NodeJS.Timeout;
}
const held = globalThis as { zestyGate?: Gate | null; zestyGateFault?: string | null };
/** How often the gate looks whether its certificate still fits this machine's addresses, ms. */
const RENEW_MS = 15 * 60_000;
/** How long a device may take for its first word, and for its request's head, ms. */
const PATIENCE_MS = 10_000;

/** Whether the network is asked for: by the setting, or by ZESTY_LISTEN=lan; never without a passphrase. */
const wanted = (w: Workshop): boolean => (getSettings(w).listen || process.env.ZESTY_LISTEN === "lan") && hasPassphrase(w);

export const gateState = (
  w: Workshop,
): { open: boolean; wanted: boolean; passphrase: boolean; port: number; addresses: string[]; fault: string | null; fingerprint: string | null } => ({
  open: Boolean(held.zestyGate),
  wanted: getSettings(w).listen || process.env.ZESTY_LISTEN === "lan",
  passphrase: hasPassphrase(w),
  port: gatePort(),
  addresses: lanAddresses(),
  fault: held.zestyGateFault ?? null,
  fingerprint: held.zestyGate?.certificate.fingerprint ?? null,
});

function shut(gate: Gate): void {
  clearInterval(gate.renewing);
  gate.listener.close();
  gate.secure.close();
  gate.plain.close();
  for (const socket of gate.sockets) socket.destroy();
}

/**
 * Opens or shuts the gate as the settings ask. One port answers both: HTTPS with the workshop's own certificate, and plain HTTP
 * only by sending on to it.
 */
export async function tendGate(w: Workshop): Promise<void> {
  if (!wanted(w)) {
    if (held.zestyGate) shut(held.zestyGate);
    held.zestyGate = null;
    held.zestyGateFault = null;
    return;
  }
  if (held.zestyGate) return;
  const certificate = certificateFor(w, certified());
  const secure = createSecureServer(
    { key: certificate.key, cert: certificate.chain, minVersion: "TLSv1.2" },
    (req, res) => void pass(req, res).catch(() => res.destroy()),
  );
  const plain = createServer(sendOn);
  secure.headersTimeout = plain.headersTimeout = PATIENCE_MS;
  const sockets = new Set<Socket>();
  const listener = createListener((socket) => {
    sockets.add(socket);
    socket.once("close", () => sockets.delete(socket));
    socket.on("error", () => socket.destroy());
    const late = setTimeout(() => socket.destroy(), PATIENCE_MS);
    socket.once("close", () => clearTimeout(late));
    // The first byte of TLS is 22, its handshake; no HTTP begins with it.
    socket.once("data", (first: Buffer) => {
      clearTimeout(late);
      socket.pause();
      socket.unshift(first);
      (first[0] === 22 ? secure : plain).emit("connection", socket);
      process.nextTick(() => socket.resume());
    });
  });
  held.zestyGateFault = await new Promise<string | null>((done) => {
    listener.once("error", (e: NodeJS.ErrnoException) =>
      done(e.code === "EADDRINUSE" ? `Port ${gatePort()} is taken by something else: start with ZESTY_LAN_PORT set to another.` : e.message),
    );
    listener.listen(gatePort(), "0.0.0.0", () => done(null));
  });
  if (held.zestyGateFault !== null) return;
  const gate: Gate = { listener, secure, plain, sockets, certificate, port: gatePort(), renewing: setInterval(() => renew(gate), RENEW_MS).unref() };
  held.zestyGate = gate;
}

/** A machine that was given another address, or whose certificate runs out, shows a new one without a restart. */
function renew(gate: Gate): void {
  const fresh = certificateFor(workshop(), certified());
  if (fresh.chain === gate.certificate.chain) return;
  gate.certificate = fresh;
  gate.secure.setSecureContext({ key: fresh.key, cert: fresh.chain, minVersion: "TLSv1.2" });
}

/** Plain HTTP carries nothing: it is sent on to the same place over HTTPS. */
function sendOn(req: IncomingMessage, res: ServerResponse): void {
  const host = (header(req.headers.host) ?? "").toLowerCase();
  if (!gateHosts().includes(host.replace(/:\d+$/, ""))) return say(res, 421, "This workshop does not answer to that host name.");
  res.writeHead(308, { Location: `https://${host}${req.url ?? "/"}`, Connection: "close", "Cache-Control": "no-store" });
  res.end();
}

const header = (v: string | string[] | undefined): string | null => (Array.isArray(v) ? (v[0] ?? null) : (v ?? null));
const cookieOf = (req: IncomingMessage): string | undefined =>
  (req.headers.cookie ?? "")
    .split(";")
    .map((c) => c.trim())
    .find((c) => c.startsWith(`${COOKIE}=`))
    ?.slice(COOKIE.length + 1);

async function pass(req: IncomingMessage, res: ServerResponse): Promise<void> {
  const url = new URL(req.url ?? "/", "http://gate");
  const turned = turnAway(
    {
      method: req.method ?? "GET",
      path: url.pathname,
      host: header(req.headers.host),
      origin: header(req.headers.origin),
      fetchSite: header(req.headers["sec-fetch-site"]),
      fetchMode: header(req.headers["sec-fetch-mode"]),
      contentLength: header(req.headers["content-length"]),
    },
    gateHosts(),
  );
  if (turned) return say(res, turned.status, turned.message);
  if (header(req.headers.origin)?.startsWith("http:")) return say(res, 403, "Refused: this came over an open line.");
  const w = workshop();
  if (url.pathname === "/door") return door(w, req, res, url);
  if (url.pathname === TRUST_PATH) return trust(res);
  if (url.pathname === CERTIFICATE_PATH) return certificateFile(res);
  const device = deviceOf(w, cookieOf(req));
  if (!device) {
    if ((req.method === "GET" || req.method === "HEAD") && (req.headers.accept ?? "").includes("text/html")) {
      res.writeHead(303, { Location: `/door?to=${encodeURIComponent(url.pathname)}`, "Cache-Control": "no-store" });
      res.end();
      return;
    }
    return say(res, 401, "This device has not been let in yet: open the workshop's address in the browser first.");
  }
  if (device.may !== "all" && keeperOnly(req.method ?? "GET", url.pathname))
    return say(
      res,
      403,
      `“${device.name}” may weigh and log. Restoring, deleting, importing and taking the whole workshop away are for the first machine, or for a device it lets do everything.`,
    );
  forward(req, res, device.seen ? cookie(cookieOf(req) ?? "") : null);
}

/** The cookie a device shows from now on. */
const cookie = (session: string): string => `${COOKIE}=${session}; Secure; HttpOnly; SameSite=Strict; Path=/; Max-Age=${SESSION_S}`;

function say(res: ServerResponse, status: number, message: string): void {
  res.writeHead(status, { "Content-Type": "application/json", "Cache-Control": "no-store", Connection: "close" });
  res.end(JSON.stringify({ error: "turned-away", message }));
}

/** Hands a request on to the application, which hears only this machine. */
function forward(req: IncomingMessage, res: ServerResponse, keep: string | null): void {
  const inner = `127.0.0.1:${innerPort()}`;
  const headers = { ...req.headers, host: inner, [GATE_HEADER]: "1" };
  delete headers.cookie;
  if (headers.origin) headers.origin = `http://${inner}`;
  const onward = ask({ host: "127.0.0.1", port: innerPort(), method: req.method, path: req.url, headers }, (answer) => {
    res.writeHead(answer.statusCode ?? 502, keep === null ? answer.headers : { ...answer.headers, "set-cookie": keep });
    answer.on("error", () => res.destroy());
    answer.pipe(res);
  });
  // Whoever hangs up in the middle lets go of everything behind them.
  res.on("close", () => onward.destroy());
  onward.on("error", () => (res.headersSent ? res.destroy() : say(res, 502, "The workshop's server does not answer.")));
  // A body that grows past its limit is cut off, whatever it announced.
  const limit = bodyLimit(new URL(req.url ?? "/", "http://gate").pathname);
  let size = 0;
  req.on("data", (chunk: Buffer) => {
    size += chunk.length;
    if (size > limit) {
      onward.destroy();
      req.destroy();
    }
  });
  req.pipe(onward);
}

const escape = (s: string): string => s.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
/** A path inside this workshop, never another site. */
const inside = (to: string | null): string => (to && /^\/(?![/\\])[\w\-./]*$/.test(to) ? to : "/");

async function door(w: Workshop, req: IncomingMessage, res: ServerResponse, url: URL): Promise<void> {
  if (req.method !== "POST") {
    page(res, 200, { pair: url.searchParams.get("pair"), to: inside(url.searchParams.get("to")), fault: null, name: kindOf(req) });
    return;
  }
  let text = "";
  for await (const chunk of req) {
    text += String(chunk);
    if (text.length > 2000) return say(res, 413, "Too long.");
  }
  const form = new URLSearchParams(text);
  const to = inside(form.get("to"));
  try {
    const code = form.get("pair");
    const name = form.get("name") ?? "";
    const session = code ? enterByPairing(w, code, name) : await enterByPassphrase(w, form.get("passphrase") ?? "", req.socket.remoteAddress ?? "", name);
    if (!session) return page(res, 403, { pair: null, to, fault: "This code was used or is too old: show a new one on the first machine.", name: kindOf(req) });
    res.writeHead(303, {
      Location: to,
      "Set-Cookie": cookie(session),
      "Cache-Control": "no-store",
    });
    res.end();
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    page(res, e.status, { pair: null, to, fault: e.message, name: kindOf(req) });
  }
}

/** What a device seems to be, as a name to begin with. */
function kindOf(req: IncomingMessage): string {
  const agent = req.headers["user-agent"] ?? "";
  return /tablet|pad/i.test(agent) ? "Tablet" : /mobile|phone/i.test(agent) ? "Phone" : "Computer";
}

/** A page of the gate's own, outside the application. */
function shell(res: ServerResponse, status: number, content: string): void {
  const body = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>Zesty Ladle: the door</title>
<style>body{background:#f6efdf;color:#1d2330;font:20px/1.4 system-ui,sans-serif;max-width:34rem;margin:8vh auto;padding:0 1rem}input,button,.btn{font:inherit;width:100%;box-sizing:border-box;min-height:60px;border-radius:12px;border:2px solid #1d2330;padding:.4rem .8rem;margin:.4rem 0}button,.btn{background:#f4b400;font-weight:700;color:inherit;text-decoration:none;display:flex;align-items:center;justify-content:center}.fault{color:#a0211b;font-weight:700}code{font-size:1rem;word-break:break-word}a{color:inherit}</style>
<h1>Zesty Ladle</h1>${content}</html>`;
  res.writeHead(status, {
    ...safetyHeaders("none", false),
    "Content-Security-Policy": "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
    "Content-Type": "text/html; charset=utf-8",
    "Cache-Control": "no-store",
  });
  res.end(body);
}

function page(res: ServerResponse, status: number, p: { pair: string | null; to: string; fault: string | null; name: string }): void {
  shell(
    res,
    status,
    `${p.fault ? `<p class="fault" role="alert">${escape(p.fault)}</p>` : ""}
<form method="post" action="/door"><input type="hidden" name="to" value="${escape(p.to)}">${
      p.pair
        ? `<input type="hidden" name="pair" value="${escape(p.pair)}"><p>Let this device into the workshop?</p>`
        : `<label>The workshop's passphrase<input type="password" name="passphrase" autocomplete="current-password" autofocus required></label>`
    }<label>What this device is called<input name="name" maxlength="60" value="${escape(p.name)}"></label><button>${p.pair ? "Let it in" : "Come in"}</button></form>
<p><a href="${TRUST_PATH}">The browser warns of this address? How to make this device trust it</a></p>`,
  );
}

/** How a device learns to trust the workshop: needed for notifications, for a screen that stays awake, and for a scale on a cable. */
function trust(res: ServerResponse): void {
  const fingerprint = held.zestyGate?.certificate.fingerprint ?? "";
  shell(
    res,
    200,
    `<h2>Trust this workshop</h2>
<p>The line to the workshop is encrypted, but nobody outside vouches for it: the workshop signs for itself. Until this device trusts that signature, its browser warns, and may not let the workshop notify you, keep the screen awake, or read a scale on a cable.</p>
<ol>
<li><p>Compare: the first machine shows the same letters under The workshop, A tablet at the bench.</p><p><code>${escape(fingerprint)}</code></p><p>If they differ, stop: somebody else may be answering.</p></li>
<li><p><a class="btn" href="${CERTIFICATE_PATH}" download>Take the workshop's signature</a></p></li>
<li><p>Open the file. Where the device asks what it is for, choose certificate authority, or websites. Some devices put it under Settings, in security or profiles, and want it switched on there once more.</p></li>
<li><p>Close the browser, open it again, and come back to <a href="/door">the door</a>: no warning any more.</p></li>
</ol>
<p>It vouches only for addresses on a home network and for this machine's own names, never for anything on the internet. To take it away again, remove “Zesty Ladle workshop” where the device lists its certificates.</p>`,
  );
}

function certificateFile(res: ServerResponse): void {
  const root = held.zestyGate?.certificate.root;
  if (!root) return say(res, 404, "There is no certificate.");
  res.writeHead(200, {
    "Content-Type": "application/x-x509-ca-cert",
    "Content-Disposition": 'attachment; filename="zesty-ladle-workshop.crt"',
    "Cache-Control": "no-store",
    "X-Content-Type-Options": "nosniff",
  });
  res.end(root);
}
