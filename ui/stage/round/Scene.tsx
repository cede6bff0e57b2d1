"use client";

import { useThree } from "@react-three/fiber";
import { useEffect, useImperativeHandle, useMemo, useRef, type ReactNode, type Ref } from "react";
import { BufferAttribute, BufferGeometry, DoubleSide, Plane, Quaternion, Raycaster, Vector2, Vector3, type Mesh as Solid } from "three";
import type { Mark, Vec } from "@/core/mesh";
import type { Hues } from "./hues";

/** Where it is looked at from: round it, and up. */
export type Look = readonly [number, number];

/** A place on the piece that was pointed at, and which way the surface looks there. */
export interface Touched {
  at: Vec;
  facing: Vec;
}
/** Finds what lies under a place of the picture, −1 to 1 across and up. */
export type Touch = (x: number, y: number) => Touched | null;

const rgb = (hex: string): [number, number, number] => [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2) as [number, number, number];

/** The piece, cut by a plane where one is asked for. */
export function Piece({
  corners,
  free,
  marks,
  hues,
  cutMm,
  angle,
  cuts,
  touch,
}: {
  corners: Float32Array;
  /** For each triangle what is free of it. */
  free: Uint8Array | null;
  marks: readonly Mark[];
  hues: Hues;
  cutMm: number;
  angle: number;
  cuts: boolean;
  touch: Ref<Touch>;
}) {
  const solid = useRef<Solid>(null);
  const geometry = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute("position", new BufferAttribute(corners, 3));
    g.computeVertexNormals();
    const colours = new Float32Array(corners.length);
    const palette = [hues.caught, hues.plus, hues.minus, hues.both].map(rgb);
    const [plain, marked] = [rgb(hues.piece), rgb(hues.mark)];
    for (let i = 0; i < corners.length / 9; i++)
      for (let k = 0; k < 3; k++) {
        const at = 9 * i + 3 * k;
        const on = marks.some(
          (m) => (corners[at]! - m.atMm[0]) ** 2 + (corners[at + 1]! - m.atMm[1]) ** 2 + (corners[at + 2]! - m.atMm[2]) ** 2 <= m.radiusMm ** 2,
        );
        colours.set(on ? marked : free ? palette[free[i]!]! : plain, at);
      }
    g.setAttribute("color", new BufferAttribute(colours, 3));
    return g;
  }, [corners, free, marks, hues]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const planes = useMemo(() => (cuts ? [new Plane(new Vector3(Math.sin(angle), Math.cos(angle), 0), cutMm)] : []), [cuts, cutMm, angle]);
  const { invalidate, camera } = useThree();
  useEffect(() => invalidate(), [geometry, planes, invalidate]);
  useImperativeHandle(
    touch,
    () => (x, y) => {
      if (!solid.current) return null;
      const ray = new Raycaster();
      ray.setFromCamera(new Vector2(x, y), camera);
      // What the cut took away is not there to be touched.
      const hit = ray.intersectObject(solid.current).find((h) => planes.every((p) => p.distanceToPoint(h.point) >= 0));
      if (!hit?.face) return null;
      const n = hit.face.normal;
      // Where it is on the piece itself, however that is stood.
      const p = solid.current.worldToLocal(hit.point.clone());
      return { at: [p.x, p.y, p.z], facing: [n.x, n.y, n.z] };
    },
    [camera, planes],
  );
  return (
    <mesh ref={solid} geometry={geometry}>
      <meshStandardMaterial vertexColors flatShading side={DoubleSide} clippingPlanes={planes} roughness={0.9} />
    </mesh>
  );
}

/** Balls at places: as large as the air that stays there, or where something is cut. */
export function Balls({ at, hue }: { at: readonly { atMm: Vec; radiusMm: number }[]; hue: string }) {
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => invalidate(), [at, invalidate]);
  return at.map(({ atMm, radiusMm }, i) => (
    <mesh key={i} position={[atMm[0], atMm[1], atMm[2]]}>
      <sphereGeometry args={[radiusMm, 16, 12]} />
      <meshBasicMaterial color={hue} transparent opacity={0.85} depthTest={false} />
    </mesh>
  ));
}

/** A plug where it goes: its middle, the way it leaves, and its size. */
export interface Stopper {
  atMm: Vec;
  out: Vec;
  acrossMm: number;
  lengthMm: number;
}

/** Plugs, seen through, each standing out of the piece on the side it is drawn to. */
export function Stoppers({ at, hue }: { at: readonly Stopper[]; hue: string }) {
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => invalidate(), [at, invalidate]);
  return at.map(({ atMm, out, acrossMm, lengthMm }, i) => {
    const along = new Vector3(...out).normalize();
    // As far again as it is deep, so that it can be held.
    const middle = new Vector3(...atMm).addScaledVector(along, lengthMm / 2);
    return (
      <mesh key={i} position={middle} quaternion={new Quaternion().setFromUnitVectors(new Vector3(0, 1, 0), along)}>
        <cylinderGeometry args={[acrossMm / 2, acrossMm / 2, 2 * lengthMm, 32]} />
        <meshStandardMaterial color={hue} transparent opacity={0.55} depthWrite={false} />
      </mesh>
    );
  });
}

/** Turns what it holds so that one of its directions stands up, about its own middle height. */
export function Standing({ up, middle, children }: { up: Vec; middle: number; children: ReactNode }) {
  const turn = useMemo(() => new Quaternion().setFromUnitVectors(new Vector3(...up).normalize(), new Vector3(0, 0, 1)), [up]);
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => invalidate(), [turn, invalidate]);
  return (
    <group position={[0, 0, middle]} quaternion={turn}>
      <group position={[0, 0, -middle]}>{children}</group>
    </group>
  );
}

/** A line through points, as a thin band of triangles on either side of them so that it can be seen from anywhere. */
export function Rope({ points, closed, thick, hue }: { points: readonly Vec[]; closed: boolean; thick: number; hue: string }) {
  const geometry = useMemo(() => {
    const out: number[] = [];
    const n = points.length;
    const around = 5;
    const ring = (i: number): Vec[] => {
      const [a, b] = [points[closed ? (i + n - 1) % n : Math.max(0, i - 1)]!, points[closed ? (i + 1) % n : Math.min(n - 1, i + 1)]!];
      const d = new Vector3(b[0] - a[0], b[1] - a[1], b[2] - a[2]).normalize();
      const u = new Vector3(0, 0, 1).cross(d);
      if (u.lengthSq() < 1e-6) u.set(1, 0, 0);
      u.normalize();
      const v = d.clone().cross(u);
      return Array.from({ length: around }, (_, k): Vec => {
        const [c, s] = [thick * Math.cos((2 * Math.PI * k) / around), thick * Math.sin((2 * Math.PI * k) / around)];
        const p = points[i]!;
        return [p[0] + c * u.x + s * v.x, p[1] + c * u.y + s * v.y, p[2] + c * u.z + s * v.z];
      });
    };
    const rings = points.map((_, i) => ring(i));
    for (let i = 0; i < (closed ? n : n - 1); i++)
      for (let k = 0; k < around; k++) {
        const [a, b, c, d] = [rings[i]![k]!, rings[i]![(k + 1) % around]!, rings[(i + 1) % n]![(k + 1) % around]!, rings[(i + 1) % n]![k]!];
        out.push(...a, ...b, ...c, ...a, ...c, ...d);
      }
    const g = new BufferGeometry();
    g.setAttribute("position", new BufferAttribute(Float32Array.from(out), 3));
    return g;
  }, [points, closed, thick]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => invalidate(), [geometry, invalidate]);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial color={hue} side={DoubleSide} />
    </mesh>
  );
}

/** Puts the camera where it is looked from. */
export function Sight({ look: [a, b], far, middle }: { look: Look; far: number; middle: number }) {
  const camera = useThree((s) => s.camera);
  const invalidate = useThree((s) => s.invalidate);
  useEffect(() => {
    const flat = Math.max(1e-3, Math.cos(b));
    camera.position.set(far * flat * Math.sin(a), -far * flat * Math.cos(a), middle + far * Math.sin(b));
    camera.up.set(0, 0, 1);
    camera.lookAt(0, 0, middle);
    camera.updateProjectionMatrix();
    camera.updateMatrixWorld();
    invalidate();
  }, [camera, a, b, far, middle, invalidate]);
  return null;
}
