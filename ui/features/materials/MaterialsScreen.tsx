"use client";

import { Copy, Pencil, Trash2 } from "lucide-react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { isBuiltIn, catalogueOf, type Material, type MaterialKind } from "@/core/material";
import { Tabs } from "../../kit/Tabs";
import { notice } from "../../kit/notice";
import { useActKey } from "../../data/key";
import { call } from "../../data/call";
import { useUnits } from "../../kit/units";
import { fieldsOf, type FieldSpec, rangeAt, valueAt } from "./fields";
import { Tick } from "../../kit/Tick";
import { DataTable, type Column } from "../../kit/DataTable";

const Exchange = dynamic(() => import("./Exchange").then((m) => m.Exchange), { ssr: false });
const MaterialEditor = dynamic(() => import("./MaterialEditor").then((m) => m.MaterialEditor), { ssr: false });

const KINDS: { value: MaterialKind; label: string }[] = [
  { value: "rubber", label: "Rubbers" },
  { value: "cast", label: "Casting materials" },
  { value: "surface", label: "Master surfaces" },
  { value: "release", label: "Releases and sealers" },
  { value: "box", label: "Box stock" },
  { value: "sundry", label: "Wicks, cloth, powder, film" },
];
/** Most materials that fit side by side. */
const COMPARED = 3;

/** Browse, compare and copy materials; edit the workshop's own. */
export function MaterialsScreen({ own }: { own: readonly Material[] }) {
  const router = useRouter();
  const act = useActKey();
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
    sundry: catalogue.sundries,
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
    const answer = await call("materials", "add", { body: { ...made, key: act.key() } });
    if (!answer.ok) return notice.bad(answer.message);
    act.answered();
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

  const columns: Column<Material>[] = [
    {
      id: "name",
      header: "Material",
      accessorFn: (m) => m.name,
      cell: ({ row: { original: m } }) => (
        <>
          <span className="block text-lg font-bold leading-tight">{m.name}</span>
          <span className="block text-[0.95rem] leading-snug">{m.note}</span>
          <span className="hint block">{m.provenance}</span>
        </>
      ),
    },
    ...KEY_PATHS[kind].map((path): Column<Material> => {
      const label = lists[kind].flatMap(fieldsOf).find((f) => f.path === path)?.label ?? path;
      return {
        id: path,
        header: label,
        sortUndefined: "last",
        accessorFn: (m) => sortable(m, path),
        cell: ({ row: { original: m } }) => {
          const spec = fieldsOf(m).find((f) => f.path === path);
          return spec ? <Shown material={m} spec={spec} short /> : "–";
        },
        meta: { cell: () => "figure text-lg" },
      };
    }),
    {
      id: "deeds",
      header: "",
      cell: ({ row: { original: m } }) => (
        <div className="flex flex-wrap items-center justify-end gap-1 max-sm:justify-start">
          <Tick
            className="flex min-h-11 items-center gap-2 pr-2 text-sm"
            label={`Compare ${m.name}`}
            checked={compared.includes(m.id)}
            onChange={() => toggle(m.id)}
          >
            Compare
          </Tick>
          {!isBuiltIn(m.id) && (
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
      ),
      meta: { cell: () => "max-sm:col-span-2" },
    },
  ];

  return (
    <div className="space-y-5 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl font-bold sm:text-4xl">Materials</h1>
        <Exchange onChanged={() => router.refresh()} />
      </div>
      <p className="max-w-3xl text-soft">
        Typical figures of each kind, with the span they are found in. Your data sheet outranks them: copy an entry and put its figures in.
      </p>
      <Tabs
        label="Kind"
        value={kind}
        options={KINDS}
        onChange={(k) => {
          setKind(k);
          setCompared([]);
        }}
      >
        <div className="mt-4 space-y-5">
          <label className="block max-w-md space-y-1">
            <span className="label">Find by name or trait</span>
            <input className="field" value={text} onChange={(e) => setText(e.target.value)} placeholder="such as food, or tin" />
          </label>
          {chosen.length > 0 && <Comparison materials={chosen} onClear={() => setCompared([])} />}
          <p className="hint" role="status">
            {shown.length} of {lists[kind].length}; tick up to {COMPARED} to see them side by side.
          </p>
          <div className="card px-4 pb-1">
            <DataTable label={KINDS.find((k) => k.value === kind)?.label ?? ""} stacks rows={shown} keyOf={(m) => m.id} columns={columns} />
          </div>
          {shown.length === 0 && (
            <p className="card p-6 text-center">No material is called “{text.trim()}”. Clear the search, or copy the closest entry and rename it.</p>
          )}
        </div>
      </Tabs>
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
  sundry: ["sort", "forMm", "widthMm"],
};

/** What a property is put in order by: its typical figure, or its word. */
function sortable(m: Material, path: string): number | string | undefined {
  const value = valueAt(m, path);
  return rangeAt(m, path)?.typical ?? (typeof value === "number" || typeof value === "string" ? value : typeof value === "boolean" ? Number(value) : undefined);
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
