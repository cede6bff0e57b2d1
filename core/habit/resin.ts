import { CUPS, EXACT, ONE_OF, points, type Habit } from "./kind";

const UNDER_PRESSURE =
  "Into the pressure tank before it thickens, level, the lid bolted, up to what the tank is rated for and no further; leave it until it has set. Only in a mould whose rubber was degassed.";

export const resinFast: Habit = {
  ...EXACT,
  label: "Fast resin",
  vessel: CUPS,
  split: "cups",
  stirMin: 0.5,
  pourGMin: 600,
  lifeShare: 1,
  vacuum: false,
  pressure: true,
  life: "working time",
  hold: points("closed", "inside", "fumes"),
  begin: { says: "When the two parts meet the clock runs: mould closed, everything at hand.", act: "Parts meet: start the clock" },
  doing: {
    title: "Stir briskly, pour at once",
    steps: (f) => [
      "Half a minute of stirring, sides and bottom with it.",
      "Pour at once and in one go; do not stop half-way.",
      f.pressure ? UNDER_PRESSURE : "Under pressure it clears: only in a mould whose rubber was degassed.",
    ],
    done: "It is in the mould",
  },
};

export const resinSlow: Habit = {
  ...EXACT,
  label: "Slow resin",
  vessel: CUPS,
  split: "cups",
  stirMin: 3,
  pourGMin: 400,
  lifeShare: 0.5,
  vacuum: true,
  pressure: true,
  life: "working time",
  hold: points("closed", "depth", "inside", "fumes"),
  begin: { says: "When the two parts meet the clock runs.", act: "Parts meet: start the clock" },
  doing: {
    title: "Stir slowly, then out of the cup",
    steps: (f) => [
      "Stir two to four minutes, scrape sides and bottom, change into a second cup.",
      "Use a wide cup: a deep mass of it heats itself. Do not leave it standing.",
      "Pour thin, and no deeper at once than its data sheet allows.",
      f.pressure ? UNDER_PRESSURE : "Cover it while it cures.",
    ],
    done: "It is in the mould",
  },
};

export const jacketResin: Habit = {
  ...EXACT,
  label: "Resin or putty for a jacket",
  vessel: ONE_OF("Batch", "batches"),
  split: "spread",
  stirMin: 1.5,
  pourGMin: 120,
  lifeShare: 0.7,
  vacuum: false,
  life: "working time",
  hold: points("set", "tools", "fumes"),
  begin: { says: "When the two parts meet the clock runs.", act: "Parts meet: start the clock" },
  doing: {
    title: "Mix, then lay up",
    steps: () => [
      "Mix to one colour.",
      "Lay it up with its cloth, wetted through, no air under it, thickest along the flange.",
      "Whiskers of glass are razors once it has set: trim while it is leathery.",
    ],
    done: "This part is on",
  },
};
