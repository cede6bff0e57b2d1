import { Refusal } from "./refusal";

/** The decoder: one picture at a time, on one thread beside the server's own, and nothing of it kept in memory. */
async function decoder() {
  const { default: sharp } = await import("sharp");
  sharp.cache(false);
  sharp.concurrency(1);
  return sharp;
}

/** Most points a picture may have when unpacked: a hundred million, twice the largest camera people carry. */
const MOST_POINTS = 100_000_000;
/** Of 100: at this a photograph loses nothing an eye would miss. */
const QUALITY = 88;

type Format = "jpeg" | "png" | "webp";
const KINDS: { format: Format; mime: string; extension: string; matches: (b: Buffer) => boolean; end: (b: Buffer) => boolean }[] = [
  {
    format: "jpeg",
    mime: "image/jpeg",
    extension: "jpg",
    matches: (b) => b.length > 3 && b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff,
    end: (b) => b.readUInt16BE(b.length - 2) === 0xffd9,
  },
  {
    format: "png",
    mime: "image/png",
    extension: "png",
    matches: (b) => b.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
    end: (b) => b.subarray(-8, -4).toString("latin1") === "IEND",
  },
  {
    format: "webp",
    mime: "image/webp",
    extension: "webp",
    matches: (b) => b.subarray(0, 4).toString("latin1") === "RIFF" && b.subarray(8, 12).toString("latin1") === "WEBP",
    end: (b) => b.readUInt32LE(4) + 8 === b.length,
  },
];
const kindOf = (bytes: Buffer) => KINDS.find((k) => k.matches(bytes)) ?? null;

/** Media type of a picture, told by its first bytes; null where they are none. */
export const pictureKind = (bytes: Buffer): { mime: string; extension: string } | null => kindOf(bytes);

/** True where bytes are the kind of picture that a name ends in. */
export const isPicture = (fileName: string, bytes: Buffer): boolean => KINDS.some((k) => fileName.endsWith(`.${k.extension}`) && k.matches(bytes));

/**
 * A picture made anew from its points, turned the way its camera says: nothing else that was in the file is left, no place, no
 * camera, no second file behind its end. Refused in words where it cannot be read as a picture.
 */
export async function plainPicture(bytes: Buffer): Promise<{ bytes: Buffer; mime: string; extension: string }> {
  const kind = kindOf(bytes);
  if (!kind) throw new Refusal(415, "not-a-photo", "That file is not a JPEG, PNG or WebP picture: choose another file.");
  try {
    const made = (await decoder())(bytes, { limitInputPixels: MOST_POINTS, failOn: "error" }).autoOrient();
    return {
      bytes: await made.toFormat(kind.format, kind.format === "png" ? {} : { quality: QUALITY }).toBuffer(),
      mime: kind.mime,
      extension: kind.extension,
    };
  } catch (e) {
    const why = e instanceof Error && /pixel limit/.test(e.message) ? "it has more than a hundred million points" : "it is damaged or cut short";
    throw new Refusal(415, "not-a-photo", `That picture cannot be taken in: ${why}. Choose another file.`);
  }
}

/** Whether a picture's file holds anything besides its points: notes of a camera, or bytes behind its end. */
export async function carriesMore(bytes: Buffer): Promise<boolean> {
  const kind = kindOf(bytes);
  if (!kind || !kind.end(bytes)) return true;
  try {
    const { exif, xmp, iptc, icc, comments } = await (await decoder())(bytes, { limitInputPixels: MOST_POINTS }).metadata();
    return Boolean(exif ?? xmp ?? iptc ?? icc ?? (comments && comments.length > 0));
  } catch {
    return true;
  }
}

/** Whether bytes are the whole picture that a name speaks of: they end where one ends, or can be read to the end all the same. */
export async function isWholePicture(fileName: string, bytes: Buffer): Promise<boolean> {
  if (!isPicture(fileName, bytes)) return false;
  if (!(await carriesMore(bytes))) return true;
  return plainPicture(bytes).then(
    () => true,
    () => false,
  );
}
