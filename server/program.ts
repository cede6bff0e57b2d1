import { existsSync } from "node:fs";

/** What runs in processes of its own, by its file in scripts/. */
export const PROGRAMS = ["errand", "operation"] as const;

/** How node is told to run one: in one file, as the build makes it, or as it is written where nothing was built. */
export function programOf(name: (typeof PROGRAMS)[number]): string[] {
  const built = `.next/${name}.mjs`;
  return process.env.NODE_ENV === "production" && existsSync(built) ? [built] : ["--import", "tsx", `scripts/${name}.ts`];
}
