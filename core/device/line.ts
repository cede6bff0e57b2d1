import { parseQuantity } from "../quantity";

/** What a scale or a thermometer says, one line at a time. */
export type DeviceReading =
  { kind: "weight"; grams: number; stable: boolean } | { kind: "overload" } | { kind: "temperature"; celsius: number } | { kind: "hello"; name: string };

export type LineResult = { ok: true; reading: DeviceReading | null } | { ok: false; message: string };

/** Longest line that is read; a longer one is noise on the wire. */
const LONGEST_LINE = 120;

/**
 * Reads one line of the device protocol, described in docs/devices.md: "weight 123.4 g stable", "weight 1.2 kg moving",
 * "weight over", "temp 21.5 C", "hello kitchen scale"; empty lines and those that begin with # say nothing.
 */
export function readLine(line: string): LineResult {
  const text = line.trim();
  if (text === "" || text.startsWith("#")) return { ok: true, reading: null };
  if (text.length > LONGEST_LINE) return { ok: false, message: `A line of ${text.length} letters is too long: at most ${LONGEST_LINE}.` };
  const [word = "", ...rest] = text.split(/\s+/);
  switch (word.toLowerCase()) {
    case "hello":
      return { ok: true, reading: { kind: "hello", name: rest.join(" ").slice(0, 60) || "device" } };
    case "weight": {
      if (rest[0]?.toLowerCase() === "over") return { ok: true, reading: { kind: "overload" } };
      const state = rest.at(-1)?.toLowerCase();
      if (state !== "stable" && state !== "moving") return { ok: false, message: `"${text}" does not say whether the weight is stable or moving.` };
      const said = rest.slice(0, -1).join(" ");
      // A scale that was tared, or lifted off, shows less than nothing.
      const negative = said.startsWith("-");
      const read = parseQuantity(negative ? said.slice(1) : said, { dimension: "mass", system: "metric", min: 0, max: 1_000_000 });
      return read.ok
        ? { ok: true, reading: { kind: "weight", grams: negative ? -read.value : read.value, stable: state === "stable" } }
        : { ok: false, message: read.message };
    }
    case "temp": {
      const said = rest.join(" ");
      const match = /^(-?\d+(?:\.\d+)?)\s*°?([CF])$/i.exec(said);
      if (!match) return { ok: false, message: `"${said}" is not a temperature: write it as 21.5 C or 70.7 F.` };
      const v = Number(match[1]);
      const celsius = match[2]?.toUpperCase() === "F" ? ((v - 32) * 5) / 9 : v;
      if (celsius < -60 || celsius > 1500) return { ok: false, message: `${said} is outside -60 to 1500 °C: check the thermometer.` };
      return { ok: true, reading: { kind: "temperature", celsius } };
    }
    default:
      return { ok: false, message: `"${word}" is not one of weight, temp, hello.` };
  }
}

/** Gathers bytes into whole lines: a wire delivers them in pieces. Keeps at most one unfinished line, never more than its limit. */
export class LineBuffer {
  private rest = "";

  /** Lines that `text` completes, in order. */
  push(text: string): string[] {
    const parts = (this.rest + text).split(/\r\n|\n|\r/);
    this.rest = (parts.pop() ?? "").slice(-LONGEST_LINE - 1);
    return parts;
  }
}
