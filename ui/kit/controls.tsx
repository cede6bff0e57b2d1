"use client";

import { TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";

/** A caution at the step where it bites. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex gap-2 rounded-lg border-l-4 border-care bg-warn px-3 py-2 text-sm leading-snug">
      <TriangleAlert size={18} className="mt-0.5 shrink-0 text-care" aria-hidden="true" />
      <span>{children}</span>
    </p>
  );
}

/** What went wrong, said aloud; nothing while nothing did. Large where it is about the whole screen. */
export function Fault({ children, large = false }: { children: string | null | undefined; large?: boolean }) {
  return children ? (
    <p role="alert" className={large ? "card !border-2 !border-no p-3 font-semibold" : "fault"}>
      {children}
    </p>
  ) : null;
}

/** Name and figure of one result; the figure is what the eye should find. */
export function Figure({ name, children, note, size = "text-2xl" }: { name: ReactNode; children: ReactNode; note?: ReactNode; size?: string }) {
  return (
    <div className="min-w-0">
      <div className="text-sm text-soft">{name}</div>
      <div className={`figure ${size} leading-tight`}>{children}</div>
      {note && <div className="hint">{note}</div>}
    </div>
  );
}
