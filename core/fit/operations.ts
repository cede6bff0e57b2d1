import { z } from "zod";
import { CONTACTS, HELD, USES, VERDICTS, judgeChain } from ".";
import { FINISH_KEYS, JACKET_KEYS, SEALING_KEYS } from "../material";
import { say } from "../quantity";
import { define, find, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "fit.check",
    "Judge every contact between master, rubber, cast and use",
    z.strictObject({
      surfaceId: z.string().nullable().default(null),
      sealerId: z.string().nullable().default(null),
      releaseId: z.string().nullable().default(null),
      clayId: z.string().nullable().default(null),
      rubberId: z.string().nullable().default(null),
      secondRubberId: z.string().nullable().default(null),
      castId: z.string().nullable().default(null),
      use: z.enum(USES).default("display"),
      held: z.enum(HELD).default("new"),
      washedToday: z.boolean().default(false),
      boxId: z.string().nullable().default(null),
      sealing: z.enum(SEALING_KEYS).default("none"),
      jacket: z.enum(JACKET_KEYS).default("none"),
      finish: z.enum(FINISH_KEYS).default("none"),
    }),
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
      const lists = {
        surfaceId: catalogue.surfaces,
        sealerId: catalogue.releases,
        releaseId: catalogue.releases,
        clayId: catalogue.surfaces,
        rubberId: catalogue.rubbers,
        secondRubberId: catalogue.rubbers,
        castId: catalogue.casts,
      };
      for (const [key, list] of Object.entries(lists)) {
        const id = i[key as keyof typeof lists];
        if (id !== null) find<{ id: string }>(list, id, key);
      }
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
];
