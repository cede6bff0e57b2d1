import { countdown } from "./countdown";

it.each([
  [0, "0:00"],
  [-5000, "0:00"],
  [999, "0:01"],
  [65_000, "1:05"],
  [3_599_000, "59:59"],
  [3_729_000, "1:02:09"],
])("%i ms read as a clock face is %s", (ms, face) => expect(countdown(ms)).toBe(face));
