"use client";

import dynamic from "next/dynamic";
import type { ComponentProps } from "react";
import type { JobScreen } from "./JobScreen";

/**
 * A job's page stands as the server worked it out, and is read, before its engine is here; then it answers to the hand. The engine weighs more than the
 * rest of the page, and nothing of it is wanted for the first look.
 */
const Screen = dynamic(() => import("./JobScreen").then((m) => m.JobScreen));

export const Job = (props: ComponentProps<typeof JobScreen>) => <Screen {...props} />;
