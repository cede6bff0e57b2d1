"use client";

import { Canvas, useThree } from "@react-three/fiber";
import { useEffect, useImperativeHandle, useMemo, useRef, useState, type KeyboardEvent, type Ref } from "react";
import { BufferAttribute, BufferGeometry, Color, DoubleSide, ShaderMaterial } from "three";
import type { Vec } from "@/core/mesh";
import type { Skin } from "@/core/rehearsal";
import { Rope, Sight, type Look } from "./Scene";

/** Basins whose freezing is shown one by one; any more freeze as the last. */
const MOST_BASINS = 32;

/** A moment of a pour: what is in, the crust of each basin, 0 to 1, and whether air that is shut in is known to be. */
export interface Moment {
  skin: Skin;
  leanDeg: number;
  filledMl: number;
  grown: readonly number[];
  over: boolean;
}

const VERTEX = `
attribute float under;
attribute float basin;
varying float vUnder;
flat varying float vBasin;
varying vec3 vAt;
void main() {
  vUnder = under;
  vBasin = basin;
  vec4 at = modelViewMatrix * vec4(position, 1.0);
  vAt = at.xyz;
  gl_Position = projectionMatrix * at;
}`;
const FRAGMENT = `
uniform vec3 room;
uniform vec3 melt;
uniform vec3 solid;
uniform vec3 air;
uniform float filled;
uniform float over;
uniform float grown[${MOST_BASINS}];
varying float vUnder;
flat varying float vBasin;
varying vec3 vAt;
void main() {
  vec3 n = normalize(cross(dFdx(vAt), dFdy(vAt)));
  float lit = 0.62 + 0.38 * abs(dot(n, normalize(vec3(0.4, 0.5, 0.8))));
  vec3 wet = mix(melt, solid, grown[int(vBasin + 0.5)]);
  vec3 colour = vUnder > 1e20 ? mix(room, air, over) : vUnder < filled ? wet : room;
  gl_FragColor = vec4(colour * lit, 1.0);
}`;

/** Colours of what is empty, liquid, frozen, and of air that stays. */
export interface FillingHues {
  room: string;
  melt: string;
  solid: string;
  air: string;
  way: string;
}

/** Whether this device draws solids at all. */
function drawsSolids(): boolean {
  try {
    const gl = document.createElement("canvas").getContext("webgl2");
    gl?.getExtension("WEBGL_lose_context")?.loseContext();
    return gl !== null;
  } catch {
    return false;
  }
}

/** A colour as it is written, not as light adds up. */
const plain = (hex: string): Color => new Color().setStyle(hex, "srgb-linear");

/** The body of a pour in the round: it fills as the section does, and stands as the mould is held. Turned by a finger or by arrow keys. */
export function Filling({
  sizeMm,
  middleMm,
  hues,
  label,
  ways,
  show,
}: {
  sizeMm: number;
  middleMm: number;
  hues: FillingHues;
  label: string;
  /** Draws the sprue and the vents, as long as this, mm; 0 for none. */
  ways: number;
  show: Ref<(m: Moment) => void>;
}) {
  const [[a, b], setLook] = useState<Look>([-0.5, 0.35]);
  const [drawn] = useState(drawsSolids);
  const held = useRef<{ x: number; y: number; look: Look } | null>(null);
  const clamp = (v: number) => Math.max(-1.4, Math.min(1.4, v));
  const keys = (e: KeyboardEvent) => {
    const by = { ArrowLeft: [0.2, 0], ArrowRight: [-0.2, 0], ArrowUp: [0, 0.2], ArrowDown: [0, -0.2] }[e.key];
    if (!by) return;
    e.preventDefault();
    setLook(([x, y]) => [x + by[0]!, clamp(y + by[1]!)]);
  };
  // The section alone tells it all: where no solid can be drawn it does without.
  if (!drawn) return null;
  return (
    <div
      role="application"
      aria-label={`${label}. Arrow keys turn it.`}
      tabIndex={0}
      className="h-full min-h-32 min-w-0 cursor-grab touch-none rounded-lg bg-paper"
      onKeyDown={keys}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        held.current = { x: e.clientX, y: e.clientY, look: [a, b] };
      }}
      onPointerMove={(e) => {
        const h = held.current;
        if (h) setLook([h.look[0] + (h.x - e.clientX) / 120, clamp(h.look[1] + (e.clientY - h.y) / 120)]);
      }}
      onPointerUp={() => (held.current = null)}
    >
      <Canvas
        frameloop="demand"
        flat
        dpr={1}
        gl={{ antialias: false, powerPreference: "low-power" }}
        camera={{ fov: 30, near: 1, far: 20 * sizeMm, up: [0, 0, 1] }}
      >
        <Fitted look={[a, b]} sizeMm={sizeMm} middle={middleMm} />
        <Scene hues={hues} ways={ways} sizeMm={sizeMm} show={show} />
      </Canvas>
    </div>
  );
}

/** Looks at it from as far as its picture is narrow. */
function Fitted({ look, sizeMm, middle }: { look: Look; sizeMm: number; middle: number }) {
  const { width, height } = useThree((s) => s.size);
  return <Sight look={look} far={2.4 * sizeMm * Math.max(1, height / Math.max(1, width))} middle={middle} />;
}

function Scene({ hues, ways, sizeMm, show }: { hues: FillingHues; ways: number; sizeMm: number; show: Ref<(m: Moment) => void> }) {
  const invalidate = useThree((s) => s.invalidate);
  const [stands, setStands] = useState<{ skin: Skin; leanDeg: number } | null>(null);
  const shown = useRef<Skin | null>(null);
  const material = useMemo(
    () =>
      new ShaderMaterial({
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        side: DoubleSide,
        uniforms: {
          room: { value: plain(hues.room) },
          melt: { value: plain(hues.melt) },
          solid: { value: plain(hues.solid) },
          air: { value: plain(hues.air) },
          filled: { value: 0 },
          over: { value: 0 },
          grown: { value: new Array<number>(MOST_BASINS).fill(0) },
        },
      }),
    [hues],
  );
  useEffect(() => () => material.dispose(), [material]);
  const geometry = useMemo(() => {
    if (!stands) return null;
    const g = new BufferGeometry();
    const { places, triangles, underMl, basin } = stands.skin;
    g.setIndex(new BufferAttribute(triangles, 1));
    g.setAttribute("position", new BufferAttribute(places, 3));
    g.setAttribute("under", new BufferAttribute(underMl, 1));
    g.setAttribute(
      "basin",
      new BufferAttribute(
        basin.map((v) => Math.max(0, Math.min(MOST_BASINS - 1, v))),
        1,
      ),
    );
    return g;
  }, [stands]);
  useEffect(() => () => geometry?.dispose(), [geometry]);
  useEffect(() => invalidate(), [geometry, material, invalidate]);
  useImperativeHandle(
    show,
    () => (m) => {
      const { filled, over, grown } = material.uniforms;
      if (m.skin !== shown.current) {
        shown.current = m.skin;
        setStands({ skin: m.skin, leanDeg: m.leanDeg });
      }
      const crusts = Array.from({ length: MOST_BASINS }, (_, i) => m.grown[Math.min(i, m.grown.length - 1)] ?? 0);
      // Nothing is drawn anew that looks the same.
      if (filled!.value === m.filledMl && over!.value === Number(m.over) && crusts.every((v, i) => v === grown!.value[i])) return;
      filled!.value = m.filledMl;
      over!.value = Number(m.over);
      grown!.value = crusts;
      invalidate();
    },
    [material, invalidate],
  );
  const ropes = useMemo(() => {
    if (!stands || ways <= 0) return [];
    const lean = (stands.leanDeg * Math.PI) / 180;
    const up = (p: Vec): Vec[] => [p, [p[0] + ways * Math.sin(lean), p[1], p[2] + ways * Math.cos(lean)]];
    return [{ points: up(stands.skin.sprue), thick: 0.02 * sizeMm }, ...stands.skin.vents.map((v) => ({ points: up(v), thick: 0.008 * sizeMm }))];
  }, [stands, ways, sizeMm]);
  if (!geometry) return null;
  return (
    <>
      <mesh geometry={geometry} material={material} />
      {ropes.map((r, i) => (
        <Rope key={i} points={r.points} closed={false} thick={r.thick} hue={hues.way} />
      ))}
    </>
  );
}
