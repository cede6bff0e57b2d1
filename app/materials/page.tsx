import { ownMaterials } from "@/server/materials";
import { workshop } from "@/server/workshop";
import { MaterialsScreen } from "@/ui/features/materials/MaterialsScreen";

export const metadata = { title: "Materials" };

export default function MaterialsPage() {
  return <MaterialsScreen own={ownMaterials(workshop())} />;
}
