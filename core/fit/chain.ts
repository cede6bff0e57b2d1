import type { HeatStudy } from "../heat";
import {
  FINISHES,
  JACKETS,
  pick,
  SEALINGS,
  type Cast,
  type Finish,
  type Jacket,
  type Release,
  type Rubber,
  type Sealing,
  type Catalogue,
  type Surface,
} from "../material";
import { heatFinding } from "./heat";
import { isTriable, withPatch } from "./patch";
import { RULES, type Rule } from "./rules";
import type { RuleTrait } from "./traits";
import { CONTACT_LABEL, worstOf, type Contact, type Finding, type Verdict } from "./verdict";

export const USES = ["display", "outdoors", "food", "candle", "burns", "hung", "toy"] as const;
export type Use = (typeof USES)[number];
export const USE_LABEL: Record<Use, string> = {
  display: "Indoors, to look at",
  outdoors: "Outdoors or in the wet",
  food: "Touches food, or is food",
  candle: "Holds a burning candle",
  burns: "Is a candle",
  hung: "Hangs on a wall",
  toy: "Toy or jewellery",
};

export const HELD = ["new", "non-food", "food"] as const;
export type Held = (typeof HELD)[number];
export const HELD_LABEL: Record<(typeof HELD)[number], string> = {
  new: "Nothing yet",
  "non-food": "Something that is not food",
  food: "Food only",
};

/** Everything the contact rules look at, by id in the catalogue; null is "not said yet". */
export interface FitQuestion {
  surfaceId: string | null;
  sealerId: string | null;
  releaseId: string | null;
  /** Clay of a built parting; null when there is none. */
  clayId: string | null;
  rubberId: string | null;
  /** Rubber of the second half; null when there is no second half. */
  secondRubberId: string | null;
  /** Rubber of loose plugs, cast before the parts or, said so, last against them; none by default. */
  plugRubberId?: string | null;
  plugsLast?: boolean;
  /** Rubber of walls raised along the seams of a skin, over which its coats go; none by default. */
  seamRubberId?: string | null;
  castId: string | null;
  /** What lies behind the face of a casting in layers: it meets the use, not the rubber. */
  innerCastIds?: readonly string[];
  use: Use;
  held: (typeof HELD)[number];
  washedToday: boolean;
  /** Stock the box is built from, what seals it, what stands behind the rubber, and how the casting is finished. */
  boxId: string | null;
  sealing: Sealing;
  jacket: Jacket;
  finish: Finish;
}

/** A question in which nothing has been said yet: what is asked is put on top of it. */
export const NOTHING_SAID: FitQuestion = {
  surfaceId: null,
  sealerId: null,
  releaseId: null,
  clayId: null,
  rubberId: null,
  secondRubberId: null,
  castId: null,
  use: "display",
  held: "new",
  washedToday: false,
  boxId: null,
  sealing: "none",
  jacket: "none",
  finish: "none",
};

/** One contact judged. */
export interface Link {
  contact: Contact;
  /** Names this exact pair of materials, coats and all. */
  key: string;
  label: string;
  between: readonly [string, string];
  verdict: Verdict;
  findings: readonly Finding[];
}

export interface Chain {
  verdict: Verdict;
  links: readonly Link[];
  /** What is not said yet, so not judged. */
  unanswered: readonly string[];
}

interface Party {
  /** Names it among others; what is no entry of the catalogue goes by its name. */
  id?: string;
  name: string;
  traits: readonly RuleTrait[];
}

const fires = (rule: Rule, left: Party, right: Party): boolean =>
  rule.left.every((t) => left.traits.includes(t)) &&
  rule.right.every((t) => right.traits.includes(t)) &&
  !(rule.unless ?? []).some((t) => left.traits.includes(t) || right.traits.includes(t));

function judge(contact: Contact, left: Party, right: Party, extra: readonly Finding[] = []): Link {
  const found = RULES.filter((r) => r.contact === contact && fires(r, left, right)).map((r): Finding => ({
    ruleId: r.id,
    verdict: r.verdict,
    reason: r.reason,
    remedy: r.remedy,
    confidence: r.confidence,
    source: r.source,
  }));
  const unknown = [left, right].filter((p) => p.traits.length === 0);
  const findings = [...found, ...extra];
  if (unknown.length > 0) {
    findings.push({
      ruleId: "nothing-known",
      verdict: "untested",
      reason: `Nothing is known of ${unknown.map((p) => p.name).join(" or ")}: the rules have nothing to look at.`,
      remedy: "Mix a spoonful, put it where it does not show, wait out the full cure, and look for tackiness; or set its traits under Materials.",
      confidence: "judgement",
      source: "What nobody has said is untested",
    });
  }
  if (findings.length === 0) {
    findings.push({
      ruleId: "no-trouble",
      verdict: "sound",
      reason: "No known trouble between these two.",
      remedy: "A patch test costs a spoonful.",
      confidence: "usual",
      source: TRADE_SOURCE,
    });
  }
  return {
    contact,
    key: `${contact}|${left.id ?? left.name}|${right.id ?? right.name}`,
    label: CONTACT_LABEL[contact],
    between: [left.name, right.name],
    verdict: worstOf(findings.map((f) => f.verdict)),
    findings,
  };
}

/** A link with the workshop's own patch test of it, if there is one. */
function tested(link: Link, catalogue: Catalogue): Link {
  const result = catalogue.patches?.find((p) => p.key === link.key);
  if (!result || !isTriable(link.contact)) return link;
  const findings = withPatch(link.findings, result);
  return { ...link, findings, verdict: worstOf(findings.map((f) => f.verdict)) };
}

const TRADE_SOURCE = "No rule of ours speaks against it";

/**
 * Whether what is brushed on closes a surface. Soap closes plaster and nothing else; grease and wax fill pores, but neither holds
 * resin back in wood nor keeps oil out of stone: a film that dries does.
 */
function seals(sealer: Release, surface: Surface): boolean {
  const is = (t: RuleTrait) => surface.traits.includes(t as Surface["traits"][number]);
  if (sealer.traits.includes("soap-release")) return is("gypsum-surface");
  if (sealer.traits.includes("oily") || sealer.traits.includes("wax-release")) return !is("stains") && !is("wood-resin");
  return true;
}

/** The master's surface as the rubber meets it: with the sealer and release that lie on it. */
function preparedSurface(surface: Surface, sealer: Release | null, release: Release | null): Party {
  const traits: RuleTrait[] = [...surface.traits];
  if (sealer && sealer.role !== "release" && seals(sealer, surface)) {
    traits.push("sealed-coat");
    if (sealer.traits.includes("barrier")) traits.push("barrier-coat");
  }
  if (release && release.role !== "sealer") {
    // Silicone-oil sprays do not part silicone from silicone.
    const parts = !(release.traits.includes("silicone-oil") && surface.traits.includes("silicone"));
    // Soap parts from plaster only.
    if (parts && (!release.traits.includes("soap-release") || surface.traits.includes("gypsum-surface"))) traits.push("released");
    if (release.traits.includes("solvent")) traits.push("released-with-solvent");
    if (release.traits.includes("oily") || release.traits.includes("silicone-oil")) traits.push("oiled");
  }
  const coats = [sealer, release].filter((c) => c !== null).map((c) => c.name.toLowerCase());
  return {
    id: [surface.id, sealer?.id, release?.id].filter(Boolean).join("+"),
    name: coats.length > 0 ? `${surface.name} under ${coats.join(" and ")}` : surface.name,
    traits,
  };
}

/** The heat study of a rubber against a cast, where one is ready. */
export type HeatOf = (rubber: Rubber, cast: Cast) => HeatStudy | null;
const noStudy: HeatOf = () => null;

/** Judges every contact of a job that has been decided so far. The verdict is that of the worst link. */
export function judgeChain(q: FitQuestion, catalogue: Catalogue, heatOf: HeatOf = noStudy): Chain {
  const surface = pick(catalogue.surfaces, q.surfaceId);
  const sealer = pick(catalogue.releases, q.sealerId);
  const release = pick(catalogue.releases, q.releaseId);
  const clay = pick(catalogue.surfaces, q.clayId);
  const rubber = pick(catalogue.rubbers, q.rubberId);
  const second = pick(catalogue.rubbers, q.secondRubberId);
  const cast = pick(catalogue.casts, q.castId);
  const links: Link[] = [];
  const unanswered: string[] = [];
  if (!surface) unanswered.push("what the master is made of");
  if (!rubber) unanswered.push("which rubber");
  if (!cast) unanswered.push("what to cast");

  if (surface && rubber) links.push(judge("surface-rubber", preparedSurface(surface, sealer, release), rubber));
  if (clay && rubber) links.push(judge("clay-rubber", clay, rubber));
  const parts = release !== null && release.traits.includes("rubber-to-rubber");
  const under = (r: Rubber, id = r.id, name = r.name): Party => ({
    id: parts ? `${id}+${release.id}` : id,
    name: parts ? `${name} under ${release.name.toLowerCase()}` : name,
    traits: parts ? [...r.traits, "released"] : r.traits,
  });
  if (rubber && second) links.push(judge("rubber-rubber", under(rubber), second));
  const plug = pick(catalogue.rubbers, q.plugRubberId ?? null);
  if (rubber && plug) {
    // Either way they are cast against the master; then each half against them, or they against each half.
    if (surface && plug.id !== rubber.id) links.push(judge("surface-rubber", preparedSurface(surface, sealer, release), plug));
    for (const half of second && second.id !== rubber.id ? [rubber, second] : [rubber])
      links.push(
        q.plugsLast
          ? judge("rubber-rubber", under(half, `half+${half.id}`), { ...plug, id: `plug+${plug.id}`, name: `Plug of ${plug.name}` })
          : judge("rubber-rubber", under(plug, `plug+${plug.id}`, `Plug of ${plug.name}`), half),
      );
  }
  const wall = pick(catalogue.rubbers, q.seamRubberId ?? null);
  if (rubber && wall && wall.id !== rubber.id) {
    if (surface) links.push(judge("surface-rubber", preparedSurface(surface, sealer, release), wall));
    links.push(judge("rubber-rubber", { id: `wall+${wall.id}`, name: `Seam wall of ${wall.name}`, traits: [...wall.traits, "to-bond"] }, rubber));
  }
  const box = pick(catalogue.boxes, q.boxId);
  // Nothing known against a box, a seam or a finish is nothing to report: only what a rule speaks of becomes a link.
  const besides = (contact: Contact, left: Party, right: Party): void => {
    if (RULES.some((r) => r.contact === contact && fires(r, left, right))) links.push(judge(contact, left, right));
  };
  if (rubber) {
    if (box) besides("box-rubber", box, rubber);
    besides("seal-rubber", { name: SEALINGS[q.sealing].label, traits: SEALINGS[q.sealing].traits }, rubber);
    besides("jacket-rubber", { name: JACKETS[q.jacket].label, traits: JACKETS[q.jacket].traits }, rubber);
  }
  if (cast)
    besides(
      "cast-finish",
      { name: cast.name, traits: [...cast.traits, ...(release?.traits.filter((t) => t === "not-for-paint") ?? [])] },
      { name: FINISHES[q.finish].label, traits: FINISHES[q.finish].traits },
    );
  const meets = [rubber, second, plug, wall].filter((r): r is Rubber => r !== null).filter((r, i, all) => all.findIndex((o) => o.id === r.id) === i);
  for (const r of meets)
    if (cast)
      links.push(
        judge("rubber-cast", { ...r, traits: r.foodDeclared ? [...r.traits, "food-declared"] : r.traits.filter((t) => t !== "food-declared") }, cast, [
          heatFinding(r, cast, heatOf(r, cast)),
        ]),
      );
  if (cast) {
    links.push(
      judge("release-cast", release ? { name: release.name, traits: release.traits } : { name: "No release", traits: ["no-release"] }, castParty(cast, q.use)),
    );
    links.push(
      judge(
        "mould-cast",
        { name: "This mould", traits: [`held-${q.held}` as const, ...(q.washedToday ? (["washed-today"] as const) : (["dry"] as const))] },
        cast,
      ),
    );
    const use: Party = { name: USE_LABEL[q.use], traits: [`use:${q.use}`] };
    links.push(judge("cast-use", castParty(cast, q.use), use));
    const inner = new Set(q.innerCastIds ?? []);
    inner.delete(cast.id);
    for (const id of inner) {
      const layer = pick(catalogue.casts, id);
      if (layer) besides("cast-use", castParty(layer, q.use), use);
    }
  }
  const answered = links.map((l) => tested(l, catalogue));
  return {
    verdict: unanswered.length > 0 && answered.every((l) => l.verdict === "sound") ? "untested" : worstOf(answered.map((l) => l.verdict)),
    links: answered,
    unanswered,
  };
}

const castParty = (cast: Cast, use: Use): Party => ({
  name: cast.name,
  traits: use === "food" && cast.family !== "food" ? [...cast.traits, "meets-food"] : cast.traits,
});
