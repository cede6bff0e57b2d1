import { showing } from "../showing";
import { namesInHand } from "@/server/jobs";
import { listOrders, listProjects } from "@/server/works";
import { workshop } from "@/server/workshop";
import { OrdersScreen } from "@/ui/features/orders/OrdersScreen";

export const metadata = { title: "Orders" };

export default showing(function OrdersPage() {
  const w = workshop();
  return <OrdersScreen orders={listOrders(w, {})} projects={listProjects(w, {})} jobs={namesInHand(w)} />;
});
