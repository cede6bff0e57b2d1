import { dished, tooThick } from "./dished";
import { len, type Shape } from "./shape";

export const vessel: Shape = {
  label: "Hollow vessel",
  when: "A cup or pot, open on top.",
  fields: [
    len("bottomMm", "Diameter at the foot"),
    len("topMm", "Diameter at the rim"),
    len("heightMm", "Height"),
    len("wallMm", "Wall of the vessel"),
    len("floorMm", "Floor thickness"),
  ],
  problems: (t) => tooThick(t, Math.min(t.sizes.bottomMm, t.sizes.topMm), "the narrower diameter"),
  form: (t) => dished({ a: t.sizes.bottomMm / 2, b: t.sizes.bottomMm / 2 }, { a: t.sizes.topMm / 2, b: t.sizes.topMm / 2 }, t),
};
