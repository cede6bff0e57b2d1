import { quote } from "../quantity";
import { EXACT, ONE_OF, points, type Facts, type Habit } from "./kind";

const at = (f: Facts): string =>
  f.pourC === null
    ? "at the degree its sheet says"
    : f.pourC.low === f.pourC.high
      ? `at ${quote(f.pourC.low, "temperature")}`
      : `at ${quote(f.pourC.low, "temperature")} to ${quote(f.pourC.high, "temperature")}`;

const common = { ...EXACT, split: "one", lifeShare: 1, vacuum: false, life: "working time" } as const;

export const wax: Habit = {
  ...common,
  label: "Wax",
  vessel: ONE_OF("Pot", "pots"),
  stirMin: 2,
  pourGMin: 2000,
  hold: points("bath", "wick", "inside"),
  begin: { says: "All of it is molten, dye and scent stirred in.", act: "Pouring: start the clock" },
  doing: {
    title: "Pour by the thermometer",
    steps: (f) => [
      `Pour ${at(f)} by the thermometer, slowly down one side${f.way === "back" ? ", to the brim; when the wall stands, pour the rest back into the pot" : ""}.`,
      "Keep some molten: it sinks as it cools, and is topped up once a skin has formed, poked open first.",
      "Never a naked flame, and never water on burning wax: a lid puts it out.",
    ],
    done: "It is in the mould",
  },
};

export const metal: Habit = {
  ...common,
  label: "Metal",
  vessel: ONE_OF("Pot", "pots"),
  stirMin: 1,
  pourGMin: 6000,
  hold: points("dry", "clamped", "enough", "shield"),
  begin: { says: "Skimmed, and at its degree.", act: "Pouring: start the clock" },
  doing: {
    title: "Pour in one go",
    steps: (f) => [
      `Skim, then pour ${at(f)} by the thermometer.`,
      "In one go, without a pause in the stream, the head kept full until it freezes.",
      "What is over goes back to the pot. Nothing wet comes near it.",
    ],
    done: "It is poured",
  },
};

export const food: Habit = {
  ...common,
  label: "Chocolate, sugar, gelatine",
  vessel: ONE_OF("Bowl", "bowls"),
  stirMin: 1,
  pourGMin: 1500,
  hold: points("food", "degree"),
  begin: { says: "It is tempered, or at its degree.", act: "Pouring: start the clock" },
  doing: {
    title: "Pour gently",
    steps: (f) => [`Pour ${at(f)}, gently, and tap the mould until bubbles slow.`, "Scrape the back level. This mould never meets anything but food."],
    done: "It is in the mould",
  },
};

export const soap: Habit = {
  ...common,
  label: "Soap",
  vessel: ONE_OF("Bowl", "bowls"),
  stirMin: 1,
  pourGMin: 1500,
  hold: points("degree", "board", "inside"),
  begin: { says: "It is molten, colour and scent stirred in.", act: "Pouring: start the clock" },
  doing: {
    title: "Pour gently",
    steps: (f) => [`Pour ${at(f)}, gently.`, "Bubbles on top go when they are sprayed with rubbing alcohol, away from any flame."],
    done: "It is in the mould",
  },
};
