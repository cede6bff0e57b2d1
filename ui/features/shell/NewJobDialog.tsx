"use client";

import { useRouter } from "next/navigation";
import { useState, type FormEvent } from "react";
import { Dialog } from "../../kit/Dialog";
import { call } from "../../data/call";

/** Names a job and opens it. */
export function NewJobDialog({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (name.trim() === "") return setFault("Give the job a name, such as the piece you are moulding.");
    setBusy(true);
    const made = await call("jobs", "make", { body: { name: name.trim() } });
    setBusy(false);
    if (!made.ok) return setFault(made.message);
    onClose();
    router.push(`/jobs/${made.data.id}`);
  };
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Start a job" description="One job is one piece: its master, its mould and what you cast in it.">
      <form onSubmit={submit} className="space-y-4">
        <label className="block space-y-1">
          <span className="label">What are you making?</span>
          <input
            className="field text-lg"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.target.value)}
            aria-invalid={fault ? true : undefined}
            aria-describedby={fault ? "new-job-fault" : undefined}
            autoFocus
          />
        </label>
        {fault && (
          <p id="new-job-fault" role="alert" className="fault">
            {fault}
          </p>
        )}
        <button type="submit" className="btn btn-main w-full" disabled={busy}>
          Start
        </button>
      </form>
    </Dialog>
  );
}
