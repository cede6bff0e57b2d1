import { ASKED_FOR, PLAIN } from "../material/traits";
import { BUILT_IN, Material } from "../material";
import { catalogueOf } from "../material";
import { cheapestChanges,judgeChain,NOTHING_SAID,RULES,VERDICTS,type FitQuestion } from ".";

const catalogue = catalogueOf();
const BLANK: FitQuestion = NOTHING_SAID;
const PT = { rubberId: "rubber-platinum-medium-25" };
const SN = { rubberId: "rubber-tin-medium-25" };
const AC = { rubberId: "rubber-acetic-sealant" };
const FOOD = { rubberId: "rubber-platinum-food-22" };
const on = (surface: string, coats: Partial<FitQuestion> = {}): Partial<FitQuestion> => ({ surfaceId: `surface-${surface}`, ...coats });
const lacquer = { sealerId: "release-acrylic" };
const shellac = { sealerId: "release-shellac" };
const waxed = { releaseId: "release-wax" };
const oiled = { releaseId: "release-silicone-oil" };
const cast = (name: string, more: Partial<FitQuestion> = {}): Partial<FitQuestion> => ({ castId: `cast-${name}`, ...more });

const PU = { rubberId: "rubber-urethane-40" };

/** For every rule: a question on which it speaks, and one close by on which it does not. */
const PAIRS: Record<string, [speaks: Partial<FitQuestion>, silent: Partial<FitQuestion>]> = {
  "urethane-rubber-bare": [{ ...PU, ...on("metal") }, { ...PU, ...on("metal", waxed) }],
  "urethane-rubber-released": [{ ...PU, ...on("metal", waxed) }, { ...PU, ...on("silicone-tin", waxed) }],
  "urethane-rubber-porous": [{ ...PU, ...on("wood-bare", waxed) }, { ...PU, ...on("wood-bare", { ...shellac, ...waxed }) }],
  "urethane-rubber-wet": [{ ...PU, ...on("water-clay", waxed) }, { ...SN, ...on("water-clay", waxed) }],
  "urethane-rubber-wet-clay": [{ ...PU, clayId: "surface-water-clay" }, { ...PU, clayId: "surface-oil-clay-free" }],
  "urethane-rubber-second": [{ ...PU, secondRubberId: PU.rubberId }, { ...PU, secondRubberId: PU.rubberId, releaseId: "release-petroleum" }],
  "urethane-rubber-second-released": [{ ...PU, secondRubberId: PU.rubberId, releaseId: "release-petroleum" }, { ...PU, secondRubberId: PU.rubberId }],
  "platinum-on-urethane-rubber": [{ ...PU, secondRubberId: PT.rubberId }, { ...PU, secondRubberId: SN.rubberId }],
  "urethane-rubber-every-cast": [{ ...PU, ...cast("concrete") }, { ...PU, ...cast("beeswax") }],
  "urethane-rubber-resin": [{ ...PU, ...cast("fast-urethane") }, { ...PU, ...cast("slow-epoxy") }],
  "urethane-rubber-styrene": [{ ...PU, ...cast("polyester") }, { ...PU, ...cast("slow-epoxy") }],
  "urethane-rubber-food": [{ ...PU, ...cast("dark-chocolate") }, { ...PU, ...cast("beeswax") }],
  "urethane-rubber-soap": [{ ...PU, ...cast("soap") }, { ...PU, ...cast("beeswax") }],
  "wall-lets-go": [{ ...PT, seamRubberId: PU.rubberId }, { ...PT, seamRubberId: "rubber-platinum-fast-20" }],
  "wall-lets-go-silicone": [{ ...PU, seamRubberId: PT.rubberId }, { ...PU, seamRubberId: PU.rubberId }],
  "urethane-rubber-jacket": [{ ...PU, jacket: "polyester-resin" }, { ...PU, jacket: "epoxy-putty" }],
  "stone-oiled": [{ ...SN, ...on("stone", { ...lacquer, releaseId: "release-petroleum" }) }, { ...SN, ...on("stone", { ...lacquer, ...waxed }) }],
  "clay-water": [{ ...PT, clayId: "surface-water-clay" }, { ...PT, clayId: "surface-oil-clay-free" }],
  "burns-not-wax": [{ ...cast("concrete", { use: "burns" }) }, { ...cast("beeswax", { use: "burns" }) }],
  "burns-wick": [{ ...cast("beeswax", { use: "burns" }) }, { ...cast("beeswax", { use: "candle" }) }],
  "platinum-polymer-clay": [{ ...PT, ...on("polymer-clay") }, { ...SN, ...on("polymer-clay") }],
  "platinum-urethane": [{ ...PT, ...on("urethane") }, { ...PT, ...on("urethane", lacquer) }],
  "leaf-spent": [{ ...PT, ...on("leaf") }, { ...PT, ...on("water-clay") }],
  "cement-surface": [{ ...SN, ...on("cement", shellac) }, { ...SN, ...on("cement", { ...shellac, ...waxed }) }],
  "platinum-sulphur": [{ ...PT, ...on("oil-clay-sulphur") }, { ...SN, ...on("oil-clay-sulphur") }],
  "platinum-sulphur-barrier": [{ ...PT, ...on("oil-clay-sulphur", lacquer) }, { ...PT, ...on("oil-clay-sulphur", shellac) }],
  "platinum-tin-surface": [{ ...PT, ...on("silicone-tin") }, { ...SN, ...on("silicone-tin") }],
  "platinum-uv-print": [{ ...PT, ...on("print-uv-resin") }, { ...PT, ...on("print-uv-resin", lacquer) }],
  "platinum-uv-print-barrier": [{ ...PT, ...on("print-uv-resin", lacquer) }, { ...SN, ...on("print-uv-resin", lacquer) }],
  "platinum-bare-wood": [{ ...PT, ...on("wood-bare") }, { ...PT, ...on("wood-bare", shellac) }],
  "platinum-coating": [{ ...PT, ...on("wood-sealed") }, { ...SN, ...on("wood-sealed") }],
  "platinum-clay-unknown": [{ ...PT, ...on("oil-clay-free") }, { ...PT, ...on("oil-clay-sulphur") }],
  "platinum-amine": [{ ...PT, ...on("epoxy") }, { ...SN, ...on("epoxy") }],
  "platinum-amine-barrier": [{ ...PT, ...on("epoxy", lacquer) }, { ...PT, ...on("epoxy", shellac) }],
  "platinum-styrene": [{ ...PT, ...on("polyester") }, { ...PT, ...on("polyester", lacquer) }],
  "platinum-styrene-barrier": [{ ...PT, ...on("polyester", lacquer) }, { ...SN, ...on("polyester", lacquer) }],
  "platinum-vinyl": [{ ...PT, ...on("vinyl") }, { ...SN, ...on("vinyl") }],
  "vinyl-oil": [{ ...SN, ...on("vinyl") }, { ...SN, ...on("print-uv-resin") }],
  "platinum-paint": [{ ...PT, ...on("painted") }, { ...SN, ...on("painted") }],
  "polyester-attack": [{ ...PT, ...cast("polyester") }, { ...PT, ...cast("slow-epoxy") }],
  "acetic-skin": [{ ...AC, ...cast("soap") }, { ...AC, ...cast("beeswax") }],
  "silicone-bonds-silicone": [{ ...PT, ...on("silicone") }, { ...PT, ...on("silicone", waxed) }],
  "silicone-released": [{ ...PT, ...on("silicone", waxed) }, { ...PT, ...on("silicone", oiled) }],
  "silica-grips": [{ ...SN, ...on("glass") }, { ...SN, ...on("glass", waxed) }],
  "silica-released": [{ ...SN, ...on("glazed-ceramic", waxed) }, { ...SN, ...on("metal", waxed) }],
  "porous-unsealed": [{ ...SN, ...on("plaster") }, { ...SN, ...on("plaster", shellac) }],
  "porous-sealed": [{ ...SN, ...on("plaster", shellac) }, { ...SN, ...on("metal", shellac) }],
  "stone-stain": [{ ...SN, ...on("stone") }, { ...SN, ...on("stone", lacquer) }],
  "wet-clay": [{ ...PT, ...on("water-clay") }, { ...PT, ...on("oil-clay-free") }],
  "wet-clay-tin": [{ ...SN, ...on("water-clay") }, { ...PT, ...on("water-clay") }],
  "wax-heat": [{ ...SN, ...on("wax") }, { ...SN, ...on("metal") }],
  "layered-print": [{ ...SN, ...on("print-filament") }, { ...SN, ...on("print-uv-resin") }],
  "metal-acetic": [{ ...AC, ...on("metal") }, { ...SN, ...on("metal") }],
  "acetic-slow": [{ ...AC, ...on("oil-clay-free") }, { ...SN, ...on("oil-clay-free") }],
  "released-oily-platinum": [{ ...PT, ...on("metal", { releaseId: "release-spray" }) }, { ...PT, ...on("metal", waxed) }],
  "clay-platinum": [{ ...PT, clayId: "surface-oil-clay-sulphur" }, { ...SN, clayId: "surface-oil-clay-sulphur" }],
  "clay-free-platinum": [{ ...PT, clayId: "surface-oil-clay-free" }, { ...SN, clayId: "surface-oil-clay-free" }],
  "second-platinum-on-tin": [{ ...SN, secondRubberId: PT.rubberId }, { ...PT, secondRubberId: SN.rubberId }],
  "second-platinum-on-acetic": [{ ...AC, secondRubberId: PT.rubberId }, { ...AC, secondRubberId: AC.rubberId }],
  "second-bonds": [{ ...PT, secondRubberId: PT.rubberId }, { ...PT, secondRubberId: PT.rubberId, ...waxed }],
  "second-released": [{ ...PT, secondRubberId: PT.rubberId, ...waxed }, { ...PT, secondRubberId: PT.rubberId, ...oiled }],
  "urethane-wear": [{ ...PT, ...cast("fast-urethane") }, { ...PT, ...cast("slow-epoxy") }],
  "epoxy-wear": [{ ...PT, ...cast("slow-epoxy") }, { ...PT, ...cast("fast-urethane") }],
  "epoxy-platinum-fresh": [{ ...SN, ...cast("slow-epoxy") }, { ...PT, ...cast("slow-epoxy") }],
  "cement-wear": [{ ...PT, ...cast("concrete") }, { ...PT, ...cast("plaster") }],
  "oil-swell": [{ ...FOOD, ...cast("dark-chocolate") }, { ...FOOD, ...cast("gelatine") }],
  "food-not-declared": [{ ...PT, ...cast("gelatine") }, { ...FOOD, ...cast("gelatine") }],
  "food-declared": [{ ...FOOD, ...cast("gelatine") }, { ...FOOD, ...cast("beeswax") }],
  "soap-skin": [{ ...SN, ...cast("soap") }, { ...PT, ...cast("soap") }],
  "food-release": [cast("gelatine", waxed), cast("gelatine", { releaseId: "release-food-oil" })],
  "release-paint": [cast("plaster", oiled), cast("plaster", waxed)],
  "release-oily-cement": [cast("concrete", { releaseId: "release-petroleum" }), cast("beeswax", { releaseId: "release-petroleum" })],
  "food-after-other": [cast("gelatine", { held: "non-food" }), cast("gelatine", { held: "food" })],
  "other-after-food": [cast("plaster", { held: "food" }), cast("plaster", { held: "non-food" })],
  "washed-metal": [cast("pewter", { washedToday: true }), cast("plaster", { washedToday: true })],
  "metal-dry": [cast("pewter"), cast("pewter", { washedToday: true })],
  "gypsum-outdoors": [cast("plaster", { use: "outdoors" }), cast("concrete", { use: "outdoors" })],
  "polymer-gypsum-outdoors": [cast("polymer-gypsum", { use: "outdoors" }), cast("plaster", { use: "outdoors" })],
  "wax-outdoors": [cast("paraffin", { use: "outdoors" }), cast("paraffin")],
  "raw-mineral-food": [cast("concrete", { use: "food" }), cast("gelatine", { use: "food" })],
  "resin-food": [cast("slow-epoxy", { use: "food" }), cast("slow-epoxy", { use: "hung" })],
  "metal-food": [cast("bronze", { use: "food" }), cast("pewter", { use: "food" })],
  "metal-food-free": [cast("pewter", { use: "food" }), cast("bronze", { use: "food" })],
  "candle-porous": [cast("concrete", { use: "candle" }), cast("pewter", { use: "candle" })],
  "candle-burnable": [cast("beeswax", { use: "candle" }), cast("beeswax")],
  "candle-resin": [cast("fast-urethane", { use: "candle" }), cast("fast-urethane")],
  "hung-heavy": [cast("concrete", { use: "hung" }), cast("plaster", { use: "hung" })],
  "hung-thin": [cast("plaster", { use: "hung" }), cast("gfrc-back", { use: "hung" })],
  "toy-metal": [cast("bronze", { use: "toy" }), cast("pewter", { use: "toy" })],
  "box-porous": [{ ...SN, boxId: "box-plywood-12" }, { ...SN, boxId: "box-melamine-16" }],
  "box-wood-platinum": [{ ...PT, boxId: "box-mdf-12" }, { ...SN, boxId: "box-mdf-12" }],
  "box-metal-acetic": [{ ...AC, boxId: "box-metal-flashing" }, { ...PT, boxId: "box-metal-flashing" }],
  "seal-acetic-platinum": [{ ...PT, sealing: "acetic-sealant" }, { ...SN, sealing: "acetic-sealant" }],
  "seal-neutral-platinum": [{ ...PT, sealing: "neutral-sealant" }, { ...SN, sealing: "neutral-sealant" }],
  "seal-sulphur-platinum": [{ ...PT, sealing: "clay-sulphur" }, { ...PT, sealing: "clay-free" }],
  "seal-sealant-bonds": [{ ...SN, sealing: "neutral-sealant" }, { ...SN, sealing: "same-rubber" }],
  "seal-hot-glue-leak": [{ ...PT, sealing: "hot-glue" }, { ...PT, sealing: "same-rubber" }],
  "seal-tape-leak": [{ ...SN, sealing: "tape" }, { ...SN, sealing: "none" }],
  "jacket-styrene": [{ ...SN, jacket: "polyester-resin" }, { ...SN, jacket: "epoxy-putty" }],
  "jacket-epoxy-green": [{ ...PT, jacket: "epoxy-putty" }, { ...SN, jacket: "epoxy-putty" }],
  "jacket-urethane-grip": [{ ...PT, jacket: "urethane" }, { ...PT, jacket: "timber" }],
  "jacket-plaster-heat": [{ ...PT, jacket: "plaster" }, { ...PT, jacket: "none" }],
  "finish-wax-paint": [cast("beeswax", { finish: "paint" }), cast("beeswax", { finish: "seal" })],
  "finish-damp-seal": [cast("plaster", { finish: "seal" }), cast("concrete", { finish: "seal" })],
  "finish-damp-paint": [cast("plaster", { finish: "paint" }), cast("pewter", { finish: "paint" })],
  "finish-cement-paint": [cast("concrete", { finish: "paint" }), cast("concrete", { finish: "seal" })],
  "finish-oil-paint": [cast("plaster", { finish: "paint", ...oiled }), cast("plaster", { finish: "paint", ...waxed })],
  "finish-oil-glue": [cast("plaster", { finish: "glue", ...oiled }), cast("plaster", { finish: "glue", ...waxed })],
  "finish-resin-paint": [cast("fast-urethane", { finish: "paint" }), cast("fast-urethane", { finish: "glue" })],
  "finish-food-seal": [cast("hard-sugar", { finish: "seal" }), cast("hard-sugar")],
};

const findings = (q: Partial<FitQuestion>) => judgeChain({ ...BLANK, ...q }, catalogue).links.flatMap((l) => l.findings.map((f) => ({ ...f, worst: l.verdict })));

describe("every contact rule", () => {
  it("has a question it speaks on and one it does not", () => {
    expect(Object.keys(PAIRS).sort()).toEqual(RULES.map((r) => r.id).sort());
    expect(RULES.length).toBeGreaterThanOrEqual(60);
  });

  it.each(Object.entries(PAIRS))("%s", (id, [speaks, silent]) => {
    const rule = RULES.find((r) => r.id === id)!;
    const found = findings(speaks).find((f) => f.ruleId === id);
    expect(found).toMatchObject({ verdict: rule.verdict, reason: rule.reason, remedy: rule.remedy });
    // A link is never better than a rule that speaks on it.
    expect(VERDICTS.indexOf(found!.worst)).toBeGreaterThanOrEqual(VERDICTS.indexOf(rule.verdict));
    expect(findings(silent).map((f) => f.ruleId)).not.toContain(id);
  });

  it("a barrier is with care, never sound", () => {
    for (const surface of ["oil-clay-sulphur", "print-uv-resin", "epoxy", "polyester", "latex"]) {
      for (const r of catalogue.releases.filter((x) => x.traits.includes("barrier"))) {
        const link = judgeChain({ ...BLANK, ...PT, ...on(surface, { sealerId: r.id }) }, catalogue).links[0]!;
        expect([r.id, link.verdict]).toEqual([r.id, "care"]);
      }
    }
  });
});

describe("loose plugs", () => {
  const plugs = (q: Partial<FitQuestion>) => judgeChain({ ...BLANK, ...q }, catalogue).links.filter((l) => l.contact === "rubber-rubber");

  it("are judged against the rubber poured round them, and against the cast", () => {
    expect(plugs({ ...PT, plugRubberId: SN.rubberId, ...waxed })[0]).toMatchObject({ verdict: "no", between: [expect.stringMatching(/^Plug of Tin 25 A/), expect.any(String)] });
    expect(plugs({ ...PT, plugRubberId: PT.rubberId })[0]!.findings.map((f) => f.ruleId)).toContain("second-bonds");
    expect(plugs({ ...PT, plugRubberId: PT.rubberId, ...waxed })[0]!.verdict).toBe("care");
    expect(plugs(PT)).toEqual([]);
    const cast = judgeChain({ ...BLANK, ...FOOD, plugRubberId: PT.rubberId, castId: "cast-gelatine" }, catalogue).links.filter((l) => l.contact === "rubber-cast");
    expect(cast.map((l) => l.verdict)).toEqual(["care", "no"]);
  });
});

describe("what is cast first, and what is meant to grow together", () => {
  const rubbers = (q: Partial<FitQuestion>) => judgeChain({ ...BLANK, ...q }, catalogue).links.filter((l) => l.contact === "rubber-rubber");

  it("platinum plugs cast last into tin halves stay slimy; tin plugs cast last into platinum do not", () => {
    const last = { plugsLast: true, ...waxed };
    expect(rubbers({ ...SN, secondRubberId: SN.rubberId, plugRubberId: PT.rubberId, ...last }).map((l) => l.verdict)).toContain("no");
    const tin = rubbers({ ...PT, plugRubberId: SN.rubberId, ...last });
    expect(tin.map((l) => l.verdict)).toEqual(["care"]);
    expect(tin[0]!.between).toEqual([expect.stringMatching(/^Platinum/), expect.stringMatching(/^Plug of Tin/)]);
    // The other way round the same two are a no.
    expect(rubbers({ ...PT, plugRubberId: SN.rubberId, ...waxed }).map((l) => l.verdict)).toContain("no");
  });

  it("a seam wall of the skin's family needs no release, one of another family lets go or stops the cure", () => {
    const wall = (skin: string, seam: string) => rubbers({ rubberId: skin, seamRubberId: seam });
    expect(wall(PT.rubberId, "rubber-platinum-fast-20").map((l) => l.verdict)).toEqual(["sound"]);
    expect(wall(PT.rubberId, SN.rubberId)[0]!.findings.map((f) => f.ruleId)).toContain("second-platinum-on-tin");
    expect(wall(PT.rubberId, PT.rubberId)).toEqual([]);
  });

  it("what lies behind the face meets the use: a wax core is no candle holder, whatever its face", () => {
    const q = cast("concrete", { use: "candle", innerCastIds: ["cast-beeswax"] });
    const uses = judgeChain({ ...BLANK, ...q }, catalogue).links.filter((l) => l.contact === "cast-use");
    expect(uses.map((l) => l.verdict)).toEqual(["care", "no"]);
    expect(judgeChain({ ...BLANK, ...cast("concrete", { use: "candle" }) }, catalogue).links.filter((l) => l.contact === "cast-use")).toHaveLength(1);
  });
});

describe("what seals what", () => {
  const surfaceOf = (q: Partial<FitQuestion>) => judgeChain({ ...BLANK, ...q }, catalogue).links.find((l) => l.contact === "surface-rubber")!;
  it("soap closes plaster and nothing else; grease closes neither stone nor resinous wood", () => {
    expect(surfaceOf({ ...SN, ...on("plaster", { sealerId: "release-soap" }) }).verdict).not.toBe("no");
    expect(surfaceOf({ ...PT, ...on("wood-bare", { sealerId: "release-soap" }) }).verdict).toBe("no");
    expect(surfaceOf({ ...PT, ...on("wood-bare", { sealerId: "release-petroleum" }) }).verdict).toBe("no");
    expect(surfaceOf({ ...SN, ...on("stone", { sealerId: "release-wax" }) }).verdict).toBe("no");
    expect(surfaceOf({ ...SN, ...on("stone", { ...lacquer, ...waxed }) }).verdict).toBe("care");
  });

  it("plugs are cast against the master first: platinum ones on an epoxy master do not cure, whatever the halves are of", () => {
    const chain = judgeChain({ ...BLANK, ...SN, secondRubberId: SN.rubberId, plugRubberId: PT.rubberId, ...on("epoxy", waxed) }, catalogue);
    expect(chain.verdict).toBe("no");
    expect(chain.links.find((l) => l.findings.some((f) => f.ruleId === "platinum-amine"))).toMatchObject({ contact: "surface-rubber", verdict: "no" });
  });
});

describe("the cheapest changes", () => {
  it("never turn the piece into something else while a rubber or a release would do", () => {
    for (const q of [
      { ...PT, ...cast("pewter") },
      { ...PT, ...cast("gelatine"), use: "food" as const },
      { ...PT, ...on("stone"), ...cast("concrete") },
      { ...PT, ...on("wood-bare"), ...cast("beeswax") },
    ])
      for (const c of cheapestChanges({ ...BLANK, ...q }, catalogue, undefined, 8)) expect(c.patch.castId).toBeUndefined();
  });

  it("offer no grease on marble and no soap on resinous wood", () => {
    for (const q of [
      { ...SN, ...on("stone"), ...cast("plaster") },
      { ...PT, ...on("wood-bare"), ...cast("plaster") },
    ])
      for (const c of cheapestChanges({ ...BLANK, ...q }, catalogue, undefined, 8))
        for (const id of [c.patch.sealerId, c.patch.releaseId]) expect(["release-petroleum", "release-soap"]).not.toContain(id);
  });


  const changes = (q: Partial<FitQuestion>, most = 4) => cheapestChanges({ ...BLANK, ...q }, catalogue, undefined, most);

  it("name a release before another rubber, and lead where they say", () => {
    const q = { ...PT, secondRubberId: PT.rubberId, ...on("glass"), ...cast("beeswax") };
    const found = changes(q);
    expect(found[0]!.words).toMatch(/^release with/);
    for (const c of found) expect(judgeChain({ ...BLANK, ...q, ...c.patch }, catalogue).verdict).toBe(c.verdict);
    expect(found.map((c) => c.cost)).toEqual([...found.map((c) => c.cost)].sort((a, b) => a - b));
  });

  it("send a wrong second rubber back to the first's kind", () => {
    const found = changes({ ...SN, secondRubberId: PT.rubberId, ...waxed, ...cast("plaster") });
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]!.words).toMatch(/second half in (Tin|Acetic)/);
  });

  it("dry a washed mould rather than recast it, and make a new mould for food", () => {
    expect(changes({ rubberId: "rubber-tin-heat-30", ...cast("tin-bismuth"), washedToday: true })[0]!.words).toMatch(/dry the mould/);
    expect(changes({ ...FOOD, ...cast("gelatine"), held: "non-food" })[0]!.words).toMatch(/make a new mould/);
  });

  it("turn silver into something the mould bears", () => {
    const found = changes({ ...PT, ...on("metal"), ...cast("silver") });
    expect(found[0]!.patch.castId).toBeDefined();
    expect(found[0]!.verdict).toBe("sound");
  });

  it("prefer what the workshop has", () => {
    const mine = { ...catalogue.releases.find((r) => r.id === "release-wax")!, id: "own-wax", name: "Our wax" };
    const found = cheapestChanges({ ...BLANK, ...SN, ...on("glass") }, { ...catalogue, releases: [...catalogue.releases, mine] });
    expect(found[0]!.words).toBe("release with our wax");
  });

  it("say nothing where nothing is wrong or nothing is chosen", () => {
    expect(changes({ ...SN, ...on("metal"), ...cast("plaster") })).toEqual([]);
    expect(changes({})).toEqual([]);
  });
});

it("every trait that is asked for is asked for by some rule or reckoning, and every built-in has only traits that are known", () => {
  const asked = new Set(RULES.flatMap((r) => [...r.left, ...r.right, ...(r.unless ?? [])]));
  // Read by name, outside the rules.
  const byName = ["barrier", "silicone-oil", "silicone", "solvent", "rubber-to-rubber", "not-for-paint", "food-declared", "oil-clay", "condensation", "gypsum-surface", "soap-release", "wax-release", "oily"];
  for (const t of ASKED_FOR) expect([t, asked.has(t) || byName.includes(t)]).toEqual([t, true]);
  for (const t of PLAIN) expect([t, asked.has(t)]).toEqual([t, false]);
  for (const m of BUILT_IN) expect(Material.parse(m).traits).toEqual(m.traits);
});
