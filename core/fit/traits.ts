import type { Trait } from "../material";

/** What is not a material's own but how a thing stands: coated, released, washed, what it has held, what it is for. */
type State =
  | "sealed-coat"
  | "barrier-coat"
  | "released"
  | "released-with-solvent"
  | "oiled"
  | "no-release"
  | "to-bond"
  | "washed-today"
  | "dry"
  | "meets-food"
  | "food-declared"
  | `held-${"new" | "food" | "non-food"}`
  | `use:${"display" | "outdoors" | "food" | "candle" | "burns" | "hung" | "toy"}`;

/** Everything a contact rule can ask for. */
export type RuleTrait = Trait | State;
