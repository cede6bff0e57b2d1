import { api } from "./index";
import type { Endpoint } from "./endpoint";

/** Files that are the whole workshop. */
const WHOLE = [
  ["GET", "/api/backup"],
  ["GET", "/api/backup/file/:id"],
] as const;

const asPattern = (path: string): RegExp => new RegExp(`^${path.replace(/:\w+/g, "[^/]+")}/?$`);
const KEPT: readonly { method: string; path: RegExp }[] = [
  ...Object.values(api)
    .flatMap((area) => Object.values(area) as Endpoint[])
    .filter((e) => e.keeper)
    .map((e) => ({ method: e.method as string, path: asPattern(e.path) })),
  ...WHOLE.map(([method, path]) => ({ method: method as string, path: asPattern(path) })),
];

/** Whether a request restores, deletes, imports or takes the whole workshop away: not for a device that may weigh and log. */
export const keeperOnly = (method: string, path: string): boolean => KEPT.some((k) => k.method === (method === "HEAD" ? "GET" : method) && k.path.test(path));
