"use client";

import { ArrowLeft, Camera, FileBox } from "lucide-react";
import { useRouter } from "next/navigation";
import { useRef, useState, type FormEvent } from "react";
import { PIECE_KINDS, pieceKind, sizesFault, type PieceKind } from "@/core/start";
import type { JobName } from "@/contract/jobs";
import { call } from "../../data/call";
import { useActKey } from "../../data/key";
import { QuantityField } from "../../form/QuantityField";
import { Fault } from "../../kit/controls";
import { Pick } from "../../kit/Pick";
import { Tick } from "../../kit/Tick";
import { useUnits } from "../../kit/units";
import { KindPicture } from "./KindPicture";

/** Starts a job: what kind of piece, its sizes, and everything else is assumed and open to argument. */
export function StartScreen({ earlier }: { earlier: readonly JobName[] }) {
  const [kind, setKind] = useState<PieceKind | null>(null);
  return kind ? <Sizes kind={kind} back={() => setKind(null)} /> : <Kinds choose={setKind} earlier={earlier} />;
}

/** Opens what was made; the fault where it was refused. */
function useMaking(): {
  busy: boolean;
  fault: string | null;
  make: (body: Parameters<typeof call<"jobs", "make">>[2]["body"]) => void;
  say: (fault: string | null) => void;
} {
  const router = useRouter();
  const { key } = useActKey();
  const [busy, setBusy] = useState(false);
  const [fault, say] = useState<string | null>(null);
  const make = async (body: Parameters<typeof call<"jobs", "make">>[2]["body"]) => {
    setBusy(true);
    const made = await call("jobs", "make", { body: { key: key(), ...body } });
    setBusy(false);
    if (!made.ok) return say(made.message);
    router.push(`/jobs/${made.data.id}`);
  };
  return { busy, fault, make: (body) => void make(body), say };
}

function Kinds({ choose, earlier }: { choose: (k: PieceKind) => void; earlier: readonly JobName[] }) {
  const { busy, fault, make } = useMaking();
  const [name, setName] = useState("");
  return (
    <div className="space-y-4 pb-10 pt-2">
      <h1 className="text-3xl font-bold">What are you moulding?</h1>
      <p className="text-soft">
        Take the nearest, whether its mould is still to be made or stands on your shelf. Its sizes come next; the rest is assumed, and yours to change.
      </p>
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3 lg:grid-cols-4">
        {PIECE_KINDS.map((k) => (
          <li key={k}>
            <button type="button" onClick={() => choose(k)} className="card flex h-full w-full flex-col items-center gap-1 p-3 text-center hover:bg-peel/40">
              <KindPicture kind={k} />
              <b className="text-lg leading-tight">{pieceKind(k).label}</b>
              <span className="text-sm text-soft">{pieceKind(k).hint}</span>
            </button>
          </li>
        ))}
      </ul>
      <Fault large>{fault}</Fault>
      <div className="grid gap-3 sm:grid-cols-2">
        <button
          type="button"
          disabled={busy}
          onClick={() => make({ source: "photographs" })}
          className="card flex items-center gap-4 p-4 text-left hover:bg-peel/40"
        >
          <Camera size={36} className="shrink-0" aria-hidden="true" />
          <span>
            <b className="block text-lg leading-tight">From photographs</b>
            <span className="text-sm text-soft">a picture or two, with a ruler beside the piece</span>
          </span>
        </button>
        <button type="button" disabled={busy} onClick={() => make({ source: "model" })} className="card flex items-center gap-4 p-4 text-left hover:bg-peel/40">
          <FileBox size={36} className="shrink-0" aria-hidden="true" />
          <span>
            <b className="block text-lg leading-tight">From a model file</b>
            <span className="text-sm text-soft">STL, OBJ, PLY or 3MF</span>
          </span>
        </button>
      </div>
      <div className="grid gap-3 lg:grid-cols-2">
        {earlier.length > 0 && (
          <section aria-labelledby="like" className="card space-y-2 p-4">
            <h2 id="like" className="text-lg font-bold">
              Like an earlier job
            </h2>
            <Pick
              label="Take its piece, mould and mix"
              value={null}
              none="Choose a job"
              options={earlier.map((j) => ({ value: j.id, label: j.name }))}
              onChange={(like) => like && make({ like })}
            />
          </section>
        )}
        <form
          className="card space-y-2 p-4"
          onSubmit={(e: FormEvent) => {
            e.preventDefault();
            make({ name });
          }}
        >
          <h2 className="text-lg font-bold">None of these</h2>
          <label className="block">
            <span className="label">What are you making?</span>
            <input className="field" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
          </label>
          <button type="submit" className="btn" disabled={busy || name.trim() === ""}>
            Start
          </button>
        </form>
      </div>
    </div>
  );
}

function Sizes({ kind, back }: { kind: PieceKind; back: () => void }) {
  const { say: inUnits } = useUnits();
  const { busy, fault, make, say } = useMaking();
  const { label, hint, asks } = pieceKind(kind);
  const [mm, setMm] = useState<(number | null)[]>(() => asks.map(() => null));
  const [name, setName] = useState("");
  const [existing, setExisting] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const start = (e: FormEvent) => {
    e.preventDefault();
    const wrong = sizesFault(kind, mm);
    if (wrong) return say(inUnits(wrong));
    make({ kind, existing, sizesMm: mm.flatMap((v) => (v === null ? [] : [v])), ...(name.trim() === "" ? {} : { name }) });
  };
  return (
    <form ref={form} onSubmit={start} className="mx-auto max-w-3xl space-y-4 pb-10 pt-2">
      <button type="button" className="btn btn-bare" onClick={back}>
        <ArrowLeft size={18} aria-hidden="true" /> Another kind of piece
      </button>
      <div className="card grid gap-5 p-5 sm:grid-cols-[18rem_1fr]">
        <div className="flex flex-col items-center justify-center">
          <KindPicture kind={kind} width={280} />
        </div>
        <div className="space-y-3">
          <h1 className="text-3xl font-bold">{label}</h1>
          <p className="text-soft">{hint}</p>
          {asks.map((a, i) => (
            <QuantityField
              key={a.label}
              label={a.label}
              value={mm[i] ?? null}
              dimension="length"
              min={0.5}
              max={3000}
              optional
              onChange={(v) => {
                say(null);
                setMm((was) => was.map((x, k) => (k === i ? v : x)));
              }}
            />
          ))}
          <label className="block">
            <span className="label">Name, if you like</span>
            <input className="field" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} placeholder={label} />
          </label>
          <Tick className="flex min-h-11 items-center gap-2" label="I have its mould already" checked={existing} onChange={() => setExisting((v) => !v)}>
            I have its mould already
          </Tick>
          <Fault large>{fault}</Fault>
          <button type="submit" className="btn btn-main w-full text-lg" disabled={busy}>
            Show me the grams
          </button>
        </div>
      </div>
    </form>
  );
}
