"use client";

import { useSyncExternalStore } from "react";

const never = () => () => undefined;

/** False on the server and while a page is only drawn; true once it hears what is tapped and typed. */
export const useListening = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
