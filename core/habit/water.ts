import { EXACT, LATER_WATER, ONE_OF, points, type Facts, type Habit } from "./kind";

/** How a layer goes in, where it is no plain fill. */
const byWay = (f: Facts, plain: string): string => {
  switch (f.way) {
    case "rolled":
      return "Pour it in, turn the mould slowly all ways so that it runs over every face, and let the rest out.";
    case "back":
      return "Fill it to the brim, wait until the wall stands, and pour the rest back.";
    case "brushed":
      return "Brush it thin into every detail, upwards, then over all of the face.";
    case "sprayed":
      return "Spray it thin, crosswise, until the face is covered.";
    case "laid":
      return "Lay it up piece by piece, cloth and mix together, pressed into the corners.";
    case "pressed":
      return "Press it in with the hand, from the corners out.";
    default:
      return plain;
  }
};
const next = (f: Facts): string[] => (f.goesOn ? ["The next layer goes on when this one no longer runs and is still damp."] : []);

export const gypsum: Habit = {
  ...EXACT,
  mayBeShort: { water: 0.97 },
  label: "Plaster",
  vessel: ONE_OF("Bucket", "buckets"),
  split: "one",
  stirMin: 3,
  pourGMin: 6000,
  lifeShare: 0.8,
  vacuum: false,
  life: "working time",
  hold: points("release", "board", "inside", "rinse", "dust"),
  begin: { says: "The water stands in the bucket. When the powder meets it the clock runs.", act: "Powder in: start the clock" },
  doing: {
    title: "Sift, soak, stir",
    steps: (f) => [
      "Sift the powder into the water, let it soak a minute or two, then stir a minute or two, without whipping air in.",
      byWay(f, "Pour in one place and let it rise, tap from below until bubbles slow; never squeeze soft sides."),
      "Add no water once it thickens: what has begun to set is thrown away.",
      ...next(f),
    ],
    done: "It is in the mould",
  },
};

export const cement: Habit = {
  ...LATER_WATER,
  label: "Cement mix",
  vessel: ONE_OF("Bucket", "buckets"),
  split: "one",
  stirMin: 2.5,
  pourGMin: 4000,
  lifeShare: 0.8,
  vacuum: false,
  life: "working time",
  hold: points("release", "board", "inside", "rinse", "dust"),
  begin: { says: "When water meets powder the clock runs.", act: "Water meets powder: start the clock" },
  doing: {
    title: "Mix to one colour",
    steps: (f) => [
      "Mix dry things first, then with most of the water; the rest only as it needs, until it is as it should be: thick as yogurt to pour, as wet sand to press.",
      byWay(f, "Fill in one place, tap and jog the board until bubbles slow; never squeeze soft sides. Strike the back off level."),
      ...(f.fast ? ["It is a fast kind: mix a minute, no more, and have it in."] : []),
      ...next(f),
    ],
    done: "It is in the mould",
  },
};

export const jacketPlaster: Habit = {
  ...LATER_WATER,
  label: "Plaster for a jacket",
  vessel: ONE_OF("Bucket", "buckets"),
  split: "one",
  stirMin: 2,
  pourGMin: 1500,
  lifeShare: 0.9,
  vacuum: false,
  life: "working time",
  hold: points("set", "board", "rinse", "dust"),
  begin: { says: "When the powder meets the water the clock runs.", act: "Powder in: start the clock" },
  doing: {
    title: "Splash, then lay up",
    steps: () => [
      "A thin splash coat first, into every corner of the rubber.",
      "Then cloth or bandage dipped in it, layer over layer, crossing at the flange, thickest along the edges; cut the edges off at 45° while it is soft.",
    ],
    done: "This part is on",
  },
};
