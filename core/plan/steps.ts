import type { CastBatch } from "../batch";
import type { Chain, Contact, Verdict } from "../fit";
import type { Job } from "../record";
import { CAST_FAMILY, type Cast, type Rubber } from "../material";
import type { Body } from "../body";
import { OPENING, type Layout } from "../mould";
import { quote } from "../quantity";
import type { PlannedStrength } from "./strength";
import type { PlannedPour, Remark, Step, StepId } from "./types";

/** Contacts that the pairing step answers for, and those that the prepare step does. */
export const PAIR_CONTACTS: readonly Contact[] = ["rubber-cast", "cast-use", "mould-cast", "release-cast", "cast-finish"];
export const PREPARE_CONTACTS: readonly Contact[] = ["surface-rubber", "clay-rubber", "rubber-rubber", "box-rubber", "seal-rubber", "jacket-rubber"];

interface Known {
  body: Body | null;
  missing: readonly string[];
  layout: Layout | null;
  pours: readonly PlannedPour[];
  rubber: Rubber | null;
  cast: Cast | null;
  batch: CastBatch | null;
  chain: Chain;
  remarks: readonly Remark[];
  surfaceKnown: boolean;
  strength: PlannedStrength | null;
}

const listed = (words: readonly string[]): string => (words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`);

/** How each step of the route stands. */
export function stepsOf(job: Job, k: Known): Step[] {
  const fault = (id: StepId) => k.remarks.find((r) => r.step === id && r.severity === "fault");
  const linkVerdict = (contacts: readonly Contact[]): Verdict =>
    k.chain.links
      .filter((l) => contacts.includes(l.contact))
      .reduce<Verdict>(
        (w, l) => (l.verdict === "no" || w === "no" ? "no" : l.verdict === "untested" || w === "untested" ? "untested" : l.verdict === "care" ? "care" : w),
        "sound",
      );
  const make = (id: StepId, ready: boolean, needs: string | null, answer: string, trouble: string | null = null): Step => {
    const f = fault(id);
    if (f) return { id, state: "troubled", line: f.message };
    if (needs !== null) return { id, state: ready ? "asks" : "waiting", line: needs };
    if (trouble) return { id, state: "troubled", line: trouble };
    return { id, state: "settled", line: answer };
  };
  const { body, rubber, cast, layout } = k;
  const surfaceNo = linkVerdict(PREPARE_CONTACTS);
  const pairNo = linkVerdict(PAIR_CONTACTS);
  const reasonOf = (contacts: readonly Contact[]) =>
    k.chain.links
      .filter((l) => contacts.includes(l.contact))
      .flatMap((l) => l.findings)
      .find((f) => f.verdict === "no")?.reason ?? "";
  const rubberMl = layout?.rubberMl ?? 0;
  const skin = OPENING[job.mould.opening].made === "skin";
  return [
    make(
      "master",
      true,
      k.missing.length > 0 ? `Measure ${listed(k.missing)}` : !body ? "Draw its outline" : !k.surfaceKnown ? "Say what it is made of" : null,
      body ? `${quote(body.volumeMl, "volume")} of volume` : "",
    ),
    make(
      "pairing",
      true,
      !cast ? "Choose what to cast" : !rubber ? "Choose a rubber" : null,
      `${rubber?.name ?? ""} with ${cast?.name.toLowerCase() ?? ""}`,
      pairNo === "no" ? reasonOf(PAIR_CONTACTS) : null,
    ),
    make(
      "opening",
      body !== null,
      body === null ? "Needs the master's sizes" : null,
      OPENING[job.mould.opening].label,
      k.strength && k.strength.stretch.grade === "bulges" && OPENING[job.mould.opening].onlyStretches
        ? `It has to stretch ${Math.round(k.strength.stretch.strain * 100)} % to let go: more than it should.`
        : null,
    ),
    make(
      "prepare",
      rubber !== null && k.surfaceKnown,
      rubber === null || !k.surfaceKnown ? "Needs master and rubber" : null,
      surfaceNo === "sound" ? "Nothing to seal or release" : "Prepared with care",
      surfaceNo === "no" ? reasonOf(PREPARE_CONTACTS) : null,
    ),
    make(
      "box",
      body !== null,
      body === null ? "Needs the master's sizes" : skin && OPENING[job.mould.opening].jacket === "needed" && job.jacket === "none" ? "Choose a jacket" : null,
      layout ? boxLine(layout) : "",
    ),
    make(
      "rubber",
      layout !== null && rubber !== null,
      k.pours.length === 0 ? (skin ? "Needs master and rubber" : "Needs box and rubber") : null,
      `${quote(
        k.pours.reduce((s, p) => s + (p.batch?.mixG ?? 0), 0),
        "mass",
      )} to mix for ${quote(rubberMl, "volume")}`,
    ),
    make(
      "strength",
      k.strength !== null,
      k.strength === null ? "Needs rubber and cast" : null,
      k.strength ? strengthLine(k.strength) : "",
      k.strength?.verdict === "bulges" ? strengthLine(k.strength) : null,
    ),
    make(
      "cast",
      body !== null && cast !== null,
      !body || !cast ? "Needs master and cast" : null,
      k.batch ? `${quote(k.batch.mixG, "mass")} for ${job.cast.count === 1 ? "one casting" : `${job.cast.count} castings`}` : "",
    ),
    make("out", k.pours.length > 0 && k.batch !== null, k.pours.length === 0 || !k.batch ? "Needs rubber and cast" : null, "Times worked out"),
  ];
}

function boxLine(layout: Layout): string {
  if (layout.kind === "skin")
    return layout.jacket
      ? `${quote(layout.jacket.thicknessMm, "length")} of jacket in ${layout.jacket.parts === 1 ? "one part" : `${layout.jacket.parts} parts`}`
      : "No jacket behind the skin";
  return `${quote(layout.box.lengthMm, "length")} × ${quote(layout.box.widthMm, "length")} inside, ${quote(layout.wallHeightMm, "length")} high`;
}

function strengthLine(h: PlannedStrength): string {
  if (h.support === "jacket") return "Held by its jacket";
  if (h.support === "boards")
    return h.verdict === "holds"
      ? `Held by boards and ${h.boards?.straps.length ?? 0} straps`
      : h.boards
        ? "The boards bow too far"
        : "Held by boards, not worked out";
  if (!h.worst) return "Nothing presses yet";
  if (h.worst.mostMm.typical < 0.05) return `Walls bulge less than ${quote(0.1, "length")}`;
  if (h.worst.mostMm.typical > h.fallsMm) return "It does not stand alone under its fill";
  const bulge = quote(h.worst.mostMm.typical, "length");
  return h.verdict === "bulges" ? `Walls bulge ${bulge}, more than ${quote(h.toleranceMm, "length")}` : `Walls bulge ${bulge} at most`;
}

/** The usual cautions, at the step where they bite. */
export function cautionsOf(rubber: Rubber | null, second: Rubber | null, cast: Cast | null): { step: StepId; text: string }[] {
  const once = new Set([...(rubber?.cautions ?? []), ...(second?.cautions ?? [])]);
  const out: { step: StepId; text: string }[] = [...once].map((text) => ({ step: "rubber", text }));
  for (const text of cast?.cautions ?? []) out.push({ step: "cast", text });
  for (const text of cast ? CAST_FAMILY[cast.family].opening : []) out.push({ step: "out", text });
  return out;
}
