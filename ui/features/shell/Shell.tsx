"use client";

import { BookOpenText, CalendarClock, ClipboardList, FlaskConical, Grid3x3, Keyboard, LibraryBig, Package2, Search, Settings, Timer } from "lucide-react";
import dynamic from "next/dynamic";
import { systemOf } from "@/core/quantity";
import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { useCallback, useEffect, useMemo, useState, type ReactNode } from "react";
import { Reader } from "../../data/Reader";
import { BenchClocksProvider } from "../clocks/BenchClocks";
import { useUnits } from "../../kit/units";
import { useListening } from "../../data/useListening";
import { inField, ShortcutsProvider, type Shortcut, useShortcutRegistry } from "./shortcuts";

// What only opens on request is fetched once the page stands, so that it does not hold the page up.
const loadPalette = () => import("./Palette").then((m) => m.Palette);
const loadKeys = () => import("./KeysDialog").then((m) => m.KeysDialog);
const Palette = dynamic(loadPalette, { ssr: false });
const KeysDialog = dynamic(loadKeys, { ssr: false });
const Caller = dynamic(() => import("../clocks/Caller").then((m) => m.Caller), { ssr: false });
const Toaster = dynamic(() => import("sonner").then((m) => m.Toaster), { ssr: false });

const PLACES = [
  { href: "/", label: "Bench", icon: Timer, keyName: "b" },
  { href: "/calendar", label: "Calendar", icon: CalendarClock, keyName: "s" },
  { href: "/fit", label: "Fit", icon: Grid3x3, keyName: "f" },
  { href: "/materials", label: "Materials", icon: FlaskConical, keyName: "m" },
  { href: "/cupboard", label: "Cupboard", icon: Package2, keyName: "c" },
  { href: "/rack", label: "Rack", icon: LibraryBig, keyName: "r" },
  { href: "/orders", label: "Orders", icon: ClipboardList, keyName: "o" },
  { href: "/log", label: "Logbook", icon: BookOpenText, keyName: "l" },
] as const;

/** What stands round every screen: the way between them, units, the palette and the keyboard. */
export function Shell({ workshopName, children }: { workshopName: string; children: ReactNode }) {
  return (
    <ShortcutsProvider>
      <Reader>
        <BenchClocksProvider>
          <Frame workshopName={workshopName}>{children}</Frame>
        </BenchClocksProvider>
      </Reader>
    </ShortcutsProvider>
  );
}

function Frame({ workshopName, children }: { workshopName: string; children: ReactNode }) {
  const path = usePathname();
  const router = useRouter();
  const { system, choose } = useUnits();
  const registry = useShortcutRegistry();
  const listening = useListening();
  const [open, setOpen] = useState<"palette" | "keys" | null>(null);
  const here = (href: string) => (href === "/" ? path === "/" : path.startsWith(href));
  const lengths = systemOf("length", system);
  // Where each kind has its own, only lengths flip.
  const flip = useCallback(() => {
    const other = lengths === "metric" ? "us" : "metric";
    void choose(typeof system === "string" ? other : { ...system, length: other });
  }, [choose, lengths, system]);

  const own = useMemo<Shortcut[]>(
    () => [
      ...PLACES.map((p) => ({ keys: p.keyName, label: `Go to ${p.label}`, run: () => router.push(p.href) })),
      { keys: ",", label: "Settings of the workshop", run: () => router.push("/settings") },
      { keys: "n", label: "Start a job", run: () => router.push("/start") },
      { keys: "u", label: "Switch between metric and US units", run: flip },
      { keys: "?", label: "Show all keys", run: () => setOpen("keys") },
      { keys: "Ctrl+K", label: "Find anything", run: () => setOpen("palette") },
    ],
    [flip, router],
  );
  const all = useMemo(() => [...registry.shortcuts, ...own], [registry.shortcuts, own]);

  useEffect(() => {
    void loadPalette();
    void loadKeys();
  }, []);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const ctrl = e.ctrlKey || e.metaKey;
      const pressed = ctrl ? `Ctrl+${e.shiftKey ? "Shift+" : ""}${e.key.toUpperCase()}` : e.key;
      if (e.altKey || e.defaultPrevented || (inField(e.target) && pressed !== "Ctrl+K")) return;
      if (open !== null || (!ctrl && document.querySelector("[role=dialog]"))) return;
      const hit = all.find((s) => s.keys === pressed);
      if (!hit) return;
      e.preventDefault();
      hit.run();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [all, open]);

  return (
    <div className="mx-auto flex min-h-dvh max-w-[1400px] flex-col px-3 sm:px-5">
      <a href="#content" className="sr-only focus:not-sr-only focus:absolute focus:left-3 focus:top-3 focus:z-50 focus:rounded-lg focus:bg-card focus:p-3">
        To the content
      </a>
      <header className={`no-print flex flex-wrap ${path.startsWith("/weigh/") ? "hidden" : ""} items-center gap-x-2 gap-y-1 py-2`}>
        <Link href="/" className="mr-auto flex items-center gap-2.5 rounded-lg" aria-label="Zesty Ladle, to the bench">
          <Mark />
          <span className="leading-none">
            <span className="font-display text-lg font-extrabold tracking-tight">Zesty Ladle</span>
            <span className="block max-w-44 truncate pt-0.5 text-xs text-soft">{workshopName}</span>
          </span>
        </Link>
        <nav aria-label="Screens" className="flex sm:gap-1 max-md:order-last max-md:w-full max-md:justify-between">
          {PLACES.map(({ href, label, icon: Icon }) => (
            <Link
              key={href}
              href={href}
              aria-current={here(href) ? "page" : undefined}
              className={`btn max-sm:!min-h-11 max-sm:min-w-10 max-sm:flex-col max-sm:!gap-0 max-sm:!px-0.5 max-sm:!py-0.5 max-sm:text-[0.7rem] sm:max-lg:!px-1.5 sm:max-lg:text-sm lg:!px-2.5 ${here(href) ? "bg-peel" : "btn-bare"}`}
            >
              <Icon size={19} aria-hidden="true" className="hidden max-sm:block lg:block" /> {label}
            </Link>
          ))}
        </nav>
        <button type="button" className="btn btn-bare !px-2.5" onClick={flip} aria-label={`Units: ${lengths === "metric" ? "metric" : "US workshop"}. Switch.`}>
          <span aria-hidden="true">
            <b className={lengths === "metric" ? "underline decoration-citrus decoration-[3px] underline-offset-4" : "font-normal"}>mm</b>
            {" / "}
            <b className={lengths === "us" ? "underline decoration-citrus decoration-[3px] underline-offset-4" : "font-normal"}>in</b>
          </span>
        </button>
        <button type="button" className="btn btn-bare !px-2.5" onClick={() => setOpen("palette")} aria-label="Find anything (Ctrl+K)">
          <Search size={20} aria-hidden="true" />
        </button>
        <Link
          href="/settings"
          className={`btn !px-2.5 ${here("/settings") ? "bg-peel" : "btn-bare"}`}
          aria-label="Settings of the workshop"
          aria-current={here("/settings") ? "page" : undefined}
        >
          <Settings size={20} aria-hidden="true" />
        </Link>
        <button type="button" className="btn btn-bare !px-2.5 max-sm:!hidden" onClick={() => setOpen("keys")} aria-label="Keys (?)">
          <Keyboard size={20} aria-hidden="true" />
        </button>
      </header>
      <Caller />
      <main id="content" tabIndex={-1} className="flex flex-1 flex-col outline-none">
        {/* A page just loaded is drawn before it listens: until then nothing can be tapped or typed that would be lost. */}
        <fieldset role="presentation" disabled={!listening} className="waking contents">
          {children}
        </fieldset>
      </main>
      {open === "palette" && <Palette onClose={() => setOpen(null)} shortcuts={all} />}
      {open === "keys" && <KeysDialog onClose={() => setOpen(null)} shortcuts={all} />}
      <Toaster
        position="top-center"
        toastOptions={{
          style: { background: "var(--color-ink)", color: "var(--color-paper)", fontSize: "1rem", border: "none" },
        }}
      />
    </div>
  );
}

/** A ladle tipping out a wedge of citrus. */
function Mark() {
  return (
    <svg width="38" height="38" viewBox="0 0 38 38" aria-hidden="true">
      <path d="M4 15h22a11 11 0 0 1-22 0Z" fill="var(--color-ink)" />
      <path d="M25 16 33 3" stroke="var(--color-ink)" strokeWidth="3.4" strokeLinecap="round" />
      <path d="M10 34a9 9 0 0 1 18 0Z" fill="var(--color-citrus)" stroke="var(--color-ink)" strokeWidth="1.8" strokeLinejoin="round" />
      <path d="M19 34v-8M19 34l-5.5-5.5M19 34l5.5-5.5" stroke="var(--color-card)" strokeWidth="1.6" />
    </svg>
  );
}
