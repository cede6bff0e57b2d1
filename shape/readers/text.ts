/** A reader that walks over the bytes of a text without making strings of it. */
export interface Walker {
  bytes: Uint8Array;
  at: number;
  end: number;
}

export const walker = (bytes: Uint8Array, at = 0, end = bytes.length): Walker => ({ bytes, at, end });

const isSpace = (c: number): boolean => c === 32 || c === 9 || c === 13;
const NEWLINE = 10;

/** To the next thing on this line: false at the end of the line or the text. */
export function toWord(w: Walker): boolean {
  while (w.at < w.end && isSpace(w.bytes[w.at]!)) w.at++;
  return w.at < w.end && w.bytes[w.at] !== NEWLINE;
}

/** To the beginning of the next line: false at the end of the text. */
export function nextLine(w: Walker): boolean {
  while (w.at < w.end && w.bytes[w.at] !== NEWLINE) w.at++;
  w.at++;
  return w.at < w.end;
}

/** To the next thing on any line. */
export function toAnyWord(w: Walker): boolean {
  while (w.at < w.end && (isSpace(w.bytes[w.at]!) || w.bytes[w.at] === NEWLINE)) w.at++;
  return w.at < w.end;
}

/** The word here, moved past. */
export function word(w: Walker): string {
  const from = w.at;
  while (w.at < w.end && !isSpace(w.bytes[w.at]!) && w.bytes[w.at] !== NEWLINE) w.at++;
  return String.fromCharCode(...w.bytes.subarray(from, Math.min(w.at, from + 40)));
}

/** Whether the word here begins with some text. */
export function says(w: Walker, text: string): boolean {
  for (let i = 0; i < text.length; i++) if (w.bytes[w.at + i] !== text.charCodeAt(i)) return false;
  return true;
}

const TEN = Array.from({ length: 23 }, (_, i) => 10 ** i);

/** The number here, moved past; NaN for what is none. */
export function number(w: Walker): number {
  const { bytes } = w;
  let c = bytes[w.at];
  const minus = c === 45;
  if (minus || c === 43) c = bytes[++w.at];
  let [digits, exponent, seen, any, fraction] = [0, 0, 0, false, false];
  for (; w.at < w.end; c = bytes[++w.at]) {
    if (c === 46 && !fraction) {
      fraction = true;
      continue;
    }
    if (c === undefined || c < 48 || c > 57) break;
    any = true;
    // More than 17 digits say nothing more; leading noughts do not count.
    if (seen < 17) {
      digits = digits * 10 + (c - 48);
      if (digits > 0) seen++;
      if (fraction) exponent--;
    } else if (!fraction) exponent++;
  }
  if (!any) {
    word(w);
    return NaN;
  }
  if (c === 101 || c === 69) {
    c = bytes[++w.at];
    const down = c === 45;
    if (down || c === 43) c = bytes[++w.at];
    let power = 0;
    for (; w.at < w.end && c !== undefined && c >= 48 && c <= 57; c = bytes[++w.at]) power = Math.min(9999, power * 10 + (c - 48));
    exponent += down ? -power : power;
  }
  const size = Math.abs(exponent);
  const scale = size <= 22 ? TEN[size]! : 10 ** size;
  const value = exponent < 0 ? digits / scale : digits * scale;
  return minus ? -value : value;
}

/** A list of numbers that grows. */
export class Numbers {
  data: Float64Array;
  length = 0;
  constructor(room = 1024) {
    this.data = new Float64Array(room);
  }
  push(v: number): void {
    if (this.length === this.data.length) {
      const more = new Float64Array(2 * this.length);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.length++] = v;
  }
  /** What is in it, without the spare room. */
  done(): Float64Array<ArrayBuffer> {
    return this.data.slice(0, this.length);
  }
}
