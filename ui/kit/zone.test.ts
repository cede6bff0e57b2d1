import { clockIn, dayIn, hoursIn } from "./zone";

const HOUR = 3_600_000;

describe("the workshop's wall clock", () => {
  it("is the same on a tablet set to another zone", () => {
    const at = Date.UTC(2026, 10, 25, 23, 30);
    expect(clockIn(at, "Europe/Berlin")).toBe("00:30");
    expect(dayIn(at, "Europe/Berlin", at)).toBe("Thu 26 Nov");
    expect(clockIn(at, "America/New_York")).toBe("18:30");
    expect(dayIn(at, "America/New_York", at)).toBe("Wed 25 Nov");
    // Told with its year where it is far off.
    expect(dayIn(at, "Europe/Berlin", at - 400 * 24 * HOUR)).toBe("Thu 26 Nov 2026");
  });

  it("has its noons and midnights where the workshop has them", () => {
    const from = Date.UTC(2026, 10, 25, 9);
    const ticks = hoursIn(from, from + 48 * HOUR, 12, "Europe/Berlin");
    expect(ticks.map((t) => clockIn(t, "Europe/Berlin"))).toEqual(["12:00", "00:00", "12:00", "00:00"]);
    expect(ticks[0]).toBe(Date.UTC(2026, 10, 25, 11));
    expect(hoursIn(from, from + 48 * HOUR, 12, "Asia/Kolkata").map((t) => clockIn(t, "Asia/Kolkata"))).toEqual(["00:00", "12:00", "00:00", "12:00"]);
  });

  it("keeps them on the day the clocks change", () => {
    // 25 October 2026, 3:00 is 2:00 again in Berlin.
    const from = Date.UTC(2026, 9, 24, 20);
    expect(hoursIn(from, from + 36 * HOUR, 12, "Europe/Berlin").map((t) => clockIn(t, "Europe/Berlin"))).toEqual(["00:00", "12:00", "00:00"]);
  });
});
