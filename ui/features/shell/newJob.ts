"use client";

import dynamic from "next/dynamic";

/** Fetches the dialog ahead of its first use. */
export const loadNewJobDialog = () => import("./NewJobDialog").then((m) => m.NewJobDialog);

/** The dialog that starts a job; fetched after the page stands. */
export const NewJobDialog = dynamic(loadNewJobDialog, { ssr: false });
