import { ellipse, plain } from "../../body";
import { len, type Shape } from "./shape";

export const cylinder: Shape = {
  label: "Cylinder",
  when: "Round, straight sides.",
  fields: [len("diameterMm", "Diameter"), len("heightMm", "Height")],
  form: ({ sizes: s }) => {
    const outline = ellipse(s.diameterMm / 2, s.diameterMm / 2);
    return plain([
      { zMm: 0, outline },
      { zMm: s.heightMm, outline },
    ]);
  },
};
