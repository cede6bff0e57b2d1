"use client";

import { Canvas, useThree } from "@react-three/fiber";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { BufferAttribute, BufferGeometry, DoubleSide, Plane, Vector3 } from "three";
import type { Body } from "@/core/body";
import type { Opens } from "@/core/master";
import type { ModelWorker } from "@/workers/model.worker";
import { useModelWorker } from "../data/useModelWorker";
import { Drag } from "../kit/Drag";
import { Pick } from "../kit/Pick";
import { useDark } from "../kit/theme";
import { useUnits } from "../kit/units";
import { solidOf } from "./solid";

type Pulled = Awaited<ReturnType<ModelWorker["free"]>>;

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
type Look = readonly [number, number];

/** Colours of what a pull frees one way, the other, both, or neither: the house's own, light and dark. */
const HUES = {
  light: { piece: "#8d8266", plus: "#1b7473", minus: "#684a8b", both: "#8d8266", caught: "#a0211b", seam: "#f4b400" },
  dark: { piece: "#d8b277", plus: "#74cbc4", minus: "#c8adee", both: "#d8b277", caught: "#ff9389", seam: "#f4b400" },
};
const rgb = (hex: string): [number, number, number] => [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2) as [number, number, number];

/**
 * The piece in the round, the same body as the drawing: turned by hand or by arrow keys, cut by a plane, with what a straight pull frees
 * and what it catches.
 */
export function Round({ body, opens, seamMm }: { body: Body; opens: Opens | null; seamMm: number | null }) {
  const { fmt } = useUnits();
  const hues = HUES[useDark() ? "dark" : "light"];
  const [look, setLook] = useState<Look>(LOOKS.corner);
  const [zoom, setZoom] = useState(1);
  const [cut, setCut] = useState(1);
  const [angle, setAngle] = useState(0);
  const [pull, setPull] = useState<string>("none");
  const [pulled, setPulled] = useState<Pulled | null>(null);
  const { ask, fault } = useModelWorker();
  const corners = useMemo(() => solidOf(body), [body]);
  // What the cut passes through, from its front to its back.
  const facing = (angle * Math.PI) / 180;
  const acrossMm = Math.abs(Math.sin(facing)) * body.lengthMm + Math.abs(Math.cos(facing)) * body.widthMm;
  const size = Math.hypot(body.lengthMm, body.widthMm, body.heightMm);
  const options = opens ? [...PULLS, { value: "best", label: "What frees most", direction: opens.direction }] : PULLS;

  const choose = async (value: string) => {
    setPull(value);
    const direction = options.find((o) => o.value === value)?.direction ?? null;
    setPulled(direction && (await ask((w) => w.free(corners, direction))));
  };

  const held = useRef<{ x: number; y: number; look: Look } | null>(null);
  const turn = (dx: number, dy: number, [a, b]: Look): Look => [a + dx, Math.max(-Math.PI / 2, Math.min(Math.PI / 2, b + dy))];
  const keys = (e: KeyboardEvent) => {
    const step = 0.12;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[e.key];
    if (by) setLook((l) => turn(by[0]!, by[1]!, l));
    else if (e.key === "+" || e.key === "=") setZoom((z) => Math.min(6, z * 1.15));
    else if (e.key === "-") setZoom((z) => Math.max(0.4, z / 1.15));
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-1 overflow-y-auto px-2 pb-2">
      <div
        role="application"
        aria-label={`The piece in the round, ${fmt(body.lengthMm, "length")} by ${fmt(body.widthMm, "length")} by ${fmt(body.heightMm, "length")}. Arrow keys turn it, plus and minus zoom.`}
        tabIndex={0}
        className="min-h-40 flex-1 cursor-grab touch-none rounded-lg"
        onKeyDown={keys}
        onWheel={(e) => setZoom((z) => Math.max(0.4, Math.min(6, z * Math.exp(-e.deltaY / 600))))}
        onPointerDown={(e: PointerEvent<HTMLDivElement>) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          held.current = { x: e.clientX, y: e.clientY, look };
        }}
        onPointerMove={(e) => {
          const h = held.current;
          if (h) setLook(turn((h.x - e.clientX) / 120, (e.clientY - h.y) / 120, h.look));
        }}
        onPointerUp={() => (held.current = null)}
      >
        <Canvas frameloop="demand" flat gl={{ antialias: true, localClippingEnabled: true }} camera={{ fov: 30, near: 1, far: 20 * size, up: [0, 0, 1] }}>
          <Sight look={look} far={(2.1 * size) / zoom} middle={body.heightMm / 2} />
          <ambientLight intensity={1.1} />
          <directionalLight position={[size, -size, 2 * size]} intensity={1.6} />
          <directionalLight position={[-size, size, 0.5 * size]} intensity={0.7} />
          <Piece corners={corners} free={pulled?.free ?? null} hues={hues} cutMm={(cut - 0.5) * acrossMm * 1.02} angle={facing} cuts={cut < 1} />
          {seamMm !== null && (
            <mesh position={[0, 0, seamMm]}>
              <ringGeometry args={[size * 0.02, Math.max(body.lengthMm, body.widthMm) * 0.75, 64]} />
              <meshBasicMaterial color={hues.seam} transparent opacity={0.28} side={DoubleSide} depthWrite={false} />
            </mesh>
          )}
        </Canvas>
      </div>
      <div className="flex flex-wrap gap-1">
        {(Object.keys(LOOKS) as (keyof typeof LOOKS)[]).map((k) => (
          <button key={k} type="button" className="btn btn-bare !px-2.5 text-sm" onClick={() => setLook(LOOKS[k])}>
            {{ front: "Front", side: "Side", above: "Above", corner: "From a corner" }[k]}
          </button>
        ))}
      </div>
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Pick label="Halves part" value={pull} must options={options.map(({ value, label }) => ({ value, label }))} onChange={(v) => v && void choose(v)} />
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
        {cut < 1 && <Drag label="Turn the cut" shown={`${angle}°`} spoken={`${angle} degrees`} value={angle} min={0} max={175} step={5} onChange={setAngle} />}
      </div>
      <p role="status" className="min-h-6 text-sm">
        {fault ?? (pulled ? <Told pulled={pulled} hues={hues} /> : "")}
      </p>
    </div>
  );
}

/** What levels of a body cannot tell: a share of the surface that counts as nothing. */
const NOTHING = 0.004;

function Told({ pulled, hues }: { pulled: Pulled; hues: (typeof HUES)["light"] }) {
  const { fmt } = useUnits();
  const percent = (mm2: number) => `${((100 * mm2) / pulled.areaMm2).toFixed(mm2 > 0 && mm2 < 0.1 * pulled.areaMm2 ? 1 : 0)} %`;
  const items = [
    { hue: hues.plus, words: `${percent(pulled.freePlusMm2 - pulled.freeBothMm2)} leaves with one half` },
    { hue: hues.minus, words: `${percent(pulled.freeMinusMm2 - pulled.freeBothMm2)} with the other` },
    ...(pulled.freeBothMm2 > NOTHING * pulled.areaMm2 ? [{ hue: hues.both, words: `${percent(pulled.freeBothMm2)} stands upright, with either` }] : []),
    {
      hue: hues.caught,
      words:
        pulled.trappedMm2 > NOTHING * pulled.areaMm2
          ? `${percent(pulled.trappedMm2)} is caught, by up to ${fmt(pulled.deepestMm, "length")}`
          : "nothing is caught",
    },
  ];
  return (
    <span className="flex flex-wrap gap-x-4 gap-y-1">
      {items.map((i) => (
        <span key={i.words} className="inline-flex items-center gap-1.5">
          <span className="inline-block size-3.5 rounded-sm border border-ink" style={{ background: i.hue }} aria-hidden="true" />
          {i.words}
        </span>
      ))}
    </span>
  );
}

function Piece({
  corners,
  free,
  hues,
  cutMm,
  angle,
  cuts,
}: {
  corners: Float32Array;
  free: Uint8Array | null;
  hues: (typeof HUES)["light"];
  cutMm: number;
  angle: number;
  cuts: boolean;
}) {
  const geometry = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute("position", new BufferAttribute(corners, 3));
    g.computeVertexNormals();
    const colours = new Float32Array(corners.length);
    const palette = [hues.caught, hues.plus, hues.minus, hues.both].map(rgb);
    const plain = rgb(hues.piece);
    for (let i = 0; i < corners.length / 9; i++) for (let k = 0; k < 3; k++) colours.set(free ? palette[free[i]!]! : plain, 9 * i + 3 * k);
    g.setAttribute("color", new BufferAttribute(colours, 3));
    return g;
  }, [corners, free, hues]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const planes = useMemo(() => (cuts ? [new Plane(new Vector3(Math.sin(angle), Math.cos(angle), 0), cutMm)] : []), [cuts, cutMm, angle]);
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => invalidate(), [geometry, planes, invalidate]);
  return (
    <mesh geometry={geometry}>
      <meshStandardMaterial vertexColors flatShading side={DoubleSide} clippingPlanes={planes} roughness={0.9} />
    </mesh>
  );
}

/** Where it is looked at from. */
function Sight({ look: [a, b], far, middle }: { look: Look; far: number; middle: number }) {
  const camera = useThree((s) => s.camera);
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => {
    const flat = Math.max(1e-3, Math.cos(b));
    camera.position.set(far * flat * Math.sin(a), -far * flat * Math.cos(a), middle + far * Math.sin(b));
    camera.up.set(0, 0, 1);
    camera.lookAt(0, 0, middle);
    camera.updateProjectionMatrix();
    invalidate();
  }, [camera, a, b, far, middle, invalidate]);
  return null;
}
