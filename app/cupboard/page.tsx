import { showing } from "../showing";
import { jobsInHand } from "@/server/jobs";
import { stockView } from "@/server/stock";
import { workshop } from "@/server/workshop";
import { CupboardScreen } from "@/ui/features/cupboard/CupboardScreen";

export const metadata = { title: "Cupboard" };

export default showing(function CupboardPage() {
  const w = workshop();
  return <CupboardScreen initial={stockView(w)} jobs={jobsInHand(w, 200).lines.map(({ id, name }) => ({ id, name }))} />;
});
