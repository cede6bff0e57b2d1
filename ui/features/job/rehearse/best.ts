import * as z from "zod";

const Best = z.object({ score: z.number(), seconds: z.number() });
const key = (jobId: string) => `rehearsal:${jobId}`;
/** The best a person got at an exercise on this device. */
export function readBest(jobId: string): z.infer<typeof Best> | null {
  try {
    const read = Best.safeParse(JSON.parse(localStorage.getItem(key(jobId)) ?? "null"));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
export function writeBest(jobId: string, best: z.infer<typeof Best>): void {
  try {
    localStorage.setItem(key(jobId), JSON.stringify(best));
  } catch {
    // A browser that keeps nothing keeps no best either.
  }
}
