import { readFileSync } from "node:fs";
import { catalogueOf } from "../core/material";
import { describeOperations, OperationFault, operationNamed } from "../core/operations";

/** `npm run -s op -- <name> < in.json`: the answer as JSON on standard output; faults on standard error, exit code 2. */
function fail(lines: readonly string[]): void {
  for (const line of lines) console.error(line);
  process.exitCode = 2;
}

function main(name: string | undefined): void {
  if (name === undefined) {
    for (const o of describeOperations()) console.log(`${o.name.padEnd(18)} ${o.summary}`);
    return;
  }
  const operation = operationNamed(name);
  if (!operation) return fail([`There is no operation "${name}". Run without a name to list them.`]);
  let input: unknown;
  try {
    input = JSON.parse(readFileSync(0, "utf8").trim() || "{}");
  } catch (e) {
    return fail([`Standard input is not JSON: ${e instanceof Error ? e.message : String(e)}`]);
  }
  try {
    console.log(JSON.stringify(operation.run(input, catalogueOf()), null, 2));
  } catch (e) {
    if (!(e instanceof OperationFault)) throw e;
    fail(e.faults.map((f) => `${f.path || "input"}: ${f.message}`));
  }
}

main(process.argv[2]);
