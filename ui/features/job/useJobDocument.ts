"use client";

import type { JobView } from "@/contract/jobs";
import { call } from "../../data/call";
import { browserStorage, useKept } from "../../data/useSaved";
import { JobDocument, type JobState } from "./jobDocument";

/** Keeps one {@link JobDocument} for as long as the screen stands. */
export function useJobDocument(initial: JobView): JobState & { document: JobDocument } {
  const params = { id: initial.id };
  const [state, document] = useKept<JobState, JobDocument>(
    () =>
      new JobDocument(initial, {
        put: (body, { keepalive }) => call("jobs", "save", { params, body, keepalive }),
        step: (body) => call("jobs", "step", { params, body }),
        storage: browserStorage(),
      }),
  );
  return { ...state, document };
}
