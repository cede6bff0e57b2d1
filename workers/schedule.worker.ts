import { expose } from "comlink";
import { solve, type Solved, type Task } from "../core/schedule/solve";

interface Asked {
  tasks: Task[];
  waking: [number, number][];
  hands: number;
  pinned: [string, number][];
}

const worker = {
  /** Answers a calendar question written as JSON: the text is what tells one question from another. */
  solveText: (text: string): Solved => {
    const asked = JSON.parse(text) as Asked;
    return solve({ ...asked, pinned: new Map(asked.pinned) });
  },
};
export type ScheduleWorker = typeof worker;

expose(worker);
