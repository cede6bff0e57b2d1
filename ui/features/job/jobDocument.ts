import type { JobView } from "@/contract/jobs";
import type { Job } from "@/core/record";
import type { Sent } from "../../data/call";
import { SavedDocument, type DraftStorage, type SaveState } from "../../data/savedDocument";

export interface JobState {
  job: Job;
  revision: number;
  canUndo: boolean;
  canRedo: boolean;
  save: SaveState<JobView>;
}

/** What the document needs of the page round it. */
export interface Surroundings {
  put: (body: { baseRevision: number; job: Job }, options: { keepalive: boolean }) => Promise<Sent<JobView>>;
  step: (body: { baseRevision: number; direction: "undo" | "redo" }) => Promise<Sent<JobView>>;
  storage: DraftStorage;
}

/** The schema is only fetched where there is a draft to check. */
async function readDraft({ job }: Record<string, unknown>): Promise<{ job: Job } | null> {
  const { jobDocument } = await import("@/core/record");
  const read = jobDocument.safeParse(job);
  return read.success ? { job: read.data } : null;
}

/** A job as it is edited: a saved document that can also step back and forward through what was saved. */
export class JobDocument {
  private readonly document: SavedDocument<JobView, { job: Job }>;
  private state: JobState;

  constructor(
    initial: JobView,
    private readonly around: Surroundings,
  ) {
    this.document = new SavedDocument<JobView, { job: Job }>(initial, {
      put: ({ job }, base, options) => around.put({ baseRevision: base.revision, job }, options),
      lay: (view, { job }) => ({ ...view, job }),
      revision: { of: (v) => v.revision, rebase: (v, revision) => ({ ...v, revision }) },
      draft: { key: `zesty-job-${initial.id}`, read: readDraft },
      storage: around.storage,
    });
    this.state = this.shown();
    this.document.subscribe(() => (this.state = this.shown()));
  }

  private shown(): JobState {
    const { view, save } = this.document.getState();
    return { job: view.job, revision: view.revision, canUndo: view.canUndo, canRedo: view.canRedo, save };
  }

  readonly getState = (): JobState => this.state;
  readonly subscribe = (listener: () => void): (() => void) => this.document.subscribe(listener);
  readonly restore = (): Promise<void> => this.document.restore();
  readonly update = (change: (job: Job) => Job): void => this.document.update({ job: change(this.state.job) });
  readonly flush = (): Promise<boolean> => this.document.flush();
  readonly leave = (): void => this.document.leave();
  /** Ends a conflict: save this page's job over theirs, or take theirs. Undo reaches the other either way. */
  readonly resolve = (keep: "mine" | "theirs"): void => this.document.resolve(keep);

  readonly step = async (direction: "undo" | "redo"): Promise<void> => {
    if (!(await this.document.flush())) return;
    const answer = await this.around.step({ baseRevision: this.state.revision, direction });
    if (answer.ok) this.document.take(answer.data);
    else if (answer.error !== "nothing-to-step") this.document.refuse(answer);
  };
}
