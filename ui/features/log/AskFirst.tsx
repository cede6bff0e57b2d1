"use client";

import { Dialog } from "../../kit/Dialog";

/** What speaks against an act, asked once. It is the person's to decide; the log keeps what was said. */
export interface Asked {
  doubts: readonly { key: string; message: string }[];
  yes: (despite: string[]) => void;
}

/** The doubts of an answer that asks first; null where it refused for another reason. */
export const doubtsOf = (answer: { error: string; detail: Record<string, unknown> }): Asked["doubts"] | null =>
  answer.error === "ask" && Array.isArray(answer.detail.doubts) ? (answer.detail.doubts as Asked["doubts"]) : null;

export function AskFirst({ asked, act, close }: { asked: Asked | null; act: string; close: () => void }) {
  if (!asked) return null;
  return (
    <Dialog open onOpenChange={(o) => !o && close()} title="Before you do" description="Asked once. If you go on, it is done and written down with this.">
      <ul className="space-y-2">
        {asked.doubts.map((d) => (
          <li key={d.key} className="rounded-lg border-l-4 border-care bg-peel/40 p-2 text-lg">
            {d.message}
          </li>
        ))}
      </ul>
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="btn btn-main text-lg" onClick={close}>
          Not now
        </button>
        <button
          type="button"
          className="btn text-lg"
          onClick={() => {
            asked.yes(asked.doubts.map((d) => d.key));
            close();
          }}
        >
          {act}
        </button>
      </div>
    </Dialog>
  );
}
