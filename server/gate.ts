import { createServer, request as ask, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { hostname, networkInterfaces } from "node:os";
import { allowedHosts, bodyLimit, safetyHeaders, turnAway } from "./guard";
import { enterByPairing, enterByPassphrase, hasPassphrase, sessionHolds, SESSION_S } from "./door";
import { getSettings } from "./settings";
import { Refusal } from "./refusal";
import { workshop, type Workshop } from "./workshop";

/** Marks what came through the gate, so that the doors' own keys are kept on the first machine. Stripped from what comes in. */
export const GATE_HEADER = "x-zesty-gate";
const COOKIE = "zesty_device";

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
  return address ? `http://${address}:${gatePort()}${path}` : null;
}

interface Gate {
  server: Server;
  port: number;
}
const held = globalThis as { zestyGate?: Gate | null; zestyGateFault?: string | null };

/** Whether the network is asked for: by the setting, or by ZESTY_LISTEN=lan; never without a passphrase. */
const wanted = (w: Workshop): boolean => (getSettings(w).listen || process.env.ZESTY_LISTEN === "lan") && hasPassphrase(w);

export const gateState = (w: Workshop): { open: boolean; wanted: boolean; passphrase: boolean; port: number; addresses: string[]; fault: string | null } => ({
  open: Boolean(held.zestyGate),
  wanted: getSettings(w).listen || process.env.ZESTY_LISTEN === "lan",
  passphrase: hasPassphrase(w),
  port: gatePort(),
  addresses: lanAddresses(),
  fault: held.zestyGateFault ?? null,
});

/** Opens or shuts the gate as the settings ask. */
export async function tendGate(w: Workshop): Promise<void> {
  if (!wanted(w)) {
    held.zestyGate?.server.closeAllConnections();
    held.zestyGate?.server.close();
    held.zestyGate = null;
    held.zestyGateFault = null;
    return;
  }
  if (held.zestyGate) return;
  const server = createServer((req, res) => void pass(req, res).catch(() => res.destroy()));
  server.headersTimeout = 10_000;
  held.zestyGateFault = await new Promise<string | null>((done) => {
    server.once("error", (e: NodeJS.ErrnoException) =>
      done(e.code === "EADDRINUSE" ? `Port ${gatePort()} is taken by something else: start with ZESTY_LAN_PORT set to another.` : e.message),
    );
    server.listen(gatePort(), "0.0.0.0", () => done(null));
  });
  held.zestyGate = held.zestyGateFault === null ? { server, port: gatePort() } : null;
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
  const w = workshop();
  if (url.pathname === "/door") return door(w, req, res, url);
  if (!sessionHolds(w, cookieOf(req))) {
    if ((req.method === "GET" || req.method === "HEAD") && (req.headers.accept ?? "").includes("text/html")) {
      res.writeHead(303, { Location: `/door?to=${encodeURIComponent(url.pathname)}`, "Cache-Control": "no-store" });
      res.end();
      return;
    }
    return say(res, 401, "This device has not been let in yet: open the workshop's address in the browser first.");
  }
  forward(req, res);
}

function say(res: ServerResponse, status: number, message: string): void {
  res.writeHead(status, { "Content-Type": "application/json", "Cache-Control": "no-store", Connection: "close" });
  res.end(JSON.stringify({ error: "turned-away", message }));
}

/** Hands a request on to the application, which hears only this machine. */
function forward(req: IncomingMessage, res: ServerResponse): void {
  const inner = `127.0.0.1:${innerPort()}`;
  const headers = { ...req.headers, host: inner, [GATE_HEADER]: "1" };
  delete headers.cookie;
  if (headers.origin) headers.origin = `http://${inner}`;
  const onward = ask({ host: "127.0.0.1", port: innerPort(), method: req.method, path: req.url, headers }, (answer) => {
    res.writeHead(answer.statusCode ?? 502, answer.headers);
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
    page(res, 200, { pair: url.searchParams.get("pair"), to: inside(url.searchParams.get("to")), fault: null });
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
    const session = code ? enterByPairing(w, code) : await enterByPassphrase(w, form.get("passphrase") ?? "", req.socket.remoteAddress ?? "");
    if (!session) return page(res, 403, { pair: null, to, fault: "This code was used or is too old: show a new one on the first machine." });
    res.writeHead(303, {
      Location: to,
      "Set-Cookie": `${COOKIE}=${session}; HttpOnly; SameSite=Strict; Path=/; Max-Age=${SESSION_S}`,
      "Cache-Control": "no-store",
    });
    res.end();
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    page(res, e.status, { pair: null, to, fault: e.message });
  }
}

function page(res: ServerResponse, status: number, p: { pair: string | null; to: string; fault: string | null }): void {
  const body = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>Zesty Ladle: the door</title>
<style>body{background:#f6efdf;color:#1d2330;font:20px/1.4 system-ui,sans-serif;max-width:28rem;margin:12vh auto;padding:0 1rem}input,button{font:inherit;width:100%;box-sizing:border-box;min-height:60px;border-radius:12px;border:2px solid #1d2330;padding:.4rem .8rem;margin:.4rem 0}button{background:#f4b400;font-weight:700}.fault{color:#a0211b;font-weight:700}</style>
<h1>Zesty Ladle</h1>${p.fault ? `<p class="fault" role="alert">${escape(p.fault)}</p>` : ""}
<form method="post" action="/door"><input type="hidden" name="to" value="${escape(p.to)}">${
    p.pair
      ? `<input type="hidden" name="pair" value="${escape(p.pair)}"><p>Let this device into the workshop?</p><button>Let it in</button>`
      : `<label>The workshop's passphrase<input type="password" name="passphrase" autocomplete="current-password" autofocus required></label><button>Come in</button>`
  }</form></html>`;
  const headers = safetyHeaders("none", false);
  res.writeHead(status, {
    ...headers,
    "Content-Security-Policy": "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
    "Content-Type": "text/html; charset=utf-8",
    "Cache-Control": "no-store",
  });
  res.end(body);
}
