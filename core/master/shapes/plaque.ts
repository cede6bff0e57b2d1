import { plain, rectangle } from "../../body";
import { len, type Shape } from "./shape";

export const plaque: Shape = {
  label: "Plaque with relief",
  when: "A flat slab with raised detail.",
  fields: [
    len("lengthMm", "Length"),
    len("widthMm", "Width"),
    len("heightMm", "Slab thickness"),
    len("reliefMm", "Tallest relief"),
    {
      key: "coveragePct",
      label: "How much the relief fills",
      dimension: "percent",
      min: 0,
      max: 100,
      help: "Relief volume as a share of slab area × tallest relief. Low letters about 20 %, full figures about 50 %.",
    },
  ],
  form: ({ sizes: s }) => {
    const share = s.coveragePct / 100;
    const outline = rectangle(s.lengthMm / 2, s.widthMm / 2);
    return {
      ...plain([
        { zMm: 0, outline },
        { zMm: s.heightMm + s.reliefMm, outline },
      ]),
      volumeMm3: s.lengthMm * s.widthMm * (s.heightMm + share * s.reliefMm),
      fillAt: (z) => (z <= s.heightMm ? 1 : share),
      reliefMm: s.heightMm,
      unknown: ["area"],
    };
  },
};
