"use client";

import { useCallback, useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { pulled, rulerStep, stepOf, type Grip, type Pull } from "@/core/draw";
import { nearestGrip, type Paper } from "./paper";

/** A number of the job and what it becomes, mm. */
export interface Put {
  path: string;
  mm: number;
}

/** What is in the hand: which grip, where the finger is on the page, and what stopped it. */
export interface Held {
  grip: Grip;
  x: number;
  y: number;
  /** What the drag has put so far; null of an axis that does not move. */
  mm: { x: number | null; z: number | null };
  stopped: "least" | "most" | null;
  byKeys: boolean;
  /** The page as it lay when the drag began. */
  paper: Paper;
}

/** A finger means the nearest grip within this, px: half of the least size of a handle. */
export const REACH_PX = 22;
const FAR_STEPS = 5;
const TAP_PX = 4;

const DIRECTION: Record<string, readonly [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/**
 * Dragging on the drawing, by pointer, touch and keys: one change a frame at most, each to what a ruler shows. A press on a handle
 * that goes nowhere is a tap on what lies under it.
 */
export function useDragging(
  paper: Paper,
  grips: readonly Grip[],
  us: boolean,
  put: (list: readonly Put[]) => void,
  tap: (clientX: number, clientY: number) => void,
) {
  const [held, setHeld] = useState<Held | null>(null);
  const start = useRef<{ px: number; py: number; grip: Grip; paper: Paper; moved: boolean } | null>(null);
  const frame = useRef(0);
  const step = rulerStep(us, paper.scale);

  const move = useCallback(
    (grip: Grip, dxMm: number, dzMm: number): { mm: Held["mm"]; stopped: Held["stopped"]; list: Put[] } => {
      const list: Put[] = [];
      let stopped: Held["stopped"] = null;
      const one = (p: Pull | null, by: number): number | null => {
        if (!p) return null;
        const to = pulled(p, by, step);
        stopped = to.stopped ?? stopped;
        list.push({ path: p.path, mm: to.mm });
        return to.mm;
      };
      const mm = { x: one(grip.x, dxMm), z: one(grip.z, dzMm) };
      return { mm, stopped, list };
    },
    [step],
  );

  useEffect(() => () => cancelAnimationFrame(frame.current), []);

  const at = (e: PointerEvent<SVGSVGElement>): [number, number] => {
    const r = e.currentTarget.getBoundingClientRect();
    return [((e.clientX - r.left) / r.width) * paper.width, ((e.clientY - r.top) / r.height) * paper.height];
  };
  const begin = (e: PointerEvent<SVGSVGElement>) => {
    if (e.button !== 0) return;
    const [px, py] = at(e);
    const grip = nearestGrip(grips, paper, px, py, REACH_PX);
    if (!grip) return;
    e.preventDefault();
    e.currentTarget.setPointerCapture(e.pointerId);
    start.current = { px, py, grip, paper, moved: false };
    setHeld({ grip, x: px, y: py, mm: { x: grip.x?.valueMm ?? null, z: grip.z?.valueMm ?? null }, stopped: null, byKeys: false, paper });
  };
  const drag = (e: PointerEvent<SVGSVGElement>) => {
    const from = start.current;
    if (!from) return;
    const [px, py] = at(e);
    if (!from.moved && Math.hypot(px - from.px, py - from.py) < TAP_PX) return;
    from.moved = true;
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(() => {
      const to = move(from.grip, (px - from.px) / from.paper.scale, -(py - from.py) / from.paper.scale);
      put(to.list);
      setHeld((h) => h && { ...h, x: px, y: py, mm: to.mm, stopped: to.stopped });
    });
  };
  const end = (e: PointerEvent<SVGSVGElement>) => {
    const from = start.current;
    if (!from) return;
    if (e.type === "pointerup" && !from.moved) tap(e.clientX, e.clientY);
    start.current = null;
    if (e.currentTarget.hasPointerCapture(e.pointerId)) e.currentTarget.releasePointerCapture(e.pointerId);
    // What the last frame still owes is put before the hand is empty.
    requestAnimationFrame(() => setHeld(null));
  };
  const nudge = (e: KeyboardEvent, grip: Grip) => {
    if (e.key === "Escape") return setHeld(null);
    const d = DIRECTION[e.key];
    if (!d) return;
    e.preventDefault();
    // Where only one way is free, both pairs of arrows go along it: right and up are more.
    const far = e.shiftKey ? FAR_STEPS : 1;
    const one = stepOf(grip.x ?? grip.z, step) * far;
    const sum = (d[0] + d[1]) * one;
    const by = grip.x && grip.z ? [d[0] * one, d[1] * one] : [sum * Math.sign(grip.x?.per ?? 1), sum * Math.sign(grip.z?.per ?? 1)];
    // One press is one step of the number, however far the edge goes for it.
    const to = move(grip, (by[0] ?? 0) / Math.abs(grip.x?.per ?? 1), (by[1] ?? 0) / Math.abs(grip.z?.per ?? 1));
    put(to.list);
    setHeld({ grip, x: paper.X(grip.at[0]), y: paper.Y(grip.at[1]), mm: to.mm, stopped: to.stopped, byKeys: true, paper });
  };
  const letGo = () => setHeld(null);
  return { held, begin, drag, end, nudge, letGo };
}
