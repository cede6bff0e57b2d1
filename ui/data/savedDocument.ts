import stable from "fast-json-stable-stringify";
import type { Sent } from "./call";

export type SaveState<V> = { kind: "saved" } | { kind: "waiting" } | { kind: "saving" } | { kind: "conflict"; theirs: V } | { kind: "failed"; message: string };

export interface DocumentState<V> {
  /** What is shown: what the server has, with everything not yet saved laid over it. */
  view: V;
  save: SaveState<V>;
}

/** Browser storage, or null where the browser refuses it. */
export type DraftStorage = Pick<Storage, "getItem" | "setItem" | "removeItem"> | null;

/** How one kind of document is saved. `V` is what the server has; `P` is what a person changed of it. */
export interface Saving<V, P extends object> {
  /** Sends a change that was made to `base`. */
  put: (patch: P, base: V, options: { keepalive: boolean }) => Promise<Sent<V>>;
  /** Lays a change over what the server has. */
  lay: (view: V, patch: P) => V;
  /** Revision a change is based on, where the server tells an older base; and the same view on another revision. */
  revision?: { of: (view: V) => number; rebase: (view: V, revision: number) => V };
  /** Where what is not saved yet is kept in the browser, and how it is read again. */
  draft: { key: string; read: (found: Record<string, unknown>) => P | null | Promise<P | null> };
  storage: DraftStorage;
  /** Quiet after the last change before it is sent, ms. */
  delayMs?: number;
}

export const SAVE_DELAY_MS = 350;
export const RETRY_MS = 5000;

/** Documents on this page that have something the server has not. */
const unsaved = new Set<{ flush: () => Promise<boolean> }>();

/** Saves everything on this page that is not saved yet; true once the server has all of it. A download asks for this first. */
export const flushAll = async (): Promise<boolean> => (await Promise.all([...unsaved].map((d) => d.flush()))).every(Boolean);

/**
 * A document as it is edited. Every change shows at once; changes that follow each other quickly are merged and sent as one;
 * one save is under way at a time, and what was typed meanwhile follows it. Until the server has a change it is kept in the
 * browser. A save made elsewhere in between is never overwritten: the state says so and waits for {@link resolve}. As the page
 * goes away what is left goes out with it.
 */
export class SavedDocument<V, P extends object> {
  private state: DocumentState<V>;
  private server: V;
  private waiting: P | null = null;
  private flying: P | null = null;
  /** What the server refused by name: it stays on the page with its reason, and lets the rest go by. */
  private stuck: { patch: Partial<P>; message: string } | null = null;
  private inFlight: Promise<boolean> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  /** The change a page that went away left behind, as it also sent it with its last breath. */
  private lastBreath: P | null = null;

  constructor(
    initial: V,
    private readonly how: Saving<V, P>,
  ) {
    this.server = initial;
    this.state = { view: initial, save: { kind: "saved" } };
  }

  readonly getState = (): DocumentState<V> => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Picks up a change that was not saved when the page last went away. */
  readonly restore = async (): Promise<void> => {
    const draft = await this.readDraft();
    // Typing that began before the draft was read is the newer of the two.
    if (this.dirty) return;
    if (!draft || this.holds(this.server, draft.patch)) return this.keepDraft();
    // Saving over the revision the draft was based on lets the server tell whether someone saved since.
    if (this.how.revision && draft.revision !== null) this.server = this.how.revision.rebase(this.server, draft.revision);
    this.lastBreath = draft.patch;
    this.update(draft.patch);
  };

  /** Changes some of it; with `now` it is sent at once. */
  readonly update = (patch: P, now = false): void => {
    this.waiting = { ...this.waiting, ...patch };
    if (this.stuck) this.unstick(Object.keys(patch));
    unsaved.add(this);
    this.show(this.state.save.kind === "conflict" ? this.state.save : { kind: "waiting" });
    this.keepDraft();
    if (this.state.save.kind !== "conflict") this.later(now ? 0 : (this.how.delayMs ?? SAVE_DELAY_MS));
  };

  /** Takes what the server says when it was asked for another reason; what is not saved yet stays on top of it. */
  readonly take = (view: V): void => {
    this.server = view;
    this.show(this.state.save);
  };

  /** Saves what is not saved yet; true once the server has everything. */
  readonly flush = async (): Promise<boolean> => {
    this.stopTimer();
    while (this.inFlight) await this.inFlight;
    if (this.state.save.kind === "conflict") return false;
    if (!this.dirty) return this.stuck === null;
    this.inFlight = this.put();
    const ok = await this.inFlight;
    this.inFlight = null;
    return ok && this.dirty ? this.flush() : ok;
  };

  /** Ends a conflict: save this page's change over theirs, or take theirs. */
  readonly resolve = (keep: "mine" | "theirs"): void => {
    const { save } = this.state;
    if (save.kind !== "conflict") return;
    this.server = save.theirs;
    if (keep === "theirs") this.waiting = null;
    this.show(this.dirty ? { kind: "waiting" } : { kind: "saved" });
    this.keepDraft();
    if (this.dirty) this.later(0);
  };

  /** Says that something about it was refused, as a save of it would be. */
  readonly refuse = (answer: Extract<Sent<V>, { ok: false }>): void => this.refused(answer);

  /** Last chance to save as the page goes away; the draft stays until a later page sees it saved. */
  readonly leave = (): void => {
    this.stopTimer();
    // A save under way may be broken off with the page. Sending its change again does no harm, unless its base is counted.
    const left = this.how.revision ? this.waiting : this.waiting || this.flying ? ({ ...this.flying, ...this.waiting } as P) : null;
    if (left && this.state.save.kind !== "conflict") void this.how.put(left, this.server, { keepalive: true });
    unsaved.delete(this);
  };

  /** What the server has, as far as this page knows. */
  get saved(): V {
    return this.server;
  }

  private get dirty(): boolean {
    return this.waiting !== null;
  }

  private async put(): Promise<boolean> {
    this.flying = this.waiting;
    this.waiting = null;
    const sent = this.flying;
    if (!sent) return true;
    this.show({ kind: "saving" });
    const answer = await this.how.put(sent, this.server, { keepalive: false });
    this.flying = null;
    if (!answer.ok) {
      this.waiting = { ...sent, ...(this.waiting ?? {}) };
      this.refused(answer);
      return false;
    }
    this.server = answer.data;
    this.show(this.dirty ? { kind: "waiting" } : this.settled());
    this.keepDraft();
    return this.stuck === null;
  }

  private settled(): SaveState<V> {
    return this.stuck ? { kind: "failed", message: this.stuck.message } : { kind: "saved" };
  }

  private unstick(keys: readonly string[]): void {
    const left = Object.entries(this.stuck?.patch ?? {}).filter(([k]) => !keys.includes(k));
    this.stuck = this.stuck && left.length > 0 ? { ...this.stuck, patch: Object.fromEntries(left) as Partial<P> } : null;
  }

  /** Parts of a refused change that the server named as faulty, where there are others that may be sound. */
  private faulty(answer: Extract<Sent<V>, { ok: false }>): string[] {
    const faults = Array.isArray(answer.detail.faults) ? answer.detail.faults : [];
    const named = new Set(faults.map((f: { path?: unknown }) => String(f.path ?? "").split(".")[0] ?? ""));
    return Object.keys(this.waiting ?? {}).filter((k) => named.has(k));
  }

  private refused(answer: Extract<Sent<V>, { ok: false }>): void {
    if (answer.error === "stale" && answer.current !== null) {
      const theirs = answer.current;
      // A reload can read the document just before the save of the page it replaces lands: that save is ours, not another's.
      if (this.lastBreath && this.holds(theirs, this.lastBreath)) {
        this.lastBreath = null;
        this.server = theirs;
        this.show({ kind: "waiting" });
        this.keepDraft();
        this.later(0);
        return;
      }
      this.show({ kind: "conflict", theirs });
    } else if (answer.status === 400 && this.faulty(answer).length > 0) {
      const names = this.faulty(answer);
      const entries = Object.entries(this.waiting ?? {});
      const held = Object.fromEntries(entries.filter(([k]) => names.includes(k))) as Partial<P>;
      const rest = entries.filter(([k]) => !names.includes(k));
      this.stuck = { patch: { ...this.stuck?.patch, ...held }, message: answer.message };
      this.waiting = rest.length > 0 ? (Object.fromEntries(rest) as P) : null;
      this.show(rest.length > 0 ? { kind: "waiting" } : this.settled());
      if (rest.length > 0) this.later(0);
    } else {
      this.show({ kind: "failed", message: answer.message });
      if (answer.status === 0 || answer.status >= 500) this.later(RETRY_MS);
    }
    this.keepDraft();
  }

  /** True where a change is in a view already. */
  private holds(view: V, patch: P): boolean {
    return stable(this.how.lay(view, patch)) === stable(view);
  }

  private show(save: SaveState<V>): void {
    const flown = this.flying ? this.how.lay(this.server, this.flying) : this.server;
    const held = this.stuck ? this.how.lay(flown, this.stuck.patch as P) : flown;
    this.state = { view: this.waiting ? this.how.lay(held, this.waiting) : held, save };
    if (!this.waiting && !this.flying && !this.stuck) unsaved.delete(this);
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
    const { storage, draft, revision } = this.how;
    const left = this.flying || this.waiting || this.stuck ? { ...this.stuck?.patch, ...this.flying, ...this.waiting } : null;
    try {
      if (left) storage?.setItem(draft.key, JSON.stringify({ ...left, ...(revision ? { revision: revision.of(this.server) } : {}) }));
      else storage?.removeItem(draft.key);
    } catch {
      // A full or refused storage leaves the entry on the page alone.
    }
  }

  private async readDraft(): Promise<{ patch: P; revision: number | null } | null> {
    try {
      const found: unknown = JSON.parse(this.how.storage?.getItem(this.how.draft.key) ?? "null");
      if (typeof found !== "object" || found === null) return null;
      const { revision = null, ...rest } = found as Record<string, unknown>;
      if (this.how.revision && typeof revision !== "number") return null;
      const patch = await this.how.draft.read(rest);
      return patch && { patch, revision: typeof revision === "number" ? revision : null };
    } catch {
      return null;
    }
  }
}

/** What the server is known to say of the things a change touches. */
export const wasOf = (view: object, change: object): Record<string, unknown> =>
  Object.fromEntries(Object.keys(change).flatMap((k) => (Object.hasOwn(view, k) ? [[k, (view as Record<string, unknown>)[k]]] : [])));
