"use client";

import { Canvas } from "@react-three/fiber";
import { proxy } from "comlink";
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { polygonOf, sectionAt, type Body } from "@/core/body";
import type { Vec } from "@/core/mesh";
import type { Opens } from "@/core/master";
import { boxUp, type Boxed, type CoatMap } from "@/core/air";
import { freeHole, type Filling, type OffSeam, type Plug } from "@/core/mould";
import type { Laid, Left } from "@/workers/model.worker";
import { useGoing } from "../../data/useGoing";
import { useModelWorker } from "../../data/useModelWorker";
import { Choice } from "../../kit/Choice";
import { Drag } from "../../kit/Drag";
import { Pick } from "../../kit/Pick";
import { Running } from "../../kit/Progress";
import { useDark } from "../../kit/theme";
import { useUnits } from "../../kit/units";
import { AirTold, CoatTold, howPoured, useAir } from "./Air";
import { HUES } from "./hues";
import { Balls, Piece, Rope, Sight, Standing, Stoppers, type Stopper, type Look, type Touch, type Touched } from "./Scene";
import { steadySolid } from "./solid";
import { holeOf, Told } from "./Told";

const PULLS = [
  { value: "none", label: "No pull", direction: null },
  { value: "z", label: "Up and down", direction: [0, 0, 1] },
  { value: "x", label: "Left and right", direction: [1, 0, 0] },
  { value: "y", label: "Front and back", direction: [0, 1, 0] },
] as const;
const LOOKS = {
  front: [0, 0.12],
  side: [Math.PI / 2, 0.12],
  above: [0, Math.PI / 2],
  corner: [0.7, 0.45],
} as const;

/** What it is looked at for. */
type Shown = "leave" | "air" | "coat";
const SHOWN: readonly { value: Shown; label: string }[] = [
  { value: "leave", label: "How it leaves" },
  { value: "air", label: "Where air stays" },
  { value: "coat", label: "First coat" },
];

/** What a touch on the piece does. */
type Hand = "turn" | "measure" | "mark" | "lay" | "hang" | "fill";
const HANDS: readonly { value: Hand; label: string }[] = [
  { value: "turn", label: "Turn" },
  { value: "measure", label: "Measure" },
];
const HANDS_OF: Record<Shown, readonly { value: Hand; label: string }[]> = {
  leave: [{ value: "mark", label: "No seam here" }],
  air: [{ value: "fill", label: "Fill here" }],
  coat: [],
};
const LAYS: readonly { value: Hand; label: string }[] = [
  { value: "lay", label: "Lay on a face" },
  { value: "hang", label: "Hang by a point" },
];
/** How broad a brush is: a share of the piece's size. */
const BRUSH = 0.06;

const UPRIGHT: Vec = [0, 0, 1];
/** Where a level cut goes round the piece. */
const sectionLines = (body: Body, z: number): Vec[][] => polygonOf(sectionAt(body, z)).rings.map((r) => r.map(([x, y]): Vec => [x, y, z]));

/** Plugs that would free what a pull catches, where a plug is what is advised. */
const stoppersOf = (left: Left, spanMm: number, safeStrain: number): Stopper[] =>
  left.caught.flatMap((c): Stopper[] => {
    const way = freeHole(holeOf(c), spanMm, safeStrain)[0]?.way;
    const one: Stopper = { atMm: c.atMm, out: c.out, acrossMm: c.acrossMm, lengthMm: c.lengthMm };
    if (way === "plug") return [one];
    const half = { ...one, lengthMm: c.lengthMm / 2 };
    return way === "pair" ? [half, { ...half, out: [-c.out[0], -c.out[1], -c.out[2]] }] : [];
  });

const brushed = ([x, y, z]: Vec, size: number): OffSeam => ({ atMm: [x, y, z], radiusMm: Math.round(10 * BRUSH * size) / 10 });

/**
 * The piece in the round, the same body as the drawing: turned by hand or by arrow keys, cut by a plane, measured between two touches, with
 * what a straight pull frees and catches, where its seam runs, and places where no seam may be.
 */
export function Round({
  body,
  opens,
  levelMm,
  safeStrain,
  marks,
  filling,
  cutsMm,
  pours,
  onMarks,
  onFilling,
  onPlug,
  onCut,
  onLay,
}: {
  body: Body;
  opens: Opens | null;
  /** Height of a level parting; null where the mould has none. */
  levelMm: number | null;
  safeStrain: number;
  marks: readonly OffSeam[];
  /** How the casting stands while it is filled. */
  filling: Filling | null;
  /** Heights at which the piece is cut and cast in sections. */
  cutsMm: readonly number[];
  /** Pours of rubber round it, each in its box as it is held. */
  pours: readonly { name: string; boxed: Boxed }[];
  onMarks: (marks: OffSeam[]) => void;
  onFilling: (filling: Filling) => void;
  onPlug: (p: Plug) => void;
  onCut: (zMm: number) => void;
  /** Lays what was read from a file or from pictures another way; null for other pieces. */
  onLay: ((laid: Laid) => void) | null;
}) {
  const { fmt } = useUnits();
  const hues = HUES[useDark() ? "dark" : "light"];
  const [look, setLook] = useState<Look>(LOOKS.corner);
  const [zoom, setZoom] = useState(1);
  const [cut, setCut] = useState(1);
  const [angle, setAngle] = useState(0);
  const [pull, setPull] = useState<{ value: string; direction: Vec | null }>({ value: "none", direction: null });
  const [left, setLeft] = useState<Left | null>(null);
  const [hand, setHand] = useState<Hand>("turn");
  const [ends, setEnds] = useState<readonly Vec[]>([]);
  const { ask, stop, fault } = useModelWorker();
  const going = useGoing();
  const { doing, begin, end } = going;
  const [shown, setShown] = useState<Shown>("leave");
  const [coat, setCoat] = useState<(CoatMap & { touched: Uint8Array }) | null>(null);
  const [pourName, setPourName] = useState<string | null>(null);
  const pour = pours.find((p) => p.name === pourName) ?? pours[0];
  const corners = useMemo(() => steadySolid(body), [body]);
  const touch = useRef<Touch>(null);
  // What the cut passes through, from its front to its back.
  const facing = (angle * Math.PI) / 180;
  const acrossMm = Math.abs(Math.sin(facing)) * body.lengthMm + Math.abs(Math.cos(facing)) * body.widthMm;
  const size = Math.hypot(body.lengthMm, body.widthMm, body.heightMm);
  const options = [
    ...PULLS,
    ...(opens ? [{ value: "best", label: "What frees most", direction: opens.direction }] : []),
    ...(pull.value === "own" ? [{ value: "own", label: "Turned off the marks", direction: pull.direction }] : []),
  ];

  const pullAlong = async (value: string, direction: Vec | null, now: readonly OffSeam[]) => {
    setPull({ value, direction });
    if (!direction) return setLeft(null);
    const tell = begin("Pulling it");
    const upright = Math.abs(direction[2]) > 0.999;
    setLeft(await ask((w) => w.leave(corners, direction, upright ? levelMm : null, now, proxy(tell))));
    end();
  };
  const air = useAir({ on: shown === "air", corners, filling, onFilling, ask, going });
  const show = async (next: Shown) => {
    setShown(next);
    setHand("turn");
    if (next === "coat") await lookAtCoat(pour?.boxed ?? null);
  };
  const lookAtCoat = async (boxed: Boxed | null) => {
    begin("Pouring rubber round it");
    setCoat(await ask((w) => w.coat(corners, boxed)));
    end();
  };
  const mark = (next: OffSeam[]) => {
    onMarks(next);
    if (pull.direction) void pullAlong(pull.value, pull.direction, next);
  };
  const lay = async (up: Vec) => {
    const tell = begin("Laying it");
    const laid = await ask((w) => w.lay(corners, up, proxy(tell)));
    end();
    if (!laid) return;
    setHand("turn");
    setLeft(null);
    setPull({ value: "none", direction: null });
    onMarks([]);
    onLay?.(laid);
  };
  const act = (t: Touched | null) => {
    if (!t) return;
    if (hand === "measure") setEnds((e) => (e.length === 1 ? [e[0]!, t.at] : [t.at]));
    else if (hand === "mark") mark([...marks, brushed(t.at, size)].slice(-60));
    else if (hand === "fill") air.fillAt(t.at);
    else if (hand === "lay") void lay([-t.facing[0], -t.facing[1], -t.facing[2]]);
    else if (hand === "hang") {
      const up: Vec = [t.at[0], t.at[1], t.at[2] - body.heightMm / 2];
      if (Math.hypot(...up) > 0) void lay(up);
    }
  };

  const held = useRef<{ x: number; y: number; look: Look; moved: boolean } | null>(null);
  const turn = (dx: number, dy: number, [a, b]: Look): Look => [a + dx, Math.max(-Math.PI / 2, Math.min(Math.PI / 2, b + dy))];
  const keys = (e: KeyboardEvent) => {
    const step = 0.12;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[e.key];
    if (by) setLook((l) => turn(by[0]!, by[1]!, l));
    else if (e.key === "+" || e.key === "=") setZoom((z) => Math.min(6, z * 1.15));
    else if (e.key === "-") setZoom((z) => Math.max(0.4, z / 1.15));
    else if (e.key === "Enter" && hand !== "turn") act(touch.current?.(0, 0) ?? null);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const [from, to] = ends;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-1 overflow-y-auto px-2 pb-2 lg:flex-row lg:gap-3 lg:overflow-hidden">
      <div
        role="application"
        aria-label={`The piece in the round, ${fmt(body.lengthMm, "length")} by ${fmt(body.widthMm, "length")} by ${fmt(body.heightMm, "length")}. Arrow keys turn it, plus and minus zoom${hand === "turn" ? "" : ", Enter touches what lies under the cross"}.`}
        tabIndex={0}
        className={`relative min-h-56 min-w-0 flex-1 shrink-0 touch-none sm:min-h-64 lg:shrink rounded-lg ${hand === "turn" ? "cursor-grab" : "cursor-crosshair"}`}
        onKeyDown={keys}
        onWheel={(e) => setZoom((z) => Math.max(0.4, Math.min(6, z * Math.exp(-e.deltaY / 600))))}
        onPointerDown={(e: PointerEvent<HTMLDivElement>) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          held.current = { x: e.clientX, y: e.clientY, look, moved: false };
        }}
        onPointerMove={(e) => {
          const h = held.current;
          if (!h) return;
          // A touch that hardly moves is a touch; one that moves turns the piece, whatever the hand is for.
          if (Math.hypot(e.clientX - h.x, e.clientY - h.y) > 6) h.moved = true;
          if (h.moved || hand === "turn") setLook(turn((h.x - e.clientX) / 120, (e.clientY - h.y) / 120, h.look));
        }}
        onPointerUp={(e) => {
          const h = held.current;
          held.current = null;
          if (!h || h.moved || hand === "turn") return;
          const box = e.currentTarget.getBoundingClientRect();
          act(touch.current?.((2 * (e.clientX - box.left)) / box.width - 1, 1 - (2 * (e.clientY - box.top)) / box.height) ?? null);
        }}
      >
        <Canvas frameloop="demand" flat gl={{ antialias: true, localClippingEnabled: true }} camera={{ fov: 30, near: 1, far: 20 * size, up: [0, 0, 1] }}>
          <Sight look={look} far={(1.8 * size) / zoom} middle={body.heightMm / 2} />
          <ambientLight intensity={1.1} />
          <directionalLight position={[size, -size, 2 * size]} intensity={1.6} />
          <directionalLight position={[-size, size, 0.5 * size]} intensity={0.7} />
          <Standing up={shown === "air" ? air.up : shown === "coat" && pour ? boxUp(pour.boxed) : UPRIGHT} middle={body.heightMm / 2}>
            <Piece
              corners={corners}
              free={(shown === "leave" ? left?.free : shown === "air" ? air.trapped?.touched : coat?.touched) ?? null}
              marks={shown === "leave" ? marks : []}
              hues={hues}
              cutMm={(cut - 0.5) * acrossMm * 1.02}
              angle={facing}
              cuts={cut < 1}
              touch={touch}
            />
            {shown === "leave" && left?.seam.lines.map((l, i) => <Rope key={i} points={l.pointsMm} closed thick={size * 0.006} hue={hues.seam} />)}
            {shown === "leave" && left && <Stoppers at={stoppersOf(left, Math.min(body.lengthMm, body.widthMm), safeStrain)} hue={hues.plug} />}
            {shown === "air" && (
              <Balls at={[...air.ventsMm, ...(air.sprueMm ? [air.sprueMm] : [])].map((atMm) => ({ atMm, radiusMm: 0.02 * size }))} hue={hues.seam} />
            )}
            {shown === "air" &&
              air.ventsMm.map((v, i) => (
                <Rope
                  key={i}
                  points={[v, [v[0] + air.up[0] * 0.25 * size, v[1] + air.up[1] * 0.25 * size, v[2] + air.up[2] * 0.25 * size]]}
                  closed={false}
                  thick={size * 0.006}
                  hue={hues.seam}
                />
              ))}
            {cutsMm.map((z) => sectionLines(body, z).map((points, i) => <Rope key={`${z}:${i}`} points={points} closed thick={size * 0.004} hue={hues.ink} />))}
            {from && to && <Rope points={[from, to]} closed={false} thick={size * 0.004} hue={hues.ink} />}
          </Standing>
        </Canvas>
        {hand !== "turn" && (
          <svg className="pointer-events-none absolute inset-0 m-auto size-6 stroke-ink" viewBox="0 0 24 24" aria-hidden="true">
            <path d="M12 2v8M12 14v8M2 12h8M14 12h8" strokeWidth="1.5" fill="none" />
          </svg>
        )}
        {hand === "measure" && (
          <p role="status" className="absolute right-2 top-2 rounded-lg bg-card px-2 py-1 text-sm">
            {from && to ? (
              <b className="figure text-2xl">{fmt(Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]), "length")}</b>
            ) : from ? (
              "Touch the other end."
            ) : (
              "Touch one end."
            )}
          </p>
        )}
      </div>
      {/* Beside the piece where there is room, so that nothing of it lies below the fold; under it on a phone. */}
      <div className="contents lg:flex lg:w-80 lg:shrink-0 lg:flex-col lg:gap-1 lg:overflow-y-auto lg:py-1">
        {/* Last where it stands beside the piece: what runs pushes nothing away from under a hand. */}
        <div className="lg:order-last">
          <Running doing={doing} stop={stop} end={end} />
        </div>
        <div role="status" className="min-h-6 shrink-0 text-sm lg:order-last">
          {fault ??
            (shown === "air" ? (
              <AirTold air={air} hues={hues} />
            ) : shown === "coat" ? (
              coat && <CoatTold coat={coat} hues={hues} how={pour ? howPoured(pour.boxed) : null} />
            ) : (
              left && (
                <Told
                  left={left}
                  body={body}
                  hues={hues}
                  safeStrain={safeStrain}
                  onPlug={onPlug}
                  onCut={onCut}
                  onInstead={(d) => void pullAlong("own", d, marks)}
                />
              )
            ))}
        </div>
        <div className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1">
          <Choice label="Looked at for" hideLabel value={shown} options={SHOWN} onChange={(v) => void show(v)} />
          <div className="flex flex-wrap">
            {(Object.keys(LOOKS) as (keyof typeof LOOKS)[]).map((k) => (
              <button key={k} type="button" className="btn btn-bare !px-2.5 text-sm" onClick={() => setLook(LOOKS[k])}>
                {{ front: "Front", side: "Side", above: "Above", corner: "From a corner" }[k]}
              </button>
            ))}
          </div>
          <Choice
            label="What a touch does"
            hideLabel
            value={hand}
            options={[...HANDS, ...HANDS_OF[shown], ...(onLay && shown === "leave" ? LAYS : [])]}
            onChange={setHand}
          />
          {shown === "coat" && pours.length > 1 && pour && (
            <Choice
              label="Which pour"
              hideLabel
              value={pour.name}
              options={pours.map((p) => ({ value: p.name, label: p.name }))}
              onChange={(name) => {
                setPourName(name);
                void lookAtCoat(pours.find((p) => p.name === name)?.boxed ?? null);
              }}
            />
          )}
          {shown === "leave" && marks.length > 0 && (
            <button type="button" className="btn btn-bare !px-2.5 text-sm" onClick={() => mark([])}>
              Wipe the marks
            </button>
          )}
        </div>
        <div className="grid shrink-0 gap-x-4 sm:grid-cols-2 lg:grid-cols-1">
          {shown === "leave" && (
            <Pick
              label="Halves part"
              value={pull.value}
              must
              options={options.map(({ value, label }) => ({ value, label }))}
              onChange={(v) => v && void pullAlong(v, options.find((o) => o.value === v)?.direction ?? null, marks)}
            />
          )}
          <Drag
            label="Cut through, front to back"
            shown={cut < 1 ? fmt(cut * acrossMm, "length") : "whole"}
            spoken={cut < 1 ? fmt(cut * acrossMm, "length") : "whole"}
            value={cut}
            min={0.02}
            max={1}
            step={0.01}
            onChange={setCut}
          />
          {cut < 1 && (
            <Drag label="Turn the cut" shown={`${angle}°`} spoken={`${angle} degrees`} value={angle} min={0} max={175} step={5} onChange={setAngle} />
          )}
        </div>
      </div>
    </div>
  );
}
