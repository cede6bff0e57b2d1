import type { ProfilePoint } from "@/core/master";

/** Moves one point of a turned profile, keeping heights in order and radii positive; returns a new profile, mm to 0.5. */
export function movePoint(profile: readonly ProfilePoint[], index: number, radiusMm: number, zMm: number): ProfilePoint[] {
  const round = (v: number) => Math.round(v * 2) / 2;
  const low = index === 0 ? 0 : (profile[index - 1]?.zMm ?? 0);
  const high = profile[index + 1]?.zMm ?? 3000;
  return profile.map((p, i) => (i === index ? { radiusMm: Math.min(1500, Math.max(0, round(radiusMm))), zMm: Math.min(high, Math.max(low, round(zMm))) } : p));
}
