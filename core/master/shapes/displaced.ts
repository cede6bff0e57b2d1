import { outerSizes, tooMuch } from "./outerSizes";
import { OVER_ALL, type Shape } from "./shape";

export const displaced: Shape = {
  label: "By water displacement",
  when: "Any shape: sink it, read the rise.",
  fields: [
    { key: "volumeMl", label: "Water displaced", dimension: "volume", min: 0.01, max: 500_000 },
    {
      key: "readingMl",
      label: "Read to within ±",
      dimension: "volume",
      min: 0,
      max: 5_000,
      help: "Half the step between marks, or what you trust.",
    },
    ...OVER_ALL,
  ],
  problems: (t) => tooMuch(t, t.sizes.volumeMl, "volumeMl"),
  form: (t) => outerSizes(t, t.sizes.volumeMl * 1000),
  errorMl: (t) => t.sizes.readingMl,
};
