"use client";

import { useState } from "react";
import { ring, soundOn, SOUND_KEY } from "./sound";

/** Asks once whether the browser may call out, where it can. */
export function mayAskToNotify(): void {
  if (typeof Notification !== "undefined" && Notification.permission === "default") void Notification.requestPermission();
}

/** Whether clocks ring on this device, with a taste of the sound. */
export function SoundSwitch() {
  const [on, setOn] = useState(soundOn);
  return (
    <button
      type="button"
      className="chip"
      aria-pressed={on}
      onClick={() => {
        try {
          localStorage.setItem(SOUND_KEY, on ? "off" : "on");
        } catch {
          // The choice then lasts as long as the page.
        }
        if (!on) ring();
        setOn(!on);
      }}
    >
      {on ? "Sound is on" : "Sound is off"}
    </button>
  );
}
