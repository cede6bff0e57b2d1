import { DEFAULT_GRID, splitLayer, type GridRules } from "./grid";
import { progressRate, rateAtReference, type Reaction } from "./reaction";
import { Enthalpy, type Substance } from "./substance";

export type Symmetry = "plate" | "cylinder" | "sphere";
/** Along how many directions heat spreads: 1 plate, 2 rod, 3 ball, and anything between. */
export const DIMENSIONS: Record<Symmetry, number> = { plate: 1, cylinder: 2, sphere: 3 };

export interface Layer {
  thicknessMm: number;
  substance: Substance;
  initialC: number;
  reaction?: Reaction;
}

/** What happens at the inner or outer end. */
export type Edge = { kind: "insulated" } | { kind: "air"; hWM2K: number; ambientC: number } | { kind: "held"; atC: number };

export interface Setup {
  /** A form, or the number of directions heat spreads in, 1 to 3. */
  symmetry: Symmetry | number;
  /** From the middle (or the inner face) outward. */
  layers: readonly Layer[];
  /** Radius at which the first layer starts, mm; 0 is the middle. Ignored for plates. */
  startMm?: number;
  /** Thermal resistance between each pair of neighbouring layers, m²·K/W; none by default. */
  contactM2KW?: readonly number[];
  inner: Edge;
  outer: Edge;
  grid?: GridRules;
}

/** γ of the two-stage, second-order, L-stable implicit Runge–Kutta scheme [Alexander 1977, SDIRK2]. */
const GAMMA = 1 - Math.SQRT1_2;
const MOST_ITERATIONS = 60;

/**
 * Heat flow in one dimension through layers, by finite volumes and the enthalpy method: plate, cylinder or sphere;
 * freezing ranges; heat of reaction; contact resistance; convection outside. Implicit, so any step is stable; enthalpy is
 * what is conserved, so energy is kept to the solver's tolerance. Lengths mm, temperatures °C, times s.
 *
 * The phase change is solved by linearising enthalpy about the last guess and projecting back onto the curve
 * [Swaminathan & Voller 1992].
 */
export class Conduction {
  /** Distance of each cell's middle from where the first layer starts, mm. */
  readonly atMm: Float64Array;
  /** Which layer each cell belongs to. */
  readonly layerOf: Int32Array;
  /** Temperature of each cell, °C. */
  readonly celsius: Float64Array;
  /** Enthalpy of each cell per volume, J/m³. */
  readonly enthalpy: Float64Array;
  /** How far each cell's reaction has come, 0 to 1. */
  readonly progress: Float64Array;
  elapsedS = 0;
  /** Heat that left through the two ends so far, J per unit of area (plate), length·radian (cylinder) or solid angle (sphere). */
  lostJ = 0;

  private readonly n: number;
  private readonly volume: Float64Array;
  private readonly curve: Enthalpy[];
  private readonly rates: number[];
  private readonly halfOut: Float64Array;
  private readonly faceArea: Float64Array;
  private readonly resistance: Float64Array;
  private readonly g: Float64Array;
  private readonly lower: Float64Array;
  private readonly diagonal: Float64Array;
  private readonly right: Float64Array;
  private readonly guess: Float64Array;
  private readonly flux: Float64Array;
  private readonly base: Float64Array;
  private readonly trial: Float64Array;
  /** Temperatures of the stage last solved, as its heat flows saw them. */
  private readonly trialC: Float64Array;
  private readonly heat: Float64Array;
  /** Temperature each guess of enthalpy stands for, and the curve each cell follows. */
  private readonly guessC: Float64Array;
  private readonly curveOf: Enthalpy[] = [];
  /** First cell of each layer. */
  private readonly starts: number[];
  private readonly reacts: boolean;
  private edgeG: [number, number] = [0, 0];

  constructor(private readonly setup: Setup) {
    const { layers } = setup;
    if (layers.length === 0) throw new RangeError("Heat needs at least one layer.");
    for (const l of layers) {
      if (!(l.thicknessMm > 0) || !Number.isFinite(l.thicknessMm))
        throw new RangeError(`A layer of ${l.thicknessMm} mm cannot conduct: it has to be thicker than 0.`);
      const s = l.substance;
      if (![s.kWMK, s.rhoKgM3, s.cJKgK].every((v) => v > 0 && Number.isFinite(v)))
        throw new RangeError(`Conductivity ${s.kWMK}, density ${s.rhoKgM3} and specific heat ${s.cJKgK} all have to be more than 0.`);
    }
    const power = (typeof setup.symmetry === "number" ? setup.symmetry : DIMENSIONS[setup.symmetry]) - 1;
    const start = power === 0 ? 0 : (setup.startMm ?? 0) / 1000;
    const cells = layers.flatMap((l, i) =>
      splitLayer(
        l.thicknessMm / 1000,
        i > 0 || setup.inner.kind !== "insulated",
        i < layers.length - 1 || setup.outer.kind !== "insulated",
        setup.grid ?? DEFAULT_GRID,
      ).map((d) => ({ d, i })),
    );
    this.n = cells.length;
    const f = () => new Float64Array(this.n);
    this.atMm = f();
    this.celsius = f();
    this.enthalpy = f();
    this.progress = f();
    this.volume = f();
    this.halfOut = f();
    this.g = f();
    this.lower = f();
    this.diagonal = f();
    this.right = f();
    this.guess = f();
    this.flux = f();
    this.base = f();
    this.trial = f();
    this.trialC = f();
    this.heat = f();
    this.guessC = f();
    this.layerOf = new Int32Array(this.n);
    this.faceArea = new Float64Array(this.n + 1);
    this.resistance = new Float64Array(this.n);
    this.curve = layers.map((l) => new Enthalpy(l.substance));
    this.rates = layers.map((l) => (l.reaction ? rateAtReference(l.reaction) : 0));

    this.reacts = this.rates.some((rate) => rate > 0);
    let r = start;
    this.faceArea[0] = r ** power;
    cells.forEach(({ d, i }, k) => {
      const out = r + d;
      this.layerOf[k] = i;
      this.atMm[k] = (r + d / 2 - start) * 1000;
      this.volume[k] = (out ** (power + 1) - r ** (power + 1)) / (power + 1);
      this.faceArea[k + 1] = out ** power;
      this.halfOut[k] = d / 2;
      const layer = layers[i]!;
      this.curveOf.push(this.curve[i]!);
      this.celsius[k] = layer.initialC;
      this.enthalpy[k] = this.curve[i]!.of(layer.initialC);
      this.resistance[k] = k > 0 && this.layerOf[k - 1] !== i ? (setup.contactM2KW?.[i - 1] ?? 0) : 0;
      r = out;
    });
    this.starts = layers.map((_, i) => this.layerOf.indexOf(i));
  }

  /** Temperature of the face between two layers, °C, seen from the inner side (0) or the outer side (1). */
  faceC(innerLayer: number, side: 0 | 1 = 1): number {
    const k = this.starts[innerLayer + 1] ?? 0;
    if (k <= 0) throw new RangeError(`There is no face outside layer ${innerLayer}.`);
    const inside = this.halfOut[k - 1]! / this.conductivity(k - 1);
    const outside = this.halfOut[k]! / this.conductivity(k);
    const gap = this.resistance[k]!;
    const q = (this.celsius[k - 1]! - this.celsius[k]!) / (inside + gap + outside);
    return side === 0 ? this.celsius[k - 1]! - q * inside : this.celsius[k]! + q * outside;
  }

  /** Temperature at a distance from where the first layer starts, °C: linear between cell middles. */
  at(mm: number): number {
    const k = this.atMm.findIndex((x) => x >= mm);
    if (k <= 0) return this.celsius[k === 0 ? 0 : this.n - 1]!;
    const [a, b] = [this.atMm[k - 1]!, this.atMm[k]!];
    const u = (mm - a) / (b - a);
    return this.celsius[k - 1]! * (1 - u) + this.celsius[k]! * u;
  }

  /** Share of a layer that is still liquid, 0 to 1, by volume. */
  liquidShare(layer: number): number {
    let liquid = 0;
    let all = 0;
    for (let k = 0; k < this.n; k++) {
      if (this.layerOf[k] !== layer) continue;
      all += this.volume[k]!;
      liquid += this.volume[k]! * this.curve[layer]!.liquidShare(this.enthalpy[k]!);
    }
    return liquid / all;
  }

  /** Heat held by one layer above 0 °C, or by all, in the unit of {@link lostJ}. */
  heldJ(layer?: number): number {
    let sum = 0;
    for (let k = 0; k < this.n; k++) if (layer === undefined || this.layerOf[k] === layer) sum += this.enthalpy[k]! * this.volume[k]!;
    return sum;
  }

  /** Fills a layer anew at one temperature, as the next pour does. */
  refill(layer: number, atC: number): void {
    for (let k = 0; k < this.n; k++) {
      if (this.layerOf[k] !== layer) continue;
      this.celsius[k] = atC;
      this.enthalpy[k] = this.curve[layer]!.of(atC);
      this.progress[k] = 0;
    }
  }

  /** Takes over the temperatures of another run's layer of the same thickness and substance. */
  copyLayer(mine: number, other: Conduction, theirs: number): void {
    const from = this.starts[mine]!;
    const to = other.starts[theirs]!;
    const offset = other.atMm[to]! - other.halfOut[to]! * 1000 - (this.atMm[from]! - this.halfOut[from]! * 1000);
    for (let k = 0; k < this.n; k++) {
      if (this.layerOf[k] !== mine) continue;
      this.celsius[k] = other.at(Math.max(this.atMm[k]! + offset, other.atMm[to]!));
      this.enthalpy[k] = this.curve[mine]!.of(this.celsius[k]!);
    }
  }

  /**
   * Runs on for `seconds`. Steps start short and lengthen with the time since the start of this call; `each` sees the state
   * after every step and may return false to stop.
   */
  run(seconds: number, each?: (dtS: number) => boolean | void, longestS = Infinity): void {
    const end = this.elapsedS + seconds;
    const from = this.elapsedS;
    while (this.elapsedS < end - 1e-9) {
      let dt = Math.min(0.002 + 0.045 * (this.elapsedS - from), longestS, this.reactionStepS(), end - this.elapsedS);
      while (!this.step(dt)) {
        dt /= 2;
        if (dt < 1e-7) throw new Error(`The heat solver did not settle at ${this.elapsedS.toFixed(3)} s: check the figures of the materials.`);
      }
      if (each?.(dt) === false) return;
    }
  }

  /** Longest step in which no reaction comes further than a thirtieth, s. */
  private reactionStepS(): number {
    if (!this.reacts) return Infinity;
    let fastest = 0;
    for (let k = 0; k < this.n; k++) {
      const layer = this.layerOf[k]!;
      const x = this.setup.layers[layer]!.reaction;
      if (x) fastest = Math.max(fastest, progressRate(x, this.rates[layer]!, this.progress[k]!, this.celsius[k]!));
    }
    return fastest > 0 ? 1 / 30 / fastest : Infinity;
  }

  private conductivity(k: number): number {
    const layer = this.layerOf[k]!;
    const s = this.setup.layers[layer]!.substance;
    if (!s.melt) return s.kWMK;
    const share = this.curve[layer]!.liquidShare(this.enthalpy[k]!);
    return s.kWMK + (s.melt.kLiquidWMK - s.kWMK) * share;
  }

  /** One step; false, with nothing changed, where the phase change did not settle. */
  private step(dt: number): boolean {
    const { n } = this;
    for (let k = 1; k < n; k++) {
      const across = this.halfOut[k - 1]! / this.conductivity(k - 1) + this.halfOut[k]! / this.conductivity(k) + this.resistance[k]!;
      this.g[k] = this.faceArea[k]! / across;
    }
    this.edgeG = [this.edge(this.setup.inner, 0, this.faceArea[0]!), this.edge(this.setup.outer, n - 1, this.faceArea[n]!)];
    const heat = this.react(dt);

    // Stage 1: H1 = H + γ·dt·f(T1). Stage 2: H2 = H + (1 − γ)·dt·f(T1) + γ·dt·f(T2).
    for (let k = 0; k < n; k++) this.base[k] = this.enthalpy[k]! * this.volume[k]! + (heat ? GAMMA * heat[k]! : 0);
    this.guess.set(this.enthalpy);
    if (!this.stage(GAMMA * dt)) return false;
    for (let k = 0; k < n; k++) this.base[k] = this.enthalpy[k]! * this.volume[k]! + (1 - GAMMA) * dt * this.flux[k]! + (heat ? heat[k]! : 0);
    const lost1 = this.lossRate();
    if (!this.stage(GAMMA * dt)) return false;
    this.lostJ += dt * ((1 - GAMMA) * lost1 + GAMMA * this.lossRate());
    for (let k = 0; k < n; k++) {
      this.enthalpy[k] = this.guess[k]!;
      this.celsius[k] = this.guessC[k]!;
      if (heat) this.progress[k] = this.trial[k]!;
    }
    this.elapsedS += dt;
    return true;
  }

  /** Heat each cell's reaction gives off in this step, J, by a midpoint rule at the temperature of its start; null without any. */
  private react(dt: number): Float64Array | null {
    if (!this.reacts) return null;
    const { heat } = this;
    for (let k = 0; k < this.n; k++) {
      const layer = this.layerOf[k]!;
      const x = this.setup.layers[layer]!.reaction;
      this.trial[k] = this.progress[k]!;
      heat[k] = 0;
      if (!x) continue;
      const r = this.rates[layer]!;
      const half = this.progress[k]! + (dt / 2) * progressRate(x, r, this.progress[k]!, this.celsius[k]!);
      const after = Math.min(1, this.progress[k]! + dt * progressRate(x, r, Math.min(1, half), this.celsius[k]!));
      this.trial[k] = after;
      heat[k] = (after - this.progress[k]!) * x.heatJM3 * this.volume[k]!;
    }
    return heat;
  }

  private edge(e: Edge, k: number, area: number): number {
    if (e.kind === "insulated" || area === 0) return 0;
    const toMiddle = this.halfOut[k]! / this.conductivity(k);
    return area / (toMiddle + (e.kind === "air" ? 1 / e.hWM2K : 0));
  }

  private edgeC(e: Edge): number {
    return e.kind === "air" ? e.ambientC : e.kind === "held" ? e.atC : 0;
  }

  private lossRate(): number {
    const last = this.n - 1;
    return this.edgeG[0] * (this.trialC[0]! - this.edgeC(this.setup.inner)) + this.edgeG[1] * (this.trialC[last]! - this.edgeC(this.setup.outer));
  }

  /** Solves V·H(T) − dt·(heat flows in) = base for `guess` (H) and leaves the flows in `flux`, W. */
  private stage(dt: number): boolean {
    const { n, volume, g, lower, diagonal, right, guess, base, trialC: c } = this;
    const [gIn, gOut] = this.edgeG;
    const [inC, outC] = [this.edgeC(this.setup.inner), this.edgeC(this.setup.outer)];
    const { guessC, curveOf } = this;
    for (let k = 0; k < n; k++) guessC[k] = curveOf[k]!.temperature(guess[k]!);
    let settled = false;
    for (let round = 0; round < MOST_ITERATIONS && !settled; round++) {
      for (let k = 0; k < n; k++) {
        const slope = curveOf[k]!.slope(guess[k]!) * volume[k]!;
        const left = k > 0 ? g[k]! : gIn;
        const rightG = k < n - 1 ? g[k + 1]! : gOut;
        lower[k] = k > 0 ? -dt * g[k]! : 0;
        diagonal[k] = slope + dt * (left + rightG);
        right[k] = base[k]! - guess[k]! * volume[k]! + slope * guessC[k]!;
      }
      right[0]! += dt * gIn * inC;
      right[n - 1]! += dt * gOut * outC;
      // Thomas algorithm; the matrix is symmetric, so the upper band is the next row's lower band.
      for (let k = 1; k < n; k++) {
        const m = lower[k]! / diagonal[k - 1]!;
        diagonal[k]! -= m * lower[k]!;
        right[k]! -= m * right[k - 1]!;
      }
      c[n - 1] = right[n - 1]! / diagonal[n - 1]!;
      for (let k = n - 2; k >= 0; k--) c[k] = (right[k]! - lower[k + 1]! * c[k + 1]!) / diagonal[k]!;
      settled = true;
      for (let k = 0; k < n; k++) {
        const before = guess[k]!;
        const after = before + curveOf[k]!.slope(before) * (c[k]! - guessC[k]!);
        guess[k] = after;
        guessC[k] = curveOf[k]!.temperature(after);
        if (Math.abs(guessC[k]! - c[k]!) > 1e-6) settled = false;
      }
    }
    if (!settled) return false;
    for (let k = 0; k < n; k++) {
      const fromLeft = k > 0 ? g[k]! * (c[k - 1]! - c[k]!) : gIn * (inC - c[k]!);
      const fromRight = k < n - 1 ? g[k + 1]! * (c[k + 1]! - c[k]!) : gOut * (outC - c[k]!);
      this.flux[k] = fromLeft + fromRight;
    }
    return true;
  }
}
