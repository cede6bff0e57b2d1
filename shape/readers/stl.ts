import { ModelFault, MOST_TRIANGLES, type Soup } from "../../core/mesh";
import { Numbers, nextLine, number, says, toWord, walker } from "./text";

const HEAD = 84;
const RECORD = 50;

/** A binary STL: not text, and long enough for its own count. */
export const isBinaryStl = (b: Uint8Array): boolean => b.length >= HEAD && !isText(b) && countOf(b) > 0;

const countOf = (b: Uint8Array): number => new DataView(b.buffer, b.byteOffset, b.byteLength).getUint32(80, true);

/** No nought in its beginning: binary files are full of them. */
function isText(b: Uint8Array): boolean {
  if (b.length >= HEAD && b.length === HEAD + RECORD * countOf(b)) return false;
  for (let i = 0; i < Math.min(b.length, 2000); i++) if (b[i] === 0) return false;
  return true;
}

export function readStl(b: Uint8Array): Soup {
  return isText(b) ? readText(b) : readBinary(b);
}

function readBinary(b: Uint8Array): Soup {
  const count = countOf(b);
  const room = Math.floor((b.length - HEAD) / RECORD);
  if (count > MOST_TRIANGLES)
    throw new ModelFault(
      `The file says it holds ${count.toLocaleString("en")} triangles; at most ${MOST_TRIANGLES.toLocaleString("en")} can be read. Reduce it in the program it comes from.`,
    );
  if (count > room)
    throw new ModelFault(
      `The file says it holds ${count.toLocaleString("en")} triangles and ends after ${room.toLocaleString("en")}: it is cut off. Export or copy it again.`,
    );
  const positions = new Float32Array(9 * count);
  const words = new Uint32Array(positions.buffer);
  // Records are of 50 bytes, so their numbers lie on even bytes only: two halves make a number.
  const even = (b.byteOffset & 1) === 0 ? b : b.slice();
  const halves = new Uint16Array(even.buffer, even.byteOffset, even.byteLength >> 1);
  for (let i = 0, from = HEAD / 2 + 6, to = 0; i < count; i++, from += RECORD / 2)
    for (let k = 0, h = from; k < 9; k++, h += 2) words[to++] = halves[h]! | (halves[h + 1]! << 16);
  return { positions, unitMm: null, format: "STL", ...numbered(positions) };
}

/** Every triangle with corners of its own. */
function numbered(positions: Float32Array | Float64Array): Pick<Soup, "triangles"> {
  const triangles = new Uint32Array(positions.length / 3);
  for (let i = 0; i < triangles.length; i++) triangles[i] = i;
  return { triangles };
}

function readText(b: Uint8Array): Soup {
  const w = walker(b);
  const numbers = new Numbers();
  let [line, open] = [1, 0];
  do {
    if (toWord(w)) {
      if (says(w, "vertex")) {
        w.at += 6;
        for (let k = 0; k < 3; k++) {
          const v = toWord(w) ? number(w) : NaN;
          if (!Number.isFinite(v))
            throw new ModelFault(`Line ${line} of the file should give three numbers of a point and does not: the file is damaged. Export it again.`);
          numbers.push(v);
        }
        open++;
        if (numbers.length > 9 * MOST_TRIANGLES)
          throw new ModelFault(`The file holds more than ${MOST_TRIANGLES.toLocaleString("en")} triangles. Reduce it in the program it comes from.`);
      } else if (says(w, "endloop") || says(w, "outer")) {
        if (open % 3 !== 0) throw new ModelFault(`Near line ${line} a face has ${open % 3} points over: the file is damaged. Export it again.`);
      }
    }
    line++;
  } while (nextLine(w));
  if (open % 3 !== 0) throw new ModelFault(`The file ends inside a face (line ${line}): it is cut off. Export or copy it again.`);
  const positions = numbers.done();
  return { positions, unitMm: null, format: "STL", ...numbered(positions) };
}
