import { showing } from "../showing";
import { namesInHand } from "@/server/jobs";
import { stockView } from "@/server/stock";
import { workshop } from "@/server/workshop";
import { CupboardScreen } from "@/ui/features/cupboard/CupboardScreen";

export const metadata = { title: "Cupboard" };

export default showing(function CupboardPage() {
  const w = workshop();
  return <CupboardScreen initial={stockView(w)} jobs={namesInHand(w)} />;
});
