import { ellipse, plain } from "../../body";
import { len, type Shape } from "./shape";

export const frustum: Shape = {
  label: "Tapered round",
  when: "Round, wider at one end.",
  fields: [len("bottomMm", "Diameter at the back"), len("topMm", "Diameter at the top"), len("heightMm", "Height")],
  form: ({ sizes: s }) =>
    plain([
      { zMm: 0, outline: ellipse(s.bottomMm / 2, s.bottomMm / 2) },
      { zMm: s.heightMm, outline: ellipse(s.topMm / 2, s.topMm / 2) },
    ]),
};
