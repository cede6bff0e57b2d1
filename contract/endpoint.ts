import * as z from "zod";

/** Names of the ":parts" of a path, as strings. */
export type ParamsOf<P extends string> = P extends `${string}:${infer K}/${infer R}`
  ? { [key in K]: string } & ParamsOf<`/${R}`>
  : P extends `${string}:${infer K}`
    ? { [key in K]: string }
    : unknown;

export type Method = "GET" | "POST" | "PUT" | "PATCH" | "DELETE";

/**
 * One thing a page can ask of the workshop: where, what goes in, and what comes back. A GET takes `in` from its query.
 * `bytes` says that what goes in is a file and not JSON; it is judged by what it holds.
 */
export interface Endpoint<P extends string = string, I extends z.ZodType | null = z.ZodType | null, O extends z.ZodType = z.ZodType> {
  method: Method;
  path: P;
  in: I;
  out: O;
  bytes?: true;
  /** HTTP status of a success; 200 if not said. */
  status?: 201;
  /** Restores, deletes or imports: for the first machine, and for devices that may do everything. */
  keeper?: true;
}

export const endpoint = <const P extends string, I extends z.ZodType | null, O extends z.ZodType>(e: Endpoint<P, I, O>): Endpoint<P, I, O> => e;

/** A file that is fetched as it is: where, and with what question. */
export const address = <const P extends string>(path: P, params: ParamsOf<P>, query: Record<string, string | number> = {}): string => {
  const given = params as Record<string, string>;
  const asked = new URLSearchParams(Object.entries(query).map(([k, v]): [string, string] => [k, String(v)])).toString();
  return `${path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(given[name] ?? ""))}${asked ? `?${asked}` : ""}`;
};

/** What a page had read of the things it changes: where somebody else has changed them since, it is told and nothing is overwritten. */
export const Was = z.record(z.string().max(40), z.unknown()).optional();

/** One act's own key: sent again, it is the same act, and answered as it was. */
export const ActKey = z.uuid().optional();
