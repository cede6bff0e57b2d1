"use client";

import { useEffect, useId, useMemo, useState } from "react";
import { systemOf } from "@/core/quantity";
import { VERDICT_WORD } from "@/core/fit";
import {
  gripsOf,
  measuresOf,
  troubledContacts,
  type Grip,
  type Measure,
  type Pull,
  type Scene,
  type Stage as StageName,
  type Stuff,
  type View,
} from "@/core/draw";
import type { Plan } from "@/core/plan";
import type { Job } from "@/core/record";
import { QuantityField } from "../form/QuantityField";
import { useUnits } from "../kit/units";
import { VerdictShape } from "../kit/VerdictMark";
import { Hatches, HUE, NAMES, RegionPath, ScaledHatches, stuffsOf } from "./hatches";
import { pageLetters } from "./letters";
import { layOut, type Paper } from "./paper";
import { REACH_PX, useDragging, type Held, type Put } from "./useDragging";

/** What on the drawing is being asked about. */
export type Asked = { kind: "stuff"; stuff: Stuff } | { kind: "contact"; key: string };

interface Props {
  job: Job;
  plan: Plan;
  /** The picture of this stage from this side; null while there is nothing to draw. */
  scene: Scene | null;
  stage: StageName;
  view: View;
  asked: Asked | null;
  onAsk: (asked: Asked | null) => void;
  onPut: (list: readonly Put[]) => void;
  /** Whether something is in the hand. */
  onHeld: (held: boolean) => void;
  /** What a drag brings with it, said at the finger. */
  brings: string;
}

/** The drawing of a narrow page leaves the names of its sizes to the list for readers. */
const NARROW_PX = 520;

/** The cut: this mould in section, to scale, and the menu of everything about it. */
export function Stage(props: Props) {
  const { plan, scene } = props;
  const [frame, setFrame] = useState<HTMLDivElement | null>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useEffect(() => {
    if (!frame) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: Math.floor(entry.contentRect.width), height: Math.floor(entry.contentRect.height) });
    });
    watch.observe(frame);
    return () => watch.disconnect();
  }, [frame]);
  return (
    <div ref={setFrame} className="relative min-h-0 w-full flex-1 overflow-hidden">
      {scene ? size && size.width > 0 && <Drawing {...props} scene={scene} size={size} /> : <Nothing line={plan.steps[0]?.line ?? ""} />}
    </div>
  );
}

function Drawing({
  job,
  plan,
  stage,
  view,
  asked,
  onAsk,
  onPut,
  onHeld,
  brings,
  scene,
  size,
}: Omit<Props, "scene"> & { scene: Scene; size: { width: number; height: number } }) {
  const { fmt, system } = useUnits();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const letters = useLetters();
  const us = systemOf("length", system) === "us";
  const [editing, setEditing] = useState<string | null>(null);
  const named = useMemo(
    () =>
      measuresOf({ job, plan, scene, stage, view }).map((measure) => ({
        measure,
        name: size.width < NARROW_PX ? "" : measure.name,
        value: fmt(measure.mm, "length"),
      })),
    [job, plan, scene, stage, view, fmt, size.width],
  );
  const stuffs = stuffsOf(scene.regions);
  const grips = useMemo(() => gripsOf({ job, plan, scene, stage, view }), [job, plan, scene, stage, view]);
  const bottom = size.height - SCALE_BAR_PX;
  const settled = useMemo(() => layOut(scene, named, letters, size.width, bottom), [scene, named, letters, size.width, bottom]);
  const askAbout = (stuff: Stuff) => onAsk(asked?.kind === "stuff" && asked.stuff === stuff ? null : { kind: "stuff", stuff });
  const stuffAt = (x: number, y: number): Stuff | undefined => {
    const under = document.elementsFromPoint(x, y).map((e) => e.getAttribute("data-stuff"));
    return stuffs.find((s) => s === under.find((u) => u !== null));
  };
  const tap = (x: number, y: number) => {
    const stuff = stuffAt(x, y);
    if (stuff) askAbout(stuff);
  };
  const { held, begin, drag, end, nudge, letGo } = useDragging(settled, grips, us, onPut, tap);
  const inHand = held !== null && !held.byKeys;
  useEffect(() => onHeld(inHand), [inHand, onHeld]);
  const paper = held && !held.byKeys ? layOut(scene, named, letters, size.width, bottom, held.paper) : settled;
  const { X, Y, scale } = paper;
  // By keys it stands at the handle, wherever that has gone; by hand at the finger.
  const told = (h: Held): Held => {
    const now = h.byKeys ? grips.find((g) => g.key === h.grip.key) : undefined;
    return now ? { ...h, x: X(now.at[0]), y: Y(now.at[1]) } : h;
  };
  const troubles = view === "along" && scene.leansDeg === 0 ? troubledContacts(plan, scene) : [];
  const turn = useTurn(stage, scene.master.upsideDown);
  const title = `Section of ${job.name}: ${stuffs.map((s) => NAMES[s].toLowerCase()).join(", ")}.`;
  return (
    <div className="absolute inset-0">
      <svg
        viewBox={`0 0 ${size.width} ${size.height}`}
        width={size.width}
        height={size.height}
        role="group"
        aria-label={title}
        data-testid="stage"
        className="block select-none"
        style={{ touchAction: held ? "none" : "pan-y" }}
        onPointerDown={begin}
        onPointerMove={drag}
        onPointerUp={end}
        onPointerCancel={end}
        // A tap on a handle counts for what lies under it, and was heard already.
        onClick={(e) => e.target === e.currentTarget && !stuffAt(e.clientX, e.clientY) && onAsk(null)}
      >
        <Hatches id={id} stuffs={stuffs.join(" ")} />
        <ScaledHatches id={id} scale={scale} stuffs={stuffs} />
        <g key={`${stage} ${view}`} className={turn ? "stage-turn" : "stage-come"}>
          <g transform={`translate(${X(0)} ${Y(0)}) scale(${scale} ${-scale})`}>
            {scene.regions.map((r, i) => (
              <RegionPath
                key={i}
                id={id}
                region={r}
                scale={scale}
                widthPx={asked?.kind === "stuff" && asked.stuff === r.stuff ? 4 : 1.8}
                data-stuff={r.stuff}
                className={`cursor-pointer ${POURED.includes(r.stuff) && !held ? "stage-rise" : ""}`}
                strokeDasharray={scene.dashedMaster && (r.stuff === "master" || r.stuff === "cast") ? `${6 / scale} ${4 / scale}` : undefined}
                onClick={() => !held && askAbout(r.stuff)}
              />
            ))}
            {scene.strokes.map((l) => (
              <path
                key={l.path}
                d={l.path}
                fill="none"
                className="pointer-events-none"
                stroke={l.name.startsWith("bulge") ? "var(--color-no)" : "var(--color-ink)"}
                strokeWidth={(l.name.startsWith("bulge") ? 2.4 : 1.8) / scale}
                strokeDasharray={l.name.startsWith("bulge") ? undefined : l.name === "cloth" ? `${1 / scale} ${4 / scale}` : `${5 / scale} ${3 / scale}`}
                strokeLinejoin="round"
              />
            ))}
          </g>
          <g className="pointer-events-none">
            {scene.marks.map((k, i) => (
              <Mark key={i} name={k.name} x={X(k.xMm)} y={Y(k.zMm)} />
            ))}
            {scene.lines.map((l) => (
              <line
                key={l.name}
                x1={X(-l.halfMm) - 8}
                x2={X(l.halfMm) + 8}
                y1={Y(l.zMm)}
                y2={Y(l.zMm)}
                stroke="var(--color-ink)"
                strokeWidth="1.6"
                strokeDasharray="9 4"
              />
            ))}
          </g>
        </g>
        <Lines paper={paper} />
        <Bar paper={paper} us={us} y={size.height - 12} fmt={(mm) => fmt(mm, "length")} />
        {troubles.map(({ link, xMm, zMm }) => (
          <g
            key={link.key}
            transform={`translate(${X(xMm) - 13} ${Y(zMm) - 13})`}
            role="button"
            tabIndex={0}
            aria-label={`${link.label}: ${VERDICT_WORD[link.verdict]}. Ask why.`}
            aria-pressed={asked?.kind === "contact" && asked.key === link.key}
            className="cursor-pointer"
            onClick={() => onAsk({ kind: "contact", key: link.key })}
            onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && (e.preventDefault(), onAsk({ kind: "contact", key: link.key }))}
          >
            <circle cx="13" cy="13" r="15" fill="var(--color-card)" stroke="var(--color-ink)" strokeWidth="1.2" />
            <g transform="translate(3 2.5)">
              <VerdictShape verdict={link.verdict} />
            </g>
          </g>
        ))}
        {grips.map((g) => (
          <Handle key={g.key} grip={g} x={X(g.at[0])} y={Y(g.at[1])} inHand={held?.grip.key === g.key} onKey={(e) => nudge(e, g)} onLeave={letGo} />
        ))}
      </svg>
      {named.map((n) => (
        <Label
          key={n.measure.key}
          measure={n.measure}
          name={n.name}
          value={n.value}
          paper={paper}
          editing={editing === n.measure.key}
          onEdit={(on) => setEditing(on ? n.measure.key : null)}
          onPut={onPut}
        />
      ))}
      {scene.lines.map((l) => {
        const at = paper.written.get(`line ${l.name}`)?.label;
        return (
          at && (
            <span
              key={l.name}
              data-label={l.name}
              className="pointer-events-none absolute flex items-center whitespace-nowrap px-1.5 text-[13px]"
              style={box(at)}
            >
              {l.name}
            </span>
          )
        );
      })}
      {held && <Finger held={told(held)} brings={brings} width={size.width} />}
    </div>
  );
}

/** What is poured, and so rises when its stage comes. */
const POURED: readonly Stuff[] = ["rubber", "tinted", "cast"];
/** Room under the picture for its scale, px. */
const SCALE_BAR_PX = 26;
const box = (at: { x: number; y: number; w: number; h: number }) => ({ left: at.x, top: at.y, width: at.w, height: at.h });

/** Letters are measured again once the page's own have come. */
function useLetters() {
  const [letters, setLetters] = useState(pageLetters);
  useEffect(() => {
    let here = true;
    void document.fonts.ready.then(() => here && setLetters(pageLetters()));
    return () => {
      here = false;
    };
  }, []);
  return letters;
}

/** Whether the work was turned over on the way to this stage. */
function useTurn(stage: StageName, upsideDown: boolean): boolean {
  const [was, setWas] = useState({ stage, upsideDown, turned: false });
  if (was.stage !== stage) setWas({ stage, upsideDown, turned: was.upsideDown !== upsideDown });
  return was.turned;
}

const Mark = ({ name, x, y }: { name: "key" | "bolt"; x: number; y: number }) =>
  name === "key" ? (
    <path d={`M${x - 6} ${y}a6 6 0 0 1 12 0Z`} fill="var(--color-citrus)" stroke="var(--color-ink)" strokeWidth="1.2" />
  ) : (
    <path d={`M${x - 5} ${y}h10M${x} ${y - 5}v10`} stroke="var(--color-ink)" strokeWidth="1.6" />
  );

/** Dimension lines with their ticks, and the thin lines that say what each belongs to. */
function Lines({ paper }: { paper: Paper }) {
  return (
    <g fill="none" className="pointer-events-none">
      {[...paper.written.values()].map((w) => (
        <g key={w.key}>
          {w.thin.map((t, i) => (
            <path key={i} d={`M${t[0]} ${t[1]}L${t[2]} ${t[3]}`} stroke="var(--color-soft)" strokeWidth="0.8" strokeDasharray="2 3" />
          ))}
          {w.line && (
            <path
              d={
                w.line[0] === w.line[2]
                  ? `M${w.line[0]} ${w.line[1]}V${w.line[3]}M${w.line[0] - 5} ${w.line[1]}h10M${w.line[0] - 5} ${w.line[3]}h10`
                  : `M${w.line[0]} ${w.line[1]}H${w.line[2]}M${w.line[0]} ${w.line[1] - 5}v10M${w.line[2]} ${w.line[1] - 5}v10`
              }
              stroke="var(--color-ink)"
              strokeWidth="1.3"
            />
          )}
        </g>
      ))}
    </g>
  );
}

function Bar({ paper, us, y, fmt }: { paper: Paper; us: boolean; y: number; fmt: (mm: number) => string }) {
  const lengths = us ? [12, 6, 4, 3, 2, 1, 0.5, 0.25].map((inch) => inch * 25.4) : [200, 100, 50, 20, 10, 5, 2, 1];
  const bar = lengths.find((b) => b * paper.scale <= paper.width * 0.18) ?? lengths.at(-1) ?? 1;
  return (
    <g transform={`translate(12 ${y})`} stroke="var(--color-ink)" strokeWidth="2" className="pointer-events-none">
      <path d={`M0 -4v8M0 0h${bar * paper.scale}M${bar * paper.scale} -4v8`} fill="none" />
      <text x={bar * paper.scale + 8} y="4" fontSize="12.5" stroke="none" fill="var(--color-ink)">
        {fmt(bar)}
      </text>
    </g>
  );
}

/** A pulled number as it is told: a length, or degrees. */
const inUnit = (p: Pull, v: number, fmt: ReturnType<typeof useUnits>["fmt"]): string => (p.unit === "deg" ? `${v}°` : fmt(v, "length"));

/** A handle of 44 px to drag by, of which a small bar across its way is seen. */
function Handle({
  grip,
  x,
  y,
  inHand,
  onKey,
  onLeave,
}: {
  grip: Grip;
  x: number;
  y: number;
  inHand: boolean;
  onKey: (e: React.KeyboardEvent) => void;
  onLeave: () => void;
}) {
  const { fmt } = useUnits();
  const main = grip.x ?? grip.z;
  if (!main) return null;
  const both = grip.x && grip.z;
  const words = [grip.x, grip.z].flatMap((p) => (p ? [inUnit(p, p.valueMm, fmt)] : []));
  return (
    <g
      transform={`translate(${x} ${y})`}
      tabIndex={0}
      role="slider"
      aria-label={`${grip.name}: drag, or use the arrow keys`}
      aria-orientation={grip.x ? "horizontal" : "vertical"}
      aria-valuenow={main.valueMm}
      aria-valuemin={main.min}
      aria-valuemax={main.max}
      aria-valuetext={both ? `${words[0] ?? ""} out, ${words[1] ?? ""} up` : words[0]}
      data-grip={grip.key}
      className={both ? "cursor-move" : grip.x ? "cursor-ew-resize" : "cursor-ns-resize"}
      style={{ touchAction: "none" }}
      onKeyDown={onKey}
      onBlur={onLeave}
    >
      <circle r={REACH_PX} fill="transparent" />
      {both ? (
        <circle r={inHand ? 11 : 8} fill="var(--color-citrus)" stroke="var(--color-onbright)" strokeWidth="1.8" />
      ) : (
        <rect
          x={grip.x ? -4 : -12}
          y={grip.x ? -12 : -4}
          width={grip.x ? 8 : 24}
          height={grip.x ? 24 : 8}
          rx="4"
          fill="var(--color-citrus)"
          stroke="var(--color-onbright)"
          strokeWidth={inHand ? 3 : 1.8}
        />
      )}
    </g>
  );
}

/** A size where it stands: read, or typed in place. */
function Label({
  measure: d,
  name,
  value,
  paper,
  editing,
  onEdit,
  onPut,
}: {
  measure: Measure;
  name: string;
  value: string;
  paper: Paper;
  editing: boolean;
  onEdit: (on: boolean) => void;
  onPut: (list: readonly Put[]) => void;
}) {
  const at = paper.written.get(d.key)?.label;
  const { set } = d;
  if (!at) return null;
  if (editing && set)
    return (
      <div
        className="card absolute z-20 w-44 p-1.5 shadow-lg"
        style={{ left: Math.max(0, Math.min(paper.width - 176, at.x + at.w / 2 - 88)), top: Math.max(0, at.y - 14) }}
        onKeyDown={(e) => (e.key === "Enter" || e.key === "Escape") && onEdit(false)}
        onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && onEdit(false)}
        ref={(el) => el?.querySelector("input")?.focus()}
      >
        <QuantityField
          label={d.name}
          value={d.mm}
          dimension="length"
          min={set.min}
          max={set.max}
          compact
          onChange={(mm) => mm !== null && onPut([{ path: set.path, mm }])}
        />
      </div>
    );
  const text = (
    <>
      {name !== "" && <span className="text-[13px] font-normal text-soft">{name}</span>}
      <b className={`text-[15px] ${set ? "underline decoration-dotted decoration-2 underline-offset-4" : "font-bold"}`}>{value}</b>
    </>
  );
  const look = "absolute flex items-center justify-center gap-[5px] whitespace-nowrap rounded-md bg-card";
  return set ? (
    <button
      type="button"
      data-label={d.name}
      className={`${look} hover:bg-peel`}
      style={box(at)}
      onClick={() => onEdit(true)}
      aria-label={`${d.name} ${value}: change`}
    >
      {text}
    </button>
  ) : (
    <span data-label={d.name} className={look} style={box(at)}>
      {name === "" && <span className="sr-only">{d.name} </span>}
      {text}
    </span>
  );
}

/** What the hand is doing, written beside the finger. */
function Finger({ held, brings, width }: { held: Held; brings: string; width: number }) {
  const { fmt } = useUnits();
  const { grip, mm, stopped } = held;
  const value = (
    [
      [grip.x, mm.x],
      [grip.z, mm.z],
    ] as const
  )
    .flatMap(([p, v]) => (p === null || v === null ? [] : [inUnit(p, v, fmt)]))
    .join(" · ");
  return (
    <output
      aria-live={held.byKeys ? "polite" : "off"}
      className="pointer-events-none absolute z-20 w-max max-w-56 -translate-x-1/2 rounded-lg bg-bar px-3 py-1.5 text-onbar shadow-lg"
      style={{ left: Math.min(width - 100, Math.max(100, held.x)), top: held.y > 120 ? held.y - 104 : held.y + 34 }}
    >
      <span className="block text-sm">{grip.name}</span>
      <span className="figure block text-2xl leading-tight text-citrus">{value}</span>
      <span className="block text-sm">
        {stopped ? `${stopped === "most" ? "No more" : "No less"} than this goes. ` : ""}
        {brings}
      </span>
    </output>
  );
}

function Nothing({ line }: { line: string }) {
  const { say } = useUnits();
  return (
    <div className="absolute inset-0 grid place-items-center px-6 text-center">
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

/** What the drawing shows, as a list to touch, and for readers. */
export function Legend({ plan, scene, asked, onAsk }: { plan: Plan; scene: Scene; asked: Asked | null; onAsk: (asked: Asked | null) => void }) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const stuffs = stuffsOf(scene.regions);
  const bulge = scene.strokes.find((s) => s.name.startsWith("bulge"));
  const cuts = [...new Set(scene.strokes.map((s) => s.name).filter((name) => name !== "cloth" && !name.startsWith("bulge")))];
  return (
    <>
      <svg width="0" height="0" aria-hidden="true" className="absolute">
        <Hatches id={id} stuffs={stuffs.join(" ")} />
      </svg>
      <ul className="flex flex-wrap items-center gap-x-1" aria-label="On the drawing: ask about it">
        {stuffs.map((s) => (
          <li key={s}>
            <button
              type="button"
              aria-pressed={asked?.kind === "stuff" && asked.stuff === s}
              className="flex min-h-11 items-center gap-1.5 rounded-lg px-1.5 text-sm hover:bg-peel/60 aria-pressed:bg-peel aria-pressed:font-semibold"
              onClick={() => onAsk(asked?.kind === "stuff" && asked.stuff === s ? null : { kind: "stuff", stuff: s })}
            >
              <svg width="24" height="16" aria-hidden="true">
                <rect width="24" height="16" rx="3" fill={`url(#${id}-${s})`} stroke={HUE[s]} strokeWidth="1.5" />
              </svg>
              {plan.layout?.kind === "skin" && s === "box" ? "Board" : NAMES[s]}
            </button>
          </li>
        ))}
        {[...new Set(scene.marks.map((k) => k.name))].map((k) => (
          <li key={k} className="flex items-center gap-1 px-1.5 text-sm">
            <svg width="18" height="16" aria-hidden="true">
              <Mark name={k} x={9} y={k === "key" ? 12 : 8} />
            </svg>
            {k === "key" ? "Key" : "Bolt"}
          </li>
        ))}
        {scene.strokes.some((s) => s.name === "cloth") && <li className="px-1.5 text-sm">Dotted: reinforcing cloth</li>}
        {cuts.length > 0 && <li className="px-1.5 text-sm">Zig-zag: {cuts.join(", ")}</li>}
        {bulge && <li className="px-1.5 text-sm text-no">Red: {bulge.name}</li>}
        {scene.dashedMaster && <li className="hint px-1.5">Dashed: outer sizes only</li>}
      </ul>
    </>
  );
}
