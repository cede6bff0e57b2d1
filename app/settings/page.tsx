import { headers } from "next/headers";
import { doorState } from "@/server/doorway";
import { GATE_HEADER } from "@/server/gate";
import { lostPictures } from "@/server/pictures";
import { keptCopies } from "@/server/kept";
import { oddEntries } from "@/server/odd";
import { forecastOf, getSettings } from "@/server/settings";
import { workshop } from "@/server/workshop";
import { SettingsScreen } from "@/ui/features/settings/SettingsScreen";

export const metadata = { title: "The workshop" };

export default async function SettingsPage() {
  const w = workshop();
  const first = !(await headers()).has(GATE_HEADER);
  return (
    <SettingsScreen
      initial={getSettings(w)}
      machineZone={forecastOf(w).zone}
      door={doorState(w, first)}
      odd={oddEntries(w)}
      kept={keptCopies(w)}
      lost={lostPictures(w).size}
      now={w.now()}
    />
  );
}
