"use client";

import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from "react";

export interface Shortcut {
  /** "b", "?", "Ctrl+K", "Ctrl+Shift+Z". */
  keys: string;
  label: string;
  run: () => void;
}

interface Registry {
  shortcuts: readonly Shortcut[];
  offer: (list: readonly Shortcut[]) => () => void;
}

const RegistryContext = createContext<Registry | null>(null);

/** Collects the keys that the screen of the moment offers on top of the shell's own. */
export function ShortcutsProvider({ children }: { children: ReactNode }) {
  const [lists, setLists] = useState<readonly (readonly Shortcut[])[]>([]);
  const offer = useCallback((list: readonly Shortcut[]) => {
    setLists((all) => [...all, list]);
    return () => setLists((all) => all.filter((l) => l !== list));
  }, []);
  const value = useMemo<Registry>(() => ({ shortcuts: lists.flat(), offer }), [lists, offer]);
  return <RegistryContext value={value}>{children}</RegistryContext>;
}

export function useShortcutRegistry(): Registry {
  const registry = useContext(RegistryContext);
  if (!registry) throw new Error("Shortcuts need a ShortcutsProvider above them.");
  return registry;
}

/** Offers keys for as long as the calling screen stands. The list has to be memoised. */
export function useShortcuts(list: readonly Shortcut[]): void {
  const { offer } = useShortcutRegistry();
  useEffect(() => offer(list), [offer, list]);
}

/** True where a key press belongs to what is being typed: into a field, or into a list that is found through by its first letters. */
export const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA"].includes(target.tagName) || target.closest("[role=listbox], [role=combobox]") !== null);
