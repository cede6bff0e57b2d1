import { dossierOf, newJob, Job } from "../record";
import { catalogueOf } from "../material";
import { OPENINGS, stretchIn } from "../mould";
import { say } from "../quantity";
import { boardsFor } from ".";
import { plan } from "./plan";

const catalogue = catalogueOf();
const tray = (patch: Partial<Job> = {}): Job => ({
  ...newJob("Tray"),
  master: { ...newJob("x").master, shape: "box", sizes: { lengthMm: 220, widthMm: 130, heightMm: 90 }, surfaceId: "surface-wood-sealed" },
  rubberId: "rubber-platinum-medium-25",
  releaseId: "release-wax",
  castId: "cast-concrete",
  boxId: "box-plywood-12",
  ...patch,
});
const mould = (patch: Partial<Job["mould"]>) => ({ ...newJob("x").mould, ...patch });
const warned = (job: Job) =>
  say(
    plan(dossierOf(job, catalogue))
      .remarks.map((r) => r.message)
      .join(" "),
    "metric",
  );
const step = (job: Job, id: string) => plan(dossierOf(job, catalogue)).steps.find((s) => s.id === id)!;

describe("the plan under a heavy fill", () => {
  it("is in trouble with concrete on a thin wall, and not with wax", () => {
    const thin = tray({ mould: mould({ wallMm: 26 }) });
    expect(step(thin, "strength").state).toBe("troubled");
    expect(warned(thin)).toMatch(/walls bulge .* under this fill; 1 mm is allowed/);
    expect(step({ ...thin, castId: "cast-beeswax" }, "strength").state).toBe("settled");
  });

  it("sets four fills side by side, each as heavy as its density says", () => {
    const { strength, castBatch } = plan(dossierOf(tray(), catalogue));
    const fills = strength!.fills;
    expect(fills.map((f) => f.castId)[0]).toBe("cast-concrete");
    expect(fills).toHaveLength(4);
    const mine = fills[0]!;
    expect(mine.gMl).toBe(castBatch!.wetDensityGMl);
    for (const f of fills) expect(f.bulgeMm / mine.bulgeMm).toBeCloseTo(f.gMl / mine.gMl, 9);
    const metal = fills.find((f) => f.gMl > 6)!;
    expect(metal.grade).toBe("bulges");
  });

  it("is held by a jacket, by boards that are stiff enough, and by no boards that are not", () => {
    const thin = mould({ wallMm: 8 });
    expect(plan(dossierOf(tray({ mould: thin, jacket: "plaster" }), catalogue)).strength!.verdict).toBe("holds");
    const boards = plan(dossierOf(tray({ mould: thin, jacket: "timber" }), catalogue)).strength!;
    expect(boards.verdict).toBe("holds");
    expect(boards.boards!.straps.length).toBeGreaterThan(0);
    const foam = tray({ mould: thin, jacket: "timber", strength: { ...newJob("x").strength, boardId: "box-insulation-25", strapN: 1 } });
    expect(plan(dossierOf(foam, catalogue)).strength!.verdict).toBe("bulges");
    expect(warned(foam)).toMatch(/Insulation foam, 25 mm bows/);
  });

  it("offers the same boards before they are chosen as it plans after", () => {
    const free = tray({ mould: mould({ wallMm: 8 }) });
    const p = plan(dossierOf(free, catalogue));
    const chosen = plan(dossierOf({ ...free, jacket: "timber" }, catalogue)).strength!.boards;
    expect(boardsFor(free, catalogue, p.body!, p.layout!, p.castBatch!.wetDensityGMl)).toEqual(chosen);
  });

  it("warns of a base over a gap, a bowing box, a slender plug, and a mould that cannot let go", () => {
    const gap = plan(dossierOf(tray({ strength: { ...newJob("x").strength, bridgeMm: 150 } }), catalogue)).strength!.base!;
    expect(gap.mostMm.typical).toBeGreaterThan(0.5);
    expect(warned(tray({ boxId: "box-foam-board-5", mould: mould({ coverMm: 120 }) }))).toMatch(/longest side bows .* straps over battens/);
    expect(warned(tray({ mould: mould({ opening: "plugs", plugs: [{ name: "Bore", diameterMm: 6, lengthMm: 80, count: 1, from: "top" }] }) }))).toMatch(
      /Bore: 80 mm long on 6 mm sags/,
    );
    const vase: Job = tray({
      master: { ...newJob("x").master, shape: "frustum", sizes: { bottomMm: 30, topMm: 120, heightMm: 90 } },
      rubberId: "rubber-platinum-firm-40",
    });
    expect(warned(vase)).toMatch(/To let go it has to stretch 300 %/);
    expect(step(vase, "opening").state).toBe("troubled");
    expect(warned({ ...vase, mould: mould({ opening: "slit" }) })).toMatch(/The slit takes care of it/);
    const p = plan(dossierOf(vase, catalogue));
    expect(p.strength!.stretch).toEqual(stretchIn(vase.mould, p.body!, p.layout!, p.rubber!.elongationPct));
  });

  it("weighs everything that has to be lifted, and says where it does not go", () => {
    const job = tray({
      jacket: "plaster",
      inside: {
        ...newJob("x").inside,
        inserts: [{ kind: "rod", diameterMm: 12, lengthMm: 180, count: 2, upright: false, fromMm: 40, asideMm: 0, afterCoat: null }],
      },
      strength: { ...newJob("x").strength, stand: { lengthMm: 200, widthMm: 200, heightMm: 300, loadG: 50_000 }, chamber: { diameterMm: 120, heightMm: 120 } },
    });
    const p = plan(dossierOf(job, catalogue));
    const w = p.weights!;
    expect(p.inside!.insertsG).toBeCloseTo(2 * (Math.PI / 4) * 1.44 * 18 * 7.85, 6);
    expect(w.filledG).toBeCloseTo(w.rubberG + w.castWetG + w.jacketG!, 6);
    expect(w.castWetG).toBeCloseTo(p.castBatch!.wetG + p.inside!.insertsG, 9);
    expect(p.castMl).toBeCloseTo(p.body!.volumeMl - (2 * (Math.PI / 4) * 144 * 180) / 1000, 6);
    expect(w.boxedG!).toBeCloseTo(w.boxG! + w.rubberG + p.masterG!, 6);
    expect(p.places.map((x) => [x.name, x.fits])).toEqual([
      ["Shelf", false],
      ["Vacuum or pressure pot", false],
    ]);
    expect(say(p.places[1]!.why, "metric")).toMatch(/would froth over: degas it in \d+ cups/);
  });

  it("knows what rubber and jacket cost once it is told", () => {
    expect(plan(dossierOf(tray(), catalogue)).rubberCost).toBeNull();
    const dear = catalogueOf([{ ...catalogue.rubbers.find((r) => r.id === "rubber-platinum-medium-25")!, id: "own-dear", pricePerKg: 30 }]);
    const p = plan(dossierOf(tray({ rubberId: "own-dear" }), dear));
    expect(p.rubberCost).toBeCloseTo((p.tally.rubberG! / 1000) * 30, 9);
    const j = plan(dossierOf(tray({ jacket: "plaster", mould: mould({ jacketPricePerKg: 2 }) }), catalogue)).layout!.jacket!;
    expect(j.cost).toBeCloseTo((j.massG.typical / 1000) * 2, 9);
  });
});

describe("coats in the plan", () => {
  const skin = tray({ mould: mould({ opening: "skin" }), jacket: "plaster", rubberId: "rubber-platinum-brush-30" });
  it("wait only until the one before is tacky, the last of each section until it has cured", () => {
    const { pours, tally } = plan(dossierOf(skin, catalogue));
    expect(pours.map((p) => p.wait.until === "open")).toEqual(pours.map((_, i) => i === 4 || i === 9));
    const { tack, potLife, demould } = pours[0]!.cure;
    expect(tack.opens.typical).toBeCloseTo(2 * potLife.hours.typical, 9);
    expect(tack.opens.typical).toBeLessThan(tack.closes.typical);
    expect(tack.closes.high).toBeLessThanOrEqual(demould.hours.high);
    expect(tally.rubberOutH).toBeCloseTo(8 * tack.opens.typical + 2 * demould.hours.typical, 9);
  });
  it("are mixed with what runs off, and meet each other as rubber on rubber", () => {
    const p = plan(dossierOf(skin, catalogue));
    const coat = p.pours[1]!;
    if (coat.kind !== "coat") throw new Error("not a coat");
    expect(coat.batch!.needG).toBeCloseTo((coat.rubberMl + coat.runOffMl) * coat.rubber.densityGMl.typical, 6);
    expect(plan(dossierOf({ ...skin, releaseId: null }, catalogue)).chain.verdict).toBe("no");
    expect(p.chain.verdict).not.toBe("no");
  });
  it("ask for a rubber that suits the work", () => {
    expect(warned({ ...skin, rubberId: "rubber-platinum-putty-40" })).toMatch(/meant to be pressed on by hand, and this mould is brushed on in coats/);
    expect(warned(skin)).not.toMatch(/is meant to be/);
  });
});

it("every way of opening parses as stored, and jobs stored before there were any still do", () => {
  for (const opening of OPENINGS) expect(Job.parse({ ...tray(), mould: mould({ opening }) }).mould.opening).toBe(opening);
  const { strength, inside, make, ...old } = tray();
  const { skin, plugs, undercuts, kerfMm, jacketMm, jacketPricePerKg, boltEveryMm, ...oldMould } = old.mould;
  const parsed = Job.parse({ ...old, mould: oldMould });
  expect(parsed.mould).toMatchObject({ skin, plugs, undercuts, kerfMm, jacketMm, jacketPricePerKg, boltEveryMm });
  expect(parsed).toMatchObject({ strength, inside, make });
});
