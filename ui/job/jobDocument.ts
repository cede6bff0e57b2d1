import type { Job } from "@/core/record";
import type { Sent } from "../send";
import type { JobView } from "../types";

export type SaveState =
  { kind: "saved" } | { kind: "waiting" } | { kind: "saving" } | { kind: "conflict"; theirs: JobView } | { kind: "failed"; message: string };

export interface JobState {
  job: Job;
  revision: number;
  canUndo: boolean;
  canRedo: boolean;
  save: SaveState;
}

/** What the document needs of the page round it. */
export interface Surroundings {
  send: (method: "PUT" | "POST", url: string, body: unknown, options?: { keepalive?: boolean }) => Promise<Sent<JobView>>;
  /** Browser storage, or null where the browser refuses it. */
  storage: Pick<Storage, "getItem" | "setItem" | "removeItem"> | null;
}

export const SAVE_DELAY_MS = 350;
export const RETRY_MS = 5000;

/**
 * A job as it is edited: every change shows at once, is saved shortly after, and is kept in the browser until the server
 * has it. A save made elsewhere in between is never overwritten: the state says so and waits for {@link resolve}.
 */
export class JobDocument {
  private state: JobState;
  private dirty = false;
  private inFlight: Promise<boolean> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  /** The draft a page that went away left behind, as it also sent it with its last breath. */
  private lastBreath: string | null = null;
  private readonly url: string;
  private readonly draftKey: string;

  constructor(
    initial: JobView,
    private readonly around: Surroundings,
  ) {
    this.state = {
      job: initial.job,
      revision: initial.revision,
      canUndo: initial.canUndo,
      canRedo: initial.canRedo,
      save: { kind: "saved" },
    };
    this.url = `/api/jobs/${initial.id}`;
    this.draftKey = `zesty-job-${initial.id}`;
  }

  readonly getState = (): JobState => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Picks up an entry that was not saved when the page last went away. */
  readonly restore = async (): Promise<void> => {
    const draft = await this.readDraft();
    // Typing that began before the draft was read is the newer of the two.
    if (this.dirty) return;
    if (!draft || JSON.stringify(draft.job) === JSON.stringify(this.state.job)) return this.keepDraft();
    // Saving over the revision the draft was based on lets the server tell whether someone saved since.
    this.set({ revision: draft.revision });
    this.lastBreath = JSON.stringify(draft.job);
    this.update(() => draft.job);
  };

  readonly update = (change: (job: Job) => Job): void => {
    this.dirty = true;
    this.set({ job: change(this.state.job), ...(this.state.save.kind === "conflict" ? {} : { save: { kind: "waiting" } }) });
    this.keepDraft();
    if (this.state.save.kind !== "conflict") this.later(SAVE_DELAY_MS);
  };

  /** Saves what is not saved yet; true once the server has everything. */
  readonly flush = async (): Promise<boolean> => {
    this.stopTimer();
    while (this.inFlight) await this.inFlight;
    if (this.state.save.kind === "conflict") return false;
    if (!this.dirty) return true;
    this.inFlight = this.put();
    const ok = await this.inFlight;
    this.inFlight = null;
    return ok && this.dirty ? this.flush() : ok;
  };

  readonly step = async (direction: "undo" | "redo"): Promise<void> => {
    if (!(await this.flush())) return;
    const answer = await this.around.send("POST", `${this.url}/step`, { baseRevision: this.state.revision, direction });
    if (answer.ok) this.set({ ...fromServer(answer.data), job: answer.data.job });
    else if (answer.error !== "nothing-to-step") this.refused(answer);
  };

  /** Ends a conflict: save this page's job over theirs, or take theirs. Undo reaches the other either way. */
  readonly resolve = (keep: "mine" | "theirs"): void => {
    const { save } = this.state;
    if (save.kind !== "conflict") return;
    this.dirty = keep === "mine";
    this.set({
      ...fromServer(save.theirs),
      ...(keep === "theirs" ? { job: save.theirs.job } : {}),
      save: { kind: this.dirty ? "waiting" : "saved" },
    });
    this.keepDraft();
    if (this.dirty) this.later(0);
  };

  /** Last chance to save as the page goes away; the draft stays until a later page sees it saved. */
  readonly leave = (): void => {
    this.stopTimer();
    if (this.dirty && this.state.save.kind !== "conflict") void this.around.send("PUT", this.url, this.body(), { keepalive: true });
  };

  private body = () => ({ baseRevision: this.state.revision, job: this.state.job });

  private async put(): Promise<boolean> {
    this.dirty = false;
    this.set({ save: { kind: "saving" } });
    const answer = await this.around.send("PUT", this.url, this.body());
    if (!answer.ok) {
      this.dirty = true;
      this.refused(answer);
      return false;
    }
    this.set({ ...fromServer(answer.data), save: { kind: this.dirty ? "waiting" : "saved" } });
    this.keepDraft();
    return true;
  }

  private refused(answer: Extract<Sent<JobView>, { ok: false }>): void {
    if (answer.error === "stale") {
      const theirs = answer.detail.current as JobView;
      // A reload can read the job just before the save of the page it replaces lands: that save is ours, not another's.
      if (JSON.stringify(theirs.job) === this.lastBreath) {
        this.lastBreath = null;
        this.set({ ...fromServer(theirs), save: { kind: "waiting" } });
        this.keepDraft();
        this.later(0);
        return;
      }
      this.set({ save: { kind: "conflict", theirs } });
    } else {
      this.set({ save: { kind: "failed", message: answer.message } });
      if (answer.status === 0 || answer.status >= 500) this.later(RETRY_MS);
    }
    this.keepDraft();
  }

  private set(patch: Partial<JobState>): void {
    this.state = { ...this.state, ...patch };
    for (const listener of this.listeners) listener();
  }

  private later(ms: number): void {
    this.stopTimer();
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private stopTimer(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  private keepDraft(): void {
    try {
      if (this.dirty) this.around.storage?.setItem(this.draftKey, JSON.stringify({ job: this.state.job, revision: this.state.revision }));
      else this.around.storage?.removeItem(this.draftKey);
    } catch {
      // A full or refused storage leaves the entry on the page alone.
    }
  }

  private async readDraft(): Promise<{ job: Job; revision: number } | null> {
    try {
      const found: unknown = JSON.parse(this.around.storage?.getItem(this.draftKey) ?? "null");
      if (typeof found !== "object" || found === null || !("job" in found) || !("revision" in found)) return null;
      // The schema is only fetched where there is a draft to check.
      const { Job: schema } = await import("@/core/record");
      const job = schema.safeParse(found.job);
      return job.success && typeof found.revision === "number" ? { job: job.data, revision: found.revision } : null;
    } catch {
      return null;
    }
  }
}

const fromServer = (v: JobView) => ({ revision: v.revision, canUndo: v.canUndo, canRedo: v.canRedo });
