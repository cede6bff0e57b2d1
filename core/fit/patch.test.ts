import { catalogueOf } from "../material";
import { say } from "../quantity";
import { CONTACTS, isTriable, judgeChain, NOTHING_SAID, patchProtocol, withPatch, type Finding, type FitQuestion } from ".";

const catalogue = catalogueOf();
const rubber = catalogue.rubbers.find((r) => r.id === "rubber-platinum-medium-25")!;
const finding = (ruleId: string, verdict: Finding["verdict"]): Finding => ({ ruleId, verdict, reason: "R.", remedy: "M.", confidence: "usual", source: "S" });
const blank: FitQuestion = NOTHING_SAID;

describe("the patch test", () => {
  it("says how much, where, how long and what to look for, for every contact it can answer", () => {
    const triable = CONTACTS.filter(isTriable);
    expect(triable).toEqual(["surface-rubber", "clay-rubber", "rubber-rubber", "box-rubber", "seal-rubber"]);
    const places = triable.map((c) => patchProtocol(c, rubber, 10).place);
    expect(new Set(places).size).toBe(triable.length);
    for (const c of triable) {
      const p = patchProtocol(c, rubber, 10);
      expect(p.waitH).toBe(15);
      expect(say(p.amount, "metric")).toMatch(/5.0 g of Platinum 25 A.*5 mm thick/);
      expect(say(p.amount, "us")).toMatch(/0.176 oz/);
      expect(p.look).toMatch(/no slime/);
    }
  });

  it("cannot answer for heat, food or use", () => {
    for (const c of ["rubber-cast", "mould-cast", "cast-use", "release-cast", "cast-finish", "jacket-rubber"] as const) expect(isTriable(c)).toBe(false);
  });

  it("takes the place of what was unknown, and of nothing else", () => {
    const before = [finding("known", "no"), finding("unknown", "untested"), finding("careful", "care")];
    expect(withPatch(before, { key: "k", outcome: "clean" }).map((f) => [f.ruleId, f.verdict])).toEqual([
      ["patch-clean", "care"],
      ["known", "no"],
      ["careful", "care"],
    ]);
    expect(withPatch(before, { key: "k", outcome: "tacky" })[0]).toMatchObject({ ruleId: "patch-tacky", verdict: "no" });
  });

  it("answers for a pair by its key: other coats, another rubber, another contact are other pairs", () => {
    const q = { ...blank, surfaceId: "surface-metal", rubberId: rubber.id, sealing: "neutral-sealant" as const };
    const key = (patch: Partial<FitQuestion>, contact: string) => judgeChain({ ...q, ...patch }, catalogue).links.find((l) => l.contact === contact)?.key;
    const keys = [
      key({}, "surface-rubber"),
      key({ releaseId: "release-wax" }, "surface-rubber"),
      key({ sealerId: "release-acrylic" }, "surface-rubber"),
      key({ rubberId: "rubber-tin-medium-25" }, "surface-rubber"),
      key({}, "seal-rubber"),
    ];
    expect(new Set(keys).size).toBe(keys.length);
    const seal = key({}, "seal-rubber")!;
    const verdict = (outcome: "clean" | "tacky") =>
      judgeChain(q, { ...catalogue, patches: [{ key: seal, outcome }] }).links.find((l) => l.contact === "seal-rubber")!.verdict;
    expect([verdict("clean"), verdict("tacky")]).toEqual(["care", "no"]);
  });
});
