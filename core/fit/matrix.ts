import { heatKey, heatQuestionFor, type HeatQuestion, type HeatStudies } from "../heat";
import { CAST_FAMILY, type Cast, type Rubber, type Catalogue } from "../material";
import { judgeChain, NOTHING_SAID, type Link } from "./chain";

/** The piece a matrix reckons heat for: a plate of two centimetres in a usual wall, cast once. Its own job tells more. */
export const STANDARD_PIECE = { dimensions: 1, coreMm: null, halfMm: 10, wallMm: 15, jacket: null, shopC: 21, pours: 1, everyMin: 60 } as const;

export interface MatrixCell {
  rubber: Rubber;
  cast: Cast;
  link: Link;
}

/** The heat question of a pair in the standard piece. */
export const standardHeat = (rubber: Rubber, cast: Cast): HeatQuestion => heatQuestionFor(cast, rubber, STANDARD_PIECE);

/** True where data-sheet figures do not settle the pair: they overlap, or the mix heats itself. */
export const wantsHeat = (rubber: Rubber, cast: Cast): boolean =>
  CAST_FAMILY[cast.family].heatsItself || (cast.peakC.high > rubber.heatContinuousC.low && cast.peakC.low <= rubber.heatShortC.high);

/** Every rubber against every cast: one row a cast, one cell a rubber. Heat comes from the studies that are ready. */
export function fitMatrix(catalogue: Catalogue, studies: HeatStudies): { cast: Cast; cells: MatrixCell[] }[] {
  return catalogue.casts.map((cast) => ({
    cast,
    cells: catalogue.rubbers.flatMap((rubber): MatrixCell[] => {
      const chain = judgeChain(
        { ...NOTHING_SAID, rubberId: rubber.id, castId: cast.id },
        catalogue,
        (r, c) => studies.get(heatKey(standardHeat(r, c))) ?? null,
      );
      const link = chain.links.find((l) => l.contact === "rubber-cast");
      return link ? [{ rubber, cast, link }] : [];
    }),
  }));
}

/** What a person may need of a rubber. */
export const NEEDS = {
  food: { label: "Food", hint: "declared for food contact", holds: (r: Rubber) => r.foodDeclared },
  metal: { label: "Metal", hint: "bears tin alloys for minutes", holds: (r: Rubber) => r.heatShortC.typical >= 260 },
  detail: {
    label: "Fine detail",
    hint: "pours or brushes into detail and shrinks little",
    holds: (r: Rubber) => r.form !== "putty" && r.shrinkPct.typical <= 0.3,
  },
  soft: { label: "Soft", hint: "20 A or less: deep undercuts", holds: (r: Rubber) => r.shoreA.typical <= 20 },
  firm: { label: "Firm", hint: "30 A or more: heavy fills", holds: (r: Rubber) => r.shoreA.typical >= 30 },
  cheap: { label: "Low cost", hint: "the cheapest third", holds: (r: Rubber) => r.costLevel === 1 },
} as const;
export type Need = keyof typeof NEEDS;

/** Rubbers that meet every need. */
export const meeting = (rubbers: readonly Rubber[], needs: readonly Need[]): Rubber[] => rubbers.filter((r) => needs.every((n) => NEEDS[n].holds(r)));
