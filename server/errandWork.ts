import type { ErrandAsk, ErrandKind, ErrandResult } from "../contract/workshop";
import type { Shut, Step } from "./backup/form";
import { previewBackup, restoreBackup } from "./backup/restore";
import { outgoingPath } from "./backup/places";
import { makeBackup } from "./backup/write";
import { checkWorkshop } from "./check";
import { makeDaily, type Daily } from "./daily";
import { keepCopy } from "./kept";
import type { Workshop } from "./workshop";

/** What runs beside the server: what a page can ask for, and the copy of the day. */
export type Errand = ErrandAsk | { do: "daily" };
export type ErrandOutcome<D extends Errand["do"]> = D extends ErrandKind ? ErrandResult<D> : Daily;

/** Does one errand to its end. */
export async function runErrand(w: Workshop, id: string, ask: Errand, step: Step, shut: Shut): Promise<ErrandOutcome<Errand["do"]>> {
  switch (ask.do) {
    case "backup":
      return makeBackup(w, outgoingPath(w, id), step);
    case "read":
      return previewBackup(w, ask.upload, step);
    case "restore":
      return restoreBackup(w, ask, step, shut);
    case "keep":
      step("Keeping a copy", 0);
      return { kept: keepCopy(w, "asked") };
    case "check":
      return checkWorkshop(w, step);
    case "daily":
      step("Keeping the copy of the day", 0);
      return makeDaily(w);
  }
}
