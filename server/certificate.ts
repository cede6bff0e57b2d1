import { createHash, generateKeyPairSync, randomBytes, X509Certificate } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { join } from "node:path";
import forge from "node-forge";
import type { Workshop } from "./workshop";

const { asn1, pki, md } = forge;
const DAY = 24 * 3_600_000;
/** The workshop's own signature is trusted once on each device, so it lasts; what the gate shows is made anew often. */
const ROOT_DAYS = 3650;
/** Browsers refuse what is good for more than 398 days. */
const SHOWN_DAYS = 390;
/** Made anew when less than this is left. */
const RENEW_DAYS = 30;

interface Pair {
  key: string;
  cert: string;
}

const keyPair = (): { privateKey: string; publicKey: string } =>
  generateKeyPairSync("rsa", {
    modulusLength: 2048,
    publicKeyEncoding: { type: "spki", format: "pem" },
    privateKeyEncoding: { type: "pkcs8", format: "pem" },
  });

/** A positive number of 16 bytes, as hexadecimal. */
const serial = (): string => `3${randomBytes(16).toString("hex").slice(1)}`;

/** Networks that are nobody's on the internet: private, link-local and shared addresses [RFC 1918, RFC 3927, RFC 6598], and this machine. */
const HOME_NETWORKS: readonly [string, string][] = [
  ["10.0.0.0", "255.0.0.0"],
  ["172.16.0.0", "255.240.0.0"],
  ["192.168.0.0", "255.255.0.0"],
  ["169.254.0.0", "255.255.0.0"],
  ["100.64.0.0", "255.192.0.0"],
  ["127.0.0.0", "255.0.0.0"],
];
const bits = (ip: string): number => ip.split(".").reduce((n, part) => (n << 8) | Number(part), 0);
const atHome = (name: string): boolean =>
  isIP(name) === 4 ? HOME_NETWORKS.some(([ip, mask]) => (bits(name) & bits(mask)) === bits(ip)) : name === "localhost" || name.endsWith(".local");
const octets = (ip: string): string => String.fromCharCode(...ip.split(".").map(Number));

/**
 * What this workshop's signature can vouch for: addresses at home and names that end in .local, or are this machine's. Who
 * trusts it trusts it for nothing on the internet [name constraints, RFC 5280, 4.2.1.10].
 */
function onlyAtHome(names: readonly string[]): { id: string; critical: boolean; value: string } {
  const { CONTEXT_SPECIFIC, UNIVERSAL } = asn1.Class;
  const name = (tag: number, value: string) => asn1.create(UNIVERSAL, asn1.Type.SEQUENCE, true, [asn1.create(CONTEXT_SPECIFIC, tag, false, value)]);
  const others = names.filter((n) => !atHome(n));
  const own = others.filter((n) => isIP(n) === 4).map((ip): [string, string] => [ip, "255.255.255.255"]);
  const dns = ["local", "localhost", ...others.filter((n) => isIP(n) === 0)];
  const permitted = [...dns.map((n) => name(2, n)), ...[...HOME_NETWORKS, ...own].map(([ip, mask]) => name(7, octets(ip) + octets(mask)))];
  const all = asn1.create(UNIVERSAL, asn1.Type.SEQUENCE, true, [asn1.create(CONTEXT_SPECIFIC, 0, true, permitted)]);
  return { id: "2.5.29.30", critical: true, value: asn1.toDer(all).getBytes() };
}

function makeRoot(now: number, names: readonly string[]): Pair {
  const keys = keyPair();
  const cert = pki.createCertificate();
  cert.publicKey = pki.publicKeyFromPem(keys.publicKey);
  cert.serialNumber = serial();
  cert.validity.notBefore = new Date(now - DAY);
  cert.validity.notAfter = new Date(now + ROOT_DAYS * DAY);
  const subject = [{ name: "commonName", value: `Zesty Ladle workshop ${randomBytes(3).toString("hex")}` }];
  cert.setSubject(subject);
  cert.setIssuer(subject);
  cert.setExtensions([
    { name: "basicConstraints", cA: true, pathLenConstraint: 0, critical: true },
    { name: "keyUsage", keyCertSign: true, cRLSign: true, critical: true },
    { name: "subjectKeyIdentifier" },
    onlyAtHome(names),
  ]);
  cert.sign(pki.privateKeyFromPem(keys.privateKey), md.sha256.create());
  return { key: keys.privateKey, cert: pki.certificateToPem(cert) };
}

/** What a gate shows, signed by a root. */
export function makeShown(root: Pair, now: number, names: readonly string[]): Pair {
  const keys = keyPair();
  const issuer = pki.certificateFromPem(root.cert);
  const cert = pki.createCertificate();
  cert.publicKey = pki.publicKeyFromPem(keys.publicKey);
  cert.serialNumber = serial();
  cert.validity.notBefore = new Date(now - DAY);
  cert.validity.notAfter = new Date(now + SHOWN_DAYS * DAY);
  cert.setSubject([{ name: "commonName", value: "Zesty Ladle" }]);
  cert.setIssuer(issuer.subject.attributes);
  cert.setExtensions([
    { name: "basicConstraints", cA: false, critical: true },
    { name: "keyUsage", digitalSignature: true, keyEncipherment: true, critical: true },
    { name: "extKeyUsage", serverAuth: true },
    { name: "subjectAltName", altNames: names.map((n) => (isIP(n) ? { type: 7, ip: n } : { type: 2, value: n })) },
  ]);
  cert.sign(pki.privateKeyFromPem(root.key), md.sha256.create());
  return { key: keys.privateKey, cert: pki.certificateToPem(cert) };
}

/** Reads a pair that was kept, or makes it; its key is for the owner of the folder alone. */
function keptPair(folder: string, name: string, good: (p: Pair) => boolean, make: () => Pair): Pair {
  const [keyAt, certAt] = [join(folder, `${name}.key`), join(folder, `${name}.crt`)];
  if (existsSync(keyAt) && existsSync(certAt)) {
    const pair = { key: readFileSync(keyAt, "utf8"), cert: readFileSync(certAt, "utf8") };
    try {
      if (good(pair)) return pair;
    } catch {
      // Damaged: made anew.
    }
  }
  const pair = make();
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(keyAt, pair.key, { mode: 0o600 });
  chmodSync(keyAt, 0o600);
  writeFileSync(certAt, pair.cert);
  return pair;
}

/** What the gate shows itself with, and the workshop's signature that a device is asked to trust. */
export interface Certificate {
  key: string;
  /** What the gate shows: its own, then the root. */
  chain: string;
  root: string;
  /** The root's fingerprint, SHA-256, in pairs of letters: read aloud to make sure that it is the right one. */
  fingerprint: string;
}

const left = (cert: string, now: number): number => (Date.parse(new X509Certificate(cert).validTo) - now) / DAY;

/**
 * The workshop's own certificate for these names and addresses, made at first use and kept in its data folder; made anew when it
 * runs out or the machine has another address. The root stays, so that a device trusts it once. Neither leaves in a backup.
 */
export function certificateFor(w: Workshop, names: readonly string[]): Certificate {
  const folder = join(w.files.folder, "door");
  const now = w.now();
  // What a root vouches for stands in it; a name beyond that needs another one.
  const vouched = (p: Pair): boolean => onlyAtHome(names).value === pki.certificateFromPem(p.cert).extensions.find((e) => e.id === "2.5.29.30")?.value;
  const root = keptPair(
    folder,
    "root",
    (p) => left(p.cert, now) > RENEW_DAYS && vouched(p),
    () => makeRoot(now, names),
  );
  const by = new X509Certificate(root.cert);
  const shown = keptPair(
    folder,
    "gate",
    (p) => {
      const cert = new X509Certificate(p.cert);
      return left(p.cert, now) > RENEW_DAYS && cert.verify(by.publicKey) && names.every((n) => (isIP(n) ? cert.checkIP(n) : cert.checkHost(n)));
    },
    () => makeShown(root, now, names),
  );
  return { key: shown.key, chain: `${shown.cert}${root.cert}`, root: root.cert, fingerprint: fingerprintOf(root.cert) };
}

const fingerprintOf = (pem: string): string =>
  createHash("sha256").update(new X509Certificate(pem).raw).digest("hex").toUpperCase().match(/../g)?.join(" ") ?? "";
