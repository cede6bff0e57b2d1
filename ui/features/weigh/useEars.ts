"use client";

import { useEffect, useRef, useState } from "react";
import { toneOf } from "@/core/weigh";

export const LOUD = { off: "Off", quiet: "Quiet", clear: "Clear" } as const;
export type Loud = keyof typeof LOUD;
const GAIN: Record<Loud, number> = { off: 0, quiet: 0.04, clear: 0.22 };
const PULSE_S = 0.07;
const GAP_S = 0.05;
const EVERY_MS = 450;

/** What a person wants of this device while hands are wet. Kept on the device, not in the workshop. */
export interface Ears {
  sound: Loud;
  voice: boolean;
  awake: boolean;
  large: boolean;
}
const NONE: Ears = { sound: "off", voice: false, awake: false, large: false };
const KEY = "zesty-ears";

function kept(): Ears {
  try {
    const found = JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<Ears>;
    return {
      sound: found.sound && found.sound in LOUD ? found.sound : "off",
      voice: found.voice === true,
      awake: found.awake === true,
      large: found.large === true,
    };
  } catch {
    return NONE;
  }
}

/** The person's choices, and a screen that stays awake if they want it to. */
export function useEarChoices(): [Ears, (patch: Partial<Ears>) => void] {
  const [ears, setEars] = useState<Ears>(NONE);
  useEffect(() => {
    const later = setTimeout(() => setEars(kept()), 0);
    return () => clearTimeout(later);
  }, []);
  const choose = (patch: Partial<Ears>) => {
    const next = { ...ears, ...patch };
    setEars(next);
    try {
      localStorage.setItem(KEY, JSON.stringify(next));
    } catch {
      // A device that keeps nothing still does what was asked, until the page goes.
    }
  };
  useEffect(() => {
    if (!ears.awake || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let wanted = true;
    const hold = () => {
      if (document.visibilityState !== "visible") return;
      void navigator.wakeLock.request("screen").then(
        (l) => {
          if (wanted) lock = l;
          else void l.release();
        },
        () => undefined,
      );
    };
    hold();
    // A lock is let go when the page is hidden, and taken again when it is back.
    document.addEventListener("visibilitychange", hold);
    return () => {
      wanted = false;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, [ears.awake]);
  return [ears, choose];
}

/** Lets the weight be heard: pulses that climb towards the mark, and the numbers, where the device has a voice of its own. */
export function useTone(ears: Ears, netG: number | null, target: { targetG: number; low: number; high: number }, say: (g: number) => string): void {
  const audio = useRef<AudioContext | null>(null);
  const last = useRef(0);
  const played = useRef(0);
  useEffect(() => () => void audio.current?.close(), []);
  useEffect(() => {
    if (netG === null) {
      last.current = 0;
      return;
    }
    const tone = toneOf(netG, last.current, target.targetG, target.low, target.high);
    const moved = Math.abs(netG - last.current) > 0.001 * target.targetG;
    last.current = netG;
    if (!tone || (!moved && tone.step === null)) return;
    const now = performance.now();
    if (ears.sound !== "off" && (tone.step !== null || now - played.current > EVERY_MS)) {
      played.current = now;
      audio.current ??= new AudioContext();
      pulse(audio.current, tone.hz, tone.pulses, GAIN[ears.sound]);
    }
    if (ears.voice && tone.step && "speechSynthesis" in window) {
      const words = { start: say(target.targetG), ninety: say(target.targetG - netG), mark: "Stop", over: "Too much" }[tone.step];
      // Only a voice that is on this machine: nothing is sent anywhere to be spoken.
      const voice = speechSynthesis.getVoices().find((v) => v.localService);
      if (voice) {
        speechSynthesis.cancel();
        speechSynthesis.speak(Object.assign(new SpeechSynthesisUtterance(words), { voice }));
      }
    }
  }, [ears.sound, ears.voice, netG, say, target.high, target.low, target.targetG]);
}

function pulse(audio: AudioContext, hz: number, pulses: number, gain: number): void {
  for (let i = 0; i < pulses; i++) {
    const from = audio.currentTime + i * (PULSE_S + GAP_S);
    const tone = audio.createOscillator();
    const level = audio.createGain();
    tone.type = "triangle";
    tone.frequency.value = hz;
    // Soft edges, so that it does not click.
    level.gain.setValueAtTime(0, from);
    level.gain.linearRampToValueAtTime(gain, from + 0.01);
    level.gain.linearRampToValueAtTime(0, from + PULSE_S);
    tone.connect(level).connect(audio.destination);
    tone.start(from);
    tone.stop(from + PULSE_S);
  }
}
