import type { PourChange } from "@/contract/log";
import type { Pour } from "@/core/log";
import { call, type Sent } from "../../data/call";
import { SavedDocument, wasOf, type DraftStorage } from "../../data/savedDocument";
import { browserStorage } from "../../data/useSaved";

/** What was written down of a pour and is not saved yet, laid over it. When it was opened is the server's to say. */
export const layPour = (pour: Pour, { opened, ...patch }: PourChange): Pour => {
  const known = Object.fromEntries(Object.entries(patch).filter(([, v]) => v !== undefined));
  return { ...pour, ...known, ...(opened === false ? { openedAt: null } : {}) };
};

/** A pour as it is judged and described. `saved` hears what has just been saved. */
export const pourDocument = (
  initial: Pour,
  saved: (patch: PourChange) => void,
  put: (patch: PourChange & { was: Record<string, unknown> }, keepalive: boolean) => Promise<Sent<Pour>> = (body, keepalive) =>
    call("log", "change", { params: { id: initial.id }, body, keepalive }),
  storage: DraftStorage = browserStorage(),
): SavedDocument<Pour, PourChange> =>
  new SavedDocument<Pour, PourChange>(initial, {
    put: async (patch, base, { keepalive }) => {
      const answer = await put({ ...patch, was: wasOf(base, patch) }, keepalive);
      if (answer.ok && !keepalive) saved(patch);
      return answer;
    },
    lay: layPour,
    draft: {
      key: `zesty-pour-${initial.id}`,
      read: async (found) => {
        const { log } = await import("@/contract/log");
        const read = log.change.in.safeParse(found);
        return read.success ? read.data : null;
      },
    },
    storage,
    delayMs: 500,
  });
