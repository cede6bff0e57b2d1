import type { z } from "zod";
import { pick, type Catalogue } from "../material";
import { say } from "../quantity";

/** A fault in an operation's input, at a path of it. */
export class OperationFault extends Error {
  constructor(readonly faults: readonly { path: string; message: string }[]) {
    super(faults.map((f) => `${f.path || "input"}: ${f.message}`).join("\n"));
    this.name = "OperationFault";
  }
}

/** One computation reachable from outside: over HTTP, from the command line, and in the docs. */
export interface Operation {
  name: string;
  summary: string;
  input: z.ZodType;
  output: z.ZodType;
  /** True where it may take minutes: a server runs it beside itself. */
  long: boolean;
  /** Parses the input, computes, and parses the output. Throws {@link OperationFault} for bad input. */
  run: (input: unknown, catalogue: Catalogue) => unknown;
}

export function define<I extends z.ZodType, O extends z.ZodType>(
  name: string,
  summary: string,
  input: I,
  output: O,
  compute: (input: z.output<I>, catalogue: Catalogue) => z.input<O>,
  { long = false }: { long?: boolean } = {},
): Operation {
  return {
    name,
    summary,
    input,
    output,
    long,
    run: (raw, catalogue) => {
      const parsed = input.safeParse(raw);
      if (!parsed.success) throw new OperationFault(parsed.error.issues.map((i) => ({ path: i.path.join("."), message: i.message })));
      return output.parse(compute(parsed.data, catalogue));
    },
  };
}

export const fault = (path: string, message: string): never => {
  throw new OperationFault([{ path, message: say(message, "metric") }]);
};

export function find<T extends { id: string }>(list: readonly T[], id: string, path: string): T {
  return pick(list, id) ?? fault(path, `"${id}" is not among the materials. GET /api/materials lists what is.`);
}
