import { heatKey, heatStudy, type HeatQuestion } from "../core/heat";

/** Answers heat questions away from the page, one after another, under the key the page knows them by. */
self.addEventListener("message", (e: MessageEvent<HeatQuestion>) => {
  self.postMessage({ key: heatKey(e.data), study: heatStudy(e.data) });
});
