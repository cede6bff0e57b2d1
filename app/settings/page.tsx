import { headers } from "next/headers";
import { doorState } from "@/server/doorway";
import { GATE_HEADER } from "@/server/gate";
import { keptCopies } from "@/server/kept";
import { oddMet } from "@/server/odd";
import { forecastOf, getSettings } from "@/server/settings";
import { workshop } from "@/server/workshop";
import { SettingsScreen } from "@/ui/features/settings/SettingsScreen";

export const metadata = { title: "The workshop" };

export default async function SettingsPage() {
  const w = workshop();
  const first = !(await headers()).has(GATE_HEADER);
  return (
    <SettingsScreen initial={getSettings(w)} machineZone={forecastOf(w).zone} door={doorState(w, first)} odd={oddMet(w)} kept={keptCopies(w)} now={w.now()} />
  );
}
