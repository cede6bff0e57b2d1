"use client";

import type { ModelWorker } from "@/workers/model.worker";
import { useWorker } from "./useWorker";

/** The worker that reads models and pulls them. */
export const useModelWorker = () => useWorker<ModelWorker>(() => new Worker(new URL("../../workers/model.worker.ts", import.meta.url)));
