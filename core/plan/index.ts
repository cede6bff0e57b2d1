export { fitQuestionOf } from "./fitQuestion";
export * from "./types";
export { PAIR_CONTACTS, PREPARE_CONTACTS } from "./steps";
export { boardsFor, type FillAnswer, type PlannedStrength } from "./strength";
export * from "./snapshot";
export * from "./outcome";
export * from "./held";
export * from "./clocks";
export * from "./tasks";
