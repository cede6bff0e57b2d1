import { airPressure, DISCHARGE, flowMlS, frozenS, headToEnter, reynoldsOf, widestDryVent, type Freezing, type Liquid, thickenedMean } from "./flow";

/** What the gates of a mould are sized from. Lengths mm, volumes mL. */
export interface GateQuestion {
  volumeMl: number;
  /** Thinnest section that has to fill, and the thickest that has to be fed. */
  thinMm: number;
  thickMm: number;
  liquid: Liquid;
  surfaceTensionNM: number;
  /** A liquid that wets creeps into vents; one that does not stays out of narrow ones. */
  wets: boolean;
  headMm: number;
  /** Length of the sprue and of a vent. */
  channelMm: number;
  /** Seconds it can be poured for before it thickens; null for what freezes. */
  workingS: number | null;
  freezing: Freezing | null;
  /** Places where air stays without a vent. */
  pockets: number;
  /** How much a melt shrinks as it freezes, as a share of its volume. */
  shrinks: number;
}

export interface GateSizes {
  /** Time it has to be full in, and why. */
  allowedS: number;
  by: "freezing" | "working" | "patience";
  /** Flow on the mean, as it thickens while it runs, and of the first of it, mL/s. */
  choke: { startMm: number; mostMm: number; fillS: number; flowMlS: number; firstMlS: number; reynolds: number };
  /** Least head that pushes a melt into what is as fine as the thinnest section; 0 for what wets. */
  fineHeadMm: number;
  vents: { count: number; startMm: number; mostMm: number; overPressurePa: number };
  funnel: { topMm: number; highMm: number; volumeMl: number };
  /** Frozen before the thickest section: then nothing feeds it, and it sinks. */
  gateFreezesS: number | null;
  thickFreezesS: number | null;
  /** What goes back to the pot, and what the pot has to hold, g. */
  buttonG: number;
  potG: number;
}

/** Nobody pours one mould for longer, s. */
const PATIENCE_S = 120;
/** Share of the time it stays liquid in that it should be full in: a front that slows freezes. */
const IN_TIME = 0.5;
/** Of a setting mix a third of its working time: the rest is for the next. */
const OF_WORKING = 1 / 3;
/** Air may hold back this share of the head. */
const HELD_BACK = 0.05;
/** A knife cuts from this on, mm, and in such steps. */
const [KNIFE_MM, STEP_MM] = [1.5, 0.5];
/** Rubber cut away does not come back: from the first cut to the last. */
const OPENS_TO = 1.6;

const upTo = (mm: number): number => Math.ceil(mm / STEP_MM - 1e-9) * STEP_MM;
/** The least of a rising measure that is enough, mm. */
function least(enough: (mm: number) => boolean, most: number): number {
  let [low, high] = [0.05, most];
  if (!enough(high)) return most;
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2;
    if (enough(mid)) high = mid;
    else low = mid;
  }
  return high;
}

/** Sizes to begin with and how far to open them, by time, air, surface tension and feeding. */
export function gateSizes(q: GateQuestion): GateSizes {
  const { liquid: l } = q;
  const rho = l.densityKgM3 / 1000;
  const thinS = q.freezing ? frozenS(q.freezing, l.densityKgM3, q.thinMm / 2) : null;
  const limits: { s: number; by: GateSizes["by"] }[] = [
    ...(thinS === null ? [] : [{ s: thinS * IN_TIME, by: "freezing" as const }]),
    ...(q.workingS === null ? [] : [{ s: q.workingS * OF_WORKING, by: "working" as const }]),
    { s: PATIENCE_S, by: "patience" },
  ];
  const { s: allowedS, by } = limits.reduce((a, b) => (b.s < a.s ? b : a));
  const running: Liquid = { ...l, viscosityPaS: l.viscosityPaS * (q.workingS === null ? 1 : thickenedMean(allowedS / q.workingS)) };
  const through = (diameterMm: number, of = running) => flowMlS(of, { diameterMm, lengthMm: q.channelMm, headMm: q.headMm, discharge: DISCHARGE });
  const byTime = least((mm) => q.volumeMl / through(mm) <= allowedS, 80);
  // A melt that does not wet has to be pushed through its own skin, with head to spare.
  const bySkin = q.wets ? 0 : widestDryVent(q.headMm, rho, q.surfaceTensionNM) * 2;
  const startMm = upTo(Math.max(KNIFE_MM, byTime, bySkin));
  const flow = through(startMm);
  const dryMm = q.wets ? Infinity : widestDryVent(q.headMm, rho, q.surfaceTensionNM);
  const allowedPa = HELD_BACK * rho * 9.80665 * q.headMm;
  const ventLength = q.channelMm;
  const pressure = (count: number, diameterMm: number) => airPressure(flow, { count, diameterMm, lengthMm: ventLength }).bothPa;
  let count = Math.max(1, q.pockets);
  const ventFor = (n: number) => least((mm) => pressure(n, mm) <= allowedPa, 30);
  while (count < 12 && ventFor(count) > dryMm) count++;
  const ventStart = Math.min(dryMm, upTo(Math.max(q.wets ? 2 : 0.8, ventFor(count))));
  const funnelMl = Math.max(0.12 * q.volumeMl, 3 * q.shrinks * q.volumeMl, 1.5);
  // A cone three chokes wide and more at its top, as high as it is wide.
  const topMm = Math.max(3 * startMm, Math.cbrt((funnelMl * 1000 * 12) / Math.PI / 1.3));
  const highMm = (funnelMl * 1000 * 12) / (Math.PI * (topMm ** 2 + topMm * startMm + startMm ** 2));
  const sprueMl = ((Math.PI / 4) * startMm ** 2 * q.channelMm) / 1000;
  const buttonG = (funnelMl + sprueMl) * rho;
  return {
    allowedS,
    by,
    choke: {
      startMm,
      mostMm: upTo(startMm * OPENS_TO),
      fillS: q.volumeMl / flow,
      flowMlS: flow,
      firstMlS: through(startMm, l),
      reynolds: reynoldsOf(l, flow, startMm),
    },
    fineHeadMm: q.wets ? 0 : headToEnter(q.thinMm, rho, q.surfaceTensionNM),
    vents: { count, startMm: ventStart, mostMm: Math.min(dryMm, upTo(ventStart * OPENS_TO)), overPressurePa: pressure(count, ventStart) },
    funnel: { topMm, highMm, volumeMl: funnelMl },
    gateFreezesS: q.freezing ? frozenS(q.freezing, l.densityKgM3, startMm / 4) : null,
    thickFreezesS: q.freezing ? frozenS(q.freezing, l.densityKgM3, q.thickMm / 4) : null,
    buttonG,
    potG: q.volumeMl * rho + buttonG * 1.1,
  };
}
