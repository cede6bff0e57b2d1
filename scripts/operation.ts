import { readFileSync } from "node:fs";
import type { Catalogue } from "../core/material";
import { OperationFault, operationNamed } from "../core/operations";

/** One operation in a process of its own: what is asked comes as JSON on standard input, the answer goes as JSON to standard output. */
interface Asked {
  name: string;
  input: unknown;
  catalogue: Catalogue;
}

const { name, input, catalogue } = JSON.parse(readFileSync(0, "utf8")) as Asked;
const operation = operationNamed(name);
if (!operation) throw new RangeError(`There is no operation "${name}".`);
try {
  process.stdout.write(JSON.stringify({ answer: operation.run(input, catalogue) }));
} catch (e) {
  if (!(e instanceof OperationFault)) throw e;
  process.stdout.write(JSON.stringify({ faults: e.faults }));
}
