"use client";

import { X } from "lucide-react";
import { Dialog as RDialog } from "radix-ui";
import type { ReactNode } from "react";

export function Dialog({
  open,
  onOpenChange,
  title,
  children,
  description,
  wide = false,
}: {
  open: boolean;
  onOpenChange: (o: boolean) => void;
  title: string;
  description?: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <RDialog.Root open={open} onOpenChange={onOpenChange}>
      <RDialog.Portal>
        <RDialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <RDialog.Content
          {...(description ? {} : { "aria-describedby": undefined })}
          className={`card fixed left-1/2 top-1/2 z-50 max-h-[92dvh] -translate-x-1/2 -translate-y-1/2 overflow-y-auto p-5 ${wide ? "w-[min(880px,96vw)]" : "w-[min(560px,94vw)]"}`}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <RDialog.Title className="text-xl font-bold">{title}</RDialog.Title>
            <RDialog.Close className="btn btn-bare -mr-2 -mt-2 !px-2" aria-label="Close">
              <X aria-hidden="true" />
            </RDialog.Close>
          </div>
          {description && <RDialog.Description className="hint mb-3">{description}</RDialog.Description>}
          {children}
        </RDialog.Content>
      </RDialog.Portal>
    </RDialog.Root>
  );
}
