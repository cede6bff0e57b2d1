import { quote } from "../quantity";
import { CUPS, EXACT, ONE_OF, points, type Habit } from "./kind";

const mm = (v: number) => quote(v, "length");

export const poured: Habit = {
  ...EXACT,
  label: "Rubber, poured",
  vessel: CUPS,
  split: "cups",
  stirMin: 3,
  pourGMin: 400,
  lifeShare: 0.8,
  vacuum: true,
  life: "pot life",
  hold: points("release", "level", "tools", "mask"),
  begin: { says: "From the first stir the clock runs.", act: "Stirring: start the clock" },
  doing: {
    title: "Stir, scrape, second container",
    steps: (f) => [
      "Scrape sides and bottom, change into a second container, stir again, slowly.",
      "Brush a thin coat into the detail first, where it is fine or looks down.",
      ...(f.topMm !== null && f.fillLineMm !== null && f.fillLineMm - f.topMm > 4
        ? [
            f.degas
              ? `Pour in two stages: to ${mm(f.topMm)}, the top of the piece, then vacuum, then top up to ${mm(f.fillLineMm)}.`
              : `Pour high and thin in the lowest corner, never over the piece, and let it rise: past its top at ${mm(f.topMm)}, on to the line at ${mm(f.fillLineMm)}.`,
          ]
        : ["Pour high and thin, in the lowest corner, never over the piece, and let it rise."]),
      "Cover it while it cures.",
    ],
    done: "It is in the mould",
  },
};

export const brushed: Habit = {
  ...EXACT,
  label: "Rubber, brushed",
  vessel: CUPS,
  split: "spread",
  stirMin: 1.5,
  pourGMin: 60,
  lifeShare: 1 / 3,
  vacuum: false,
  life: "pot life",
  hold: (f) => [f.first ? "release" : "tacky", "brush", "mask"],
  begin: { says: "Mix no more than you spread in a third of its pot life. From the first stir the clock runs.", act: "Stirring: start the clock" },
  doing: {
    title: "Stir, then brush",
    steps: (f) => [
      "Stir, scrape sides and bottom, slowly.",
      ...(f.tinted ? ["A drop of tint: it shows where the plain coat under it is still bare."] : []),
      "Thin, into every detail first, then over all of it, from the top down; catch what runs off and brush it up again.",
      ...(f.cloth ? ["Lay the cloth into it wet, cut to lie without folds."] : []),
      ...(f.goesOn
        ? ["The next coat goes on when this one is tacky and leaves nothing on a gloved finger."]
        : ["Wipe the board clean, and cover it while it cures."]),
    ],
    done: "It is on, every corner covered",
  },
};

export const putty: Habit = {
  ...EXACT,
  label: "Putty, pressed",
  vessel: ONE_OF("Batch", "batches"),
  split: "hands",
  stirMin: 1,
  pourGMin: 60,
  lifeShare: 0.7,
  vacuum: false,
  life: "pot life",
  hold: points("release", "wet", "tools"),
  begin: { says: "From the first knead the clock runs.", act: "Kneading: start the clock" },
  doing: {
    title: "Knead, then press",
    steps: () => [
      "Knead until it is one colour, without streaks.",
      "Press it on with wet hands, from the bottom up, no folds, each piece over the edge of the one before.",
    ],
    done: "It is pressed on",
  },
};
