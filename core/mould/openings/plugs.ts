import type { BlockOpening } from "./kind";
import { twoPart } from "./twoPart";

export const plugs: BlockOpening = {
  ...twoPart,
  label: "More parts, with loose plugs",
  suits: "Holes and deep recesses: a plug of rubber fills each, and comes out on its own.",
  plugs: true,
};
