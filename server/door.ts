import { createHash, randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import { eq, lt } from "drizzle-orm";
import * as z from "zod";
import type { DeviceView, May } from "../contract/workshop";
import { devices, settings } from "../db/schema";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/** What is kept of the passphrase: never itself. */
const Kept = z.object({ salt: z.string(), hash: z.string() });
type Kept = z.infer<typeof Kept>;

const KEY = "door";
/** scrypt at 32 MiB and about a tenth of a second: slow to guess, quick enough to open. */
const COST = { N: 1 << 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
/** A device that has not been seen for this long is signed out. */
const SESSION_MS = 30 * 24 * 3_600_000;
/** How often it is written down that a device was seen. */
const SEEN_MS = 24 * 3_600_000;
const PAIR_MS = 5 * 60_000;
/** Wrong guesses one address, and all together, may make in a quarter of an hour. */
export const GUESSES = { each: 5, all: 30, withinMs: 15 * 60_000 };

const stretch = (passphrase: string, salt: string): Promise<Buffer> =>
  new Promise((done, fail) => scrypt(passphrase.normalize("NFKC"), Buffer.from(salt, "base64url"), 32, COST, (e, key) => (e ? fail(e) : done(key))));

function kept(w: Workshop): Kept | null {
  const row = w.db.select().from(settings).where(eq(settings.key, KEY)).get();
  return row ? Kept.parse(row.value) : null;
}

const keep = (w: Workshop, value: Kept): void => {
  w.db.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } }).run();
};

export const hasPassphrase = (w: Workshop): boolean => kept(w) !== null;

const NewPassphrase = z.object({
  passphrase: z.string().min(10, "a passphrase has to be at least 10 letters long: three or four words are good").max(200),
});

/** Sets the workshop's passphrase, signs every device out, and ends a lock-out after wrong guesses. */
export async function setPassphrase(w: Workshop, body: unknown): Promise<void> {
  const { passphrase } = parseOrRefuse(NewPassphrase, body);
  const salt = randomBytes(16).toString("base64url");
  keep(w, { salt, hash: (await stretch(passphrase, salt)).toString("base64url") });
  held.zestyGuesses = [];
  signOutAll(w);
}

/** Signs every device out; the passphrase stays. */
export function signOutAll(w: Workshop): void {
  w.db.delete(devices).run();
  pairs().clear();
}

interface Pairing {
  until: number;
  may: May;
}
const held = globalThis as { zestyPairs?: Map<string, Pairing>; zestyGuesses?: { at: number; from: string }[] };
const pairs = (): Map<string, Pairing> => (held.zestyPairs ??= new Map());

const sumOf = (token: string): string => createHash("sha256").update(token).digest("base64url");
const same = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};

/** Lets a device in under a name; answers with what it has to show from now on. */
function letIn(w: Workshop, name: string, may: May): string {
  const now = w.now();
  w.db
    .delete(devices)
    .where(lt(devices.seenAt, now - SESSION_MS))
    .run();
  const id = randomBytes(9).toString("base64url");
  const token = randomBytes(24).toString("base64url");
  const taken = new Set(devicesIn(w).map((d) => d.name));
  const called = name.trim().slice(0, 60) || "Device";
  const numbered = Array.from({ length: taken.size + 1 }, (_, n) => (n === 0 ? called : `${called} ${n + 1}`)).find((n) => !taken.has(n)) ?? called;
  w.db
    .insert(devices)
    .values({ id, name: numbered, may, token: sumOf(token), addedAt: now, seenAt: now })
    .run();
  return `${id}.${token}`;
}

/** Devices that are let in, the last seen first. */
export const devicesIn = (w: Workshop): DeviceView[] =>
  w.db
    .select()
    .from(devices)
    .all()
    .filter((d) => d.seenAt > w.now() - SESSION_MS)
    .map(({ id, name, may, addedAt, seenAt }) => ({ id, name, may, addedAt, seenAt }))
    .sort((a, b) => b.seenAt - a.seenAt);

/** The device that shows this, if it is let in; `seen` where that was written down anew, so that it may keep it longer. */
export function deviceOf(w: Workshop, cookie: string | undefined): (DeviceView & { seen: boolean }) | null {
  const [id = "", token = ""] = (cookie ?? "").split(".");
  const d = id === "" ? undefined : w.db.select().from(devices).where(eq(devices.id, id)).get();
  const now = w.now();
  if (!d || !hasPassphrase(w) || !same(d.token, sumOf(token)) || d.seenAt <= now - SESSION_MS) return null;
  const seen = now - d.seenAt > SEEN_MS;
  try {
    if (seen) w.db.update(devices).set({ seenAt: now }).where(eq(devices.id, id)).run();
  } catch {
    // A workshop that is open for reading only, or busy, still lets it in.
  }
  return { id, name: d.name, may: d.may, addedAt: d.addedAt, seenAt: seen ? now : d.seenAt, seen };
}

const noDevice = (): Refusal => new Refusal(404, "no-device", "That device is signed out already: load this page again.");

export function changeDevice(w: Workshop, id: string, change: { name?: string | undefined; may?: May | undefined }): void {
  const set = { ...(change.name === undefined ? {} : { name: change.name }), ...(change.may === undefined ? {} : { may: change.may }) };
  if (Object.keys(set).length > 0 && w.db.update(devices).set(set).where(eq(devices.id, id)).run().changes === 0) throw noDevice();
}

/** Signs one device out. */
export function signOut(w: Workshop, id: string): void {
  if (w.db.delete(devices).where(eq(devices.id, id)).run().changes === 0) throw noDevice();
}

export const SESSION_S = SESSION_MS / 1000;

const guesses = (now: number): { at: number; from: string }[] => (held.zestyGuesses = (held.zestyGuesses ?? []).filter((g) => now - g.at < GUESSES.withinMs));

/** Lets a device in by passphrase, to weigh and log; answers with its session. Refuses after too many wrong guesses, right or wrong. */
export async function enterByPassphrase(w: Workshop, passphrase: string, from: string, name = "Device"): Promise<string> {
  const k = kept(w);
  if (!k) throw new Refusal(403, "no-passphrase", "This workshop has no passphrase yet: set one on the first machine.");
  const now = w.now();
  const made = guesses(now);
  if (made.filter((g) => g.from === from).length >= GUESSES.each || made.length >= GUESSES.all)
    throw new Refusal(429, "too-many", "Too many wrong passphrases. Wait a quarter of an hour, or pair this device by the code on the first machine.");
  // Counted before it is checked, so that many guesses at once count too.
  const guess = { at: now, from };
  made.push(guess);
  const right = same((await stretch(passphrase.slice(0, 200), k.salt)).toString("base64url"), k.hash);
  if (!right) throw new Refusal(403, "wrong", "That is not the workshop's passphrase.");
  held.zestyGuesses = guesses(now).filter((g) => g !== guess);
  return letIn(w, name, "bench");
}

/** A code that lets one device in within five minutes. */
export function newPairing(w: Workshop, may: May = "bench"): { code: string; until: number } {
  if (!kept(w)) throw new Refusal(422, "no-passphrase", "Set a passphrase first: every device on the network stands behind it.");
  const until = w.now() + PAIR_MS;
  const code = randomBytes(16).toString("base64url");
  for (const [c, p] of pairs()) if (p.until < w.now()) pairs().delete(c);
  pairs().set(code, { until, may });
  return { code, until };
}

/** Spends a pairing code; answers with the device's session, or null where the code is not one, was used, or is too old. */
export function enterByPairing(w: Workshop, code: string, name = "Device"): string | null {
  const pairing = pairs().get(code);
  if (!kept(w) || pairing === undefined) return null;
  pairs().delete(code);
  return pairing.until >= w.now() ? letIn(w, name, pairing.may) : null;
}
