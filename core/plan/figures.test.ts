import { cureState } from "../cure";
import { catalogueOf } from "../material";
import { headOf, layOutMould, pressedSides } from "../mould";
import { say } from "../quantity";
import { dossierOf, newJob, type Job } from "../record";
import { freeze, tasksOf } from ".";
import { moreHeld } from "./fitQuestion";
import { plan } from "./plan";

/** Figures of the plan worked out by hand, for sums no other test would miss. */
const catalogue = catalogueOf();
const base = newJob("Tray");
const tray = (patch: Partial<Job> = {}): Job => ({
  ...base,
  master: { ...base.master, shape: "box", sizes: { lengthMm: 200, widthMm: 100, heightMm: 50 }, surfaceId: "surface-wood-sealed" },
  rubberId: "rubber-platinum-medium-25",
  releaseId: "release-wax",
  castId: "cast-concrete",
  boxId: "box-plywood-12",
  ...patch,
});
const mould = (patch: Partial<Job["mould"]>): Partial<Job> => ({ mould: { ...base.mould, ...patch } });
const planned = (job: Job) => plan(dossierOf(job, catalogue));
const codes = (job: Job) => planned(job).remarks.map((r) => r.code);

describe("where a mould parts and what presses", () => {
  // Radius 30 at the back, 45 at 20 mm, 10 at 60 mm: widest between back and top.
  const waisted = tray({
    master: {
      ...base.master,
      shape: "turned",
      sizes: {},
      profile: [
        { zMm: 0, radiusMm: 30 },
        { zMm: 20, radiusMm: 45 },
        { zMm: 60, radiusMm: 10 },
      ],
      surfaceId: "surface-wood-sealed",
    },
    ...mould({ opening: "twoPart", baseMm: 14, partingMm: null }),
  });

  it("parts where the master is widest, above the clay bed, not at its back nor at its top", () => {
    const { layout } = planned(waisted);
    expect(layout?.kind === "block" ? layout.partingAtMm : null).toBeCloseTo(34, 6);
  });

  it("an open mould is pressed from its brim, a closed one through its cover as well", () => {
    const m = planned(tray()).body!;
    expect(headOf(m, { ...base.mould, opening: "open", coverMm: 12 })).toBe(50);
    expect(headOf(m, { ...base.mould, opening: "twoPart", coverMm: 12 })).toBe(62);
  });

  it("a box is pressed by each pour where it stands: the first on its clay, the second on the first", () => {
    const m = planned(tray()).body!;
    const lay = (patch: Partial<Job["mould"]>) => {
      const r = layOutMould(m, { ...base.mould, coverMm: 12, baseMm: 20, ...patch }, null);
      if (!r.ok || r.layout.kind !== "block") throw new Error("no block");
      return pressedSides(r.layout, 1.1).map((p) => [p.fromMm, p.depthMm]);
    };
    expect(lay({ opening: "open" })).toEqual([[0, 62]]);
    // Parted 30 mm up: above it stand 20 of master and 12 of cover; turned, 30 of master and 20 of base.
    expect(lay({ opening: "twoPart", partingMm: 30 })).toEqual([
      [50, 32],
      [32, 50],
    ]);
  });
});

describe("what is weighed", () => {
  it("dry concrete keeps the water its cement binds: 0.23 of the binder, and 40 % of what is free", () => {
    const b = planned(tray()).castBatch!;
    const dry = b.wetG / 1.14;
    const free = dry * 0.14 - 0.23 * 0.25 * dry;
    expect(b.dryG.typical).toBeCloseTo(b.wetG - 0.6 * free, 6);
    expect(b.dryG.high).toBeCloseTo(b.wetG - 0.2 * free, 6);
    expect(b.dryG.low).toBeCloseTo(b.wetG - free, 6);
  });

  it("boards round a mould weigh their perimeter by their height by their sheet", () => {
    const job = tray({ jacket: "timber", strength: { ...base.strength, boardId: "box-plywood-12" }, ...mould({ wallMm: 20, coverMm: 12 }) });
    // (200 + 40 + 100 + 40) · 2 mm round, 62 mm high, 12 mm thick, 0.6 g/mL.
    expect(planned(job).weights!.jacketG).toBeCloseTo((760 * 62 * 12 * 0.6) / 1000, 6);
  });

  it("food after anything else does not make a mould clean again, and nothing makes it new", () => {
    expect(moreHeld("non-food", "food")).toBe("non-food");
    expect(moreHeld("food", "non-food")).toBe("non-food");
    expect(moreHeld("food", "new")).toBe("food");
    expect(moreHeld("new", "food")).toBe("food");
    expect(moreHeld("new", "new")).toBe("new");
  });
});

describe("what is warned of", () => {
  it("a wrap that is pulled to more than half its strength, and not one that is pulled less", () => {
    const round = (sheet: { thicknessMm: number; low: number }) => {
      const shelves = catalogueOf([
        {
          ...catalogue.boxes.find((b) => b.id === "box-plastic-sheet-1")!,
          id: "own-sheet",
          thicknessMm: sheet.thicknessMm,
          strengthMPa: { low: sheet.low, typical: 2 * sheet.low, high: 3 * sheet.low },
        },
      ]);
      const job = tray({
        boxId: "own-sheet",
        master: { ...base.master, shape: "cylinder", sizes: { diameterMm: 200, heightMm: 300 }, surfaceId: "surface-wood-sealed" },
        ...mould({ box: "cylindrical", wallMm: 20, coverMm: 20 }),
      });
      const p = plan(dossierOf(job, shelves));
      return { used: p.strength!.hoop!.used!, said: p.remarks.some((r) => r.code === "wrap-strained") };
    };
    // p = ρ·g·h of 320 mm of this rubber over a radius of 120 mm.
    const rho = catalogue.rubbers.find((r) => r.id === "rubber-platinum-medium-25")!.densityGMl.typical;
    const hoopMPa = (rho * 1000 * 9.80665 * 0.32 * 1e-6 * 120) / 0.5;
    const near = round({ thicknessMm: 0.5, low: hoopMPa / 0.51 });
    expect(near.used).toBeCloseTo(0.51, 3);
    expect(near.said).toBe(true);
    expect(round({ thicknessMm: 0.5, low: hoopMPa / 0.49 }).said).toBe(false);
  });

  it("a pot too low for the froth: four times the mix, in four fifths of the pot", () => {
    const at = (heightMm: number) => {
      const p = planned(tray({ strength: { ...base.strength, chamber: { diameterMm: 200, heightMm } } }));
      return { mixMl: Math.max(...p.pours.map((x) => x.batch!.mixMl)), place: p.places.find((x) => x.name === "Vacuum or pressure pot")! };
    };
    const { mixMl } = at(300);
    const potMl = (heightMm: number) => (Math.PI * 100 * 100 * heightMm) / 1000;
    const least = (4 * mixMl) / 0.8 / (potMl(1000) / 1000);
    expect(at(least * 1.01).place.fits).toBe(true);
    const low = at(least * 0.99);
    expect(low.place.fits).toBe(false);
    expect(say(low.place.why, "metric")).toMatch(/would froth over: degas it in 2 cups/);
    expect(say(at(least * 0.34).place.why, "metric")).toMatch(/in 3 cups/);
  });

  it("an open vessel that rubber rises round floats as a boat: a glass bowl of 1.81 kg is lifted by more than its glass keeps out", () => {
    const bowl: Job = {
      ...base,
      rubberId: "rubber-platinum-medium-25",
      master: {
        ...base.master,
        shape: "vessel",
        sizes: { bottomMm: 180, topMm: 240, heightMm: 100, wallMm: 5, floorMm: 5 },
        surfaceId: "surface-glazed",
        massG: 1810,
      },
    };
    const p = planned(bowl);
    const outside = ((Math.PI / 3) * 100 * (90 ** 2 + 90 * 120 + 120 ** 2)) / 1000;
    const density = p.rubber!.densityGMl.typical;
    expect(p.pours[0]!.lift!.liftN).toBeCloseTo(((outside * density - 1810) / 1000) * 9.80665, 1);
    expect(p.pours[0]!.lift!.liftN).toBeGreaterThan(9.8);
  });

  it("two parts of a piece whose outline nobody knows ask where it is widest, and do not part at its back", () => {
    const skull: Job = {
      ...base,
      rubberId: "rubber-platinum-medium-25",
      master: {
        ...base.master,
        shape: "displaced",
        sizes: { volumeMl: 500, readingMl: 5, lengthMm: 120, widthMm: 100, heightMm: 90 },
        surfaceId: "surface-glazed",
      },
      mould: { ...base.mould, opening: "twoPart" },
    };
    const p = planned(skull);
    expect(p.remarks.map((r) => r.code)).toContain("parting-not-known");
    expect(p.layout!.partingAtMm! - p.layout!.masterFromMm).toBeCloseTo(45, 9);
    expect(planned({ ...skull, mould: { ...skull.mould, partingMm: 30 } }).remarks.map((r) => r.code)).not.toContain("parting-not-known");
    expect(planned({ ...skull, jacket: "plaster", mould: { ...skull.mould, opening: "skin" } }).layout!.jacket!).toMatchObject({
      parts: 2,
      why: expect.stringMatching(/outline is not known/),
    });
  });

  it("a weight that wood cannot have: six pounds in half a litre; a hollow one passes", () => {
    const of = (massG: number, surfaceId: string) =>
      codes(tray({ master: { ...base.master, shape: "box", sizes: { lengthMm: 100, widthMm: 71, heightMm: 70 }, surfaceId, massG } }));
    // 2722 g in 497 mL is 5.5 g/mL.
    expect(of(2722, "surface-wood-sealed")).toContain("weight-doubted");
    expect(of(2722, "surface-oil-clay-free")).toContain("weight-doubted");
    for (const massG of [60, 300, 380]) expect(of(massG, "surface-wood-sealed")).not.toContain("weight-doubted");
  });

  it("walls that give more than a tenth of the width, in words and not in a length", () => {
    const falls = planned(
      tray({
        mould: { ...base.mould, wallMm: 3 },
        master: { ...base.master, shape: "box", sizes: { lengthMm: 300, widthMm: 100, heightMm: 200 }, surfaceId: "surface-wood-sealed" },
      }),
    );
    expect(falls.strength!.worst!.mostMm.typical).toBeGreaterThan(10);
    const words = falls.remarks.find((r) => r.code === "walls-bulge")!.message;
    expect(words).toMatch(/does not stand alone/);
    expect(words).not.toContain("{{");
    expect(falls.steps.find((s) => s.id === "strength")!.line).toBe("It does not stand alone under its fill");
  });

  it("frost on fresh cement and wet plaster, and what never sets where it stands", () => {
    const at = (castId: string, shopC: number) => codes(tray({ castId, shopC }));
    expect([at("cast-concrete", 6).includes("frost"), at("cast-concrete", 4).includes("frost"), at("cast-plaster", 4).includes("frost")]).toEqual([
      false,
      true,
      false,
    ]);
    expect(say(planned(tray({ castId: "cast-concrete", shopC: -5 })).remarks.find((r) => r.code === "frost")!.message, "metric")).toMatch(
      /At -5 °C fresh cement freezes/,
    );
    expect(at("cast-plaster", -1)).toContain("frost");
    const soap = planned(tray({ castId: "cast-soap", shopC: 50 }));
    expect(soap.remarks.map((r) => r.code)).toContain("never-sets");
    expect(soap.tally.castOutH).toBeNull();
    // Nothing is laid over the days that never comes: the mould is, the casting is not.
    const tasks = tasksOf("j", soap, { casts: 2, build: true, degas: false, degasMin: 0, pourGMin: 400 }).map((t) => t.id);
    expect(tasks.some((id) => /cast-1/.test(id))).toBe(false);
    expect(tasks.length).toBeGreaterThan(2);
  });

  it("carries a code on every remark, and the step it belongs to", () => {
    expect(codes(tray({ mould: { ...base.mould, wallMm: 4 } }))).toEqual(expect.arrayContaining(["wall-thin", "walls-bulge"]));
  });
});

describe("how long things take", () => {
  it("what follows a part of a jacket waits until it has set: an hour for plaster", () => {
    const tasks = tasksOf("j", planned(tray({ jacket: "plaster", rubberId: "rubber-platinum-brush-30", ...mould({ opening: "skin" }) })), {
      casts: 1,
      degas: false,
      degasMin: 0,
      pourGMin: 400,
      build: true,
    });
    const waits = tasks.flatMap((t) => t.after.filter((a) => a.id.startsWith("j/jacket-")));
    expect(waits.length).toBeGreaterThan(0);
    expect(new Set(waits.map((a) => a.minMin))).toEqual(new Set([60]));
  });

  it("hands are wanted ten minutes for mixing and as long as the amount takes to pour, in steps of five", () => {
    const p = planned(tray());
    const g = p.pours[0]!.batch!.mixG;
    const pours = tasksOf("j", p, { casts: 1, degas: true, degasMin: 0, pourGMin: g / 50, build: true }).filter((t) => t.uses.includes("vacuum-pot"));
    expect(pours.map((t) => t.handsMin)).toEqual([60]);
  });

  it("a cold afternoon moves the end by what Arrhenius says", () => {
    const R = 8.314462618;
    const rule = { kind: "arrhenius" as const, hours: { low: 10, typical: 12, high: 16 }, kJ: { low: 40, typical: 52, high: 65 }, referenceC: 23 };
    const forecast = { dayC: 15, nightC: 15, dayFromMin: 480, dayToMin: 1200, zone: "UTC" };
    const start = Date.UTC(2026, 10, 26, 8);
    const s = cureState(rule, start, 20, [], forecast, start);
    const hoursAt = (c: number) => 12 * Math.exp((52_000 / R) * (1 / (c + 273.15) - 1 / (23 + 273.15)));
    expect(s.laterH).toBeCloseTo(hoursAt(15) - hoursAt(20), 1);
    expect(cureState(rule, start, 15, [], forecast, start).laterH).toBeCloseTo(0, 6);
  });

  it("plaster of 25 mm mean thickness is dry in 2 to 12 days at 20 °C, five as a rule; half as thick in a quarter", () => {
    // A slab so wide that its edges do not count: 2·V/A of L × W × t is t / (1 + t/L + t/W).
    const slab = (t: number) =>
      planned(
        tray({
          castId: "cast-plaster",
          shopC: 20,
          master: { ...base.master, shape: "box", sizes: { lengthMm: 1000, widthMm: 1000, heightMm: t }, surfaceId: "surface-wood-sealed" },
        }),
      );
    const mean = (t: number) => t / (1 + (2 * t) / 1000);
    const dry = (t: number) => slab(t).castCure!.finished!.hours;
    expect(dry(25).typical / 24).toBeCloseTo(5 * (mean(25) / 25) ** 2, 6);
    expect(dry(25).low / 24).toBeCloseTo(2 * (mean(25) / 25) ** 2, 6);
    expect(dry(25).high / 24).toBeCloseTo(12 * (mean(25) / 25) ** 2, 6);
    expect(dry(50).typical / dry(25).typical).toBeCloseTo((mean(50) / mean(25)) ** 2, 9);
  });
});

describe("what is frozen of a pour", () => {
  it("a casting keeps its family, the volume it took and how long it could be worked; rubber keeps its own", () => {
    const p = planned(
      tray({
        inside: {
          ...base.inside,
          inserts: [{ kind: "rod", diameterMm: 10, lengthMm: 100, count: 1, upright: false, fromMm: 20, asideMm: 0, afterCoat: null }],
        },
      }),
    );
    const cast = freeze(p, 7, "cast");
    const rubber = freeze(p, 7, "rubber");
    if (!cast.ok || !rubber.ok) throw new Error("nothing was frozen");
    expect(cast.snapshot).toMatchObject({ castFamily: "cement", rubberFamily: "platinum", jobRevision: 7 });
    expect(cast.snapshot.volumeMl).toBeCloseTo(1000 - (Math.PI * 25 * 100) / 1000, 6);
    expect(cast.snapshot.workingMin).toBeCloseTo(p.castCure!.working.hours.low * 60, 9);
    expect(rubber.snapshot).toMatchObject({ castFamily: null, workingMin: null, peakC: null });
    expect(rubber.snapshot.volumeMl).toBe(p.pours[0]!.rubberMl);
  });
});
