import * as z from "zod";
import { Settings } from "../core/workshop";
import { endpoint, Was } from "./endpoint";

export const settings = {
  read: endpoint({ method: "GET", path: "/api/settings", in: null, out: Settings }),
  /** Whether the network is let in is decided at the door alone. */
  change: endpoint({ method: "PUT", path: "/api/settings", in: Settings.omit({ listen: true, format: true }).partial().extend({ was: Was }), out: Settings }),
};
export type SettingsChange = Omit<z.input<typeof settings.change.in>, "was">;

/** What a device may do: weigh and log, or everything but the door itself. */
export const MAY = ["bench", "all"] as const;
export type May = (typeof MAY)[number];
/** A device that was let in. */
export const DeviceView = z.object({ id: z.string(), name: z.string(), may: z.enum(MAY), addedAt: z.number(), seenAt: z.number() });
export type DeviceView = z.infer<typeof DeviceView>;

export const DoorView = z.object({
  open: z.boolean(),
  wanted: z.boolean(),
  passphrase: z.boolean(),
  port: z.number(),
  addresses: z.array(z.string()),
  fault: z.string().nullable(),
  first: z.boolean(),
  url: z.string().nullable(),
  /** Fingerprint of the workshop's signature, SHA-256, and where a device takes it from; null until the gate has opened once. */
  fingerprint: z.string().nullable(),
  trustUrl: z.string().nullable(),
  devices: z.array(DeviceView),
});
export type DoorView = z.infer<typeof DoorView>;

export const door = {
  read: endpoint({ method: "GET", path: "/api/door", in: null, out: DoorView }),
  set: endpoint({ method: "PUT", path: "/api/door", in: z.object({ listen: z.boolean().optional(), passphrase: z.string().optional() }), out: DoorView }),
  /** Signs every device out. */
  shut: endpoint({ method: "DELETE", path: "/api/door", in: null, out: DoorView }),
  pair: endpoint({
    method: "POST",
    path: "/api/door/pair",
    in: z.object({ may: z.enum(MAY).default("bench") }),
    out: z.object({ url: z.string(), svg: z.string(), until: z.number() }),
  }),
  device: endpoint({
    method: "PUT",
    path: "/api/door/devices/:id",
    in: z.object({ name: z.string().trim().min(1, "A device needs a name.").max(60).optional(), may: z.enum(MAY).optional() }),
    out: DoorView,
  }),
  /** Signs one device out. */
  signOut: endpoint({ method: "DELETE", path: "/api/door/devices/:id", in: null, out: DoorView }),
};

/** What restoring a backup would change, table by table. */
export const BackupPreview = z.object({
  token: z.string(),
  madeAt: z.number(),
  rows: z.array(z.object({ table: z.string(), inFile: z.number(), here: z.number(), added: z.number(), differ: z.number(), onlyHere: z.number() })),
  photos: z.number(),
  /** Pictures that are not whole in it: missing, or damaged. */
  lost: z.array(z.string()),
  empty: z.boolean(),
});
export type BackupPreview = z.infer<typeof BackupPreview>;

/** A stored row that cannot be read: which, and why. */
export const OddEntry = z.object({ table: z.string(), key: z.string(), why: z.string() });
export type OddEntry = z.infer<typeof OddEntry>;

/** What a look through the whole workshop found. All empty where it is sound. */
export const WorkshopCheck = z.object({
  at: z.number(),
  /** Damage of the file itself, in the words of the database. */
  damage: z.array(z.string()),
  /** Rows that speak of others that are not there. */
  broken: z.number(),
  /** Pictures that are missing or damaged on the disk. */
  lost: z.array(z.string()),
  /** Pictures no entry speaks of, laid aside. */
  loose: z.number(),
  /** Rows that cannot be read. */
  odd: z.array(OddEntry),
});
export type WorkshopCheck = z.infer<typeof WorkshopCheck>;

/** Why a copy of the whole workshop was kept. */
export const KEPT_WHYS = ["before-restore", "before-opening", "daily", "asked", "empty"] as const;
export type KeptWhy = (typeof KEPT_WHYS)[number];

/** A copy of the whole workshop with its pictures, in a folder beside it. */
export const KeptCopy = z.object({ name: z.string(), at: z.number(), why: z.enum(KEPT_WHYS), bytes: z.number(), pictures: z.number() });
export type KeptCopy = z.infer<typeof KeptCopy>;

export const kept = {
  list: endpoint({ method: "GET", path: "/api/kept", in: null, out: z.array(KeptCopy) }),
  open: endpoint({ method: "POST", path: "/api/kept/:name", in: null, out: z.object({ kept: z.string() }), keeper: true }),
  /** Puts the workshop aside as a copy, and begins an empty one. */
  begin: endpoint({ method: "POST", path: "/api/kept", in: null, out: z.object({ kept: z.string() }), keeper: true }),
  drop: endpoint({ method: "DELETE", path: "/api/kept/:name", in: null, out: z.array(KeptCopy), keeper: true }),
};

export const RESTORE_WAYS = ["add", "take", "replace"] as const;
export type RestoreWay = (typeof RESTORE_WAYS)[number];

export const backup = {
  /** The next piece of a file, in order, from its first byte on; answers how much of it is here. */
  piece: endpoint({ method: "POST", path: "/api/backup/piece/:upload/:at", in: null, out: z.object({ bytes: z.number() }), bytes: true, keeper: true }),
};

/** What takes long and runs beside the server, one at a time: what it is asked with, and what comes of it. */
export const ERRANDS = {
  /** Makes a backup, to be fetched from /api/backup/file. */
  backup: { ask: z.object({ do: z.literal("backup") }), result: z.object({ bytes: z.number(), lost: z.number() }) },
  /** Reads an upload, and says what restoring it would change. */
  read: { ask: z.object({ do: z.literal("read"), upload: z.uuid() }), result: BackupPreview },
  restore: {
    ask: z.object({ do: z.literal("restore"), token: z.uuid(), way: z.enum(RESTORE_WAYS) }),
    result: z.object({ added: z.number(), changed: z.number(), kept: z.string().nullable() }),
  },
  /** Keeps a copy of the workshop. */
  keep: { ask: z.object({ do: z.literal("keep") }), result: z.object({ kept: z.string() }) },
  /** Looks the whole workshop through. */
  check: { ask: z.object({ do: z.literal("check") }), result: WorkshopCheck },
} as const;
export type ErrandKind = keyof typeof ERRANDS;
export type ErrandAsk<K extends ErrandKind = ErrandKind> = z.infer<(typeof ERRANDS)[K]["ask"]>;
export type ErrandResult<K extends ErrandKind> = z.infer<(typeof ERRANDS)[K]["result"]>;

export const ErrandView = z.object({
  id: z.string(),
  state: z.enum(["running", "done", "refused", "stopped"]),
  /** What is being done, and how much of that, 0 to 1. */
  doing: z.string(),
  share: z.number(),
  /** Why it was refused. */
  message: z.string().nullable(),
  /** What came of it, by what its kind says. */
  result: z.unknown(),
});
export type ErrandView = z.infer<typeof ErrandView>;

export const errands = {
  start: endpoint({
    keeper: true,
    method: "POST",
    path: "/api/errands",
    in: z.discriminatedUnion("do", [ERRANDS.backup.ask, ERRANDS.read.ask, ERRANDS.restore.ask, ERRANDS.keep.ask, ERRANDS.check.ask]),
    out: ErrandView,
    status: 201,
  }),
  see: endpoint({ method: "GET", path: "/api/errands/:id", in: null, out: ErrandView }),
  stop: endpoint({ method: "DELETE", path: "/api/errands/:id", in: null, out: ErrandView, keeper: true }),
};

export const odd = {
  remove: endpoint({ method: "DELETE", path: "/api/odd/:table/:key", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
};
