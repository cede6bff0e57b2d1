"use client";

import { Copy, Pencil, Trash2 } from "lucide-react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { isBuiltIn, catalogueOf, type Material, type MaterialKind } from "@/core/material";
import { Choice } from "../../kit/Choice";
import { notice } from "../../kit/notice";
import { call } from "../../data/call";
import { useUnits } from "../../kit/units";
import { fieldsOf, type FieldSpec, rangeAt, valueAt } from "./fields";
import { Tick } from "../../kit/Tick";

const Exchange = dynamic(() => import("./Exchange").then((m) => m.Exchange), { ssr: false });
const MaterialEditor = dynamic(() => import("./MaterialEditor").then((m) => m.MaterialEditor), { ssr: false });

const KINDS: { value: MaterialKind; label: string }[] = [
  { value: "rubber", label: "Rubbers" },
  { value: "cast", label: "Casting materials" },
  { value: "surface", label: "Master surfaces" },
  { value: "release", label: "Releases and sealers" },
  { value: "box", label: "Box stock" },
];
/** Most materials that fit side by side. */
const COMPARED = 3;

/** Browse, compare and copy materials; edit the workshop's own. */
export function MaterialsScreen({ own }: { own: readonly Material[] }) {
  const router = useRouter();
  const [kind, setKind] = useState<MaterialKind>("rubber");
  const [text, setText] = useState("");
  const [compared, setCompared] = useState<string[]>([]);
  const [editing, setEditing] = useState<Material | null>(null);
  const catalogue = catalogueOf(own);
  const lists: Record<MaterialKind, readonly Material[]> = {
    rubber: catalogue.rubbers,
    cast: catalogue.casts,
    surface: catalogue.surfaces,
    release: catalogue.releases,
    box: catalogue.boxes,
  };
  const words = text.trim().toLowerCase();
  const shown = lists[kind].filter((m) => `${m.name} ${m.note} ${m.traits.join(" ")}`.toLowerCase().includes(words));
  const chosen = compared.flatMap((id) => lists[kind].find((m) => m.id === id) ?? []);

  // Under its own id again, so that jobs that use it find it.
  const putBack = async (m: Material) => {
    const answer = await call("materials", "putBack", { params: { id: m.id }, body: m });
    if (!answer.ok) notice.bad(answer.message);
    router.refresh();
  };
  const copy = async (m: Material) => {
    const made: Material = { ...m, name: `${m.name}, ours`.slice(0, 80), provenance: "My data sheet", copiedFrom: m.id };
    const answer = await call("materials", "add", { body: made });
    if (!answer.ok) return notice.bad(answer.message);
    setEditing({ ...made, id: answer.data.id });
    router.refresh();
  };
  const remove = async (m: Material) => {
    const answer = await call("materials", "remove", { params: { id: m.id } });
    if (!answer.ok) return notice.bad(answer.message);
    router.refresh();
    notice.say(`${m.name} is taken out. Jobs that use it will say so.`, {
      label: "Put it back",
      onClick: () => void putBack(m),
    });
  };
  const toggle = (id: string) => setCompared((all) => (all.includes(id) ? all.filter((x) => x !== id) : [...all, id].slice(-COMPARED)));

  return (
    <div className="space-y-5 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl font-bold sm:text-4xl">Materials</h1>
        <Exchange onChanged={() => router.refresh()} />
      </div>
      <p className="max-w-3xl text-soft">
        Typical figures of each kind, with the span they are found in. Your data sheet outranks them: copy an entry and put its figures in.
      </p>
      <Choice
        label="Kind"
        hideLabel
        value={kind}
        options={KINDS}
        onChange={(k) => {
          setKind(k);
          setCompared([]);
        }}
      />
      <label className="block max-w-md space-y-1">
        <span className="label">Find by name or trait</span>
        <input className="field" value={text} onChange={(e) => setText(e.target.value)} placeholder="such as food, or tin" />
      </label>
      {chosen.length > 0 && <Comparison materials={chosen} onClear={() => setCompared([])} />}
      <p className="hint" role="status">
        {shown.length} of {lists[kind].length}; tick up to {COMPARED} to see them side by side.
      </p>
      <ul className="grid gap-3 md:grid-cols-2 xl:grid-cols-3">
        {shown.map((m) => (
          <li key={m.id} className="card flex flex-col gap-2 p-4">
            <div className="flex items-start justify-between gap-2">
              <h2 className="text-lg font-bold leading-tight">{m.name}</h2>
              <Tick
                className="flex shrink-0 items-center gap-2 text-sm"
                label={`Compare ${m.name}`}
                checked={compared.includes(m.id)}
                onChange={() => toggle(m.id)}
              >
                Compare
              </Tick>
            </div>
            {m.note && <p className="text-[0.95rem] leading-snug">{m.note}</p>}
            <KeyFigures material={m} />
            <p className="hint mt-auto">{m.provenance}</p>
            <div className="flex flex-wrap gap-2">
              {isBuiltIn(m.id) ? null : (
                <>
                  <button type="button" className="btn" onClick={() => setEditing(m)} aria-label={`Edit ${m.name}`}>
                    <Pencil size={17} aria-hidden="true" /> Edit
                  </button>
                  <button type="button" className="btn btn-bare" onClick={() => void remove(m)} aria-label={`Remove ${m.name}`}>
                    <Trash2 size={17} aria-hidden="true" /> Remove
                  </button>
                </>
              )}
              <button type="button" className="btn btn-bare" onClick={() => void copy(m)} aria-label={`Copy ${m.name} and edit`}>
                <Copy size={17} aria-hidden="true" /> {isBuiltIn(m.id) ? "Copy and edit" : "Copy"}
              </button>
            </div>
          </li>
        ))}
      </ul>
      {shown.length === 0 && (
        <p className="card p-6 text-center">No material is called “{text.trim()}”. Clear the search, or copy the closest entry and rename it.</p>
      )}
      {editing && <MaterialEditor key={editing.id} material={editing} onClose={() => setEditing(null)} onSaved={() => router.refresh()} />}
    </div>
  );
}

/** The two or three properties people look for first. */
const KEY_PATHS: Record<MaterialKind, readonly string[]> = {
  rubber: ["shoreA", "potLifeMin", "cureH", "heatShortC"],
  cast: ["densityGMl", "peakC", "workingMin", "setting.demouldH"],
  surface: ["densityGMl"],
  release: ["role"],
  box: ["thicknessMm", "bends"],
};

function KeyFigures({ material }: { material: Material }) {
  const specs = fieldsOf(material).filter((f) => KEY_PATHS[material.kind].includes(f.path));
  return (
    <dl className="grid grid-cols-2 gap-x-3 gap-y-1">
      {specs.map((f) => (
        <div key={f.path}>
          <dt className="text-xs text-soft">{f.label}</dt>
          <dd className="figure text-lg">
            <Shown material={material} spec={f} short />
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** A property written out: its typical figure, and the span in which it is found. */
function Shown({ material, spec, short = false }: { material: Material; spec: FieldSpec; short?: boolean }) {
  const { fmt } = useUnits();
  const value = valueAt(material, spec.path);
  if (spec.kind === "flag") return <>{value === true ? "yes" : "no"}</>;
  if (spec.kind === "choice" || spec.kind === "text") return <>{String(value)}</>;
  const write = (v: number) => `${fmt(v / (spec.factor ?? 1), spec.dimension)}${spec.suffix ? ` ${spec.suffix}` : ""}`;
  if (spec.kind === "number") return <>{typeof value === "number" ? write(value) : "–"}</>;
  const r = rangeAt(material, spec.path);
  if (!r) return <>–</>;
  return short || r.low === r.high ? (
    <>{write(r.typical)}</>
  ) : (
    <>
      {write(r.typical)}{" "}
      <span className="block text-sm font-normal text-soft">
        {write(r.low)} – {write(r.high)}
      </span>
    </>
  );
}

function Comparison({ materials, onClear }: { materials: readonly Material[]; onClear: () => void }) {
  const rows = new Map<string, FieldSpec>();
  for (const m of materials) for (const f of fieldsOf(m)) if (!rows.has(f.path)) rows.set(f.path, f);
  return (
    <section aria-labelledby="side-by-side" className="card overflow-x-auto p-4">
      <div className="mb-2 flex items-center justify-between gap-3">
        <h2 id="side-by-side" className="text-xl font-bold">
          Side by side
        </h2>
        <button type="button" className="btn btn-bare" onClick={onClear}>
          Clear
        </button>
      </div>
      <table className="w-full min-w-[28rem] text-left">
        <thead>
          <tr>
            <td />{" "}
            {materials.map((m) => (
              <th key={m.id} scope="col" className="pb-2 pr-4 align-bottom font-display">
                {m.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...rows.values()].map((f) => (
            <tr key={f.path} className="border-t border-line align-top">
              <th scope="row" className="py-1.5 pr-4 text-sm font-normal text-soft">
                {f.label}
              </th>
              {materials.map((m) => {
                const spec = fieldsOf(m).find((g) => g.path === f.path);
                return (
                  <td key={m.id} className="py-1.5 pr-4 font-semibold">
                    {spec ? <Shown material={m} spec={spec} /> : "–"}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
