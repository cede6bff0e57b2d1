import { ModelFault, type Soup } from "../core/mesh";
import { isObj, readObj } from "./readers/obj";
import { readPly } from "./readers/ply";
import { isBinaryStl, readStl } from "./readers/stl";
import { says, walker } from "./readers/text";
import { readThreeMf } from "./readers/threemf";

/** Largest file of a model that is read, bytes. */
export const MOST_MODEL_BYTES = 700_000_000;

/**
 * Reads a file of a model by what is in it, not by its name: STL (both kinds), OBJ, PLY (all three kinds), 3MF.
 * @throws ModelFault with what is wrong and what to do
 */
export function readModel(bytes: Uint8Array): Soup {
  if (bytes.length === 0) throw new ModelFault("The file is empty. Export or copy it again.");
  if (bytes.length > MOST_MODEL_BYTES)
    throw new ModelFault(
      `The file has ${Math.round(bytes.length / 1e6)} MB; at most ${MOST_MODEL_BYTES / 1e6} MB can be read. Reduce the model in the program it comes from.`,
    );
  const w = walker(bytes);
  if (says(w, "PK")) return readThreeMf(bytes);
  if (says(w, "ply")) return readPly(bytes);
  if (says(w, "solid") || isBinaryStl(bytes)) return readStl(bytes);
  if (isObj(bytes)) return readObj(bytes);
  throw new ModelFault("This is no model that can be read: STL, OBJ, PLY and 3MF are. Export the piece as one of them.");
}
