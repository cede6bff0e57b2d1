import { ModelFault, MOST_TRIANGLES, type Soup } from "../../core/mesh";
import { Numbers, number, toAnyWord, walker } from "./text";

interface Property {
  name: string;
  type: string;
  /** Type of a list's length; null for one number. */
  list: string | null;
}
interface Element {
  name: string;
  count: number;
  properties: Property[];
}

const SIZES: Record<string, number> = {
  char: 1,
  int8: 1,
  uchar: 1,
  uint8: 1,
  short: 2,
  int16: 2,
  ushort: 2,
  uint16: 2,
  int: 4,
  int32: 4,
  uint: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};
const READ: Record<string, (v: DataView, at: number, le: boolean) => number> = {
  char: (v, at) => v.getInt8(at),
  uchar: (v, at) => v.getUint8(at),
  short: (v, at, le) => v.getInt16(at, le),
  ushort: (v, at, le) => v.getUint16(at, le),
  int: (v, at, le) => v.getInt32(at, le),
  uint: (v, at, le) => v.getUint32(at, le),
  float: (v, at, le) => v.getFloat32(at, le),
  double: (v, at, le) => v.getFloat64(at, le),
};
const SAME: Record<string, string> = {
  int8: "char",
  uint8: "uchar",
  int16: "short",
  uint16: "ushort",
  int32: "int",
  uint32: "uint",
  float32: "float",
  float64: "double",
};

function headOf(b: Uint8Array): { format: string; elements: Element[]; end: number } {
  const text = new TextDecoder("latin1").decode(b.subarray(0, 65_536));
  const stop = /end_header[^\n]*\n/.exec(text);
  if (!stop) throw new ModelFault("The head of the PLY file does not end: it is cut off or damaged. Export it again.");
  const elements: Element[] = [];
  let format = "";
  for (const line of text.slice(0, stop.index).split(/\r?\n/)) {
    const words = line.trim().split(/\s+/);
    if (words[0] === "format") format = words[1] ?? "";
    else if (words[0] === "element") elements.push({ name: words[1] ?? "", count: Number(words[2]), properties: [] });
    else if (words[0] === "property") {
      const list = words[1] === "list";
      const [type, name] = list ? [words[3], words[4]] : [words[1], words[2]];
      if (!type || !SIZES[type] || (list && !SIZES[words[2] ?? ""]))
        throw new ModelFault(`The head of the PLY file names a kind of number it should not: "${line.trim().slice(0, 60)}". Export it again.`);
      elements.at(-1)?.properties.push({ name: name ?? "", type: SAME[type] ?? type, list: list ? (SAME[words[2]!] ?? words[2]!) : null });
    }
  }
  if (!["ascii", "binary_little_endian", "binary_big_endian"].includes(format))
    throw new ModelFault(`The PLY file is of a kind "${format.slice(0, 30)}" that cannot be read: export it as ascii or binary.`);
  for (const e of elements)
    if (!Number.isInteger(e.count) || e.count < 0 || e.count > 6 * MOST_TRIANGLES)
      throw new ModelFault(`The PLY file says it holds ${e.count} of "${e.name.slice(0, 30)}": that cannot be, or is more than can be read.`);
  return { format, elements, end: stop.index + stop[0].length };
}

export function readPly(b: Uint8Array): Soup {
  const { format, elements, end } = headOf(b);
  const next = format === "ascii" ? fromText(b, end) : fromBytes(b, end, format === "binary_little_endian");
  const points = new Numbers();
  const faces = new Numbers();
  for (const e of elements) {
    const [x, y, z] = ["x", "y", "z"].map((n) => e.properties.findIndex((p) => p.name === n)) as [number, number, number];
    if (e.name === "vertex" && Math.min(x, y, z) < 0) throw new ModelFault("The points of the PLY file have no x, y and z: it is damaged, or holds no model.");
    const corners = e.properties.findIndex((p) => p.list !== null && (p.name === "vertex_indices" || p.name === "vertex_index"));
    const row = new Float64Array(e.properties.length);
    for (let i = 0; i < e.count; i++) {
      for (let k = 0; k < e.properties.length; k++) {
        const p = e.properties[k]!;
        if (p.list === null) {
          row[k] = next(p.type);
          continue;
        }
        const n = next(p.list);
        if (!(n >= 0 && n < 100_000)) throw new ModelFault(`Face ${i + 1} of the PLY file says it has ${n} corners: the file is damaged or cut off.`);
        let [first, last] = [-1, -1];
        for (let j = 0; j < n; j++) {
          const v = next(p.type);
          if (e.name !== "face" || k !== corners) continue;
          if (j === 0) first = v;
          else if (j > 1) {
            faces.push(first);
            faces.push(last);
            faces.push(v);
          }
          last = v;
        }
      }
      if (e.name === "vertex") {
        points.push(row[x]!);
        points.push(row[y]!);
        points.push(row[z]!);
      }
      if (faces.length > 3 * MOST_TRIANGLES)
        throw new ModelFault(`The file holds more than ${MOST_TRIANGLES.toLocaleString("en")} triangles. Reduce it in the program it comes from.`);
    }
  }
  const all = points.length / 3;
  const list = faces.done();
  for (const v of list)
    if (!Number.isInteger(v) || v < 0 || v >= all)
      throw new ModelFault(`A face of the PLY file asks for point ${v} and the file has ${all}: it is damaged. Export it again.`);
  return { positions: points.done(), triangles: Uint32Array.from(list), unitMm: null, format: "PLY" };
}

const cutOff = () => new ModelFault("The PLY file ends before everything its head promises: it is cut off. Export or copy it again.");

function fromText(b: Uint8Array, end: number): (type: string) => number {
  const w = walker(b, end);
  return () => {
    if (!toAnyWord(w)) throw cutOff();
    const v = number(w);
    if (Number.isNaN(v)) throw new ModelFault(`The PLY file has something that is no number at byte ${w.at}: it is damaged. Export it again.`);
    return v;
  };
}

function fromBytes(b: Uint8Array, end: number, le: boolean): (type: string) => number {
  const view = new DataView(b.buffer, b.byteOffset, b.byteLength);
  let at = end;
  return (type) => {
    const size = SIZES[type]!;
    if (at + size > b.length) throw cutOff();
    const v = READ[type]!(view, at, le);
    at += size;
    return v;
  };
}
