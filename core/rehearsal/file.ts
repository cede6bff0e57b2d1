import * as z from "zod";
import { LONGEST_S, TICKS, type Setup } from "./pour";

// A rehearsed pour as a small file: what was cut, what the hand did and how the mould was held, tick by tick. Poured again it gives the same casting.

const MOST_TICKS = LONGEST_S * TICKS;
const tick = z.int().min(0).max(MOST_TICKS);
const above = (most: number) => z.number().gt(0).max(most);
const from = (most: number) => z.number().min(0).max(most);
const lean = z.number().min(-180).max(180);

const FileSetup = z.strictObject({
  liquid: z.strictObject({ densityKgM3: above(30_000), viscosityPaS: above(10_000) }),
  skinNM: above(10).nullable(),
  chokeMm: from(500),
  channelMm: from(5000),
  funnelMl: above(1e6),
  funnelHighMm: from(5000),
  vents: z.strictObject({ count: z.int().min(0).max(100), diameterMm: from(200) }),
  freezing: z
    .strictObject({
      latentJKg: from(1e7),
      heatJKgK: from(1e5),
      freezingC: z.number().min(-273.15).max(4000),
      pourC: z.number().min(-273.15).max(4000),
      mouldC: z.number().min(-273.15).max(4000),
      mouldKWmK: above(1000),
      mouldDensityKgM3: above(30_000),
      mouldHeatJKgK: above(1e5),
    })
    .nullable(),
  workingS: above(1e7).nullable(),
  handMlS: above(1e5),
  potMl: above(1e7),
  open: z.boolean().optional(),
});

export const RehearsalFile = z
  .object({
    kind: z.literal("rehearsal"),
    format: z.literal(1),
    of: z.enum(["cast", "rubber"]),
    setup: FileSetup,
    /** How the mould leant before the first drop, and how it was turned after, with what it held and which vents were frozen shut by then. */
    leanDeg: lean,
    hand: z.array(z.strictObject({ tick, pouring: z.boolean() })).max(4000),
    turns: z.array(z.strictObject({ tick, leanDeg: lean, filledMl: from(1e7), frozen: z.array(z.int().min(0).max(99)).max(100).default([]) })).max(200),
  })
  .refine((f) => rises(f.hand) && rises(f.turns), "its moments do not follow one another");
export type RehearsalFile = z.infer<typeof RehearsalFile>;

const rises = (list: readonly { tick: number }[]): boolean => list.every((m, i) => i === 0 || m.tick >= list[i - 1]!.tick);

/** A pour as it is kept in a file. */
export const rehearsalFile = (f: {
  of: RehearsalFile["of"];
  setup: Setup;
  leanDeg: number;
  hand: RehearsalFile["hand"];
  turns: RehearsalFile["turns"];
}): RehearsalFile => ({
  kind: "rehearsal",
  format: 1,
  ...f,
});

/** Reads a pour from the text of a file; null and why where it is none. */
export function readRehearsal(text: string): { ok: true; file: RehearsalFile } | { ok: false; why: string } {
  let told: unknown;
  try {
    told = JSON.parse(text);
  } catch {
    return { ok: false, why: "This file is no pour: it cannot be read as JSON. Choose one that was kept here." };
  }
  const read = RehearsalFile.safeParse(told);
  if (read.success) return { ok: true, file: read.data };
  const issue = read.error.issues[0];
  const [head] = issue?.path ?? [];
  // What is not even called a pour is another kind of file; of one that is, the place that cannot be is named.
  if (!issue || head === "kind" || (issue.path.length === 0 && issue.code !== "custom"))
    return { ok: false, why: "This file is no pour: it holds something else. Choose one that was kept here by “Keep this pour as a file”." };
  if (head === "format") return { ok: false, why: "This pour was kept by another version of the application, and cannot be poured again here." };
  const what = issue.code === "custom" ? issue.message : `${issue.path.join(".")} is missing, or is nothing a pour can have`;
  return { ok: false, why: `This file is no pour that can be poured again: ${what}. Choose another, or keep it anew.` };
}
