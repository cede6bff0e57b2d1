import { completed, type Dossier, type KeptDossier } from "../core/record";
import { adoptCuring } from "./clocks";
import { readCatalogue } from "./materials";
import type { Db } from "./open";
import { adoptDossiers } from "./pours";
import { adoptBatches } from "./weighIns";

/** Gives rows written by earlier versions what later ones keep with them: clocks to what cures, and the materials of today to what was made of them. */
export function adoptOlder(db: Db): void {
  adoptCuring(db);
  const today = readCatalogue(db);
  const complete = (d: KeptDossier): Dossier => completed(d, () => today);
  adoptDossiers(db, complete);
  adoptBatches(db, complete);
}
