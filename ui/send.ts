export type Sent<T> = { ok: true; data: T } | { ok: false; status: number; error: string; message: string; detail: Record<string, unknown> };

/** Sends JSON to this workshop's own server. Never throws: an unreachable server is an answer with status 0. */
export async function send<T>(
  method: "GET" | "POST" | "PUT" | "PATCH" | "DELETE",
  url: string,
  body?: unknown,
  options: { keepalive?: boolean; raw?: Blob } = {},
): Promise<Sent<T>> {
  try {
    const response = await fetch(url, {
      method,
      keepalive: options.keepalive ?? false,
      ...(options.raw ? { body: options.raw } : body === undefined ? {} : { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
    });
    const text = await response.text();
    let data: unknown = null;
    try {
      data = JSON.parse(text);
    } catch {
      data = null;
    }
    if (response.ok) return { ok: true, data: data as T };
    const detail = typeof data === "object" && data !== null ? (data as Record<string, unknown>) : {};
    return {
      ok: false,
      status: response.status,
      error: String(detail.error ?? "unexpected"),
      message: String(detail.message ?? `The server answered ${response.status}.`),
      detail,
    };
  } catch {
    return {
      ok: false,
      status: 0,
      error: "unreachable",
      message: "The workshop's server does not answer. What you typed is kept on this page; it will be saved when the server is back.",
      detail: {},
    };
  }
}
