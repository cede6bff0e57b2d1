"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState } from "react";

const SETTLE_MS = 250;

/**
 * A list's filter as it stands in the page's address: what is typed goes there a moment later, a choice at once. `query` says
 * which values differ from their defaults; a changed filter begins at the first page.
 */
export function useListAddress<F extends { text: string; page: number }>(filter: F, query: (f: F) => Record<string, string | null>) {
  const router = useRouter();
  const path = usePathname();
  const [text, setText] = useState(filter.text);
  const address = (patch: Partial<F>): string => {
    const f = { ...filter, text, page: 0, ...patch };
    const q = new URLSearchParams();
    if (f.text) q.set("text", f.text);
    for (const [key, value] of Object.entries(query(f))) if (value !== null) q.set(key, value);
    if (f.page > 0) q.set("page", String(f.page));
    return q.size > 0 ? `${path}?${q}` : path;
  };
  const searched = address({});
  useEffect(() => {
    if (text === filter.text) return;
    const soon = setTimeout(() => router.replace(searched, { scroll: false }), SETTLE_MS);
    return () => clearTimeout(soon);
  }, [filter.text, router, searched, text]);
  return { text, setText, address, choose: (patch: Partial<F>) => router.replace(address(patch), { scroll: false }) };
}
