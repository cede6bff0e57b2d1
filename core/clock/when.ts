/** A moment read from words, ms, or why it could not be. */
export type ReadWhen = { ok: true; at: number } | { ok: false; message: string };

const DAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"];
/** Words are asked of maps: a plain object would also know "__proto__". */
const UNITS = new Map<string, number>(
  Object.entries({
    m: 1,
    min: 1,
    mins: 1,
    minute: 1,
    minutes: 1,
    h: 60,
    hr: 60,
    hour: 60,
    hours: 60,
    d: 1440,
    day: 1440,
    days: 1440,
    week: 10_080,
    weeks: 10_080,
  }),
);
const MINUTE = 60_000;
/** Hours that parts of a day stand for, where no clock is said. */
const PART_MIN = new Map<string, number>(Object.entries({ morning: 8 * 60, noon: 12 * 60, afternoon: 15 * 60, evening: 19 * 60, night: 22 * 60 }));

/**
 * Reads when something was done, as people say it: "now", "16:00", "yesterday 16:00", "21:30 last night", "this morning", "mon 14:00",
 * "2 h ago", "2026-11-25 16:00". What would lie ahead today is taken for yesterday; nothing lies in the future.
 * @param now ms
 * @param today how many days from today (0, −1 …) and minutes after midnight on the workshop's clock, as ms
 * @param weekday of today on the workshop's clock, 0 for Sunday
 */
export function readWhen(text: string, now: number, weekday: number, today: (days: number, minutes: number) => number): ReadWhen {
  const t = text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, " ")
    .replace(/\bat\b/g, "")
    .replace(/\s+/g, " ")
    .trim();
  const bad = (why: string): ReadWhen => ({ ok: false, message: `"${text.trim().slice(0, 40)}" ${why} Type 16:00, yesterday 16:00, or 2 h ago.` });
  const past = (at: number): ReadWhen => (at > now + MINUTE ? bad("lies ahead: it has to be over.") : { ok: true, at: Math.min(at, now) });
  if (t === "" || t === "now" || t === "just now") return { ok: true, at: now };
  const ago = /^(?:about )?(\d+(?:[.,]\d+)?|an?|half an) ?([a-z]+) ago$/.exec(t);
  if (ago) {
    const unit = UNITS.get(ago[2] ?? "");
    if (!unit) return bad("has no unit of time.");
    const n = ago[1] === "half an" ? 0.5 : /^an?$/.test(ago[1] ?? "") ? 1 : Number((ago[1] ?? "").replace(",", "."));
    return past(now - n * unit * MINUTE);
  }
  const iso = /^(\d{4})-(\d{2})-(\d{2})(?:[ t](\d{1,2}):(\d{2}))?$/.exec(t);
  if (iso) {
    const [y, mo, d] = [Number(iso[1]), Number(iso[2]), Number(iso[3])];
    const noon = today(0, 720);
    const days = Math.round(
      (Date.UTC(y, mo - 1, d, 12) - Date.UTC(new Date(noon).getUTCFullYear(), new Date(noon).getUTCMonth(), new Date(noon).getUTCDate(), 12)) / 86_400_000,
    );
    return past(today(days, iso[4] ? Number(iso[4]) * 60 + Number(iso[5]) : 720));
  }
  const clock = /(\d{1,2})(?:[:.h](\d{2}))?\s*(am|pm|h)?(?![\d:])/.exec(t);
  const hour = clock && (clock[2] !== undefined || clock[3] !== undefined) ? Number(clock[1]) : null;
  if (hour !== null && (hour > 24 || Number(clock?.[2] ?? 0) > 59 || (/am|pm/.test(clock?.[3] ?? "") && (hour < 1 || hour > 12))))
    return bad("is no time of day.");
  const minutes =
    hour === null ? null : ((clock?.[3] === "pm" && hour < 12 ? hour + 12 : clock?.[3] === "am" && hour === 12 ? 0 : hour) % 24) * 60 + Number(clock?.[2] ?? 0);
  const words = (clock && hour !== null ? t.replace(clock[0], " ") : t).trim().split(" ").filter(Boolean);
  let days: number | null = null;
  let part: number | null = null;
  for (const word of words) {
    const day = DAYS.findIndex((d) => word.startsWith(d) && /^(sun|mon|tues?|wed(nes)?|thu(rs)?|fri|sat(ur)?)(day)?$/.test(word));
    if (word === "yesterday") days = -1;
    else if (word === "today" || word === "this") days ??= 0;
    else if (word === "last") days ??= -1;
    else if (PART_MIN.has(word)) part = PART_MIN.get(word) ?? null;
    else if (day >= 0) days = -((weekday - day + 7) % 7 || 7);
    else return bad("is no time this reads.");
  }
  const at = minutes ?? part;
  if (at === null) return days === null ? bad("is no time this reads.") : bad("has no time of day.");
  if (days !== null) return past(today(days, at));
  const here = today(0, at);
  return past(here > now + MINUTE ? today(-1, at) : here);
}
