/** What conduction needs to know of a substance. SI: W/(m·K), kg/m³, J/(kg·K), J/kg, °C. */
export interface Substance {
  kWMK: number;
  rhoKgM3: number;
  cJKgK: number;
  /** Freezing between liquidus and solidus, giving off its latent heat evenly; the liquid may conduct and store otherwise. */
  melt?: { solidusC: number; liquidusC: number; latentJKg: number; kLiquidWMK: number; cLiquidJKgK: number };
}

/** Heat that plain air takes from a warm face, W/(m²·K): natural convection with radiation, usual hand value 5 to 12. */
export const AIR_H = 8;

/** Narrowest freezing range reckoned with, K: a pure metal's point is spread this wide, so that enthalpy stays a function of temperature. */
export const NARROWEST_MUSH_K = 0.2;

/**
 * Enthalpy of a substance per volume, J/m³, as a function of temperature and back: three straight pieces (solid, mushy,
 * liquid), zero at 0 °C.
 */
export class Enthalpy {
  private readonly solid: number;
  private readonly mush: number;
  private readonly liquid: number;
  private readonly solidusC: number;
  private readonly liquidusC: number;
  private readonly atSolidus: number;
  private readonly atLiquidus: number;

  constructor(s: Substance) {
    this.solid = s.rhoKgM3 * s.cJKgK;
    if (!s.melt) {
      this.solidusC = this.liquidusC = this.atSolidus = this.atLiquidus = Infinity;
      this.mush = this.liquid = this.solid;
      return;
    }
    const range = Math.max(NARROWEST_MUSH_K, s.melt.liquidusC - s.melt.solidusC);
    this.solidusC = s.melt.solidusC;
    this.liquidusC = this.solidusC + range;
    this.liquid = s.rhoKgM3 * s.melt.cLiquidJKgK;
    this.mush = s.rhoKgM3 * ((s.cJKgK + s.melt.cLiquidJKgK) / 2 + s.melt.latentJKg / range);
    this.atSolidus = this.solid * this.solidusC;
    this.atLiquidus = this.atSolidus + this.mush * range;
  }

  of(c: number): number {
    if (c <= this.solidusC) return this.solid * c;
    return c < this.liquidusC ? this.atSolidus + this.mush * (c - this.solidusC) : this.atLiquidus + this.liquid * (c - this.liquidusC);
  }

  temperature(h: number): number {
    if (h <= this.atSolidus) return h / this.solid;
    return h < this.atLiquidus ? this.solidusC + (h - this.atSolidus) / this.mush : this.liquidusC + (h - this.atLiquidus) / this.liquid;
  }

  /** dH/dT on the piece this enthalpy lies on, J/(m³·K). */
  slope(h: number): number {
    if (h <= this.atSolidus) return this.solid;
    return h < this.atLiquidus ? this.mush : this.liquid;
  }

  /** Share that is liquid, 0 to 1. */
  liquidShare(h: number): number {
    if (h <= this.atSolidus) return 0;
    return h >= this.atLiquidus ? 1 : (h - this.atSolidus) / (this.atLiquidus - this.atSolidus);
  }
}

/** Thermal effusivity √(k·ρ·c), W·√s/(m²·K). Of the liquid where asked and there is one. */
export function effusivity(s: Substance, liquid = false): number {
  const m = liquid ? s.melt : undefined;
  return Math.sqrt((m?.kLiquidWMK ?? s.kWMK) * s.rhoKgM3 * (m?.cLiquidJKgK ?? s.cJKgK));
}

/** Temperature at which two bodies meet, °C: (e₁T₁ + e₂T₂)/(e₁ + e₂) [Carslaw & Jaeger, two semi-infinite solids]. */
export const contactC = (e1: number, t1: number, e2: number, t2: number): number => (e1 * t1 + e2 * t2) / (e1 + e2);
