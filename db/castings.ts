import { sql, type SQL } from "drizzle-orm";
import type { Outcome } from "../core/plan";
import { pours } from "./schema";

/** How many castings of the pours in hand came out so: those that were judged one by one each for itself, the others as one a pour. */
export const castings = (outcome: Outcome): SQL<number> =>
  sql<number>`coalesce(sum(case when ${pours.kind} <> 'cast' then 0
    when json_valid(${pours.each}) and json_type(${pours.each}) = 'array'
      then (select count(*) from json_each(${pours.each}) e where e.type = 'object' and json_extract(e.value, '$.outcome') = ${outcome})
    when ${pours.outcome} = ${outcome} then 1 else 0 end), 0)`;
