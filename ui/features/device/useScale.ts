"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { KITCHEN_SCALE, LineBuffer, POCKET_SCALE, readLine, SimulatedScale, type DeviceReading, type ScaleDeed } from "@/core/device";
import { call } from "../../data/call";

/** Where weights come from. */
export const SCALE_SOURCES = { typed: "Typed by hand", simulated: "Practice scale", local: "Program on this machine", serial: "Cable (serial)" } as const;
export type ScaleSource = keyof typeof SCALE_SOURCES;

export interface Scale {
  source: ScaleSource;
  choose: (s: ScaleSource) => void;
  /** Last reading; null while the source is typed, silent or unplugged. */
  reading: Extract<DeviceReading, { kind: "weight" | "overload" }> | null;
  /** Words about the connection, where there is something to say. */
  state: string;
  /** For the practice scale: what is done to it, and how it stands. */
  deed: (d: ScaleDeed) => void;
  sim: { loadG: number; plugged: boolean; make: "kitchen" | "pocket" };
  setMake: (make: "kitchen" | "pocket") => void;
  connectSerial: () => Promise<void>;
}

const SOURCE_KEY = "zesty:scale-source";
const SIM_KEY = "zesty:practice-scale";
const TICK_MS = 100;
const LOCAL_MS = 300;

const stored = (key: string): string | null => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};
const store = (key: string, value: string) => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Storage may be refused; the choice then lasts as long as the page.
  }
};

/** What browsers with a serial port offer; others have none. */
interface SerialPort {
  open: (o: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}
interface WithSerial {
  serial: { requestPort: () => Promise<SerialPort> };
}
const hasSerial = (n: object): n is WithSerial => "serial" in n;

/** One scale, whichever it is: the practice scale of this page, a program that talks to the server, a cable, or none. */
export function useScale(): Scale {
  const [source, setSource] = useState<ScaleSource>("typed");
  const [reading, setReading] = useState<Scale["reading"]>(null);
  const [state, setState] = useState("");
  const [make, setMakeState] = useState<"kitchen" | "pocket">("kitchen");
  const [sim, setSim] = useState({ loadG: 0, plugged: true });
  const scale = useRef<SimulatedScale | null>(null);
  const port = useRef<SerialPort | null>(null);

  useEffect(() => {
    const later = setTimeout(() => {
      const s = stored(SOURCE_KEY);
      if (s && s in SCALE_SOURCES) setSource(s as ScaleSource);
    }, 0);
    return () => clearTimeout(later);
  }, []);

  const choose = useCallback((s: ScaleSource) => {
    store(SOURCE_KEY, s);
    setReading(null);
    setState("");
    setSource(s);
  }, []);

  useEffect(() => {
    if (source !== "simulated") return;
    const made = new SimulatedScale(make === "kitchen" ? KITCHEN_SCALE : POCKET_SCALE, 20261103);
    const saved = stored(SIM_KEY);
    if (saved) {
      try {
        made.restore(JSON.parse(saved) as ReturnType<SimulatedScale["saved"]>);
      } catch {
        // An unreadable state is an empty scale.
      }
    }
    scale.current = made;
    let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now();
      const r = made.step(Math.max(0.001, (now - last) / 1000));
      last = now;
      setReading(r && (r.kind === "weight" || r.kind === "overload") ? r : null);
      setState(r === null ? "The scale is unplugged" : r.kind === "overload" ? "Too heavy for this scale" : "");
      setSim((s) => (s.loadG === made.loadG && s.plugged === made.plugged ? s : { loadG: made.loadG, plugged: made.plugged }));
      store(SIM_KEY, JSON.stringify(made.saved()));
    }, TICK_MS);
    return () => {
      clearInterval(timer);
      scale.current = null;
    };
  }, [source, make]);

  useEffect(() => {
    if (source !== "local") return;
    let here = true;
    const timer = setInterval(() => {
      void call("device", "read", {}).then((a) => {
        if (!here) return;
        setReading(a.ok ? (a.data.scale?.reading ?? null) : null);
        setState(a.ok ? (a.data.scale ? "" : "No program has sent a weight in the last seconds") : a.message);
      });
    }, LOCAL_MS);
    return () => {
      here = false;
      clearInterval(timer);
    };
  }, [source]);

  const connectSerial = useCallback(async () => {
    if (!hasSerial(navigator)) {
      setState("This browser has no serial port: use the program on this machine, or type.");
      return;
    }
    try {
      const chosen = await navigator.serial.requestPort();
      await chosen.open({ baudRate: 9600 });
      port.current = chosen;
      const lines = new LineBuffer();
      const decoder = new TextDecoder();
      const reader = chosen.readable?.getReader();
      setState("");
      for (;;) {
        const part = await reader?.read();
        if (!part || part.done) break;
        for (const line of lines.push(decoder.decode(part.value, { stream: true }))) {
          const r = readLine(line);
          if (!r.ok || !r.reading) continue;
          if (r.reading.kind === "weight" || r.reading.kind === "overload") setReading(r.reading);
          if (r.reading.kind === "temperature") void call("clocks", "takeReading", { body: { c: r.reading.celsius, source: "thermometer" } });
        }
      }
      setReading(null);
      setState("The cable was pulled");
    } catch (e) {
      setReading(null);
      setState(`The cable does not answer: ${e instanceof Error ? e.message : String(e)}`);
    }
  }, []);
  useEffect(
    () => () => {
      void port.current?.close().catch(() => undefined);
    },
    [],
  );

  const deed = useCallback((d: ScaleDeed) => scale.current?.act(d), []);
  return { source, choose, reading, state, deed, sim: { ...sim, make }, setMake: setMakeState, connectSerial };
}
