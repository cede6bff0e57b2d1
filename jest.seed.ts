import fc from "fast-check";

/**
 * One seed for a whole run, so that a property that fails once can be made to fail again: fast-check prints it with the example
 * it found, and `FC_SEED=… npx jest …` runs with it.
 */
const seed = Number(process.env.FC_SEED ?? Date.now() % 0x7fffffff);
if (!Number.isInteger(seed)) throw new Error(`FC_SEED is "${process.env.FC_SEED}": it has to be a whole number.`);
fc.configureGlobal({ seed });
