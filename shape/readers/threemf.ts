import { Unzip, UnzipInflate } from "fflate";
import { SaxesParser, type SaxesTagPlain } from "saxes";
import { ModelFault, MOST_TRIANGLES, type Soup } from "../../core/mesh";
import { Numbers } from "./text";

/** Most that a packed file may unpack to, bytes: four times what two million triangles take. */
const MOST_BYTES = 1_000_000_000;
const UNITS: Record<string, number> = { micron: 0.001, millimeter: 1, centimeter: 10, inch: 25.4, foot: 304.8, meter: 1000 };
/** Parts within parts, at most. */
const DEEPEST = 16;

interface Thing {
  points: Numbers;
  faces: Numbers;
  parts: { id: string; matrix: number[] }[];
}

const STRAIGHT = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];

/** Objects of a 3MF as its build list places them. The package is unpacked piece by piece, never wholly in memory. */
export function readThreeMf(b: Uint8Array): Soup {
  const things = new Map<string, Thing>();
  const build: { id: string; matrix: number[] }[] = [];
  let unitMm = 1;
  let thing: Thing | null = null;
  let found = false;
  let triangles = 0;

  const finite = (tag: SaxesTagPlain, name: string): number => {
    const v = Number(tag.attributes[name] ?? NaN);
    if (!Number.isFinite(v))
      throw new ModelFault(`A ${tag.name} of the 3MF file has no ${name}, or one that is no number: the file is damaged. Export it again.`);
    return v;
  };
  const matrixOf = (text: string | undefined): number[] => {
    if (text === undefined) return STRAIGHT;
    const m = text.trim().split(/\s+/).map(Number);
    if (m.length !== 12 || !m.every(Number.isFinite))
      throw new ModelFault("A part of the 3MF file is placed by something that is no matrix of 12 numbers: the file is damaged.");
    return m;
  };
  const parser = () => {
    const p = new SaxesParser<{ xmlns: false }>({ xmlns: false });
    p.on("error", (e) => {
      throw new ModelFault(`The model inside the 3MF file cannot be read (${e.message.slice(0, 80)}): it is damaged. Export it again.`);
    });
    p.on("opentag", (tag) => {
      switch (tag.name.replace(/^.*:/, "")) {
        case "model": {
          const unit = tag.attributes.unit ?? "millimeter";
          if (!UNITS[unit]) throw new ModelFault(`The 3MF file says its unit is "${unit.slice(0, 20)}", which is none of ${Object.keys(UNITS).join(", ")}.`);
          unitMm = UNITS[unit];
          break;
        }
        case "object":
          thing = { points: new Numbers(64), faces: new Numbers(64), parts: [] };
          things.set(tag.attributes.id ?? "", thing);
          break;
        case "vertex":
          for (const k of ["x", "y", "z"]) thing?.points.push(finite(tag, k));
          break;
        case "triangle":
          for (const k of ["v1", "v2", "v3"]) thing?.faces.push(finite(tag, k));
          if (++triangles > MOST_TRIANGLES) throw tooMany();
          break;
        case "component":
          thing?.parts.push({ id: tag.attributes.objectid ?? "", matrix: matrixOf(tag.attributes.transform) });
          break;
        case "item":
          build.push({ id: tag.attributes.objectid ?? "", matrix: matrixOf(tag.attributes.transform) });
      }
    });
    return p;
  };

  let unpacked = 0;
  const unzip = new Unzip((file) => {
    if (!/\.model$/i.test(file.name) || found) return;
    found = true;
    const p = parser();
    const decoder = new TextDecoder();
    file.ondata = (error, chunk, final) => {
      if (error) throw error;
      unpacked += chunk.length;
      if (unpacked > MOST_BYTES) throw new ModelFault("The 3MF file unpacks to more than 1 GB: it is not a model that can be read here.");
      p.write(decoder.decode(chunk, { stream: !final }));
      if (final) p.close();
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  let ended = false;
  try {
    const step = 1 << 16;
    for (let at = 0; at < b.length; at += step) unzip.push(b.subarray(at, at + step), at + step >= b.length);
    ended = true;
  } catch (e) {
    if (e instanceof ModelFault) throw e;
    throw new ModelFault(`The 3MF file cannot be unpacked (${e instanceof Error ? e.message : String(e)}): it is damaged or cut off. Export it again.`);
  }
  if (!found || !ended) throw new ModelFault("The 3MF file holds no model: it is some other package.");
  if (things.size === 0) throw new ModelFault("The model inside the 3MF file is cut off before its first object. Export or copy it again.");

  const positions = new Numbers();
  const faces = new Numbers();
  const place = (id: string, matrices: readonly number[][], depth: number): void => {
    const t = things.get(id);
    if (!t) throw new ModelFault(`The 3MF file places an object "${id.slice(0, 30)}" that it does not hold: it is damaged.`);
    if (depth > DEEPEST) throw new ModelFault("Parts of the 3MF file hold one another in a circle: it is damaged.");
    if (faces.length / 3 + t.faces.length / 3 > MOST_TRIANGLES) throw tooMany();
    const first = positions.length / 3;
    const own = t.points.length / 3;
    for (let i = 0; i < t.points.length; i += 3) {
      let [x, y, z] = [t.points.data[i]!, t.points.data[i + 1]!, t.points.data[i + 2]!];
      for (const m of matrices)
        [x, y, z] = [x * m[0]! + y * m[3]! + z * m[6]! + m[9]!, x * m[1]! + y * m[4]! + z * m[7]! + m[10]!, x * m[2]! + y * m[5]! + z * m[8]! + m[11]!];
      for (const v of [x, y, z]) positions.push(v);
    }
    for (let i = 0; i < t.faces.length; i++) {
      const v = t.faces.data[i]!;
      if (!Number.isInteger(v) || v < 0 || v >= own)
        throw new ModelFault(`A face of the 3MF file asks for point ${v} of ${own}: it is damaged. Export it again.`);
      faces.push(first + v);
    }
    for (const part of t.parts) place(part.id, [part.matrix, ...matrices], depth + 1);
  };
  // Without a build list everything that no other part uses is meant.
  const used = new Set([...things.values()].flatMap((t) => t.parts.map((p) => p.id)));
  const placed = build.length > 0 ? build : [...things.keys()].filter((id) => !used.has(id)).map((id) => ({ id, matrix: STRAIGHT }));
  for (const { id, matrix } of placed) place(id, [matrix], 0);
  return { positions: positions.done(), triangles: Uint32Array.from(faces.done()), unitMm, format: "3MF" };
}

const tooMany = () => new ModelFault(`The file holds more than ${MOST_TRIANGLES.toLocaleString("en")} triangles. Reduce it in the program it comes from.`);
