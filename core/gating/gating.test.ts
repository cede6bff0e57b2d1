import fc from "fast-check";
import { measureMaster } from "../master";
import {
  airPressure,
  BELIEVED,
  believed,
  flowMlS,
  frozenS,
  gateSizes,
  headToEnter,
  heatFactor,
  jetMlS,
  laminarMlS,
  nextCut,
  partingN,
  reckonedShare,
  reynoldsOf,
  risingBothS,
  risingFillS,
  sinksOf,
  widestDryGap,
  widestDryVent,
  type Channel,
  type Freezing,
  type GateQuestion,
  type Liquid,
  type Reckoned,
  type Trial,
} from ".";

const water: Liquid = { densityKgM3: 1000, viscosityPaS: 1e-3 };
const syrup: Liquid = { densityKgM3: 1300, viscosityPaS: 20 };
const channel: Channel = { diameterMm: 6, lengthMm: 40, headMm: 80, discharge: 0.6 };
/** ∫ f over 0 to 1 [composite midpoint, an independent sum]. */
const integral = (f: (u: number) => number, n = 200_000) => {
  let s = 0;
  for (let i = 0; i < n; i++) s += f((i + 0.5) / n);
  return s / n;
};

describe("flow through a gate", () => {
  it("is Torricelli's where the liquid is thin and Poiseuille's where it is thick, and below both", () => {
    // 0.6 · π/4 · 6² mm² · √(2 · 9.80665 · 0.08) m/s = 16.964 mm² · 1.2526 m/s.
    expect(jetMlS(channel)).toBeCloseTo(21.25, 2);
    // π · 1300 · 9.80665 · 0.08 · 0.006⁴ / (128 · 20 · 0.04) m³/s = 0.0405 mL/s.
    expect(laminarMlS(syrup, channel)).toBeCloseTo(0.0406, 3);
    expect(flowMlS(water, { ...channel, lengthMm: 0 }) / jetMlS(channel)).toBeCloseTo(1, 9);
    expect(flowMlS(syrup, channel) / laminarMlS(syrup, channel)).toBeCloseTo(1, 4);
    fc.assert(
      fc.property(
        fc.double({ min: 1e-4, max: 50, noNaN: true }),
        fc.double({ min: 1, max: 30, noNaN: true }),
        fc.double({ min: 1, max: 200, noNaN: true }),
        fc.double({ min: 1, max: 300, noNaN: true }),
        (viscosityPaS, diameterMm, lengthMm, headMm) => {
          const l = { densityKgM3: 1500, viscosityPaS };
          const c = { diameterMm, lengthMm, headMm, discharge: 0.6 };
          const q = flowMlS(l, c);
          expect(q).toBeLessThanOrEqual(Math.min(jetMlS(c), laminarMlS(l, c)) * (1 + 1e-9));
          // What both losses take adds up to the head.
          const v = (q * 1e-6) / ((Math.PI / 4) * (diameterMm / 1000) ** 2);
          const taken = (1500 * v * v) / (2 * 0.36) + (32 * viscosityPaS * (lengthMm / 1000) * v) / (diameterMm / 1000) ** 2;
          expect(taken / (1500 * 9.80665 * (headMm / 1000))).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it("against a rising level takes the time that quadrature gives, and never ends where the head is too low", () => {
    const [V, H] = [300, 60];
    const by = integral((u) => V / jetMlS({ ...channel, headMm: channel.headMm - H * u }));
    expect(risingFillS(V, H, channel)! / by).toBeCloseTo(1, 6);
    // To the brim of the head it still ends: twice the time of the full head.
    expect(risingFillS(V, 80, channel)! / ((2 * V) / jetMlS(channel))).toBeCloseTo(1, 9);
    expect(risingFillS(V, 81, channel)).toBeNull();
    const both = integral((u) => V / flowMlS(syrup, { ...channel, headMm: channel.headMm - H * u }), 20_000);
    expect(risingBothS(syrup, V, H, channel)! / both).toBeCloseTo(1, 4);
    // A thin liquid through no length is the closed form.
    expect(risingBothS({ ...water, viscosityPaS: 1e-9 }, V, H, channel)! / risingFillS(V, H, channel)!).toBeCloseTo(1, 4);
  });

  it("has the Reynolds number of its speed", () => {
    // 10 mL/s of water through 10 mm: v = 0.1273 m/s, Re = 1273.
    expect(reynoldsOf(water, 10, 10)).toBeCloseTo(1273.2, 1);
  });

  it("asks of tin some 20 mm of head for a channel of 1.6 mm, and keeps a vent dry up to that", () => {
    expect(headToEnter(1.6, 7)).toBeCloseTo(20.03, 1);
    expect(widestDryVent(headToEnter(1.6, 7), 7)).toBeCloseTo(1.6, 9);
  });

  it("pushes two halves asunder by its head over their area, and stays out of a gap half as wide as a bore", () => {
    // 7 g/mL, 100 mm of head, 40 cm²: 6865 Pa · 0.004 m² = 27.5 N.
    expect(partingN(100, 4000, 7)).toBeCloseTo(27.46, 1);
    expect(widestDryGap(60, 7, 0.55)).toBeCloseTo(widestDryVent(60, 7, 0.55) / 2, 9);
  });

  it("lets air out at the pressure of its speed, half as fast through each of two vents", () => {
    // 50 mL/s through one vent of 2 mm: v = 15.9 m/s; ½·1.18·(15.9/0.6)² = 415 Pa.
    const one = airPressure(50, { count: 1, diameterMm: 2, lengthMm: 40 });
    expect(one.orificePa).toBeCloseTo(415, -1);
    // 128·1.84e-5·0.04·5e-5/(π·0.002⁴) = 93.7 Pa.
    expect(one.laminarPa).toBeCloseTo(93.7, 0);
    const two = airPressure(50, { count: 2, diameterMm: 2, lengthMm: 40 });
    expect(two.orificePa / one.orificePa).toBeCloseTo(0.25, 9);
    expect(two.laminarPa / one.laminarPa).toBeCloseTo(0.5, 9);
    expect(airPressure(50, { count: 0, diameterMm: 2, lengthMm: 40 }).bothPa).toBe(Infinity);
  });

  it("freezes four times as late at twice the modulus, and never in a mould as warm as it freezes", () => {
    const f: Freezing = {
      latentJKg: 59_000,
      heatJKgK: 250,
      freezingC: 241,
      pourC: 290,
      mouldC: 25,
      mouldKWmK: 0.24,
      mouldDensityKgM3: 1150,
      mouldHeatJKgK: 1300,
    };
    const t = frozenS(f, 7000, 1)!;
    // (π/4)·(7000·(59000 + 250·49)·0.001/216)²/(0.24·1150·1300) = 11.7 s.
    expect(t).toBeCloseTo(11.68, 1);
    expect(frozenS(f, 7000, 2)! / t).toBeCloseTo(4, 9);
    expect(frozenS({ ...f, mouldC: 241 }, 7000, 1)).toBeNull();
  });
});

const pewter: GateQuestion = {
  volumeMl: 16,
  thinMm: 3,
  thickMm: 12,
  liquid: { densityKgM3: 6970, viscosityPaS: 0.002 },
  surfaceTensionNM: 0.55,
  wets: false,
  headMm: 45,
  channelMm: 25,
  workingS: null,
  freezing: { latentJKg: 59_000, heatJKgK: 250, freezingC: 241, pourC: 290, mouldC: 25, mouldKWmK: 0.24, mouldDensityKgM3: 1150, mouldHeatJKgK: 1300 },
  pockets: 2,
  shrinks: 0.03,
};

describe("sizes of gates", () => {
  it("fill a small pewter in time, through vents that stay dry", () => {
    const g = gateSizes(pewter);
    expect(g.by).toBe("freezing");
    expect(g.choke.fillS).toBeLessThanOrEqual(g.allowedS * (1 + 1e-9));
    expect(g.choke.startMm).toBeGreaterThanOrEqual(1.5);
    expect(g.choke.mostMm).toBeGreaterThan(g.choke.startMm);
    expect(headToEnter(g.vents.mostMm, 6.97)).toBeGreaterThanOrEqual(pewter.headMm * (1 - 1e-9));
    expect(g.vents.count).toBeGreaterThanOrEqual(2);
    expect(g.vents.overPressurePa).toBeLessThan(0.06 * 6970 * 9.81 * 0.045);
    expect(g.potG).toBeGreaterThan(16 * 6.97 + g.buttonG);
  });

  it("are wider for what is thick, and go by its working time", () => {
    const resin: GateQuestion = {
      ...pewter,
      liquid: { densityKgM3: 1100, viscosityPaS: 0.8 },
      surfaceTensionNM: 0.035,
      wets: true,
      freezing: null,
      workingS: 180,
      volumeMl: 400,
    };
    const g = gateSizes(resin);
    expect(g.by).toBe("working");
    expect(g.choke.fillS).toBeLessThanOrEqual(60);
    expect(gateSizes({ ...resin, liquid: { ...resin.liquid, viscosityPaS: 8 } }).choke.startMm).toBeGreaterThan(g.choke.startMm);
    expect(g.fineHeadMm).toBe(0);
  });

  it("fill in time although the mix thickens while it runs: by small steps of a viscosity that doubles in each quarter of its working time", () => {
    for (const viscosityPaS of [1, 4, 12]) {
      const q: GateQuestion = { ...pewter, volumeMl: 300, liquid: { densityKgM3: 1500, viscosityPaS }, wets: true, freezing: null, workingS: 300, shrinks: 0 };
      const g = gateSizes(q);
      const channel = { diameterMm: g.choke.startMm, lengthMm: q.channelMm, headMm: q.headMm, discharge: 0.6 };
      let [ml, t] = [0, 0];
      for (; ml < q.volumeMl && t < 300; t += 0.05) ml += 0.05 * flowMlS({ ...q.liquid, viscosityPaS: viscosityPaS * 2 ** ((4 * t) / 300) }, channel);
      expect(t).toBeLessThan(1.05 * g.allowedS);
      expect(g.choke.firstMlS).toBeGreaterThan(g.choke.flowMlS);
    }
  });

  it("never ask for a narrower choke where there is more to fill, less head or less time", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 500, noNaN: true }),
        fc.double({ min: 10, max: 150, noNaN: true }),
        fc.double({ min: 1.5, max: 8, noNaN: true }),
        (volumeMl, headMm, thinMm) => {
          const q = { ...pewter, volumeMl, headMm, thinMm };
          const g = gateSizes(q).choke.startMm;
          expect(gateSizes({ ...q, volumeMl: volumeMl * 2 }).choke.startMm).toBeGreaterThanOrEqual(g);
          expect(gateSizes({ ...q, headMm: headMm / 2 }).choke.startMm).toBeGreaterThanOrEqual(g);
          expect(gateSizes({ ...q, thinMm: thinMm / 1.3 }).choke.startMm).toBeGreaterThanOrEqual(g);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe("where a casting runs short", () => {
  const body = (profile: [number, number][]) => {
    const m = measureMaster({ shape: "turned", sizes: {}, profile: profile.map(([radiusMm, zMm]) => ({ radiusMm, zMm })), readingMm: 0.5 });
    if (!m.ok) throw new Error("it should measure");
    return m.body;
  };
  it("is the far ball of a dumbbell, and neither end of a cone fed from its thick end", () => {
    const dumbbell = body([
      [20, 0],
      [20, 40],
      [5, 45],
      [5, 75],
      [20, 80],
      [20, 120],
    ]);
    const sinks = sinksOf(dumbbell, [0, 0, 1], 0.03);
    expect(sinks).toHaveLength(1);
    expect(sinks[0]!.upMm).toBeLessThan(42);
    expect(sinks[0]!.neckMm).toBeCloseTo(10, 0);
    // It lacks its own shrinkage: 3 % of the far ball.
    expect(sinks[0]!.shortMl / (0.03 * Math.PI * 400 * 40 * 1e-3)).toBeGreaterThan(0.9);
    expect(sinks[0]!.shortMl / (0.03 * Math.PI * 400 * 40 * 1e-3)).toBeLessThan(1.25);
    const cone = body([
      [5, 0],
      [30, 90],
    ]);
    expect(sinksOf(cone, [0, 0, 1], 0.03)).toEqual([]);
    // On its head it is fed from its thin end: all of it is short.
    expect(sinksOf(cone, [0, 0, -1], 0.03)).toHaveLength(1);
  });
  it("follows how it stands: a bolt with its head below, above and beside", () => {
    const bolt = body([
      [25, 0],
      [25, 30],
      [6, 32],
      [6, 120],
    ]);
    // Its head is the far end of a thin shank; head up it is fed first; lying it is one thick disc beside a thin bar, both reached from above.
    const [far] = sinksOf(bolt, [0, 0, 1], 0.03);
    expect(far!.upMm).toBeLessThan(31);
    expect(far!.shortMl / (0.03 * Math.PI * 625 * 30e-3)).toBeGreaterThan(0.9);
    expect(sinksOf(bolt, [0, 0, -1], 0.03)).toEqual([]);
    for (const s of sinksOf(bolt, [1, 0, 0], 0.03)) expect(s.shortMl).toBeLessThan(0.5 * far!.shortMl);
  });
});

describe("what pours teach of a mould", () => {
  const vents = { count: 2, diameterMm: 1.5 };
  /** Pewter, 20 mL, 45 mm of head: through 3 mm it just fills before its thin parts freeze. */
  const mould: Reckoned = { volumeMl: 20, liquidS: 5.2, liquid: { densityKgM3: 6970, viscosityPaS: 0.002 }, headMm: 45, channelMm: 20, vents };
  const cut = (chokeMm: number) => ({ chokeMm, vents });
  const dice = (seed: number) => {
    let s = seed;
    const die = () => (s = (s * 48_271) % 2_147_483_647) / 2_147_483_647;
    return { die, normal: () => Math.sqrt(-2 * Math.log(die())) * Math.cos(2 * Math.PI * die()) };
  };
  /** A mould as it really is, by a search of its own for where sprue and air are in balance. */
  interface Real {
    discharge: number;
    vents: number;
    handMlS: number;
    heat: number;
  }
  const flowOf = (r: Real, chokeMm: number, through = vents): number => {
    let [low, high] = [0, 1000];
    for (let i = 0; i < 60; i++) {
      const q = (low + high) / 2;
      const one = airPressure(q, { ...through, lengthMm: mould.channelMm });
      const backMm = (one.orificePa / r.vents ** 2 + one.laminarPa / r.vents) / ((mould.liquid.densityKgM3 * 9.80665) / 1000);
      const runs =
        backMm >= mould.headMm
          ? 0
          : flowMlS(mould.liquid, { diameterMm: chokeMm, lengthMm: mould.channelMm, headMm: mould.headMm - backMm, discharge: 0.6 * r.discharge });
      if (runs > q) low = q;
      else high = q;
    }
    return Math.min(r.handMlS, (low + high) / 2);
  };
  const shareOf = (r: Real, chokeMm: number, through = vents): number => (mould.liquidS * r.heat * flowOf(r, chokeMm, through)) / mould.volumeMl;
  const PLAIN: Real = { discharge: 1, vents: 1, handMlS: 20, heat: 1 };
  /** Three pours that tell how far they got and how long they took. */
  const pours = (r: Real, chokes = [2, 2.6, 3.2], m = mould): Trial[] =>
    chokes.map((chokeMm) => {
      const share = shareOf(r, chokeMm, m.vents);
      return {
        chokeMm,
        vents: m.vents,
        full: share >= 1,
        share: share >= 1 ? null : share,
        tookS: (mould.volumeMl * Math.min(1, share)) / flowOf(r, chokeMm, m.vents),
      };
    });

  it("believes the formula before any pour: by the same flow as a search for the balance of sprue and air", () => {
    for (const mm of [1, 2, 3, 5, 8]) expect(reckonedShare(mould, cut(mm)) / shareOf(PLAIN, mm)).toBeCloseTo(1, 4);
    const before = believed([], mould);
    for (const f of BELIEVED) {
      expect(before[f].typical).toBeCloseTo(1, 1);
      expect(before[f].low).toBeLessThan(0.8);
    }
    expect(before.most).toBeNull();
    expect(before.trials).toBe(0);
  });

  it("learns each for itself: sprue, vents, hand and freezing, and says which is furthest off", () => {
    const slow = believed(pours({ ...PLAIN, discharge: 0.6 }), mould);
    expect(slow.most).toBe("discharge");
    expect(slow.discharge.typical).toBeLessThan(0.8);
    const cool = believed(pours({ ...PLAIN, heat: 0.5 }), mould);
    expect(cool.most).toBe("heat");
    expect(cool.heat.typical).toBeGreaterThan(0.4);
    expect(cool.heat.typical).toBeLessThan(0.65);
    // Its vents are nearly shut: wider sprues hardly run faster.
    const fine = { ...mould, vents: { count: 1, diameterMm: 0.5 } };
    const blocked = believed(pours({ ...PLAIN, vents: 0.3 }, [2, 3, 4, 5], fine), fine);
    expect(blocked.vents.typical).toBeLessThan(0.45);
    expect(blocked.most).toBe("vents");
    const gentle = believed(pours({ ...PLAIN, handMlS: 2.5 }, [3, 4, 5]), mould);
    expect(gentle.most).toBe("hand");
    expect(20 * gentle.hand.typical).toBeLessThan(6);
    // A wider span than before is no knowledge.
    for (const [b, f] of [
      [slow, "discharge"],
      [cool, "heat"],
    ] as const)
      expect(b[f].high / b[f].low).toBeLessThan(believed([], mould)[f].high / believed([], mould)[f].low);
    // A mould that runs six tenths as fast as reckoned asks for a wider sprue: 3/√0.6 = 3.9 mm at least.
    const next = nextCut(slow, cut(3.2), 8);
    expect(next.chokeMm).toBeGreaterThanOrEqual(4);
    expect(next.chokeMm).toBeLessThanOrEqual(5.5);
    expect(next.chance).toBeGreaterThanOrEqual(0.8);
    // Where the vents are shut another does what no sprue does.
    const widest = blocked.fills({ ...fine, chokeMm: 8 }).share;
    expect(blocked.fills({ chokeMm: 5, vents: { count: 4, diameterMm: 3 } }).share).toBeGreaterThan(widest);
  });

  it("never asks for a narrower cut after a failure, nor believes less in one that came full", () => {
    const failed = believed([{ chokeMm: 3, full: false, share: null }], mould);
    const good = believed([{ chokeMm: 3, full: true, share: null }], mould);
    const before = believed([], mould).fills(cut(3)).chance;
    expect(nextCut(failed, cut(3), 8).chokeMm).toBeGreaterThan(3);
    expect(good.fills(cut(3)).chance).toBeGreaterThan(before);
    expect(failed.fills(cut(3)).chance).toBeLessThan(before);
  });

  it("after three pours foretells the fourth better than the formula alone, on moulds it has never seen", () => {
    // Moulds with factors of their own, and pours that scatter about them; by their own dice, not by those anything was fitted with.
    const { die, normal } = dice(20_261_127);
    let [formula, learned, n] = [0, 0, 0];
    for (let i = 0; i < 200; i++) {
      const real: Real = {
        discharge: Math.exp(0.25 * normal()),
        vents: Math.exp(0.7 * normal()),
        handMlS: 20 * Math.exp(0.8 * normal()),
        heat: Math.exp(0.4 * normal()),
      };
      const cast = (mm: number): Trial => {
        const share = shareOf(real, mm) * Math.exp(0.12 * normal());
        const told = share >= 1 ? null : Math.max(0, share + 0.06 * normal());
        return {
          chokeMm: mm,
          vents,
          full: share >= 1,
          share: told,
          tookS: die() < 0.5 ? null : ((mould.volumeMl * Math.min(1, share)) / flowOf(real, mm)) * Math.exp(0.2 * normal()),
        };
      };
      const belief = believed([2, 2 + die(), 3 + die()].map(cast), mould);
      const mm = 2 + 2.5 * die();
      const truth = Math.min(1, shareOf(real, mm));
      formula += (Math.min(1, reckonedShare(mould, cut(mm))) - truth) ** 2;
      learned += (belief.fills(cut(mm)).share - truth) ** 2;
      n++;
    }
    // Root mean square error of the share filled by the formula alone, and after three pours.
    expect(Math.sqrt(formula / n)).toBeGreaterThan(0.15);
    expect(Math.sqrt(learned / n)).toBeLessThan(0.5 * Math.sqrt(formula / n));
  });

  it("counts temperatures and broken streams: it foretells better with them than with the same pours without", () => {
    const { die, normal } = dice(20_261_128);
    let [told, blind] = [0, 0];
    for (let i = 0; i < 200; i++) {
      const real: Real = { ...PLAIN, discharge: Math.exp(0.25 * normal()), heat: Math.exp(0.4 * normal()) };
      const cast = (mm: number): Trial => {
        // Pots from lukewarm to hot, and one stream in four that breaks somewhere on its way.
        const heat = Math.exp(0.35 * normal());
        const gulped = die() < 0.25;
        const share = heat * shareOf(real, mm) * Math.exp(0.1 * normal()) * (gulped ? 0.4 + 0.6 * die() : 1);
        return { chokeMm: mm, vents, full: share >= 1, share: share >= 1 ? null : Math.max(0, share + 0.06 * normal()), heat, gulped };
      };
      const trials = [2, 2 + die(), 3 + die()].map(cast);
      const mm = 2 + 2.5 * die();
      const truth = Math.min(1, shareOf(real, mm));
      told += (believed(trials, mould).fills(cut(mm)).share - truth) ** 2;
      const less = trials.map(({ chokeMm, full, share }) => ({ chokeMm, full, share }));
      blind += (believed(less, mould).fills(cut(mm)).share - truth) ** 2;
    }
    expect(Math.sqrt(told)).toBeLessThan(0.85 * Math.sqrt(blind));
    // Not full, gulped, and nobody marked how far: nothing is learned from it.
    const nothing = believed([{ chokeMm: 3, full: false, share: null, gulped: true }], mould);
    for (const f of BELIEVED) expect(nothing[f]).toEqual(believed([], mould)[f]);
  });

  it("knows how much longer a hotter melt in a warmer mould stays liquid: by its heat, and by what drives it out", () => {
    const f: Freezing = {
      latentJKg: 59_000,
      heatJKgK: 250,
      freezingC: 241,
      pourC: 275,
      mouldC: 20,
      mouldKWmK: 0.24,
      mouldDensityKgM3: 1150,
      mouldHeatJKgK: 1300,
    };
    // (59 + 0.25·(300 − 241))/(59 + 0.25·(275 − 241)), squared; and 221/201, squared.
    expect(heatFactor(f, { pourC: 300, mouldC: null })).toBeCloseTo(((59 + 0.25 * 59) / (59 + 0.25 * 34)) ** 2, 9);
    expect(heatFactor(f, { pourC: null, mouldC: 40 })).toBeCloseTo((221 / 201) ** 2, 9);
    expect(heatFactor(f, { pourC: null, mouldC: null })).toBe(1);
    expect(heatFactor(f, { pourC: null, mouldC: 300 })).toBe(1);
  });
});
