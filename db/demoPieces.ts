import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Scanned, type PictureView } from "../core/master";

/** Where the demo's measured pieces lie: the model and the pictures, and what was read from them by scripts/demo-pieces.ts. */
const FOLDER = join(process.cwd(), "db", "demo-pieces");

const read = (name: string): Scanned => Scanned.parse(JSON.parse(readFileSync(join(FOLDER, name), "utf8")));

/** A comet, read from its model; an owl, from two photographs. */
export const demoPieces = (): { comet: Scanned; owl: Scanned } => ({ comet: read("comet.json"), owl: read("owl.json") });

/** Photographs of the demo's jobs: whose, from which side, under which name they are kept, and the file to copy. */
export const DEMO_PICTURES: readonly { jobId: string; view: PictureView; fileName: string; from: string }[] = [
  { jobId: "demo-owl-bookend", view: "front", fileName: "0e1f0000-0000-4000-8000-00000000f201.jpg", from: join(FOLDER, "owl-front.jpg") },
  { jobId: "demo-owl-bookend", view: "side", fileName: "0e1f0000-0000-4000-8000-00000000f202.jpg", from: join(FOLDER, "owl-side.jpg") },
];
