"use client";

import type { ReactNode } from "react";
import { notice } from "./notice";
import { flushAll } from "../data/savedDocument";

/** Has the browser save a file of this workshop. */
export function saveFile(href: string): void {
  const link = document.createElement("a");
  link.href = href;
  link.download = "";
  document.body.append(link);
  link.click();
  link.remove();
}

/** A link to a file that is made from what is saved: it waits until everything on this page is. */
export function Download({ href, className, children, label }: { href: string; className?: string; children: ReactNode; label?: string }) {
  const fetchFile = async () => {
    if (!(await flushAll())) return notice.bad("Not fetched: something on this page could not be saved yet, so the file would be an old one.");
    saveFile(href);
  };
  return (
    <a
      className={className}
      href={href}
      aria-label={label}
      download
      onClick={(e) => {
        e.preventDefault();
        void fetchFile();
      }}
    >
      {children}
    </a>
  );
}
