import * as z from "zod";
import { stored } from "../../core/quantity";
import { PictureName } from "../../db/columns";
import { ROWS, TABLE_NAMES } from "../../db/tables";
import { Refusal } from "../refusal";

/** The current shape of a backup. A reader meeting a larger number is older than the writer. */
export const FORMAT = 5;
export const ABOUT = z.object({
  what: z.literal("zesty-ladle-backup"),
  format: z.number().int(),
  madeAt: stored.moment,
  /** Pictures that the log speaks of and that were not there, or not whole, when it was made. */
  lost: z.array(PictureName).default([]),
});

/** Files that come along for people and other programs; not read when a backup is restored. */
export const ODD = "odd.json";
export const ASIDE = ["about.json", "README.txt", "schema.json", "log.csv", "batches.csv", ODD];

export const README = `A whole workshop in open formats.
about.json    what this is, and which shape of it
tables/*.json one list of rows a table; schema.json describes every row
odd.json      rows that could not be read, and what belongs to them; left out when this is restored
log.csv, batches.csv  the log for a spreadsheet; not read when this is restored
photos/       pictures under the names the tables use
`;

/** JSON Schema of every table in a backup. */
export const backupSchema = (): unknown => ({
  about: z.toJSONSchema(ABOUT, { io: "output" }),
  tables: Object.fromEntries(TABLE_NAMES.map((t) => [t, z.toJSONSchema(z.array(ROWS[t]), { io: "output", unrepresentable: "any" })])),
});

/** Why a file is not taken in. */
export const bad = (message: string): Refusal => new Refusal(422, "bad-backup", `${message} Nothing was changed.`);

/** How far something long has come: what is being done, and how much of that, 0 to 1. */
export type Step = (doing: string, share: number) => void;

/** Asks whoever else writes to stop, and waits until they have. */
export type Shut = () => Promise<void>;
