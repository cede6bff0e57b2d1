import * as z from "zod";
import { operations as air } from "./air/operations";
import { operations as batch } from "./batch/operations";
import { operations as cure } from "./cure/operations";
import { operations as fit } from "./fit/operations";
import { operations as gating } from "./gating/operations";
import { operations as heat } from "./heat/operations";
import { operations as master } from "./master/operations";
import { operations as mesh } from "./mesh/operations";
import { operations as mould } from "./mould/operations";
import { operations as photo } from "./photo/operations";
import { operations as plan } from "./plan/operations";
import { operations as quantity } from "./quantity/operations";
import { operations as schedule } from "./schedule/operations";
import { operations as stock } from "./stock/operations";
import { operations as weigh } from "./weigh/operations";
import type { Operation } from "./operation";

export { OperationFault, type FileKind, type GivenFile, type Operation } from "./operation";

/** Every operation of every room. */
export const OPERATIONS: readonly Operation[] = [
  ...quantity,
  ...master,
  ...mesh,
  ...photo,
  ...air,
  ...gating,
  ...mould,
  ...batch,
  ...fit,
  ...cure,
  ...heat,
  ...weigh,
  ...stock,
  ...schedule,
  ...plan,
];

/** Finds an operation by its name, or null. */
export const operationNamed = (name: string): Operation | null => OPERATIONS.find((o) => o.name === name) ?? null;

/** A stored document is described by what it is now, although earlier formats are read too. */
const input = (schema: z.ZodType) =>
  z.toJSONSchema(schema, {
    io: "input",
    override: ({ zodSchema, jsonSchema }) => {
      const { def } = zodSchema._zod;
      if (def.type === "pipe" && "called" in zodSchema) Object.assign(jsonSchema, z.toJSONSchema(def.out, { io: "input" }));
    },
  });

/** Name, summary, and JSON Schemas of every operation. */
export const describeOperations = () =>
  OPERATIONS.map((o) => ({
    name: o.name,
    summary: o.summary,
    file: o.file,
    input: input(o.input),
    output: z.toJSONSchema(o.output, { io: "input" }),
  }));
