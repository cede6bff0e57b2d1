import { ModelFault, MOST_TRIANGLES, type Soup } from "../../core/mesh";
import { Numbers, nextLine, number, says, toWord, walker } from "./text";

const SPACE = 32;

/** Points (`v`) and faces (`f`) of an OBJ; a face of more than three points is cut into triangles from its first. */
export function readObj(b: Uint8Array): Soup {
  const w = walker(b);
  const [points, faces] = [new Numbers(), new Numbers()];
  let line = 1;
  do {
    if (toWord(w)) {
      const [c, next] = [b[w.at], b[w.at + 1] ?? SPACE];
      if (c === 118 && next <= SPACE) {
        w.at++;
        for (let k = 0; k < 3; k++) {
          const v = toWord(w) ? number(w) : NaN;
          if (!Number.isFinite(v))
            throw new ModelFault(`Line ${line} of the file should give three numbers of a point and does not: the file is damaged. Export it again.`);
          points.push(v);
        }
      } else if (c === 102 && next <= SPACE) {
        w.at++;
        const all = points.length / 3;
        let [first, last, n] = [-1, -1, 0];
        while (toWord(w)) {
          const told = number(w);
          // What follows a slash speaks of colour and shading.
          while (w.at < w.end && b[w.at]! > SPACE) w.at++;
          const v = told < 0 ? all + told : told - 1;
          if (!Number.isInteger(v) || v < 0 || v >= all)
            throw new ModelFault(`Line ${line}: a face asks for point ${told} and the file has ${all} so far. It is damaged; export it again.`);
          if (n === 0) first = v;
          else if (n > 1) {
            faces.push(first);
            faces.push(last);
            faces.push(v);
          }
          last = v;
          n++;
        }
        if (n < 3)
          throw new ModelFault(`Line ${line}: a face has ${n} point${n === 1 ? "" : "s"} and needs three. The file is damaged or cut off; export it again.`);
        if (faces.length > 3 * MOST_TRIANGLES)
          throw new ModelFault(`The file holds more than ${MOST_TRIANGLES.toLocaleString("en")} triangles. Reduce it in the program it comes from.`);
      }
    }
    line++;
  } while (nextLine(w));
  if (points.length === 0) throw new ModelFault("The file holds no points: it is no OBJ model, or an empty one.");
  return { positions: points.done(), triangles: Uint32Array.from(faces.done()), unitMm: null, format: "OBJ" };
}

/** Looks like an OBJ: some line begins with a point or a face. */
export function isObj(b: Uint8Array): boolean {
  const w = walker(b, 0, Math.min(b.length, 200_000));
  do if (toWord(w) && (says(w, "v ") || says(w, "f ") || says(w, "v\t"))) return true;
  while (nextLine(w));
  return false;
}
