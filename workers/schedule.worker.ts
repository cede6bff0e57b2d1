import { solve, type Solved, type Task } from "../core/schedule/solve";

export interface ScheduleAsk {
  id: number;
  tasks: Task[];
  waking: [number, number][];
  hands: number;
  pinned: [string, number][];
}
export interface ScheduleAnswer {
  id: number;
  solved: Solved;
}

self.onmessage = ({ data }: MessageEvent<ScheduleAsk>) => {
  const answer: ScheduleAnswer = { id: data.id, solved: solve({ ...data, pinned: new Map(data.pinned) }) };
  self.postMessage(answer);
};
