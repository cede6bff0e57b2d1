import { createHmac, randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { settings } from "../db/schema";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/** What is kept of the passphrase: never itself. `secret` signs the cookies; a new one signs everybody out. */
const Kept = z.object({ salt: z.string(), hash: z.string(), secret: z.string() });
type Kept = z.infer<typeof Kept>;

const KEY = "door";
/** scrypt at 32 MiB and about a tenth of a second: slow to guess, quick enough to open. */
const COST = { N: 1 << 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const SESSION_MS = 30 * 24 * 3_600_000;
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

/** Sets the workshop's passphrase, and signs every device out. */
export async function setPassphrase(w: Workshop, body: unknown): Promise<void> {
  const { passphrase } = parseOrRefuse(NewPassphrase, body);
  const salt = randomBytes(16).toString("base64url");
  keep(w, { salt, hash: (await stretch(passphrase, salt)).toString("base64url"), secret: randomBytes(32).toString("base64url") });
  pairs().clear();
}

/** Signs every device out; the passphrase stays. */
export function signOutAll(w: Workshop): void {
  const k = kept(w);
  if (k) keep(w, { ...k, secret: randomBytes(32).toString("base64url") });
  pairs().clear();
}

const held = globalThis as { zestyPairs?: Map<string, number>; zestyGuesses?: { at: number; from: string }[] };
const pairs = (): Map<string, number> => (held.zestyPairs ??= new Map());

const sign = (k: Kept, text: string): string => createHmac("sha256", Buffer.from(k.secret, "base64url")).update(text).digest("base64url");
const same = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};

const session = (k: Kept, now: number): string => {
  const text = `${now + SESSION_MS}.${randomBytes(9).toString("base64url")}`;
  return `${text}.${sign(k, text)}`;
};

/** True for a cookie this workshop has signed and that has not run out. */
export function sessionHolds(w: Workshop, cookie: string | undefined): boolean {
  const k = kept(w);
  if (!k || !cookie) return false;
  const cut = cookie.lastIndexOf(".");
  const text = cookie.slice(0, cut);
  return cut > 0 && same(sign(k, text), cookie.slice(cut + 1)) && Number(text.split(".")[0]) > w.now();
}

export const SESSION_S = SESSION_MS / 1000;

const guesses = (now: number): { at: number; from: string }[] => (held.zestyGuesses = (held.zestyGuesses ?? []).filter((g) => now - g.at < GUESSES.withinMs));

/** Lets a device in by passphrase; answers with its session. Refuses after too many wrong guesses, right or wrong. */
export async function enterByPassphrase(w: Workshop, passphrase: string, from: string): Promise<string> {
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
  return session(k, now);
}

/** A code that lets one device in within five minutes. */
export function newPairing(w: Workshop): { code: string; until: number } {
  if (!kept(w)) throw new Refusal(422, "no-passphrase", "Set a passphrase first: every device on the network stands behind it.");
  const until = w.now() + PAIR_MS;
  const code = randomBytes(16).toString("base64url");
  for (const [c, t] of pairs()) if (t < w.now()) pairs().delete(c);
  pairs().set(code, until);
  return { code, until };
}

/** Spends a pairing code; answers with the device's session, or null where the code is not one, was used, or is too old. */
export function enterByPairing(w: Workshop, code: string): string | null {
  const k = kept(w);
  const until = pairs().get(code);
  if (!k || until === undefined) return null;
  pairs().delete(code);
  return until >= w.now() ? session(k, w.now()) : null;
}
