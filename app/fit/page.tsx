import { ownMaterials } from "@/server/materials";
import { workshop } from "@/server/workshop";
import { MatrixScreen } from "@/ui/features/fit/MatrixScreen";

export const metadata = { title: "Fit" };

export default function FitPage() {
  return <MatrixScreen own={ownMaterials(workshop())} />;
}
