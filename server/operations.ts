import { describeOperations, operationNamed } from "../core/operations";
import { Refusal } from "./refusal";
import { catalogue } from "./plans";
import type { Workshop } from "./workshop";

export const listOperations = () => describeOperations();

export function runOperation(w: Workshop, name: string, input: unknown): unknown {
  const operation = operationNamed(name);
  if (!operation) throw new Refusal(404, "no-operation", `There is no operation "${name.slice(0, 60)}". GET /api/operations lists them.`);
  return operation.run(input, catalogue(w));
}
