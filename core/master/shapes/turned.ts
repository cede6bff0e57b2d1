import { ellipse, plain } from "../../body";
import { SMALLEST_MM, type FormProblem, type Shape } from "./shape";

export const turned: Shape = {
  label: "Turned profile",
  when: "Round, any outline: radius against height.",
  fields: [],
  problems: ({ profile: p }) => {
    const problems: FormProblem[] = [];
    const say = (message: string) => problems.push({ code: "profile", path: "master.profile", message });
    if (p.length < 2) {
      say("A turned profile needs at least two points: the back and the top.");
      return problems;
    }
    if (p.some((q) => !Number.isFinite(q.radiusMm) || !Number.isFinite(q.zMm) || q.radiusMm < 0)) say("Every radius has to be a number, 0 or more.");
    if (p.some((q, i) => i > 0 && q.zMm < p[i - 1]!.zMm)) say("Heights have to rise from the back to the top: sort the rows.");
    if (p.at(-1)!.zMm - p[0]!.zMm < SMALLEST_MM) say("The profile has no height: give at least two different heights.");
    if (p.every((q) => q.radiusMm < SMALLEST_MM)) say("Every radius is 0: give the outline some width.");
    return problems;
  },
  // The back lies at the first point, wherever its height was counted from.
  form: ({ profile }) => plain(profile.map((p) => ({ zMm: p.zMm - (profile[0]?.zMm ?? 0), outline: ellipse(p.radiusMm, p.radiusMm) }))),
  errorMl: (t, volumeMl) => volumeMl({ ...t, profile: t.profile.map((p) => ({ ...p, radiusMm: p.radiusMm + t.readingMm })) }) - volumeMl(t),
};
