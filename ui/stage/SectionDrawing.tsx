"use client";

import { useEffect, useId, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Job } from "@/core/record";
import type { Body } from "@/core/body";
import { LARGEST_MM, SMALLEST_MM, type ProfilePoint, type SizeKey } from "@/core/master";
import { OPENING, THICKEST_MM, type BlockLayout, type SkinLayout } from "@/core/mould";
import type { Plan } from "@/core/plan";
import { QuantityField } from "../form/QuantityField";
import { systemOf } from "@/core/quantity";
import { useUnits } from "../kit/units";
import { buildScene, type Scene, type Stage } from "@/core/draw";
import { Hatches, NAMES, HUE, ScaledHatches } from "./hatches";
import { movePoint } from "./movePoint";

interface Dimension {
  key: string;
  name: string;
  mm: number;
  /** Middle of the label, in drawing pixels. */
  x: number;
  y: number;
  /** Arrow, in drawing pixels. */
  from: [number, number];
  to: [number, number];
  edit?: (mm: number) => void;
  min?: number;
  max?: number;
}

interface Props {
  job: Job;
  plan: Plan;
  stage: Stage;
  panelMm: number;
  onSize: (key: SizeKey, mm: number) => void;
  onMould: (patch: Partial<Job["mould"]>) => void;
  onProfile: (profile: ProfilePoint[]) => void;
}

/** Which typed size the length and the height of each shape are, so that they can be changed on the drawing. */
const LENGTH_KEY: Partial<Record<Job["master"]["shape"], SizeKey>> = {
  box: "lengthMm",
  cylinder: "diameterMm",
  dome: "lengthMm",
  ovalDish: "lengthMm",
  plaque: "lengthMm",
  displaced: "lengthMm",
  weighed: "lengthMm",
};
const HEIGHT_KEY: Partial<Record<Job["master"]["shape"], SizeKey>> = {
  box: "heightMm",
  cylinder: "heightMm",
  frustum: "heightMm",
  dome: "heightMm",
  ovalDish: "heightMm",
  vessel: "heightMm",
  displaced: "heightMm",
  weighed: "heightMm",
};

type Frame = { job: Job; scene: Scene; X: (mm: number) => number; Y: (mm: number) => number; onMould: Props["onMould"] };
const mid = (a: number, b: number) => (a + b) / 2;

/** Sizes of a block: wall, cover, base, inside. */
function blockDims({
  job,
  body,
  layout,
  scene,
  X,
  Y,
  cx,
  rightX,
  onMould,
}: Frame & { body: Body; layout: BlockLayout; cx: number; rightX: number }): Dimension[] {
  const half = layout.box.lengthMm / 2;
  const fill = layout.fillHeightMm;
  // Turned over, the cover lies below the cavity.
  const flipped = scene.master.upsideDown;
  const [coverLow, coverHigh] = flipped ? [0, scene.master.fromMm] : [scene.master.toMm, fill];
  // Under the drawing: the wall first, the whole inside below it.
  const wallY = Y(scene.bottomMm) + 18;
  const bottomY = Y(scene.bottomMm) + 44;
  const upright = (key: string, name: string, mm: number, low: number, high: number, edit: (v: number) => void): Dimension => ({
    key,
    name,
    mm,
    x: rightX + 32,
    y: mid(Y(low), Y(high)),
    from: [rightX, Y(low)],
    to: [rightX, Y(high)],
    edit,
    min: 0.1,
    max: THICKEST_MM,
  });
  const [baseLow, baseHigh] = flipped ? [scene.master.toMm, fill] : [0, scene.master.fromMm];
  return [
    {
      key: "wall",
      name: "Wall",
      mm: job.mould.ownBox ? half - body.lengthMm / 2 : layout.box.leastWallMm,
      x: X(half) + 34,
      y: wallY,
      from: [X(body.lengthMm / 2), wallY],
      to: [X(half), wallY],
      ...(job.mould.ownBox ? {} : { edit: (v: number) => onMould({ wallMm: v }), min: 0.1, max: THICKEST_MM }),
    },
    upright("cover", "Cover", job.mould.coverMm, coverLow, coverHigh, (v) => onMould({ coverMm: v })),
    ...(OPENING[job.mould.opening].base ? [upright("base", "Base", job.mould.baseMm, baseLow, baseHigh, (v) => onMould({ baseMm: v }))] : []),
    {
      key: "inside",
      name: layout.box.shape === "cylindrical" ? "Inside diameter" : "Inside length",
      mm: layout.box.lengthMm,
      x: cx,
      y: bottomY,
      from: [X(-half), bottomY],
      to: [X(half), bottomY],
    },
  ];
}

/** Sizes of a skin: its thickness over the top, the flange, the jacket. */
function skinDims({ job, layout, scene, X, Y, onMould, stage }: Frame & { layout: SkinLayout; stage: Stage }): Dimension[] {
  const { skin } = job.mould;
  const dims: Dimension[] = [];
  const rightX = X(scene.halfMm) + 16;
  const top = scene.master.upsideDown ? scene.master.fromMm : scene.master.toMm;
  const sign = scene.master.upsideDown ? -1 : 1;
  const outer = top + sign * layout.skinMm;
  dims.push({ key: "skin", name: "Skin", mm: layout.skinMm, x: rightX + 32, y: mid(Y(top), Y(outer)), from: [rightX, Y(top)], to: [rightX, Y(outer)] });
  if (layout.jacket && stage !== "pour0") {
    const out = outer + sign * layout.jacket.thicknessMm;
    dims.push({
      key: "jacket",
      name: "Jacket",
      mm: layout.jacket.thicknessMm,
      x: rightX + 32,
      y: mid(Y(outer), Y(out)) - 26 * sign,
      from: [rightX, Y(outer)],
      to: [rightX, Y(out)],
      edit: (v) => onMould({ jacketMm: v }),
      min: 0.1,
      max: 200,
    });
  }
  const kind = OPENING[job.mould.opening];
  if (kind.made === "skin" && kind.skirt && stage !== "cast") {
    const foot = layout.footMm / 2;
    const y = Y(scene.bottomMm) + 20;
    dims.push({
      key: "flange",
      name: "Flange",
      mm: skin.flangeMm,
      x: X(foot + skin.flangeMm) + 34,
      y,
      from: [X(foot), y],
      to: [X(foot + skin.flangeMm), y],
      edit: (v) => onMould({ skin: { ...skin, flangeMm: v } }),
      min: 0.1,
      max: 200,
    });
  }
  return dims;
}

/** What stands above and below the drawing on a page, px. */
const ROUND_IT_PX = 390;

/** The cut: this mould in section, to scale. Sizes with a dotted underline can be changed where they stand. */
export function SectionDrawing({ job, plan, stage, panelMm, onSize, onMould, onProfile }: Props) {
  const { fmt, system } = useUnits();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  // The element changes when the first sizes are there: what is watched has to change with it.
  const [frame, setFrame] = useState<HTMLDivElement | null>(null);
  const [width, setWidth] = useState(680);
  const [room, setRoom] = useState(430);
  const [editing, setEditing] = useState<string | null>(null);
  const [dragging, setDragging] = useState<number | null>(null);

  useEffect(() => {
    if (!frame) return;
    const watch = new ResizeObserver(([entry]) => {
      if (!entry) return;
      setWidth(Math.max(260, entry.contentRect.width));
      setRoom(window.innerHeight - ROUND_IT_PX);
    });
    watch.observe(frame);
    return () => watch.disconnect();
  }, [frame]);

  const { body, layout } = plan;
  if (!body) return <EmptyStage width={width} frame={setFrame} line={plan.steps[0]?.line ?? ""} />;

  const scene = buildScene({ plan, mould: job.mould, stage, panelMm });
  if (!scene) return <EmptyStage width={width} frame={setFrame} line={plan.steps[0]?.line ?? ""} />;
  const height = Math.min(Math.max(430, room), Math.max(230, width * 0.72));
  const pad = {
    left: width < 480 ? 74 : 104,
    right: width < 480 ? 70 : 104,
    top: 34,
    bottom: layout && stage !== "master" ? 74 : 46,
  };
  const scale = Math.min((width - pad.left - pad.right) / (2 * scene.halfMm), (height - pad.top - pad.bottom) / (scene.topMm - scene.bottomMm));
  const cx = pad.left + (width - pad.left - pad.right) / 2;
  const base = height - pad.bottom - (height - pad.top - pad.bottom - scale * (scene.topMm - scene.bottomMm)) / 2;
  const X = (mm: number) => cx + mm * scale;
  const Y = (mm: number) => base - (mm - scene.bottomMm) * scale;

  const dims: Dimension[] = [];
  const lengthKey = LENGTH_KEY[job.master.shape];
  const heightKey = HEIGHT_KEY[job.master.shape];
  const masterTopY = Y(scene.master.toMm);
  const masterBotY = Y(scene.master.fromMm);
  const leftX = X(-scene.halfMm) - 16;
  const rightX = X(scene.halfMm) + 16;
  const limits = { min: SMALLEST_MM, max: LARGEST_MM };
  dims.push({
    key: "height",
    name: stage === "cast" ? "Cavity height" : "Master height",
    mm: body.heightMm,
    x: leftX - 30,
    y: mid(masterTopY, masterBotY),
    from: [leftX, masterTopY],
    to: [leftX, masterBotY],
    ...(heightKey ? { edit: (v: number) => onSize(heightKey, v), ...limits } : {}),
  });
  const lengthY = stage === "master" || !layout ? Y(scene.bottomMm) + 20 : mid(masterTopY, masterBotY);
  dims.push({
    key: "length",
    name: stage === "cast" ? "Cavity length" : "Master length",
    mm: body.lengthMm,
    x: cx,
    y: lengthY,
    from: [X(-body.lengthMm / 2), lengthY],
    to: [X(body.lengthMm / 2), lengthY],
    ...(lengthKey ? { edit: (v: number) => onSize(lengthKey, v), ...limits } : {}),
  });
  if (layout?.kind === "block" && stage !== "master") dims.push(...blockDims({ job, body, layout, scene, X, Y, cx, rightX, onMould }));
  if (layout?.kind === "skin" && stage !== "master") dims.push(...skinDims({ job, layout, scene, X, Y, onMould, stage }));

  const stuffs = [...new Set(scene.regions.map((r) => r.stuff))];
  const handles = stage === "master" && job.master.shape === "turned" ? job.master.profile : [];
  const zero = handles[0]?.zMm ?? 0;
  const dragTo = (e: PointerEvent<SVGSVGElement>) => {
    if (dragging === null) return;
    const r = e.currentTarget.getBoundingClientRect();
    const px = ((e.clientX - r.left) / r.width) * width;
    const py = ((e.clientY - r.top) / r.height) * height;
    onProfile(movePoint(handles, dragging, Math.abs(px - cx) / scale, zero + scene.bottomMm + (base - py) / scale));
  };
  const nudge = (e: KeyboardEvent, i: number) => {
    const step = e.shiftKey ? 5 : 0.5;
    const d: Record<string, [number, number]> = {
      ArrowRight: [step, 0],
      ArrowLeft: [-step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const move = d[e.key];
    const p = handles[i];
    if (!move || !p) return;
    e.preventDefault();
    onProfile(movePoint(handles, i, p.radiusMm + move[0], p.zMm + move[1]));
  };
  const bars = systemOf("length", system) === "us" ? [12, 6, 4, 3, 2, 1, 0.5, 0.25].map((inch) => inch * 25.4) : [200, 100, 50, 20, 10, 5, 2, 1];
  const bar = bars.find((b) => b * scale <= width * 0.18) ?? bars.at(-1) ?? 1;
  const title = `Section of ${job.name}: ${stuffs.map((s) => NAMES[s].toLowerCase()).join(", ")}. Master ${fmt(body.lengthMm, "length")} long and ${fmt(body.heightMm, "length")} high.`;

  return (
    <div ref={setFrame} className="w-full">
      <div className="relative mx-auto" style={{ width, height }}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          width={width}
          height={height}
          role="group"
          aria-label={title}
          className="block touch-none select-none"
          onPointerMove={dragTo}
          onPointerUp={() => setDragging(null)}
          onPointerLeave={() => setDragging(null)}
        >
          <Hatches id={id} stuffs={stuffs.join(" ")} />
          <ScaledHatches id={id} scale={scale} stuffs={stuffs} />
          {scene.regions.map((r, i) => (
            <g key={i} transform={`translate(${cx} ${base + scene.bottomMm * scale}) scale(${scale} ${-scale})`}>
              <path
                d={r.path}
                fillRule="evenodd"
                fill={`url(#${id}-${r.stuff}-mm)`}
                stroke={HUE[r.stuff]}
                strokeWidth={1.8 / scale}
                strokeLinejoin="round"
                strokeDasharray={scene.dashedMaster && (r.stuff === "master" || r.stuff === "cast") ? `${6 / scale} ${4 / scale}` : undefined}
              />
            </g>
          ))}
          {scene.strokes.map((l) => (
            <g key={l.path} transform={`translate(${cx} ${base + scene.bottomMm * scale}) scale(${scale} ${-scale})`}>
              <path
                d={l.path}
                fill="none"
                stroke={l.name.startsWith("bulge") ? "var(--color-no)" : "var(--color-ink)"}
                strokeWidth={(l.name.startsWith("bulge") ? 2.4 : 1.8) / scale}
                strokeDasharray={l.name.startsWith("bulge") ? undefined : `${5 / scale} ${3 / scale}`}
                strokeLinejoin="round"
              />
            </g>
          ))}
          {scene.marks.map((k, i) =>
            k.name === "key" ? (
              <path key={i} d={`M${X(k.xMm) - 6} ${Y(k.zMm)}a6 6 0 0 1 12 0Z`} fill="var(--color-citrus)" stroke="var(--color-ink)" strokeWidth="1.2" />
            ) : (
              <path key={i} d={`M${X(k.xMm) - 5} ${Y(k.zMm)}h10M${X(k.xMm)} ${Y(k.zMm) - 5}v10`} stroke="var(--color-ink)" strokeWidth="1.6" />
            ),
          )}
          {scene.lines.map((l) => (
            <g key={l.name}>
              <line x1={X(-l.halfMm) - 8} x2={X(l.halfMm) + 8} y1={Y(l.zMm)} y2={Y(l.zMm)} stroke="var(--color-ink)" strokeWidth="1.6" strokeDasharray="9 4" />
              <text
                x={X(-l.halfMm) + 6}
                y={Y(l.zMm) - 5}
                fontSize="12.5"
                fill="var(--color-ink)"
                stroke="var(--color-card)"
                strokeWidth="3.5"
                paintOrder="stroke"
              >
                {l.name}
              </text>
            </g>
          ))}
          {dims.map((d) => (
            <g key={d.key} stroke="var(--color-ink)" strokeWidth="1.2" fill="none">
              <line x1={d.from[0]} y1={d.from[1]} x2={d.to[0]} y2={d.to[1]} />
              {[d.from, d.to].map(([x, y], i) => (
                <path key={i} d={d.from[0] === d.to[0] ? `M${x - 5} ${y}h10` : `M${x} ${y - 5}v10`} />
              ))}
            </g>
          ))}
          {handles.map((p, i) => (
            <circle
              key={i}
              cx={X(p.radiusMm)}
              cy={Y(p.zMm - zero)}
              r={dragging === i ? 12 : 9}
              fill="var(--color-citrus)"
              stroke="var(--color-ink)"
              strokeWidth="2"
              tabIndex={0}
              role="slider"
              aria-label={`Point ${i + 1} of the outline: drag, or use the arrow keys`}
              aria-valuenow={p.radiusMm}
              aria-valuemin={0}
              aria-valuemax={1500}
              aria-valuetext={`radius ${fmt(p.radiusMm, "length")} at height ${fmt(p.zMm, "length")}`}
              className="cursor-move"
              onPointerDown={(e) => {
                e.preventDefault();
                setDragging(i);
              }}
              onKeyDown={(e) => nudge(e, i)}
            />
          ))}
          <g transform={`translate(12 ${height - 14})`} stroke="var(--color-ink)" strokeWidth="2">
            <path d={`M0 -4v8M0 0h${bar * scale}M${bar * scale} -4v8`} fill="none" />
            <text x={bar * scale + 8} y="4" fontSize="12.5" stroke="none" fill="var(--color-ink)">
              {fmt(bar, "length")}
            </text>
          </g>
        </svg>
        {dims.map((d) => (
          <div key={d.key} className="absolute -translate-x-1/2 -translate-y-1/2" style={{ left: Math.min(width - 38, Math.max(38, d.x)), top: d.y }}>
            {editing === d.key && d.edit ? (
              <div
                className="card z-10 w-40 p-1.5 shadow-lg"
                onKeyDown={(e) => (e.key === "Enter" || e.key === "Escape") && setEditing(null)}
                onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && setEditing(null)}
                ref={(el) => el?.querySelector("input")?.focus()}
              >
                <QuantityField
                  label={d.name}
                  value={d.mm}
                  dimension="length"
                  min={d.min ?? 0}
                  max={d.max ?? LARGEST_MM}
                  compact
                  onChange={(v) => v !== null && d.edit?.(v)}
                />
              </div>
            ) : d.edit ? (
              <button
                type="button"
                className="min-h-8 whitespace-nowrap rounded-md bg-card/90 px-1.5 text-[0.9rem] font-semibold underline decoration-dotted decoration-2 underline-offset-4 hover:bg-peel"
                onClick={() => setEditing(d.key)}
                aria-label={`${d.name} ${fmt(d.mm, "length")}: change`}
              >
                {fmt(d.mm, "length")}
              </button>
            ) : (
              <span className="whitespace-nowrap rounded-md bg-card/90 px-1.5 text-[0.9rem]">
                <span className="sr-only">{d.name} </span>
                {fmt(d.mm, "length")}
              </span>
            )}
          </div>
        ))}
      </div>
      <ul className="flex flex-wrap items-center gap-x-5 gap-y-1 px-3 pb-2 text-sm" aria-label="Legend">
        {stuffs.map((s) => (
          <li key={s} className="flex items-center gap-2">
            <svg width="26" height="16" aria-hidden="true">
              <rect width="26" height="16" rx="3" fill={`url(#${id}-${s})`} stroke={HUE[s]} strokeWidth="1.5" />
            </svg>
            {NAMES[s]}
          </li>
        ))}
        {[...new Set(scene.marks.map((k) => k.name))].map((k) => (
          <li key={k} className="flex items-center gap-2">
            <svg width="26" height="16" aria-hidden="true">
              {k === "key" ? (
                <path d="M7 12a6 6 0 0 1 12 0Z" fill="var(--color-citrus)" stroke="var(--color-ink)" />
              ) : (
                <path d="M8 8h10M13 3v10" stroke="var(--color-ink)" strokeWidth="1.6" />
              )}
            </svg>
            {k === "key" ? "Key" : "Bolt"}
          </li>
        ))}
        {[...new Set(scene.strokes.map((l) => l.name))].map((name) => (
          <li key={name} className="flex items-center gap-2">
            <svg width="26" height="16" aria-hidden="true">
              <path
                d={name.startsWith("bulge") ? "M2 14C8 2 18 2 24 14" : "M2 8l5-4 5 8 5-8 5 4"}
                fill="none"
                stroke={name.startsWith("bulge") ? "var(--color-no)" : "var(--color-ink)"}
                strokeWidth="2"
              />
            </svg>
            {name.charAt(0).toUpperCase() + name.slice(1)}
          </li>
        ))}
        {scene?.dashedMaster && <li className="hint">Dashed: only its outer sizes are known</li>}
      </ul>
    </div>
  );
}

function EmptyStage({ width, frame, line }: { width: number; frame: (el: HTMLDivElement | null) => void; line: string }) {
  const { say } = useUnits();
  return (
    <div ref={frame} className="grid w-full place-items-center px-6 text-center" style={{ height: Math.min(430, Math.max(230, width * 0.6)) }}>
      <div className="space-y-3">
        <svg width="150" height="90" viewBox="0 0 150 90" aria-hidden="true" className="mx-auto text-line" fill="none" stroke="currentColor" strokeWidth="3">
          <path d="M15 82V18M135 82V18M5 82h140" strokeWidth="5" />
          <path d="M45 82c0-40 14-52 30-52s30 12 30 52" strokeDasharray="7 6" />
        </svg>
        <p className="text-lg">The section appears here as soon as the master has its sizes.</p>
        <p className="hint">{say(line)}</p>
      </div>
    </div>
  );
}
