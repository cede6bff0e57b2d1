import { outerSizes, tooMuch } from "./outerSizes";
import { OVER_ALL, type Shape } from "./shape";

/** How well a weight, and a density looked up, are known. */
const WEIGHT_SHARE = 0.005;
const DENSITY_SHARE = 0.03;

export const weighed: Shape = {
  label: "By weight",
  when: "Any solid shape of one known material.",
  fields: [
    { key: "massG", label: "Weight", dimension: "mass", min: 0.01, max: 2_000_000 },
    { key: "densityGMl", label: "Density of its material", dimension: "density", min: 0.02, max: 22 },
    ...OVER_ALL,
  ],
  problems: (t) => tooMuch(t, t.sizes.massG / t.sizes.densityGMl, "massG"),
  form: (t) => outerSizes(t, (t.sizes.massG / t.sizes.densityGMl) * 1000),
  errorMl: (t, volumeMl) => {
    const moved = (key: "massG" | "densityGMl", share: number) => {
      const by = t.sizes[key] * share;
      return (volumeMl({ ...t, sizes: { ...t.sizes, [key]: t.sizes[key] + by } }) - volumeMl({ ...t, sizes: { ...t.sizes, [key]: t.sizes[key] - by } })) / 2;
    };
    return Math.hypot(moved("massG", WEIGHT_SHARE), moved("densityGMl", DENSITY_SHARE));
  },
};
