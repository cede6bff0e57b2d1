"use client";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useEffect, useState, type ReactNode } from "react";
import { prepareCalls } from "./call";
import { NotRead } from "./read";

/** Keeps what was read for every screen alike, and asks again while the server does not answer; what it refuses is not asked again. */
export function Reader({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: { networkMode: "always", retry: (n, e) => !(e instanceof NotRead && e.status > 0 && e.status < 500) && n < 2, gcTime: 60_000 },
        },
      }),
  );
  useEffect(prepareCalls, []);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
