import type { Plan, PourKind } from "../plan";
import { layerOf } from "../plan/layers";
import { CAST_FAMILY } from "../material";
import type { Need } from "../stock";
import type { Pour } from "./pour";
import { standOf } from "./stand";

/** The material a pour takes, by its plan; null for jackets, which are no entry of the catalogue. */
export function materialOf(plan: Plan, kind: PourKind, index: number): string | null {
  if (kind === "rubber") return plan.pours[index]?.rubber.id ?? null;
  return layerOf(plan.layers, kind, index)?.cast.id ?? null;
}

/** What so many castings of a job take, by material, g. */
export function castingTakes(jobId: string, plan: Plan, count: number): Need[] {
  const each = count / Math.max(1, plan.dossier.job.cast.count * plan.pieces);
  return plan.layers.map((l): Need => {
    // Metal in the sprue and the ladle comes back: it is wanted once, however many are cast.
    const backG = CAST_FAMILY[l.cast.family].molten ? Math.max(0, l.batch.mixG - l.batch.wetG * plan.dossier.job.cast.count) : 0;
    const share = backG / l.batch.mixG;
    return {
      materialId: l.cast.id,
      jobId,
      jobName: plan.dossier.job.name,
      what: count === 1 ? "1 casting" : `${count} castings`,
      parts: l.batch.parts.map((p) => ({ name: p.name, g: p.massG * ((1 - share) * each + share) })),
    };
  });
}

/**
 * What a job still takes of its materials: rubber that is not poured of the mould that is being built, and its first castings where none was
 * made. Castings beyond those are asked for by orders.
 */
export function stillTakes(jobId: string, plan: Plan, pours: readonly Pour[]): Need[] {
  const stand = standOf(plan, pours);
  const { job } = plan.dossier;
  const rubber = stand.made
    ? []
    : stand.parts.flatMap(({ act, pour }): Need[] => {
        const p = act.kind === "rubber" && pour === null ? plan.pours[act.index] : undefined;
        if (!p?.batch) return [];
        return [
          {
            materialId: p.rubber.id,
            jobId,
            jobName: job.name,
            what: act.name,
            parts: p.batch.parts.map((x) => ({ name: x.name, g: x.massG })),
          },
        ];
      });
  const cast = pours.some((p) => (p.kind === "cast" || p.kind === "layer") && p.outcome !== "failed")
    ? []
    : castingTakes(jobId, plan, job.cast.count * plan.pieces);
  return [...rubber, ...cast];
}
