"use client";

import { useRouter } from "next/navigation";
import { useRef, useState, type ReactNode } from "react";
import type { PourKind } from "@/core/plan";
import { NO_CUT, type Cut } from "@/core/weigh";
import { call } from "../../data/call";
import { freshId } from "../../data/key";
import { notice } from "../../kit/notice";
import { AskFirst, doubtsOf, type Asked } from "../log/AskFirst";
import { useJob } from "./JobContext";

export interface ToDo {
  kind: PourKind;
  index: number;
  title: string;
  mouldId?: string | null;
  cut?: Cut;
}

export interface Acts {
  busy: boolean;
  weigh: (t: ToDo) => void;
  log: (t: ToDo, at: number | null) => void;
  /** What asks first, wherever it is put. */
  dialog: ReactNode;
}

/** Begins to weigh something in, or logs it as poured: saves the job first, asks once where something speaks against it. */
export function useActs(): Acts {
  const { id, document } = useJob();
  const router = useRouter();
  // Each pour is an act of its own, however often its answer is lost on the way.
  const keys = useRef(new Map<string, string>());
  const [busy, setBusy] = useState(false);
  const [asked, setAsked] = useState<Asked | null>(null);
  const body = ({ kind, index, mouldId = null, cut = NO_CUT }: ToDo, despite: string[]) => ({
    jobId: id,
    jobRevision: document.getState().revision,
    kind,
    pourIndex: index,
    mouldId,
    cut,
    despite,
  });

  const weigh = async (t: ToDo, despite: string[] = []): Promise<void> => {
    setBusy(true);
    const saved = await document.flush();
    const answer = saved ? await call("weigh", "begin", { body: body(t, despite) }) : null;
    setBusy(false);
    if (!answer) return notice.bad("Not begun: the job itself could not be saved yet. See the note on top.");
    if (answer.ok) return router.push(`/weigh/${answer.data.id}`);
    const doubts = doubtsOf(answer);
    if (!doubts) return notice.bad(answer.message);
    setAsked({ doubts, yes: (keys) => void weigh(t, keys) });
  };
  const log = async (t: ToDo, at: number | null, despite: string[] = []): Promise<void> => {
    setBusy(true);
    const mine = `${t.kind} ${t.index}`;
    const key = keys.current.get(mine) ?? freshId();
    keys.current.set(mine, key);
    const saved = await document.flush();
    const answer = saved ? await call("log", "enter", { body: { key, ...body(t, despite), ...(at === null ? {} : { at }) } }) : null;
    setBusy(false);
    if (!answer) return notice.bad("Not logged: the job itself could not be saved yet. See the note on top.");
    if (answer.ok) {
      keys.current.delete(mine);
      notice.good(`${t.title} is in the log. Its clock is running.`);
      return router.refresh();
    }
    const doubts = doubtsOf(answer);
    if (!doubts) return notice.bad(answer.message);
    setAsked({ doubts, yes: (keys) => void log(t, at, keys) });
  };
  return {
    busy,
    weigh: (t) => void weigh(t),
    log: (t, at) => void log(t, at),
    dialog: <AskFirst asked={asked} act="Do it all the same" close={() => setAsked(null)} />,
  };
}
