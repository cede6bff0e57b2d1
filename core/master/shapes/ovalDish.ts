import { dished, tooThick } from "./dished";
import { len, type Shape } from "./shape";

export const ovalDish: Shape = {
  label: "Oval dish",
  when: "An oval bowl or soap dish, hollow on top.",
  fields: [
    len("lengthMm", "Rim length"),
    len("widthMm", "Rim width"),
    len("footLengthMm", "Foot length"),
    len("footWidthMm", "Foot width"),
    len("heightMm", "Height"),
    len("wallMm", "Wall of the dish"),
    len("floorMm", "Floor thickness"),
  ],
  problems: (t) => tooThick(t, Math.min(t.sizes.footLengthMm, t.sizes.footWidthMm, t.sizes.lengthMm, t.sizes.widthMm), "the narrowest width"),
  form: (t) => dished({ a: t.sizes.footLengthMm / 2, b: t.sizes.footWidthMm / 2 }, { a: t.sizes.lengthMm / 2, b: t.sizes.widthMm / 2 }, t),
};
