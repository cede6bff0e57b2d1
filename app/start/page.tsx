import { jobsInHand } from "@/server/jobs";
import { workshop } from "@/server/workshop";
import { StartScreen } from "@/ui/features/start/StartScreen";

export const metadata = { title: "Start a job" };

export default function StartPage() {
  const { lines } = jobsInHand(workshop());
  return <StartScreen earlier={lines.map(({ id, name }) => ({ id, name }))} />;
}
