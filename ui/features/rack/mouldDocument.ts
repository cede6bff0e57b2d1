import type { MouldChange, MouldPage } from "@/contract/log";
import { call, type Sent } from "../../data/call";
import { SavedDocument, wasOf, type DraftStorage } from "../../data/savedDocument";
import { browserStorage } from "../../data/useSaved";

/** What was changed of a mould and is not saved yet, laid over its page. What follows from it, such as its life, is the server's to say. */
export const layMould = (page: MouldPage, change: MouldChange): MouldPage => ({
  ...page,
  mould: {
    ...page.mould,
    ...(change.name === undefined ? {} : { name: change.name }),
    ...(change.place === undefined ? {} : { place: change.place }),
    ...(change.note === undefined ? {} : { note: change.note }),
    ...(change.expected === undefined ? {} : { expected: change.expected, life: change.expected ?? page.mould.life }),
  },
});

/** A mould's page as it is edited. A name may stand empty while it is typed; it is saved once it says something. */
export const mouldDocument = (
  initial: MouldPage,
  put: (change: MouldChange & { was: Record<string, unknown> }, keepalive: boolean) => Promise<Sent<MouldPage>> = (body, keepalive) =>
    call("rack", "change", { params: { id: initial.mould.id }, body, keepalive }),
  storage: DraftStorage = browserStorage(),
): SavedDocument<MouldPage, MouldChange> =>
  new SavedDocument<MouldPage, MouldChange>(initial, {
    put: ({ name, ...rest }, base, { keepalive }) => {
      const change = name === undefined || name.trim() === "" ? rest : { ...rest, name };
      return put({ ...change, was: wasOf(base.mould, change) }, keepalive);
    },
    lay: layMould,
    draft: {
      key: `zesty-mould-${initial.mould.id}`,
      read: async (found) => {
        const { rack } = await import("@/contract/log");
        const read = rack.change.in.safeParse(found);
        return read.success ? read.data : null;
      },
    },
    storage,
  });
