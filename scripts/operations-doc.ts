import { writeFileSync } from "node:fs";
import * as z from "zod";
import { describeOperations } from "../core/operations";

/** Writes docs/operations.md from the same schemas the operations are checked against. */
const Node = z.object({
  type: z.union([z.string(), z.array(z.string())]).optional(),
  description: z.string().optional(),
  default: z.unknown().optional(),
  enum: z.array(z.unknown()).optional(),
  const: z.unknown().optional(),
  minimum: z.number().optional(),
  maximum: z.number().optional(),
  exclusiveMinimum: z.number().optional(),
});
const ObjectNode = z.object({
  properties: z.record(z.string(), z.unknown()).default({}),
  required: z.array(z.string()).default([]),
});

const typeOf = (raw: unknown): string => {
  const n = Node.safeParse(raw);
  if (!n.success) return "any";
  const { type, enum: values } = n.data;
  const limits = [
    n.data.exclusiveMinimum !== undefined ? `> ${n.data.exclusiveMinimum}` : n.data.minimum !== undefined ? `≥ ${n.data.minimum}` : "",
    n.data.maximum !== undefined ? `≤ ${n.data.maximum}` : "",
  ]
    .filter(Boolean)
    .join(", ");
  const base = values ? values.map((v) => `\`${String(v)}\``).join(" ") : Array.isArray(type) ? type.join(" or ") : (type ?? "see schema");
  return limits ? `${base}, ${limits}` : base;
};

function table(schema: unknown, withDefault: boolean): string {
  const { properties, required } = ObjectNode.parse(schema);
  const rows = Object.entries(properties).map(([name, raw]) => {
    const n = Node.safeParse(raw);
    const fallback = n.success && n.data.default !== undefined ? `\`${JSON.stringify(n.data.default)}\`` : required.includes(name) ? "required" : "optional";
    return `| \`${name}\` | ${typeOf(raw)} |${withDefault ? ` ${fallback} |` : ""}`;
  });
  return [withDefault ? "| field | type | default |" : "| field | type |", withDefault ? "| --- | --- | --- |" : "| --- | --- |", ...rows].join("\n");
}

const body = describeOperations().map(
  (o) =>
    `## ${o.name}\n\n${o.summary}.${o.file ? ` Needs a ${o.file}: \`--file\` and its path, on the command line only.` : ""}\n\nInput:\n\n${table(o.input, true)}\n\nOutput:\n\n${table(o.output, false)}\n`,
);
const head = `# Operations

Every computation can be reached from outside, from one definition. This page is made by \`npm run docs:operations\`.

- Over HTTP: \`GET /api/operations\` lists names with input and output JSON Schema; \`POST /api/operations/<name>\` runs one. Bad input answers 400 with the path of each fault.
- From the command line: \`npm run -s op -- <name> < in.json\` prints the answer as JSON; faults go to standard error with exit code 2. The command line knows the built-in materials; HTTP also knows the workshop's own.

Units are in the names: mm, g, mL, °C, h, Pa.

`;
writeFileSync(process.argv[2] ?? "docs/operations.md", `${head}${body.join("\n")}`);
