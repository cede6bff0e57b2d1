import type * as z from "zod";
import type { Endpoint, ParamsOf } from "../contract/endpoint";
import { OperationFault } from "../core/operations";
import { OddRowError } from "../db/odd";
import { refuseWhileShut } from "./errands";
import { BODY_LIMIT, readWithin, tooLarge } from "./guard";
import { Refusal, storageRefusal } from "./refusal";
import { workshop, WorkshopUnavailable, type Workshop } from "./workshop";

const json = (status: number, body: unknown): Response => Response.json(body, { status, headers: { "Cache-Control": "no-store" } });

function refuse(e: unknown): Response {
  if (e instanceof OperationFault) return json(400, { error: "invalid", message: e.message, faults: e.faults });
  if (e instanceof WorkshopUnavailable) return json(503, { error: "unavailable", message: e.message });
  if (e instanceof OddRowError) return json(422, { error: "odd", message: e.message, row: e.row });
  const refusal = e instanceof Refusal ? e : storageRefusal(e);
  if (refusal) return json(refusal.status, { error: refusal.code, message: refusal.message, ...refusal.detail });
  console.error(e);
  return json(500, {
    error: "unexpected",
    message: "Something went wrong here, and it is our fault. Nothing you typed is lost; try again.",
  });
}

/** Reads a body of text within the limit. */
export async function readText(request: Request): Promise<string> {
  const bytes = await readWithin(request.body, BODY_LIMIT);
  if (bytes === null) throw new Refusal(413, "too-large", tooLarge(BODY_LIMIT));
  return bytes.toString("utf8");
}

/** Reads a JSON body within the limit. */
export async function readJson(request: Request): Promise<unknown> {
  const text = await readText(request);
  try {
    const body: unknown = JSON.parse(text);
    return body;
  } catch {
    throw new Refusal(400, "not-json", "The request body is not JSON.");
  }
}

/** Runs a use case against the open workshop and answers with its result as JSON, or with the refusal's words. */
export async function answer(serve: (w: Workshop) => unknown, status = 200): Promise<Response> {
  try {
    const result = await serve(workshop());
    if (result instanceof Response) return result;
    return json(status, result ?? { ok: true });
  } catch (e) {
    return refuse(e);
  }
}

/** What a route is asked with: the ":parts" of its path, and what came with it: JSON, a query, or for files the request itself. */
export interface Ask<E extends Endpoint> {
  params: { [key in keyof ParamsOf<E["path"]>]: string };
  body: unknown;
  request: Request;
}

interface Context<E extends Endpoint> {
  params: Promise<Ask<E>["params"]>;
}

const bodyOf = async (e: Endpoint, request: Request): Promise<unknown> => {
  if (e.bytes || e.in === null) return null;
  return e.method === "GET" ? Object.fromEntries(new URL(request.url).searchParams) : readJson(request);
};

/**
 * The route of one endpoint of the contract: it reads what the contract says comes in, and the compiler holds what `run` gives
 * to what the contract says goes out.
 */
export const serve =
  <E extends Endpoint>(e: E, run: (w: Workshop, ask: Ask<E>) => z.input<E["out"]> | Promise<z.input<E["out"]>>) =>
  (request: Request, { params }: Context<E>): Promise<Response> =>
    answer(async (w) => {
      const ask = { params: await params, body: await bodyOf(e, request), request };
      if (e.method !== "GET" && !e.path.startsWith("/api/errands")) refuseWhileShut();
      return run(w, ask);
    }, e.status);
