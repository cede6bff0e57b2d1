import { splitByRatio, type MassRatio, type Part } from "../mix";

export interface CupLoss {
  /** Film left on cups and sticks: grams = k·(mixed grams)^(2/3), since the film goes with area. */
  k: number;
  floorG: number;
}

/** About 20 g left behind when 1 kg is mixed in one cup and scraped once. */
export const TYPICAL_CUP_LOSS: CupLoss = { k: 0.2, floorG: 3 };

/** Rubber left in the cups, g. */
export const cupLossG = (mixedG: number, loss: CupLoss): number => (mixedG <= 0 ? 0 : Math.max(loss.floorG, loss.k * mixedG ** (2 / 3)));

/** Grams to mix so that `needG` reaches the mould after the cups keep their film. Fixed point, to 0.001 g. */
export function mixForNeed(needG: number, loss: CupLoss): number {
  if (needG <= 0) return 0;
  let mix = needG;
  for (let i = 0; i < 60; i++) {
    const next = needG + cupLossG(mix, loss);
    if (Math.abs(next - mix) < 1e-4) return next;
    mix = next;
  }
  return mix;
}

export interface RubberBatch {
  /** What has to end up in the mould, g. */
  needG: number;
  marginG: number;
  cupLossG: number;
  mixG: number;
  mixMl: number;
  parts: readonly [Part, Part, ...Part[]];
  ratioLabel: string;
}

/**
 * Rubber to mix for one pour: volume × density, plus margin, plus what the cups keep.
 * @param volumeMl to fill; @param densityGMl cured density; @param marginPct ≥ 0
 */
export function rubberBatch(volumeMl: number, densityGMl: number, ratio: MassRatio, marginPct: number, loss: CupLoss): RubberBatch {
  const needG = volumeMl * densityGMl;
  const marginG = (needG * marginPct) / 100;
  const mixG = mixForNeed(needG + marginG, loss);
  return {
    needG,
    marginG,
    cupLossG: mixG - needG - marginG,
    mixG,
    mixMl: mixG / densityGMl,
    parts: splitByRatio(mixG, ratio),
    ratioLabel: ratio.label,
  };
}
