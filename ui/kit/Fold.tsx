"use client";

import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import { useState, type ReactNode } from "react";

/** What not everybody needs, behind a line that says what it is. Opens by itself when `open` turns true. */
export function Fold({
  title,
  open = false,
  className = "",
  titleClass = "min-h-8 font-semibold",
  children,
}: {
  title: ReactNode;
  open?: boolean;
  className?: string;
  titleClass?: string;
  children: ReactNode;
}) {
  const [shown, setShown] = useState(open);
  const [asked, setAsked] = useState(open);
  if (asked !== open) {
    setAsked(open);
    if (open) setShown(true);
  }
  return (
    <Collapsible.Root open={shown} onOpenChange={setShown} className={className}>
      <Collapsible.Trigger className={`group flex w-full items-center gap-1.5 text-left ${titleClass}`}>
        <ChevronRight size={18} aria-hidden="true" className="shrink-0 group-data-[state=open]:rotate-90" />
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
