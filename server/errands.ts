import { spawn, type ChildProcess } from "node:child_process";
import { randomUUID } from "node:crypto";
import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import * as z from "zod";
import type { ErrandView } from "../contract/workshop";
import { forgetOddAll } from "../db/odd";
import { clearOutgoing } from "./backup/places";
import type { Errand, ErrandOutcome } from "./errandWork";
import { tidyPictures } from "./pictures";
import { programOf } from "./program";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/** Memory one errand may take, MB: it holds a row and a picture at a time, so more than this means that something is wrong with what it reads. */
const MEMORY_MB = 768;

interface Running extends ErrandView {
  ask: Errand;
  child: ChildProcess;
  /** It has asked that nothing else be changed until it ends. */
  shut: boolean;
  end: Promise<void>;
}
const held = globalThis as { zestyErrand?: Running };

const Told = z.union([
  z.object({ doing: z.string(), share: z.number() }),
  z.object({ shut: z.literal(true) }),
  z.object({ refused: z.object({ status: z.number(), code: z.string(), message: z.string() }) }),
  z.object({ result: z.unknown() }),
]);

const view = ({ id, state, doing, share, message, result }: Running): ErrandView => ({ id, state, doing, share, message, result });

function found(id: string): Running {
  const e = held.zestyErrand;
  if (e?.id !== id) throw new Refusal(404, "no-errand", "That is not known any more: the server was started anew, or something else was begun since.");
  return e;
}

/** What a killed errand can leave behind is put in order. */
function tidyAfter(w: Workshop, e: Running): void {
  if (e.state !== "done") {
    for (const name of existsSync(w.files.kept) ? readdirSync(w.files.kept) : [])
      if (name.endsWith(".part")) rmSync(join(w.files.kept, name), { recursive: true, force: true });
    if (e.ask.do === "backup") clearOutgoing(w);
  }
  if (e.ask.do === "restore" && w.db.$client.open) {
    forgetOddAll(w.db);
    tidyPictures(w.db, w.files);
  }
}

/** Starts something long in a process of its own. One at a time: a second is refused with what is running. */
export function startErrand<E extends Errand>(w: Workshop, ask: E, done: (result: ErrandOutcome<E["do"]>) => void = () => {}): ErrandView {
  const before = held.zestyErrand;
  if (before?.state === "running")
    throw new Refusal(409, "busy", `Something else takes its time just now (${before.doing}): wait until it is done, or stop it.`);
  if (ask.do === "backup") clearOutgoing(w);
  const id = randomUUID();
  const child = spawn(process.execPath, [`--max-old-space-size=${MEMORY_MB}`, ...programOf("errand"), id, JSON.stringify(ask)], {
    stdio: ["ignore", "ignore", "inherit", "ipc"],
    env: { ...process.env, ZESTY_DATA: w.files.folder, NODE_OPTIONS: "" },
  });
  const e: Running = { id, ask, child, shut: false, state: "running", doing: "Starting", share: 0, message: null, result: null, end: Promise.resolve() };
  child.on("message", (said) => {
    const told = Told.safeParse(said);
    if (!told.success || e.state !== "running") return;
    if ("doing" in told.data) Object.assign(e, told.data);
    else if ("shut" in told.data) {
      e.shut = true;
      child.send("shut");
    } else if ("refused" in told.data) Object.assign(e, { state: "refused", message: told.data.refused.message });
    else Object.assign(e, { result: told.data.result, share: 1 });
  });
  e.end = new Promise((ended) => {
    const over = () => {
      if (e.state === "running") {
        if (e.result !== null) {
          e.state = "done";
          done(e.result as ErrandOutcome<E["do"]>);
        } else
          Object.assign(e, {
            state: "refused",
            message: "It ended before it was done: it was stopped from outside, or needed more memory than it may take. Nothing was changed.",
          });
      }
      try {
        tidyAfter(w, e);
      } finally {
        ended();
      }
    };
    child.once("error", (fault) => {
      Object.assign(e, { state: "refused", message: `It could not be started: ${fault.message}` });
      over();
    });
    child.once("exit", over);
  });
  held.zestyErrand = e;
  return view(e);
}

export const seeErrand = (id: string): ErrandView => view(found(id));

/** Waits for the end of an errand. */
export async function errandEnd(id: string): Promise<ErrandView> {
  const e = found(id);
  await e.end;
  return view(e);
}

/** Stops an errand: what it had begun is as if it never was. */
export async function stopErrand(id: string): Promise<ErrandView> {
  const e = found(id);
  if (e.state === "running" && e.shut)
    throw new Refusal(409, "too-late", "Its entries are being written already, so it can no longer be stopped. It is done in a moment.");
  if (e.state === "running" && e.result === null) {
    e.state = "stopped";
    e.child.kill("SIGKILL");
  }
  await e.end;
  return view(e);
}

/** Refuses to change anything while a restore keeps its copy and writes its rows: asked right before each change. */
export function refuseWhileShut(): void {
  if (held.zestyErrand?.state === "running" && held.zestyErrand.shut)
    throw new Refusal(503, "busy", "A backup is being restored at this moment. Nothing was lost: try again in a few seconds.");
}
