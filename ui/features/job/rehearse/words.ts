import { TICKS, type Flaw, type OneChange } from "@/core/rehearsal";
import type { useUnits } from "../../../kit/units";

type Fmt = ReturnType<typeof useUnits>["fmt"];
const seconds = (tick: number, fmt: Fmt) => fmt(tick / TICKS / 3600, "duration");

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What went wrong, in a sentence. */
export function flawWords(f: Flaw, of: "cast" | "rubber", fmt: Fmt): string {
  switch (f.kind) {
    case "short":
      return `${fmt(f.missingMl, "volume")} is missing: ${{ frozen: "it froze", thick: "it thickened", skin: "its own skin held it at the sprue", out: "nothing more came" }[f.why]} after ${seconds(f.tick, fmt)}.${f.vent ? ` ${capital(f.vent)} froze first: from then on the air had the others only.` : ""}`;
    case "void":
      if (f.vent) return `A void of ${fmt(f.volumeMl, "volume")} at ${fmt(f.topMm, "length")}: ${f.vent} froze first, and its air had no way out.`;
      return `A void of ${fmt(f.volumeMl, "volume")} at ${fmt(f.topMm, "length")}: the rising level shut it at ${fmt(f.spillMm, "length")}. ${of === "rubber" ? "Paint that place first, or draw the air out under vacuum." : "A vent there lets it out."}`;
    case "gulp":
      return `The funnel ran dry after ${seconds(f.tick, fmt)}: air went in with the next pour, and the front stood still.`;
    case "slant":
      return `It stands ${Math.abs(Math.round(f.leanDeg))}° aslant, and so does its back: set the box down level before the last of it is in.`;
    case "spilt":
      if (of === "rubber") return `${fmt(f.ml, "volume")} ran over the low wall: set it down sooner, or lean it less.`;
      return `${fmt(f.ml, "volume")} ran over the funnel's rim: a slower hand, or a wider sprue.`;
  }
}

/** What one change would have done, in a sentence. */
export function changeWords(c: OneChange, fmt: Fmt): string {
  const then = c.good ? "the same hand makes it good" : `the same hand gets ${fmt(c.filledMl, "volume")} in`;
  switch (c.change) {
    case "choke":
      return `With the sprue opened to ${fmt(c.to, "length")} ${then}.`;
    case "vent":
      return `With ${c.to} ${c.to === 1 ? "vent" : "vents"} ${then}.`;
    case "warmer":
      return `Poured at ${fmt(c.to, "temperature")} ${then}.`;
    case "hand":
      return `Poured without a stop ${c.good ? "it is good" : `${fmt(c.filledMl, "volume")} gets in`}.`;
  }
}
