import type * as z from "zod";
import type { api } from "@/contract";
import type { Endpoint, ParamsOf } from "@/contract/endpoint";

export type Api = typeof api;

export type Sent<T> =
  | { ok: true; data: T }
  | {
      ok: false;
      status: number;
      error: string;
      message: string;
      /** What the server has in its place, where it refused because something else stands there. */
      current: T | null;
      detail: Record<string, unknown>;
    };

type Area = keyof Api;
type At<A extends Area, N extends keyof Api[A]> = Api[A][N] extends Endpoint ? Api[A][N] : never;
/** What an endpoint answers with. */
export type Answer<A extends Area, N extends keyof Api[A]> = z.output<At<A, N>["out"]>;
type Question<A extends Area, N extends keyof Api[A]> = At<A, N>["in"] extends z.ZodType ? z.input<At<A, N>["in"]> : undefined;
type Params<A extends Area, N extends keyof Api[A]> = ParamsOf<At<A, N>["path"]>;

export interface Asked<A extends Area, N extends keyof Api[A]> {
  params: { [key in keyof Params<A, N>]: string };
  body: Question<A, N>;
  /** A file, for endpoints that take one. */
  bytes?: Blob;
  /** Goes out even as the page goes away. */
  keepalive?: boolean;
}

/** Fields that this endpoint leaves empty need not be written. */
type Needed<A extends Area, N extends keyof Api[A]> = (keyof Params<A, N> extends never ? Partial<Pick<Asked<A, N>, "params">> : Pick<Asked<A, N>, "params">) &
  (undefined extends Question<A, N> ? Partial<Pick<Asked<A, N>, "body">> : Pick<Asked<A, N>, "body">) &
  Pick<Asked<A, N>, "bytes" | "keepalive">;

const refused = (status: number, error: string, message: string, detail: Record<string, unknown> = {}): Extract<Sent<never>, { ok: false }> => ({
  ok: false,
  status,
  error,
  message,
  current: null,
  detail,
});

const UNREACHABLE = refused(
  0,
  "unreachable",
  "The workshop's server does not answer. What you typed is kept on this page; it will be saved when the server is back.",
);

/** The contract weighs more than a page may at first, so it is fetched once the page stands. */
let fetched: Promise<Api> | null = null;
const contract = (): Promise<Api> =>
  (fetched ??= import("@/contract")
    .then((m) => m.api)
    .catch((e: unknown) => {
      fetched = null;
      throw e;
    }));

/** Has the contract at hand before the first question, so that even a page that goes away at once can still ask it. */
export const prepareCalls = (): void => void contract().catch(() => {});

/**
 * Asks this workshop's own server. Never throws: an unreachable server is an answer with status 0. What comes back has been
 * read through the contract, so it is what its type says.
 */
export async function call<A extends Area, N extends keyof Api[A]>(area: A, name: N, asked: Needed<A, N>): Promise<Sent<Answer<A, N>>> {
  try {
    const { address } = await import("@/contract/endpoint");
    const e: Endpoint = (await contract())[area][name] as Endpoint;
    const { params = {}, body, bytes, keepalive = false } = asked as Partial<Asked<A, N>>;
    const query = e.method === "GET" && body !== undefined ? (body as Record<string, string | number>) : {};
    const response = await fetch(address(e.path, params, query), {
      method: e.method,
      keepalive,
      ...(bytes
        ? { body: bytes }
        : body === undefined || e.method === "GET"
          ? {}
          : { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
    });
    const text = await response.text();
    const data: unknown = readJson(text);
    if (response.ok) {
      const read = e.out.safeParse(data);
      if (read.success) return { ok: true, data: read.data as Answer<A, N> };
      console.error(`${e.method} ${e.path} answered what the contract does not know`, read.error);
      return refused(response.status, "unknown-answer", "The workshop answered in a way this page does not know: reload it. What you typed is kept.");
    }
    const detail = typeof data === "object" && data !== null ? (data as Record<string, unknown>) : {};
    const current = detail.current === undefined ? null : e.out.safeParse(detail.current);
    return {
      ...refused(response.status, String(detail.error ?? "unexpected"), String(detail.message ?? `The server answered ${response.status}.`), detail),
      current: current?.success ? (current.data as Answer<A, N>) : null,
    };
  } catch {
    return UNREACHABLE;
  }
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
