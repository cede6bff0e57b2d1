import { ell, star, towers } from "../body/fixtures/polygons";
import { areaOf, footprintOf, halfLength, halfWidth, perimeterOf, supportOf } from "../body";
import { buildScene } from ".";
import { catalogueOf } from "../material";
import { newJob } from "../record";
import {
  bulgeOf,
  cutPlanOf,
  layOutMould,
  sectionsOf,
  stretchIn,
  thinnestSection,
  wallsOf,
  type BlockLayout,
  type MouldDecision,
  type SkinLayout,
} from "../mould";

const BODIES = { star: star(), "an L": ell(), "two towers": towers() };
const decide = (patch: Partial<MouldDecision> = {}): MouldDecision => ({ ...newJob("x").mould, ...patch });
const rubber = catalogueOf().rubbers.find((r) => r.id === "rubber-platinum-medium-25")!;

describe.each(Object.entries(BODIES))("%s", (_, body) => {
  const block = (patch: Partial<MouldDecision> = {}): BlockLayout => {
    const laid = layOutMould(body, decide(patch), null);
    if (!laid.ok || laid.layout.kind !== "block") throw new Error("not laid out");
    return laid.layout;
  };
  const skin = (): SkinLayout => {
    const laid = layOutMould(body, decide({ opening: "skin" }), null, "plaster");
    if (!laid.ok || laid.layout.kind !== "skin") throw new Error("not laid out");
    return laid.layout;
  };

  it.each(["rectangular", "cylindrical", "oval", "outline"] as const)("gets a %s box with its wall all round, and the rubber that is left", (box) => {
    const l = block({ box, wallMm: 12 });
    const foot = footprintOf(body);
    expect(l.rubberMl).toBeCloseTo((l.box.areaMm2 * l.fillHeightMm) / 1000 - body.volumeMl, 6);
    for (let i = 0; i < 90; i++) {
      const [x, y] = [Math.cos((i * Math.PI) / 45), Math.sin((i * Math.PI) / 45)];
      const reach =
        l.box.shape === "rectangular"
          ? (l.box.lengthMm / 2) * Math.abs(x) + (l.box.widthMm / 2) * Math.abs(y)
          : l.box.shape === "outline"
            ? supportOf(foot, x, y) + 12
            : Math.hypot((l.box.lengthMm / 2) * x, (l.box.widthMm / 2) * y);
      expect(reach - supportOf(foot, x, y)).toBeGreaterThan(12 - 0.02);
    }
  });

  it("is poured in two halves that share all of it", () => {
    const l = block({ opening: "twoPart", partingMm: body.heightMm / 2 });
    expect(l.pours.map((p) => p.part)).toEqual(["first", "second"]);
    expect(l.pours.reduce((s, p) => s + p.coversMl, 0)).toBeCloseTo(body.volumeMl, 6);
    expect(l.pours.reduce((s, p) => s + p.rubberMl, 0)).toBeCloseTo(l.rubberMl, 6);
  });

  it("gets a skin no smaller than its faces times its thickness, and a jacket round that", () => {
    const l = skin();
    const coats = l.pours.filter((p) => !p.name.toLowerCase().includes("high points and flanges")).reduce((s, p) => s + p.rubberMl, 0);
    expect(coats).toBeGreaterThan(((body.areaMm2 - body.levels[0]!.areaMm2) * l.skinMm * 0.9) / 1000);
    expect(coats).toBeLessThan(((body.areaMm2 - body.levels[0]!.areaMm2) * l.skinMm * 1.6) / 1000);
    expect(l.jacket!.volumeMl).toBeGreaterThan(0);
    expect(l.outside.topMm).toBeCloseTo(body.heightMm + l.skinMm, 6);
  });

  it("has walls that bulge less the thicker they are", () => {
    const most = (wallMm: number) => {
      const d = decide({ wallMm });
      return Math.max(...wallsOf(body, block({ wallMm }), d).map((w) => bulgeOf(w, rubber.shoreA, 2.2, body.heightMm, 1).mostMm.typical));
    };
    expect(most(10)).toBeGreaterThan(most(20));
    expect(most(20)).toBeGreaterThan(0);
  });

  it("lets go without stretching where it only narrows upwards, and is cut and lifted as it is", () => {
    const l = block();
    const s = stretchIn(decide(), body, l, rubber.elongationPct);
    expect(s.strain).toBeCloseTo(0, 9);
    expect(cutPlanOf(body, decide({ opening: "slit" }), l, s)!.lengthMm).toBeGreaterThan(0);
    expect(thinnestSection(body, "gypsum", 1.6, null)!.stressMPa).toBeGreaterThan(0);
    const parts = sectionsOf(body, [body.heightMm / 2], null, []);
    expect(parts.reduce((v, p) => v + p.volumeMl, 0)).toBeCloseTo(body.volumeMl, 6);
  });

  it.each(["master", "pour0", "cast"] as const)("is drawn at the stage %s with the area its section has", (stage) => {
    const layout = block();
    const scene = buildScene({ plan: { body, layout, strength: null, inside: null, gates: null }, mould: decide(), stage, panelMm: 5 })!;
    const path = scene.regions.find((r) => r.stuff === (stage === "cast" ? "cast" : "master"))!.path;
    const drawn = path
      .split("Z")
      .filter(Boolean)
      .reduce((sum, ring) => {
        const p = ring
          .slice(1)
          .split("L")
          .map((xy) => xy.split(" ").map(Number) as [number, number]);
        return sum + Math.abs(p.reduce((a, [x, z], i) => a + x * p[(i + 1) % p.length]![1] - p[(i + 1) % p.length]![0] * z, 0)) / 2;
      }, 0);
    // Level by level, the chord along the middle.
    const cut = { star: 40, "an L": 50, "two towers": 80 };
    expect(scene.master.toMm - scene.master.fromMm).toBe(body.heightMm);
    expect(Object.values(cut)).toContain(body.heightMm);
    const chord = (z: number) => {
      const level = body.levels.filter((l) => l.zMm <= z).at(-1)!;
      return level.outline.kind === "polygon" ? sliced(level.outline.rings) : 0;
    };
    let expected = 0;
    for (let i = 0; i < 400; i++) expected += (chord(((i + 0.5) / 400) * body.heightMm) * body.heightMm) / 400;
    expect(drawn / expected).toBeCloseTo(1, 2);
    expect(halfLength(footprintOf(body)) * 2).toBeCloseTo(body.lengthMm, 9);
    expect(halfWidth(footprintOf(body)) * 2).toBeCloseTo(body.widthMm, 9);
    expect(areaOf(footprintOf(body))).toBeLessThanOrEqual(body.lengthMm * body.widthMm + 1e-6);
    expect(perimeterOf(footprintOf(body))).toBeGreaterThan(0);
  });
});

/** Length of the middle line inside some rings, by sampling. */
function sliced(rings: readonly (readonly (readonly [number, number])[])[]): number {
  const inside = (x: number) =>
    rings.reduce((n, ring) => {
      let odd = false;
      for (let i = 0; i < ring.length; i++) {
        const [[ax, ay], [bx, by]] = [ring[i]!, ring[(i + 1) % ring.length]!];
        if (ay > 1e-9 !== by > 1e-9 && x < ax + ((bx - ax) * (1e-9 - ay)) / (by - ay)) odd = !odd;
      }
      return n + (odd ? 1 : 0);
    }, 0) %
      2 ===
    1;
  let length = 0;
  for (let i = 0; i < 4000; i++) if (inside(-100 + ((i + 0.5) * 200) / 4000)) length += 200 / 4000;
  return length;
}
