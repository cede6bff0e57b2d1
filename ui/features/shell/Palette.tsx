"use client";

import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { call } from "../../data/call";
import type { Shortcut } from "./shortcuts";

/** Finds any job, screen or action by typing. */
export function Palette({ onClose, shortcuts }: { onClose: () => void; shortcuts: readonly Shortcut[] }) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState("");
  const [jobs, setJobs] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    let here = true;
    const soon = setTimeout(() => void call("jobs", "named", { body: { text } }).then((a) => here && a.ok && setJobs(a.data)), 80);
    return () => {
      here = false;
      clearTimeout(soon);
    };
  }, [text]);
  const words = text.trim().toLowerCase();
  const actions = shortcuts
    .filter((s) => s.keys !== "Ctrl+K" && s.label.toLowerCase().includes(words))
    .map((s) => ({ value: `key ${s.keys}`, label: s.label, keys: s.keys, run: s.run }));
  // What the server found for fewer letters is narrowed at once: Enter never takes a job of another name.
  const found = jobs
    .filter((j) => j.name.toLowerCase().includes(words))
    .map((j) => ({ value: `job ${j.id}`, label: j.name, keys: "", run: () => router.push(`/jobs/${j.id}`) }));
  const groups = [
    { heading: "Actions", items: actions },
    { heading: "Jobs", items: found },
  ].filter((g) => g.items.length > 0);
  const items = groups.flatMap((g) => g.items);
  // Results come and go while one types: what is chosen is always something on the list.
  const current = items.some((i) => i.value === chosen) ? chosen : (items[0]?.value ?? "");
  return (
    <Command.Dialog
      open
      onOpenChange={(o) => !o && onClose()}
      label="Find anything"
      shouldFilter={false}
      value={current}
      onValueChange={setChosen}
      overlayClassName="fixed inset-0 z-40 bg-black/50"
      contentClassName="card fixed left-1/2 top-[12vh] z-50 w-[min(600px,94vw)] -translate-x-1/2 p-2"
    >
      <Command.Input value={text} onValueChange={setText} placeholder="Type a job, a screen or an action" className="field !border-0 text-lg !outline-none" />
      <Command.List className="mt-1 max-h-[55vh] overflow-y-auto">
        {items.length === 0 && <p className="px-3 py-6 text-soft">Nothing of that name.</p>}
        {groups.map((g) => (
          <Command.Group key={g.heading} heading={g.heading} className="px-1 text-sm text-soft">
            {g.items.map((i) => (
              <Command.Item
                key={i.value}
                value={i.value}
                className="flex min-h-12 cursor-pointer items-center justify-between gap-4 rounded-lg px-3 text-base text-ink data-[selected=true]:bg-peel"
                onSelect={() => {
                  onClose();
                  i.run();
                }}
              >
                {i.label} {i.keys && <kbd className="text-sm text-soft">{i.keys}</kbd>}
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
