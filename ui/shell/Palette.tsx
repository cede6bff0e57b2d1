"use client";

import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { send } from "../send";
import type { Shortcut } from "./shortcuts";

/** Finds any job, screen or action by typing. */
export function Palette({ onClose, shortcuts }: { onClose: () => void; shortcuts: readonly Shortcut[] }) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [jobs, setJobs] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    let here = true;
    const soon = setTimeout(() => void send<{ id: string; name: string }[]>("GET", `/api/jobs?text=${encodeURIComponent(text)}`).then((a) => here && a.ok && setJobs(a.data)), 80);
    return () => {
      here = false;
      clearTimeout(soon);
    };
  }, [text]);
  const pick = (run: () => void) => {
    onClose();
    run();
  };
  const item = "flex min-h-12 cursor-pointer items-center justify-between gap-4 rounded-lg px-3 data-[selected=true]:bg-peel";
  return (
    <Command.Dialog open onOpenChange={(o) => !o && onClose()} label="Find anything" overlayClassName="fixed inset-0 z-40 bg-ink/45" contentClassName="card fixed left-1/2 top-[12vh] z-50 w-[min(600px,94vw)] -translate-x-1/2 p-2">
      <Command.Input value={text} onValueChange={setText} placeholder="Type a job, a screen or an action" className="field !border-0 text-lg !outline-none" />
      <Command.List className="mt-1 max-h-[55vh] overflow-y-auto">
        <Command.Empty className="px-3 py-6 text-soft">Nothing of that name.</Command.Empty>
        <Command.Group heading="Actions" className="px-1 text-sm text-soft">
          {shortcuts.filter((s) => s.keys !== "Ctrl+K").map((s) => (
            <Command.Item key={s.keys} value={s.label} onSelect={() => pick(s.run)} className={`${item} text-base text-ink`}>
              {s.label} <kbd className="text-sm text-soft">{s.keys}</kbd>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Jobs" className="px-1 text-sm text-soft">
          {jobs.map((j) => (
            <Command.Item key={j.id} value={`job ${j.name} ${j.id}`} onSelect={() => pick(() => router.push(`/jobs/${j.id}`))} className={`${item} text-base text-ink`}>{j.name}</Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
