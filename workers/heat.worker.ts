import { expose } from "comlink";
import { heatStudy, type HeatQuestion, type HeatStudy } from "../core/heat";

const worker = {
  /** Answers one heat question, away from the page. */
  study: (question: HeatQuestion): HeatStudy => heatStudy(question),
};
export type HeatWorker = typeof worker;

expose(worker);
