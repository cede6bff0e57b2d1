import { measureMaster } from "../../master";
import { newJob } from "../../record";
import { buildOrder, layOutMould, type MouldDecision } from "..";

const made = measureMaster({ shape: "cylinder", sizes: { diameterMm: 80, heightMm: 60 }, profile: [], readingMm: 0.5 });
if (!made.ok) throw new Error("no master");
const { body } = made;
const decide = (patch: Partial<MouldDecision> = {}): MouldDecision => ({ ...newJob("x").mould, opening: "threePart", partingMm: 30, ...patch });
const lay = (d: MouldDecision) => {
  const laid = layOutMould(body, d, null);
  if (!laid.ok || laid.layout.kind !== "block") throw new Error("not a block");
  return laid.layout;
};

describe("a block in three parts", () => {
  it("takes the rubber of two, the second half of it in two pours alike", () => {
    const [three, two] = [lay(decide()), lay(decide({ opening: "twoPart" }))];
    expect(three.pours.map((p) => p.name)).toEqual(["First part", "Second part", "Third part"]);
    expect(three.rubberMl).toBeCloseTo(two.rubberMl, 9);
    expect(three.pours[0]!.rubberMl).toBeCloseTo(two.pours[0]!.rubberMl, 9);
    expect(three.pours[1]!.rubberMl).toBe(three.pours[2]!.rubberMl);
    expect(three.pours.reduce((s, p) => s + p.coversMl, 0)).toBeCloseTo(body.volumeMl, 9);
    // While the second part is poured, clay stands where the third will be.
    expect(three.pours[1]!.clayMl).toBe(three.pours[2]!.rubberMl);
  });

  it("is turned once, walled once, and releases every face that meets fresh rubber", () => {
    const order = buildOrder(decide(), lay(decide()), "none");
    expect(order.map((s) => s.id)).toEqual(["master", "box", "first", "turn", "second", "wall", "third", "free"]);
    expect(order.filter((s) => s.pour !== null).map((s) => s.pour)).toEqual([0, 1, 2]);
    expect(order.find((s) => s.id === "third")!.release.join(" ")).toMatch(/second part/);
    for (const s of order) for (const id of s.after) expect(order.findIndex((o) => o.id === id)).toBeLessThan(order.indexOf(s));
  });
});
