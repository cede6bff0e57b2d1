import * as z from "zod";
import { figures } from "../quantity";
import { HANDLING_FIELDS } from "./fields";

/** How this batch is mixed, as the person set it: {@link HANDLING_FIELDS}, mL, min and g. */
export const Handling = z.object({
  ...figures(HANDLING_FIELDS),
  degas: z.boolean(),
  /** It sets in the pressure tank. */
  pressure: z.boolean().default(false),
  /** The cup measured once, for marks; null for none. */
  cupId: z.string().max(60).nullable(),
});
export type Handling = z.infer<typeof Handling>;
export const handlingDefault: Handling = {
  cupMl: 2000,
  degas: false,
  pressure: false,
  stirMin: 3,
  degasMin: 5,
  pourGMin: 400,
  witnessG: 0,
  stepG: 1,
  cupId: null,
};
