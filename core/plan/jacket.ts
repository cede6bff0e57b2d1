import type { Wait } from "../cure";
import { JACKET_SETS, JACKETS, JACKET_MIX } from "../material";
import type { Part } from "../mix";
import type { Plan } from "./types";

/** One part of a jacket as it is mixed, and how long until it has set. Masses g, volume mL. */
export interface PlannedJacketPart {
  name: string;
  material: string;
  parts: readonly Part[];
  mixG: number;
  volumeMl: number;
  working: Wait;
  sets: Wait;
}

const fixed = (hours: { low: number; typical: number; high: number }, reason: string): Wait => ({ hours, rule: { kind: "fixed", hours }, reason });

/** The parts of a job's jacket, each mixed for itself; none where it is boards, or there is no jacket. */
export function jacketPartsOf(p: Pick<Plan, "layout">): PlannedJacketPart[] {
  const plan = p.layout?.jacket;
  if (!plan || plan.mix.length === 0) return [];
  const { workingH, setsH } = JACKET_SETS[plan.jacket];
  const { roles } = JACKET_MIX[plan.jacket];
  const volumeMl = (plan.volumeMl - plan.timberMl) / plan.parts;
  const parts = plan.mix.map((m, i): Part => ({ name: m.name, role: roles[i] ?? "ingredient", massG: m.massG / plan.parts, volumeMl: null }));
  return Array.from({ length: plan.parts }, (_, i) => ({
    name: plan.parts === 1 ? "Jacket" : `Jacket, part ${i + 1}`,
    material: JACKETS[plan.jacket].label,
    parts,
    mixG: parts.reduce((s, x) => s + x.massG, 0),
    volumeMl,
    working: fixed(workingH, "Typical of its kind; its own sheet decides."),
    sets: fixed(
      setsH,
      i < plan.parts - 1 ? "Until the next part may go against it; typical of its kind." : "Until it is hard enough to lift; typical of its kind.",
    ),
  }));
}
