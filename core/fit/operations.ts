import * as z from "zod";
import { CONTACTS, HELD, USES, VERDICTS, cheapestChanges, fitMatrix, judgeChain } from ".";
import { FINISH_KEYS, JACKET_KEYS, SEALING_KEYS, type Catalogue } from "../material";
import { say } from "../quantity";
import { define, find, type Operation } from "../operation";

const Question = z.strictObject({
  surfaceId: z.string().nullable().default(null),
  sealerId: z.string().nullable().default(null),
  releaseId: z.string().nullable().default(null),
  clayId: z.string().nullable().default(null),
  rubberId: z.string().nullable().default(null),
  secondRubberId: z.string().nullable().default(null),
  plugRubberId: z.string().nullable().default(null),
  plugsLast: z.boolean().default(false),
  seamRubberId: z.string().nullable().default(null),
  castId: z.string().nullable().default(null),
  use: z.enum(USES).default("display"),
  held: z.enum(HELD).default("new"),
  washedToday: z.boolean().default(false),
  boxId: z.string().nullable().default(null),
  sealing: z.enum(SEALING_KEYS).default("none"),
  jacket: z.enum(JACKET_KEYS).default("none"),
  finish: z.enum(FINISH_KEYS).default("none"),
});
type Question = z.output<typeof Question>;

/** Throws for what is named and not among the materials. */
function known(i: Question, catalogue: Catalogue): void {
  const lists = {
    surfaceId: catalogue.surfaces,
    sealerId: catalogue.releases,
    releaseId: catalogue.releases,
    clayId: catalogue.surfaces,
    rubberId: catalogue.rubbers,
    secondRubberId: catalogue.rubbers,
    plugRubberId: catalogue.rubbers,
    seamRubberId: catalogue.rubbers,
    castId: catalogue.casts,
  };
  for (const [key, list] of Object.entries(lists)) {
    const id = i[key as keyof typeof lists];
    if (id !== null) find<{ id: string }>(list, id, key);
  }
}

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "fit.check",
    "Judge every contact between master, rubber, cast and use",
    Question,
    z.object({
      verdict: z.enum(VERDICTS),
      unanswered: z.array(z.string()),
      links: z.array(
        z.object({
          contact: z.enum(CONTACTS),
          between: z.array(z.string()),
          verdict: z.enum(VERDICTS),
          findings: z.array(
            z.object({
              ruleId: z.string(),
              verdict: z.enum(VERDICTS),
              reason: z.string(),
              remedy: z.string(),
              confidence: z.string(),
              source: z.string(),
            }),
          ),
        }),
      ),
    }),
    (i, catalogue) => {
      known(i, catalogue);
      const c = judgeChain(i, catalogue);
      return {
        verdict: c.verdict,
        unanswered: [...c.unanswered],
        links: c.links.map((l) => ({
          ...l,
          between: [...l.between],
          findings: l.findings.map((f) => ({ ...f, reason: say(f.reason, "metric"), remedy: say(f.remedy, "metric") })),
        })),
      };
    },
  ),

  define(
    "fit.changes",
    "The cheapest changes that make a chain of contacts better: best outcome first, then least change",
    Question,
    z.object({
      verdict: z.enum(VERDICTS),
      changes: z.array(z.object({ patch: z.record(z.string(), z.unknown()), words: z.string(), verdict: z.enum(VERDICTS), cost: z.number() })),
    }),
    (i, catalogue) => {
      known(i, catalogue);
      return {
        verdict: judgeChain(i, catalogue).verdict,
        changes: cheapestChanges(i, catalogue).map((c) => ({ ...c, patch: { ...c.patch }, words: say(c.words, "metric") })),
      };
    },
  ),

  define(
    "fit.matrix",
    "Every rubber against every casting material, by data-sheet figures: verdict and reason of each pair",
    z.strictObject({ rubberIds: z.array(z.string()).max(60).nullable().default(null), castIds: z.array(z.string()).max(200).nullable().default(null) }),
    z.object({
      rows: z.array(z.object({ castId: z.string(), cells: z.array(z.object({ rubberId: z.string(), verdict: z.enum(VERDICTS), reason: z.string() })) })),
    }),
    (i, catalogue) => {
      const chosen = <T extends { id: string }>(list: readonly T[], ids: readonly string[] | null, path: string): readonly T[] =>
        ids === null ? list : ids.map((id, k) => find(list, id, `${path}.${k}`));
      const few = { ...catalogue, rubbers: chosen(catalogue.rubbers, i.rubberIds, "rubberIds"), casts: chosen(catalogue.casts, i.castIds, "castIds") };
      return {
        rows: fitMatrix(few, new Map()).map(({ cast, cells }) => ({
          castId: cast.id,
          cells: cells.map((c) => ({ rubberId: c.rubber.id, verdict: c.link.verdict, reason: say(c.link.findings[0]?.reason ?? "", "metric") })),
        })),
      };
    },
  ),
];
