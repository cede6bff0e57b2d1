import { NextResponse, type NextRequest } from "next/server";
import { allowedHosts, safetyHeaders, turnAway } from "./server/guard";

const hosts = allowedHosts();
const dev = process.env.NODE_ENV !== "production";

/** The front door: every request passes here before anything else looks at it. */
export function proxy(request: NextRequest): NextResponse {
  const h = request.headers;
  const turned = turnAway(
    {
      method: request.method,
      path: request.nextUrl.pathname,
      host: h.get("host"),
      origin: h.get("origin"),
      fetchSite: h.get("sec-fetch-site"),
      fetchMode: h.get("sec-fetch-mode"),
      contentLength: h.get("content-length"),
    },
    hosts,
  );
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString("base64");
  const headers = safetyHeaders(nonce, dev);
  if (turned)
    return NextResponse.json({ error: "turned-away", message: turned.message }, { status: turned.status, headers: { ...headers, Connection: "close" } });

  const inward = new Headers(h);
  inward.set("x-nonce", nonce);
  inward.set("Content-Security-Policy", headers["Content-Security-Policy"] ?? "");
  const response = NextResponse.next({ request: { headers: inward } });
  for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
  return response;
}
