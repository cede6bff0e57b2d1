import { OperationFault } from "../core/operations";
import { OddRowError } from "../db/odd";
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
