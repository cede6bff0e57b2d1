import type { DeviceState } from "../contract/bench";
import { LineBuffer, readLine, type DeviceReading } from "../core/device";
import { writeReading } from "./clocks";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/** A device that has said nothing for this long counts as unplugged, ms. */
const SILENT_MS = 3000;

const held = globalThis as { zestyDevices?: Omit<DeviceState, "now"> };
const state = (): Omit<DeviceState, "now"> => (held.zestyDevices ??= { scale: null, thermometer: null, name: null });

export function deviceState(w: Workshop): DeviceState {
  const s = state();
  const now = w.now();
  return { ...s, now, scale: s.scale && now - s.scale.at <= SILENT_MS ? s.scale : null };
}

/** Most lines one request may bring. */
const MOST_LINES = 500;

/** Takes lines of the device protocol from a program on this machine; refuses the whole request at the first line it cannot read. */
export function takeLines(w: Workshop, text: string): DeviceState {
  const lines = new LineBuffer().push(`${text.slice(0, 64 * 1024)}\n`);
  if (lines.length > MOST_LINES) throw new Refusal(413, "too-large", `At most ${MOST_LINES} lines at a time.`);
  const readings = lines.map((line, i): DeviceReading | null => {
    const read = readLine(line);
    if (!read.ok) throw new Refusal(400, "bad-line", `Line ${i + 1}: ${read.message}`);
    return read.reading;
  });
  const s = state();
  const now = w.now();
  for (const r of readings) {
    if (!r) continue;
    if (r.kind === "hello") s.name = r.name;
    else if (r.kind === "temperature") {
      s.thermometer = { celsius: r.celsius, at: now };
    } else s.scale = { reading: r, at: now };
  }
  // However many lines came, they came now: the last temperature is the shop's.
  const c = readings.flatMap((r) => (r?.kind === "temperature" ? [r.celsius] : [])).at(-1);
  if (c !== undefined && c >= -40 && c <= 80) writeReading(w, c, "thermometer");
  return deviceState(w);
}
