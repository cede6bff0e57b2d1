import { readFileSync } from "node:fs";
import { catalogueOf } from "../core/material";
import { ModelFault } from "../core/mesh";
import { describeOperations, OperationFault, operationNamed, type FileKind, type GivenFile } from "../core/operations";
import { PhotoFault } from "../core/photo";
import { readModel } from "../shape/model";
import { readPicture } from "../shape/picture";

/** `npm run -s op -- <name> < in.json`: the answer as JSON on standard output; faults on standard error, exit code 2. */
function fail(lines: readonly string[]): void {
  for (const line of lines) console.error(line);
  process.exitCode = 2;
}

/** What follows `--file`. */
function fileOf(args: readonly string[]): string | null {
  const at = args.findIndex((a) => a === "--file" || a.startsWith("--file="));
  if (at < 0) return null;
  return args[at]!.includes("=") ? args[at]!.slice("--file=".length) : (args[at + 1] ?? "");
}

/** The file as the operation wants it. */
async function read(kind: FileKind, path: string): Promise<GivenFile> {
  const bytes = readFileSync(path);
  switch (kind) {
    case "model":
      return { model: readModel(bytes) };
    case "picture":
      return { picture: await readPicture(bytes) };
  }
}

async function main(args: readonly string[]): Promise<void> {
  const name = args.find((a, i) => !a.startsWith("--") && args[i - 1] !== "--file");
  if (name === undefined) {
    for (const o of describeOperations()) console.log(`${o.name.padEnd(20)} ${o.summary}${o.file ? ` (--file ${o.file})` : ""}`);
    return;
  }
  const operation = operationNamed(name);
  if (!operation) return fail([`There is no operation "${name}". Run without a name to list them.`]);
  const path = fileOf(args);
  if (operation.file && !path) return fail([`${name} needs a ${operation.file}: add --file and its path.`]);
  if (!operation.file && path !== null) return fail([`${name} takes no file.`]);
  let input: unknown;
  try {
    input = JSON.parse(process.stdin.isTTY ? "{}" : readFileSync(0, "utf8").trim() || "{}");
  } catch (e) {
    return fail([`Standard input is not JSON: ${e instanceof Error ? e.message : String(e)}`]);
  }
  try {
    const given = operation.file && path ? await read(operation.file, path) : undefined;
    console.log(JSON.stringify(operation.run(input, catalogueOf(), given), null, 2));
  } catch (e) {
    if (e instanceof OperationFault) return fail(e.faults.map((f) => `${f.path || "input"}: ${f.message}`));
    if (e instanceof ModelFault || e instanceof PhotoFault) return fail([`${path}: ${e.message}`]);
    if (e instanceof Error && "code" in e && typeof e.code === "string" && e.code.startsWith("E"))
      return fail([`${path ?? "standard input"} cannot be read: ${e.message}`]);
    throw e;
  }
}

await main(process.argv.slice(2));
