"use client";

import { Dialog } from "../../kit/Dialog";
import type { Shortcut } from "./shortcuts";

/** Every key that works on this screen. */
export function KeysDialog({ shortcuts, onClose }: { shortcuts: readonly Shortcut[]; onClose: () => void }) {
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Keys" description="They work while no field is being typed in.">
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2">
        {shortcuts.map((s) => (
          <div key={s.keys} className="contents">
            <dt>
              <kbd className="rounded-md border border-line bg-paper px-2 py-0.5 font-sans font-semibold">{s.keys}</kbd>
            </dt>
            <dd>{s.label}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
