import { fromNow } from "./When";
import { clockTime, dayEnd } from "./zone";

const at = (text: string) => new Date(text).getTime();

describe("times on the wall clock", () => {
  const now = at("2026-11-24T15:00:00");
  it.each([
    ["2026-11-24T16:05:00", "today 16:05"],
    ["2026-11-25T00:10:00", "Wed 00:10"],
    ["2026-11-22T09:30:00", "Sun 09:30"],
    ["2026-10-03T09:30:00", "3 Oct 2026"],
    ["2027-01-01T00:00:00", "1 Jan 2027"],
  ])("%s reads %s", (when, words) => expect(clockTime(at(when), now, "")).toBe(words));

  it("reads the clock of the workshop's zone on a device set to another", () => {
    const utc = Date.UTC(2026, 10, 24, 23, 30);
    expect(clockTime(utc, utc - 3_600_000, "Europe/Lisbon")).toBe("today 23:30");
    expect(clockTime(utc, utc - 3_600_000, "Europe/Athens")).toBe("today 01:30");
    expect(clockTime(utc, utc - 7_200_000, "Europe/Athens")).toBe("Wed 01:30");
  });

  it("ends a day where the workshop ends it", () => {
    expect(dayEnd("2026-11-24", "America/New_York")).toBe(Date.UTC(2026, 10, 25, 4, 59));
    expect(dayEnd("2026-11-24", "Asia/Kolkata")).toBe(Date.UTC(2026, 10, 24, 18, 29));
    expect(dayEnd("", "Asia/Kolkata")).toBeNaN();
  });

  it.each([
    [0, "now"],
    [22, "in 22 min"],
    [-22, "22 min ago"],
    [265, "in 4 h 25 min"],
    [-60 * 80, "3.5 days ago"],
  ])("%s minutes off reads %s", (minutes, words) => expect(fromNow(now + minutes * 60_000, now)).toBe(words));
});
