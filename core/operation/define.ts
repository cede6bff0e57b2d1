import type * as z from "zod";
import { ModelFault, type Soup } from "../mesh";
import type { Picture } from "../photo";
import { pick, type Catalogue } from "../material";
import { say } from "../quantity";

/** A fault in an operation's input, at a path of it. */
export class OperationFault extends Error {
  constructor(readonly faults: readonly { path: string; message: string }[]) {
    super(faults.map((f) => `${f.path || "input"}: ${f.message}`).join("\n"));
    this.name = "OperationFault";
  }
}

/** What a file handed to an operation is, once it is read: plain data. */
export interface Files {
  model: Soup;
  picture: Picture;
}
export type FileKind = keyof Files;
/** A file as read, under its kind. */
export type GivenFile = Partial<Files>;

/** One computation reachable from outside: over HTTP, from the command line, and in the docs. */
export interface Operation {
  name: string;
  summary: string;
  input: z.ZodType;
  output: z.ZodType;
  /** True where it may take minutes: a server runs it beside itself. */
  long: boolean;
  /** What file it needs beside its input. */
  file: FileKind | null;
  /** Parses the input, computes, and parses the output. Throws {@link OperationFault} for bad input. */
  run: (input: unknown, catalogue: Catalogue, file?: GivenFile) => unknown;
}

function parsed<I extends z.ZodType>(input: I, raw: unknown): z.output<I> {
  const read = input.safeParse(raw);
  if (!read.success) throw new OperationFault(read.error.issues.map((i) => ({ path: i.path.join("."), message: i.message })));
  return read.data;
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
    file: null,
    run: (raw, catalogue) => output.parse(compute(parsed(input, raw), catalogue)),
  };
}

/** A computation on a file. What is wrong with the file is said as a fault at `file`. */
export function defineOnFile<K extends FileKind, I extends z.ZodType, O extends z.ZodType>(
  name: string,
  summary: string,
  file: K,
  input: I,
  output: O,
  compute: (data: Files[K], input: z.output<I>) => z.input<O>,
): Operation {
  return {
    name,
    summary,
    input,
    output,
    long: true,
    file,
    run: (raw, _, given) => {
      const asked = parsed(input, raw);
      const data = given?.[file];
      if (!data) return fault("file", `${name} needs a file: on the command line, --file and its path.`);
      try {
        return output.parse(compute(data, asked));
      } catch (e) {
        if (e instanceof ModelFault) return fault("file", e.message);
        throw e;
      }
    },
  };
}

export const fault = (path: string, message: string): never => {
  throw new OperationFault([{ path, message: say(message, "metric") }]);
};

export function find<T extends { id: string }>(list: readonly T[], id: string, path: string): T {
  return pick(list, id) ?? fault(path, `"${id}" is not among the materials. GET /api/materials lists what is.`);
}
