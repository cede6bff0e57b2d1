import * as z from "zod";
import { figure, figures, SYSTEMS } from "../quantity";
import { SHOP_FIELD, versioned } from "../record";
import { FORECAST_FIELDS } from "./fields";
import { HABIT_KEYS } from "../habit/keys";
import { Pricing } from "../works/cost";
import { Cup } from "../weigh/cups";
import { Handling, handlingDefault } from "../weigh/handling";

/** Minutes since local midnight. */
const dayMinute = z.number().int().min(0).max(1439);

const knownZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat("en-GB", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

/** Choices for the whole workshop. Switching units never changes what is stored. */
export const Settings = z.object({
  format: z.literal(1).default(1),
  /** One system for everything, or one for each kind. */
  units: z
    .union([z.enum(SYSTEMS), z.strictObject({ length: z.enum(SYSTEMS), mass: z.enum(SYSTEMS), volume: z.enum(SYSTEMS), temperature: z.enum(SYSTEMS) })])
    .default("metric"),
  workshopName: z.string().trim().max(60).default("My workshop"),
  shopC: figure(SHOP_FIELD).default(21),
  /** What the shop is expected to be by day and by night; null takes shopC for both. */
  forecast: z
    .object({ ...figures(FORECAST_FIELDS), dayFromMin: dayMinute, dayToMin: dayMinute })
    .nullable()
    .default(null),
  /** When hands are there. */
  waking: z.object({ fromMin: dayMinute, toMin: dayMinute }).default({ fromMin: 7 * 60, toMin: 22 * 60 }),
  /** IANA name of the time zone; empty takes the machine's own. */
  zone: z
    .string()
    .max(60)
    .refine((name) => name === "" || knownZone(name), { error: (i) => `"${String(i.input)}" is not a time zone this machine knows: write it as Europe/Berlin` })
    .default(""),
  /** Cups and tubs measured once. */
  cups: z.array(Cup).max(60).default([]),
  /** How batches are handled here, until a batch says otherwise. */
  handling: Handling.default(handlingDefault),
  /** The same for what is no poured rubber, where somebody kept it: each kind has its own stirring and its own pace. */
  habits: z.partialRecord(z.enum(HABIT_KEYS), Handling).default({}),
  /** Whether tablets on the local network may reach this workshop, behind its passphrase. */
  listen: z.boolean().default(false),
  /** How prices are made here; null where nobody said. */
  pricing: Pricing.nullable().default(null),
  /** Whether a copy of the whole workshop is kept every day. */
  dailyCopies: z.boolean().default(true),
});
export type Settings = z.infer<typeof Settings>;

/** Settings as they are kept. */
export const settingsDocument = versioned("settings", Settings, []);
