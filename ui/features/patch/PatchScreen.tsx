"use client";

import { Camera } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { CONTACT_LABEL, type Contact } from "@/core/fit";
import { FilePick } from "../../kit/FilePick";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/controls";
import type { Patch } from "@/core/log";
import { call, type Sent } from "../../data/call";
import { Conflict } from "../../form/Conflict";
import { useSaved } from "../../data/useSaved";
import { patchDocument, type PatchNotes } from "./patchDocument";
import { fromNow, useNow, When } from "../../kit/When";

/** One patch test: its clock, what it showed, and a photo. */
export function PatchScreen({ initial }: { initial: Patch }) {
  const router = useRouter();
  const now = useNow();
  const [{ view: patch, save }, document] = useSaved<Patch, PatchNotes>(() => patchDocument(initial));
  const [refused, setRefused] = useState<string | null>(null);
  const fault = save.kind === "failed" ? save.message : refused;
  const take = (answer: Sent<Patch>) => {
    setRefused(answer.ok ? null : answer.message);
    if (answer.ok) document.take(answer.data);
    router.refresh();
  };
  const judge = async (outcome: Patch["outcome"]) => {
    if (await document.flush()) take(await call("patches", "judge", { params: { id: patch.id }, body: { outcome } }));
  };
  const addPhoto = async (file: File) => take(await call("patches", "addPhoto", { params: { id: patch.id }, bytes: file }));
  const early = patch.outcome === null && now !== null && now < patch.readyAt;
  return (
    <div className="mx-auto w-full max-w-2xl space-y-4 pb-10 pt-2">
      <p className="text-sm">
        <Link href="/" className="underline">
          Bench
        </Link>{" "}
        · {CONTACT_LABEL[patch.contact as Contact]}
      </p>
      <h1 className="text-3xl font-bold">
        Patch test: {patch.between[1]} on {patch.between[0]}
      </h1>
      <Fault large>{fault}</Fault>
      {save.kind === "conflict" && <Conflict resolve={document.resolve}>This patch test was changed somewhere else since this page read it.</Conflict>}
      <section aria-label="Clock" className="card space-y-1 p-4">
        <p className="figure text-4xl">
          {patch.endedAt !== null ? "Judged" : now === null ? "…" : now >= patch.readyAt ? "Ready to judge" : `Judge it ${fromNow(patch.readyAt, now)}`}
        </p>
        <p className="text-soft">
          Started <When at={patch.startedAt} />, to be judged from <When at={patch.readyAt} />.
        </p>
      </section>
      <section aria-labelledby="shown" className="card space-y-3 p-4">
        <h2 id="shown" className="text-xl font-bold">
          What it showed
        </h2>
        <label className="block space-y-1">
          <span className="label">Notes</span>
          <textarea className="field" rows={2} maxLength={2000} value={patch.notes} onChange={(e) => document.update({ notes: e.target.value })} />
        </label>
        <Choice
          label="Outcome"
          hideLabel
          value={patch.outcome ?? ""}
          options={[
            { value: "clean", label: "Came away clean and firm" },
            { value: "tacky", label: "Stayed tacky or slimy" },
          ]}
          onChange={(o) => void judge(o === "clean" ? "clean" : "tacky")}
        />
        {early && (
          <p className="hint">
            It is early: a slow cure looks like a spoilt one until its time is up. Tacky can be said at any time; clean only holds once it has had its time.
          </p>
        )}
        {patch.outcome && (
          <button type="button" className="btn btn-bare" onClick={() => void judge(null)}>
            Not judged after all
          </button>
        )}
        {patch.photoFile && (
          // eslint-disable-next-line @next/next/no-img-element -- served from this workshop's own folder at its own size
          <img src={`/api/patches/${patch.id}/photo?${patch.photoFile}`} alt="Photo of this patch test" className="max-h-72 rounded-lg border border-line" />
        )}
        <FilePick accept="image/jpeg,image/png,image/webp" onFile={(file) => void addPhoto(file)}>
          <Camera size={19} aria-hidden="true" /> {patch.photoFile ? "Another photo" : "Add a photo"}
        </FilePick>
      </section>
      <p className="hint">The answer holds for this very pair in this workshop. Reopen the job to see its verdict.</p>
    </div>
  );
}
