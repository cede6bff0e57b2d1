/** One tub to be filled before the first is mixed. */
export interface Portion {
  /** "Coat 2, cup 1", and which part. */
  batch: string;
  part: string;
  g: number;
  /** Up to which mark of a measuring cup, mL; null where its density is not known. */
  ml: number | null;
  /** What is written on it: the batch's number and the part's letter. */
  mark: string;
}

/** A batch of a brushing day: a coat, or a part of one where a pot life or a cup is too small for all of it. */
export interface DayBatch {
  name: string;
  parts: readonly { name: string; massG: number; volumeMl: number | null }[];
  cups: number;
}

/** Every tub to fill on a brushing day, batch by batch, each with the mark that is written on it. */
export function portionList(batches: readonly DayBatch[]): Portion[] {
  let number = 0;
  return batches.flatMap((b) =>
    Array.from({ length: b.cups }, (_, cup) => {
      number++;
      return b.parts.map((p, i): Portion => ({
        batch: b.cups > 1 ? `${b.name}, cup ${cup + 1} of ${b.cups}` : b.name,
        part: p.name,
        g: p.massG / b.cups,
        ml: p.volumeMl === null ? null : p.volumeMl / b.cups,
        mark: `${number}${String.fromCharCode(65 + i)}`,
      }));
    }).flat(),
  );
}
