"use client";

import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";

/** A word of explanation over a control, for pointer and keyboard. Nothing the work depends on is said only here. */
export function Hint({ text, children }: { text: string | undefined; children: ReactNode }) {
  if (!text) return children;
  return (
    <Tooltip.Provider delayDuration={400}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content sideOffset={6} collisionPadding={8} className="z-50 max-w-72 rounded-lg bg-ink px-3 py-2 text-sm leading-snug text-card">
            {text}
            <Tooltip.Arrow className="fill-ink" />
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
