import type { Patch } from "@/core/log";
import { call, type Sent } from "../../data/call";
import { SavedDocument, wasOf, type DraftStorage } from "../../data/savedDocument";
import { browserStorage } from "../../data/useSaved";

export interface PatchNotes {
  notes: string;
}

/** What is written down of a patch test. Its judgement is an act of its own: it may come too early, and is refused then. */
export const patchDocument = (
  initial: Patch,
  put: (body: PatchNotes & { was: Record<string, unknown> }, keepalive: boolean) => Promise<Sent<Patch>> = (body, keepalive) =>
    call("patches", "judge", { params: { id: initial.id }, body, keepalive }),
  storage: DraftStorage = browserStorage(),
): SavedDocument<Patch, PatchNotes> =>
  new SavedDocument<Patch, PatchNotes>(initial, {
    put: (patch, base, { keepalive }) => put({ ...patch, was: wasOf(base, patch) }, keepalive),
    lay: (view, { notes }) => ({ ...view, notes }),
    draft: { key: `zesty-patch-${initial.id}`, read: ({ notes }) => (typeof notes === "string" ? { notes } : null) },
    storage,
  });
