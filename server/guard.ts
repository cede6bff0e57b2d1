import { PIECE_BYTES } from "../contract/limits";

/** Limits on request bodies, bytes. Stated in the answer when one is exceeded. */
export const BODY_LIMIT = 256 * 1024;
export const PHOTO_LIMIT = 12 * 1024 * 1024;

const SAFE = new Set(["GET", "HEAD", "OPTIONS"]);
const KNOWN = new Set([...SAFE, "POST", "PUT", "PATCH", "DELETE"]);

/** Whether an address can be read at all: every escape in it stands for letters. */
const readable = (path: string): boolean => {
  try {
    return !decodeURIComponent(path).includes("\0");
  } catch {
    return false;
  }
};

export interface Asked {
  method: string;
  /** Path without the query. */
  path: string;
  host: string | null;
  origin: string | null;
  fetchSite: string | null;
  fetchMode: string | null;
  contentLength: string | null;
}

export interface Turned {
  status: 400 | 403 | 405 | 413 | 421;
  message: string;
}

/** Host names answered when nothing else is configured. */
export const LOCAL_NAMES = ["localhost", "127.0.0.1", "[::1]"];

/** Host names from ZESTY_HOSTS (comma-separated), on top of the local ones. */
export const allowedHosts = (configured = process.env.ZESTY_HOSTS ?? ""): string[] => [
  ...LOCAL_NAMES,
  ...configured
    .split(",")
    .map((h) => h.trim().toLowerCase())
    .filter(Boolean),
];

const nameOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, "");

/** The most bytes a request to this path may carry. */
export const bodyLimit = (path: string): number =>
  path.startsWith("/api/backup/piece/")
    ? PIECE_BYTES
    : /^\/api\/(pours\/[^/]+\/photos|patches\/[^/]+\/photo|jobs\/[^/]+\/pictures\/[^/]+)$/.test(path)
      ? PHOTO_LIMIT
      : BODY_LIMIT;

/**
 * Decides at the door whether a request is answered: only configured host names; only this very origin, or a program, which
 * names none, whatever the method; from elsewhere only a person following a link to a page; no body announced above the
 * limit; nothing by a method or an address that means nothing here. Null lets it in.
 */
export function turnAway(a: Asked, hosts: readonly string[]): Turned | null {
  if (a.host === null || !hosts.includes(nameOf(a.host)))
    return { status: 421, message: "This workshop does not answer to that host name. Add it to ZESTY_HOSTS if it should." };
  if (!KNOWN.has(a.method)) return { status: 405, message: `${a.method.slice(0, 20)} is nothing that can be asked for here.` };
  if (!readable(a.path)) return { status: 400, message: "That address cannot be read: it has a broken escape in it." };
  const own = a.host.toLowerCase();
  const origin = a.origin?.toLowerCase() ?? null;
  const foreign = a.fetchSite !== null && a.fetchSite !== "same-origin" && a.fetchSite !== "none";
  const follows = SAFE.has(a.method) && a.fetchMode === "navigate";
  if ((origin !== null && origin !== `http://${own}` && origin !== `https://${own}`) || (foreign && !follows))
    return { status: 403, message: "Refused: this came from another site." };
  if (!SAFE.has(a.method)) {
    const limit = bodyLimit(a.path);
    if (a.contentLength !== null && !(Number(a.contentLength) <= limit)) return { status: 413, message: tooLarge(limit) };
  }
  return null;
}

export const tooLarge = (limit: number): string =>
  `Too large: at most ${limit >= 1024 * 1024 ? `${limit / 1024 / 1024} MB` : `${limit / 1024} KB`} can be sent here.`;

/** Reads a body but stops, and cancels the rest, as soon as it passes the limit; null means it did. */
export async function readWithin(body: ReadableStream<Uint8Array> | null, limit: number): Promise<Buffer | null> {
  if (!body) return Buffer.alloc(0);
  const reader = body.getReader();
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return Buffer.concat(chunks);
    size += value.byteLength;
    if (size > limit) {
      await reader.cancel();
      return null;
    }
    chunks.push(value);
  }
}

/** Headers every answer carries. Scripts run only with this answer's nonce; nothing is loaded from elsewhere. */
export function safetyHeaders(nonce: string, dev: boolean): Record<string, string> {
  return {
    "Content-Security-Policy": [
      "default-src 'self'",
      `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ""}`,
      "style-src 'self' 'unsafe-inline'",
      "img-src 'self' blob: data:",
      "font-src 'self'",
      `connect-src 'self'${dev ? " ws:" : ""}`,
      "worker-src 'self' blob:",
      "object-src 'none'",
      "base-uri 'none'",
      "form-action 'self'",
      "frame-ancestors 'none'",
    ].join("; "),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
  };
}
