import fc from "fast-check";
import { readWhen } from ".";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Thursday 26 Nov 2026, 10:00 on a clock an hour ahead of UTC. */
const now = Date.UTC(2026, 10, 26, 9);
const midnight = Date.UTC(2026, 10, 25, 23);
const read = (text: string, at = now) => readWhen(text, at, 4, (days, minutes) => midnight + days * DAY + minutes * 60_000);
const local = (days: number, h: number, m = 0) => midnight + days * DAY + h * HOUR + m * 60_000;

describe("when something was done", () => {
  it.each<[string, number]>([
    ["", now],
    ["now", now],
    ["09:30", local(0, 9, 30)],
    ["16:00", local(-1, 16)],
    ["yesterday 16:00", local(-1, 16)],
    ["21:30 last night", local(-1, 21, 30)],
    ["last night at 21:30", local(-1, 21, 30)],
    ["this morning 8:15", local(0, 8, 15)],
    ["this morning", local(0, 8)],
    ["8 am", local(0, 8)],
    ["yesterday 4 pm", local(-1, 16)],
    ["12 am", local(0, 0)],
    ["mon 14:00", local(-3, 14)],
    ["Thursday 9:00", local(-7, 9)],
    ["2 h ago", now - 2 * HOUR],
    ["half an hour ago", now - HOUR / 2],
    ["an hour ago", now - HOUR],
    ["3 days ago", now - 3 * DAY],
    ["2026-11-24 18:45", local(-2, 18, 45)],
  ])("reads %j", (text, at) => {
    expect(read(text)).toEqual({ ok: true, at });
  });

  it.each([["tomorrow 9:00"], ["25:00"], ["9:75"], ["13 pm"], ["yesterday"], ["soon"], ["in 2 h"], ["2026-12-01 10:00"], ["5 fortnights ago"], ["12"]])(
    "refuses %j in words",
    (text) => {
      const r = read(text);
      expect(r.ok ? "read" : r.message).toMatch(/Type 16:00/);
    },
  );

  it("never lies ahead, whatever is typed", () => {
    for (const text of ["__proto__", "3 __proto__ ago", "constructor"]) expect(read(text).ok).toBe(false);
    fc.assert(
      fc.property(fc.string(), (text) => {
        const r = read(text);
        expect(!r.ok || r.at <= now).toBe(true);
      }),
    );
  });
});
