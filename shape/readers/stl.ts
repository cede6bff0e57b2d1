import { ModelFault, MOST_TRIANGLES, type Bounds, type Soup, type Sums } from "../../core/mesh";
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

/** How many triangles a binary file holds. @throws ModelFault where it says more than there are, or than can be read */
function checkedCount(b: Uint8Array): number {
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
  return count;
}

/**
 * First measures of a binary STL in one walk over its bytes, before it is made whole: in units of the file, trusting its faces
 * [divergence theorem from its first corner]. Null for a text.
 */
export function glanceAtStl(b: Uint8Array): (Sums & Bounds & { triangles: number }) | null {
  if (isText(b)) return null;
  const count = checkedCount(b);
  const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
  const ox = v.getFloat32(HEAD + 12, true),
    oy = v.getFloat32(HEAD + 16, true),
    oz = v.getFloat32(HEAD + 20, true);
  let x0 = Infinity,
    y0 = Infinity,
    z0 = Infinity,
    x1 = -Infinity,
    y1 = -Infinity,
    z1 = -Infinity,
    six = 0,
    twice = 0,
    mx = 0,
    my = 0,
    mz = 0;
  for (let i = 0, at = HEAD + 12; i < count; i++, at += RECORD) {
    const ax = v.getFloat32(at, true) - ox,
      ay = v.getFloat32(at + 4, true) - oy,
      az = v.getFloat32(at + 8, true) - oz,
      bx = v.getFloat32(at + 12, true) - ox,
      by = v.getFloat32(at + 16, true) - oy,
      bz = v.getFloat32(at + 20, true) - oz,
      cx = v.getFloat32(at + 24, true) - ox,
      cy = v.getFloat32(at + 28, true) - oy,
      cz = v.getFloat32(at + 32, true) - oz;
    if (ax < x0) x0 = ax;
    if (ax > x1) x1 = ax;
    if (bx < x0) x0 = bx;
    if (bx > x1) x1 = bx;
    if (cx < x0) x0 = cx;
    if (cx > x1) x1 = cx;
    if (ay < y0) y0 = ay;
    if (ay > y1) y1 = ay;
    if (by < y0) y0 = by;
    if (by > y1) y1 = by;
    if (cy < y0) y0 = cy;
    if (cy > y1) y1 = cy;
    if (az < z0) z0 = az;
    if (az > z1) z1 = az;
    if (bz < z0) z0 = bz;
    if (bz > z1) z1 = bz;
    if (cz < z0) z0 = cz;
    if (cz > z1) z1 = cz;
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay),
      ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az),
      nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    twice += Math.sqrt(nx * nx + ny * ny + nz * nz);
    const w = ax * nx + ay * ny + az * nz;
    six += w;
    mx += w * (ax + bx + cx);
    my += w * (ay + by + cy);
    mz += w * (az + bz + cz);
  }
  const k = six === 0 ? 0 : 1 / (4 * six);
  return {
    triangles: count,
    volumeMm3: six / 6,
    areaMm2: twice / 2,
    centroidMm: [ox + mx * k, oy + my * k, oz + mz * k],
    low: [x0 + ox, y0 + oy, z0 + oz],
    high: [x1 + ox, y1 + oy, z1 + oz],
  };
}

function readBinary(b: Uint8Array): Soup {
  const count = checkedCount(b);
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
