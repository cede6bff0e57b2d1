"use client";

import { Choice } from "../../kit/Choice";
import { chooseTheme, useTheme } from "../../kit/theme";
import { THEME_LABEL, THEMES } from "../../kit/themes";

/** How bright this device shows the page. */
export function Light() {
  const theme = useTheme();
  return <Choice label="Light on this device" value={theme} options={THEMES.map((t) => ({ value: t, label: THEME_LABEL[t] }))} onChange={chooseTheme} />;
}
