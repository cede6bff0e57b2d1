"use client";

import { createContext, useContext, type ReactNode } from "react";

const Context = createContext(false);

/** Within it, what only explains is left out. */
export const Brief = ({ brief, children }: { brief: boolean; children: ReactNode }) => <Context value={brief}>{children}</Context>;

/** Whether explanations are left out here. */
export const useBrief = (): boolean => useContext(Context);

/** What explains, and is left out where only the work is wanted. */
export const Aside = ({ children }: { children: ReactNode }) => (useBrief() ? null : children);
