import type { Cut } from "./weighIn";

/** No sprue or vent that anybody has measured. */
export const NO_CUT: Cut = { sprueMm: null, ventMm: null, vents: 0, meltC: null, tookS: null };
