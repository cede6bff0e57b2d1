import { plain, rectangle } from "../../body";
import { len, type Shape } from "./shape";

export const box: Shape = {
  label: "Block",
  when: "Straight sides, flat back.",
  fields: [len("lengthMm", "Length"), len("widthMm", "Width"), len("heightMm", "Height")],
  form: ({ sizes: s }) => {
    const outline = rectangle(s.lengthMm / 2, s.widthMm / 2);
    return plain([
      { zMm: 0, outline },
      { zMm: s.heightMm, outline },
    ]);
  },
};
