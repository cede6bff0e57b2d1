const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

/** Checksum of a file as zip keeps it [CRC-32, ISO 3309, polynomial 0xEDB88320]. */
export function crc32(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) c = (TABLE[(c ^ b) & 0xff] ?? 0) ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

const END = 0x06054b50;
const ENTRY = 0x02014b50;

/** Checksums that a zip's central directory states, by file name; null where it has none that can be read. */
export function zipSums(bytes: Uint8Array): Map<string, number> | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = bytes.length - 22; at >= Math.max(0, bytes.length - 65_557); at--) {
    if (view.getUint32(at, true) !== END) continue;
    const sums = new Map<string, number>();
    let entry = view.getUint32(at + 16, true);
    for (let n = view.getUint16(at + 10, true); n > 0; n--) {
      if (entry + 46 > bytes.length || view.getUint32(entry, true) !== ENTRY) return null;
      const [name, extra, comment] = [28, 30, 32].map((o) => view.getUint16(entry + o, true)) as [number, number, number];
      sums.set(new TextDecoder().decode(bytes.subarray(entry + 46, entry + 46 + name)), view.getUint32(entry + 16, true));
      entry += 46 + name + extra + comment;
    }
    return sums;
  }
  return null;
}
