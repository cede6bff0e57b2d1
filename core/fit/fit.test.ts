import { catalogueOf } from "../material";
import { say } from "../quantity";
import { judgeChain,NOTHING_SAID,RULES,worstOf,VERDICTS,type FitQuestion,type Verdict } from ".";

const catalogue = catalogueOf();
const blank: FitQuestion = NOTHING_SAID;
const ask = (q: Partial<FitQuestion>) => judgeChain({ ...blank, ...q }, catalogue);
const [MEDIUM, TIN, HEAT, FOOD, ACETIC] = ["rubber-platinum-medium-25", "rubber-tin-medium-25", "rubber-tin-heat-30", "rubber-platinum-food-22", "rubber-acetic-sealant"] as const;

/** Each row: the question, a rule that has to speak (or, with "!", has to stay silent), and the verdict of its link. */
const CASES: [string, Partial<FitQuestion>, string, Verdict | null][] = [
  ["platinum on sulphur clay", { surfaceId: "surface-oil-clay-sulphur", rubberId: MEDIUM }, "platinum-sulphur", "no"],
  ["the same under lacquer", { surfaceId: "surface-oil-clay-sulphur", sealerId: "release-acrylic", rubberId: MEDIUM }, "platinum-sulphur-barrier", "care"],
  ["the same under shellac, which is no barrier", { surfaceId: "surface-oil-clay-sulphur", sealerId: "release-shellac", rubberId: MEDIUM }, "platinum-sulphur", "no"],
  ["tin on sulphur clay", { surfaceId: "surface-oil-clay-sulphur", rubberId: TIN }, "!platinum-sulphur", "sound"],
  ["platinum on cured tin", { surfaceId: "surface-silicone-tin", rubberId: MEDIUM, releaseId: "release-wax" }, "platinum-tin-surface", "no"],
  ["platinum on UV print", { surfaceId: "surface-print-uv-resin", rubberId: MEDIUM }, "platinum-uv-print", "no"],
  ["tin on UV print", { surfaceId: "surface-print-uv-resin", rubberId: TIN }, "!platinum-uv-print", "sound"],
  ["silicone on silicone, bare", { surfaceId: "surface-silicone", rubberId: MEDIUM }, "silicone-bonds-silicone", "no"],
  ["silicone on silicone, released", { surfaceId: "surface-silicone", rubberId: MEDIUM, releaseId: "release-petroleum" }, "silicone-released", "care"],
  ["silicone oil does not part silicone", { surfaceId: "surface-silicone", rubberId: MEDIUM, releaseId: "release-silicone-oil" }, "silicone-bonds-silicone", "no"],
  ["glass, bare", { surfaceId: "surface-glass", rubberId: MEDIUM }, "silica-grips", "no"],
  ["glass, waxed", { surfaceId: "surface-glass", rubberId: MEDIUM, releaseId: "release-wax" }, "silica-released", "care"],
  ["bare plaster", { surfaceId: "surface-plaster", rubberId: TIN }, "porous-unsealed", "no"],
  ["sealed plaster", { surfaceId: "surface-plaster", sealerId: "release-shellac", rubberId: TIN }, "porous-sealed", "care"],
  ["bare stone stains", { surfaceId: "surface-stone", rubberId: TIN }, "stone-stain", "no"],
  ["metal under vinegar sealant", { surfaceId: "surface-metal", rubberId: ACETIC }, "metal-acetic", "no"],
  ["metal under platinum", { surfaceId: "surface-metal", rubberId: MEDIUM }, "!metal-acetic", "sound"],
  ["parting clay with sulphur", { clayId: "surface-oil-clay-sulphur", rubberId: MEDIUM }, "clay-platinum", "no"],
  ["platinum half against tin half", { rubberId: TIN, secondRubberId: MEDIUM, releaseId: "release-wax" }, "second-platinum-on-tin", "no"],
  ["same rubber twice, no release", { rubberId: TIN, secondRubberId: TIN }, "second-bonds", "no"],
  ["same rubber twice, released", { rubberId: TIN, secondRubberId: TIN, releaseId: "release-wax" }, "second-released", "care"],
  ["pewter in general platinum", { rubberId: MEDIUM, castId: "cast-pewter" }, "heat-beyond", "no"],
  ["pewter in heat-resistant tin, before the heat is worked out", { rubberId: HEAT, castId: "cast-pewter" }, "heat-pending", "untested"],
  ["tin-bismuth in general platinum", { rubberId: MEDIUM, castId: "cast-tin-bismuth" }, "heat-within", "sound"],
  ["plaster in platinum", { rubberId: MEDIUM, castId: "cast-plaster" }, "heat-within", "sound"],
  ["urethane wears rubber", { rubberId: MEDIUM, castId: "cast-fast-urethane" }, "urethane-wear", "care"],
  ["concrete wears rubber", { rubberId: MEDIUM, castId: "cast-concrete" }, "cement-wear", "care"],
  ["chocolate in undeclared rubber", { rubberId: MEDIUM, castId: "cast-dark-chocolate" }, "food-not-declared", "no"],
  ["chocolate in declared rubber", { rubberId: FOOD, castId: "cast-dark-chocolate" }, "food-declared", "care"],
  ["food after concrete", { rubberId: FOOD, castId: "cast-dark-chocolate", held: "non-food" }, "food-after-other", "no"],
  ["food after food", { rubberId: FOOD, castId: "cast-dark-chocolate", held: "food" }, "!food-after-other", "sound"],
  ["paste wax before chocolate", { rubberId: FOOD, castId: "cast-dark-chocolate", releaseId: "release-wax" }, "food-release", "no"],
  ["food oil before chocolate", { rubberId: FOOD, castId: "cast-dark-chocolate", releaseId: "release-food-oil" }, "!food-release", "sound"],
  ["no release before chocolate", { rubberId: FOOD, castId: "cast-dark-chocolate" }, "!food-release", "sound"],
  ["soap in tin", { rubberId: TIN, castId: "cast-soap" }, "soap-skin", "no"],
  ["metal in a mould washed today", { rubberId: HEAT, castId: "cast-pewter", washedToday: true }, "washed-metal", "no"],
  ["metal in a dry mould", { rubberId: HEAT, castId: "cast-pewter" }, "metal-dry", "care"],
  ["wax in a mould washed today", { rubberId: HEAT, castId: "cast-beeswax", washedToday: true }, "!washed-metal", "sound"],
  ["plaster outdoors", { castId: "cast-plaster", use: "outdoors" }, "gypsum-outdoors", "no"],
  ["concrete outdoors", { castId: "cast-concrete", use: "outdoors" }, "!gypsum-outdoors", "sound"],
  ["a plaster soap dish that touches food", { castId: "cast-plaster", use: "food" }, "raw-mineral-food", "no"],
  ["a concrete candle vessel", { castId: "cast-concrete", use: "candle" }, "candle-porous", "care"],
  ["a resin candle vessel", { castId: "cast-fast-urethane", use: "candle" }, "candle-resin", "no"],
  ["a concrete panel on the wall", { castId: "cast-concrete", use: "hung" }, "hung-heavy", "care"],
  ["lead-free pewter jewellery", { castId: "cast-pewter", use: "toy" }, "!toy-metal", "sound"],
];

describe("contact rules", () => {
  it.each(CASES)("%s", (_, question, ruleId, verdict) => {
    const chain = ask(question);
    const silent = ruleId.startsWith("!");
    const id = silent ? ruleId.slice(1) : ruleId;
    const link = chain.links.find((l) => l.findings.some((f) => f.ruleId === id));
    if (silent) expect(link).toBeUndefined();
    else expect(link?.findings.find((f) => f.ruleId === id)?.verdict).toBe(verdict);
  });

  it("each carry a reason, a remedy and a source, under an id of their own", () => {
    expect(new Set(RULES.map((r) => r.id)).size).toBe(RULES.length);
    for (const r of RULES) {
      expect(r.reason).toMatch(/^[A-Z].*\.$/);
      expect(r.remedy).toMatch(/^[A-Z].*\.$/);
      expect(r.source.length).toBeGreaterThan(5);
    }
  });

  it("a metal of unknown lead is kept from food and toys", () => {
    const odd = { ...catalogue.casts.find((c) => c.id === "cast-pewter")!, id: "own", traits: ["metal" as const, "molten" as const] };
    const withOdd = { ...catalogue, casts: [odd, ...catalogue.casts] };
    expect(judgeChain({ ...blank, castId: "own", use: "toy" }, withOdd).verdict).toBe("no");
    expect(judgeChain({ ...blank, castId: "own", use: "food" }, withOdd).verdict).toBe("no");
  });

  it("the worst link decides, and what is unknown is untested, not sound", () => {
    expect(ask({ surfaceId: "surface-glass", rubberId: MEDIUM, castId: "cast-beeswax", releaseId: "release-wax" }).verdict).toBe("care");
    const strange = { ...catalogue.surfaces[0]!, id: "own", name: "Mystery putty", traits: [] };
    const chain = judgeChain({ ...blank, surfaceId: "own", rubberId: MEDIUM }, { ...catalogue, surfaces: [strange, ...catalogue.surfaces] });
    expect(chain.verdict).toBe("untested");
    expect(chain.links[0]!.findings.map((f) => f.reason).join(" ")).toMatch(/Nothing is known of Mystery putty/);
    expect(ask({}).unanswered).toEqual(["what the master is made of", "which rubber", "what to cast"]);
  });

  it("a second rubber is judged against the cast as well", () => {
    const chain = ask({ rubberId: HEAT, secondRubberId: TIN, castId: "cast-pewter", releaseId: "release-wax" });
    expect(chain.links.filter((l) => l.contact === "rubber-cast").map((l) => l.verdict)).toEqual(["untested", "no"]);
  });

  it("speaks in the reader's units", () => {
    const reason = ask({ rubberId: MEDIUM, castId: "cast-pewter" }).links.flatMap((l) => l.findings).find((f) => f.ruleId === "heat-beyond")!.reason;
    expect(say(reason, "metric")).toMatch(/290 °C/);
    expect(say(reason, "us")).toMatch(/554 °F/);
  });

  it("orders verdicts", () => {
    expect(worstOf([...VERDICTS])).toBe("no");
    expect(worstOf([])).toBe("sound");
  });
});
