import { spawn } from "node:child_process";
import * as z from "zod";
import { describeOperations, OperationFault, operationNamed } from "../core/operations";
import { catalogue } from "./plans";
import { programOf } from "./program";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

export const listOperations = () => describeOperations();

/** Longest an operation may take beside the server, ms, and how many wait their turn. */
const LONGEST_MS = 120_000;
const MOST_WAITING = 8;
const MEMORY_MB = 512;

/** Runs a computation for outsiders. What may take minutes runs in a process of its own, one at a time, so that it holds nobody up. */
export async function runOperation(w: Workshop, name: string, input: unknown): Promise<unknown> {
  const operation = operationNamed(name);
  if (!operation) throw new Refusal(404, "no-operation", `There is no operation "${name.slice(0, 60)}". GET /api/operations lists them.`);
  if (operation.file)
    throw new OperationFault([{ path: "file", message: `${name} works on a file: ask it on the command line, npm run -s op -- ${name} --file <path>.` }]);
  const materials = catalogue(w);
  if (!operation.long) return operation.run(input, materials);
  // What is wrong with the input is told at once.
  const parsed = operation.input.safeParse(input);
  if (!parsed.success) throw new OperationFault(parsed.error.issues.map((i) => ({ path: i.path.join("."), message: i.message })));
  return inTurn(() => beside(JSON.stringify({ name, input, catalogue: materials })));
}

const turns = globalThis as { zestyTurns?: { waiting: number; last: Promise<unknown> } };

function inTurn<T>(run: () => Promise<T>): Promise<T> {
  const line = (turns.zestyTurns ??= { waiting: 0, last: Promise.resolve() });
  if (line.waiting >= MOST_WAITING) throw new Refusal(503, "busy", `${MOST_WAITING} long computations are waiting already: ask again in a minute.`);
  line.waiting++;
  const mine = line.last.then(run, run).finally(() => line.waiting--);
  line.last = mine.catch(() => {});
  return mine;
}

const Said = z.union([
  z.object({ answer: z.unknown() }).refine((o) => "answer" in o),
  z.object({ faults: z.array(z.object({ path: z.string(), message: z.string() })) }),
]);

function beside(asked: string): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [`--max-old-space-size=${MEMORY_MB}`, ...programOf("operation")], {
      stdio: ["pipe", "pipe", "inherit"],
      env: { ...process.env, NODE_OPTIONS: "" },
    });
    const late = setTimeout(() => child.kill("SIGKILL"), LONGEST_MS);
    const out: Buffer[] = [];
    child.stdout.on("data", (piece: Buffer) => out.push(piece));
    child.once("error", (e) => reject(new Refusal(500, "not-started", `It could not be started: ${e.message}`)));
    child.once("close", (code) => {
      clearTimeout(late);
      if (code !== 0)
        return reject(
          new Refusal(422, "too-long", `It was not done within ${LONGEST_MS / 1000} s, or needed more memory than it may take: ask for fewer things at once.`),
        );
      const said = Said.parse(JSON.parse(Buffer.concat(out).toString("utf8")));
      if ("faults" in said) reject(new OperationFault(said.faults));
      else resolve(said.answer);
    });
    // It may end before it has read everything; what it then says is told by its exit.
    child.stdin.on("error", () => {});
    child.stdin.end(asked);
  });
}
