import type { Jacket, Sealing } from "./fittings";

/** How seams are sealed and watched, by what seals them. */
export const SEAL_PRACTICE: Record<Sealing, string> = {
  none: "",
  "hot-glue":
    "A bead inside and a second outside; it peels from cold or glossy faces, so warm them first. Pour a finger's depth, wait two minutes and look before you go on.",
  "acetic-sealant": "Tool a fillet inside every seam and give it a day; it holds any head met here once it has cured through.",
  "neutral-sealant": "Tool a fillet inside every seam and give it a day; it holds any head met here once it has cured through.",
  "same-rubber": "Paint the seams from inside, thickened if you can, and let it turn tacky; it becomes part of the mould, so keep it smooth.",
  "clay-free": "Press a coil into each seam from outside and smear it both ways. Clay creeps under a steady push: look again after a quarter of an hour.",
  "clay-sulphur": "Press a coil into each seam from outside and smear it both ways. Clay creeps under a steady push: look again after a quarter of an hour.",
  tape: "Tape outside only, two layers with the joints apart, on clean dry faces; a strap or cord takes the push, the tape only stops the leak.",
};

/** How a jacket is made, what goes between its parts so that they come away, and what it does over the years. */
export const JACKET_PRACTICE: Record<Exclude<Jacket, "none">, { how: string; barrier: string; ages: string }> = {
  plaster: {
    how: "Three layers of cloth dipped in plaster, crossing at the flange, a splash coat first.",
    barrier: "Soft soap or petroleum jelly on the set flange before the next half.",
    ages: "Grows a few tenths of a percent as it sets, then keeps its size; chips if it is stacked.",
  },
  "plaster-block": {
    how: "Boards round the skin, plaster poured to a level top so that the mould stands steady when it is turned.",
    barrier: "Soft soap or petroleum jelly on the set plaster before the next half.",
    ages: "Heavy and steady; keeps its size.",
  },
  "polyester-resin": {
    how: "A brushed gel coat, then two or three layers of glass cloth rolled out, more at flange and bolt holes.",
    barrier: "Wax and a polyvinyl-alcohol film on the first flange.",
    ages: "Shrinks up to 2 % in its first weeks: keep it bolted round the rubber meanwhile.",
  },
  "epoxy-putty": {
    how: "Pressed on in one even layer, smoothed with a wet glove, ribs over long spans.",
    barrier: "Paste wax on the first flange, two coats.",
    ages: "Keeps its size.",
  },
  urethane: {
    how: "Trowelled on in two layers as it thickens; a cloth between them where it is thin.",
    barrier: "Paste wax on the first flange, two coats.",
    ages: "Creeps under load in warmth: store it bolted up.",
  },
  timber: {
    how: "A frame of boards screwed round a thin stiff shell bedded on the rubber.",
    barrier: "Varnish and wax on every face that meets fresh shell or rubber.",
    ages: "Moves with the damp: varnish all faces, and do not lock the rubber to it.",
  },
};
