"use client";

import { proxy, transfer } from "comlink";
import { Camera } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { bodyOf, flatRings, simplified, type Point } from "@/core/body";
import { formOfScan, type SCALE_KINDS, type Scanned, type Shot as KeptShot } from "@/core/master";
import { agreed, levelsOf, PhotoFault, silhouetted, type Brush, type Raising, type Scale, type Silhouetted, type View } from "@/core/photo";
import type { PhotoWorker } from "@/workers/photo.worker";
import { pick } from "@/core/material";
import { call } from "../../../data/call";
import { useGoing } from "../../../data/useGoing";
import { useModelWorker } from "../../../data/useModelWorker";
import { useWorker } from "../../../data/useWorker";
import { QuantityField } from "../../../form/QuantityField";
import { Choice } from "../../../kit/Choice";
import { Fault } from "../../../kit/controls";
import { Drag } from "../../../kit/Drag";
import { More } from "../../../kit/More";
import { Running } from "../../../kit/Progress";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";
import { pictureUrl } from "../PictureStrip";
import { Leaving } from "./Leaving";
import { PictureBoard, type Handle } from "./PictureBoard";

const VIEWS = [
  { value: "front", label: "Front" },
  { value: "side", label: "Side" },
  { value: "top", label: "From above" },
] as const;
type ViewName = View["view"];

const SCALES = [
  { value: "ruler", label: "A ruler" },
  { value: "a4", label: "A4 sheet", sizeMm: [210, 297] },
  { value: "letter", label: "Letter sheet", sizeMm: [215.9, 279.4] },
  { value: "card", label: "A bank card", sizeMm: [85.6, 53.98] },
  { value: "own", label: "Another sheet" },
] as const;
type ScaleName = (typeof SCALE_KINDS)[number];

/** Longest side a picture is worked on in, points: more shows nothing more of an outline. */
const LONGEST_PX = 3000;

/** One picture, and what was said of it. */
interface Shot {
  url: string;
  sizePx: [number, number];
  tap: Point | null;
  add: Brush[];
  remove: Brush[];
  rings: Point[][];
  sure: number;
  scale: ScaleName;
  marks: Point[];
  distanceMm: number | null;
  cameraMm: number | null;
  sheetMm: [number, number] | null;
}

type Hand = "tap" | "add" | "remove" | "move" | "draw";
/** Points of a line that can still be dragged one by one. */
const MOST_DRAGGED = 60;

const marksFor = (scale: ScaleName, [w, h]: readonly [number, number]): Point[] =>
  scale === "ruler"
    ? [
        [0.2 * w, 0.92 * h],
        [0.8 * w, 0.92 * h],
      ]
    : [
        [0.15 * w, 0.1 * h],
        [0.85 * w, 0.1 * h],
        [0.85 * w, 0.9 * h],
        [0.15 * w, 0.9 * h],
      ];

const scaleOf = (s: Shot): Scale | null => {
  const kind = SCALES.find((k) => k.value === s.scale);
  const [a, b, c, d] = s.marks;
  if (!a || !b) return null;
  if (s.scale === "ruler") return s.distanceMm === null ? null : { pointsPx: [a, b], distanceMm: s.distanceMm };
  const sizeMm = kind && "sizeMm" in kind ? kind.sizeMm : s.sheetMm;
  if (!c || !d || !sizeMm) return null;
  // A sheet lies along or across: its longer side is the longer one seen.
  const across = Math.hypot(b[0] - a[0], b[1] - a[1]) > Math.hypot(c[0] - b[0], c[1] - b[1]);
  const [short, long] = [Math.min(...sizeMm), Math.max(...sizeMm)];
  return { sheetPx: [a, b, c, d], widthMm: across ? long : short, heightMm: across ? short : long };
};

const MARK_NAMES: Record<"ruler" | "sheet", readonly string[]> = {
  ruler: ["One mark of the ruler", "The other mark of the ruler"],
  sheet: ["Top left corner of the sheet", "Top right corner", "Bottom right corner", "Bottom left corner"],
};

const asShot = (jobId: string, k: KeptShot): Shot => ({
  url: pictureUrl(jobId, k.view),
  sizePx: k.sizePx,
  tap: k.tapPx,
  add: [],
  remove: [],
  rings: k.rings.map((r) => Array.from({ length: r.length >> 1 }, (_, i): Point => [r[2 * i]!, r[2 * i + 1]!])),
  sure: 1,
  scale: k.scale,
  marks: k.marks,
  distanceMm: k.distanceMm,
  cameraMm: k.cameraMm,
  sheetMm: k.sheetMm,
});

const asKept = (view: ViewName, s: Shot): KeptShot => ({
  view,
  sizePx: s.sizePx,
  tapPx: s.tap && [s.tap[0], s.tap[1]],
  rings: flatRings(s.rings.filter((r) => r.length > 2)).map((r) => r.slice(0, 8000)),
  scale: s.scale,
  marks: s.marks.map(([x, y]): [number, number] => [x, y]),
  distanceMm: s.distanceMm,
  cameraMm: s.cameraMm,
  sheetMm: s.sheetMm,
});

/** The same line with no more points than can be dragged one by one. */
function fewPoints(rings: readonly Point[][]): Point[][] {
  if (rings.flat().length <= MOST_DRAGGED) return [...rings];
  const all = rings.flat();
  const across = Math.max(...all.map((p) => p[0])) - Math.min(...all.map((p) => p[0]));
  let few = rings.map((r) => [...r]);
  for (let tol = across / 800; few.flat().length > MOST_DRAGGED && tol < across; tol *= 1.3) few = rings.map((r) => simplified(r, tol));
  return few;
}

/** Rings with one of their points, counted through all of them, moved. */
function withPoint(rings: readonly (readonly Point[])[], index: number, p: Point): Point[][] {
  let n = 0;
  return rings.map((r) => r.map((q) => (n++ === index ? p : q)));
}

/** The picture of a file the right way up, no larger than is worked on. */
async function decoded(file: Blob): Promise<ImageData> {
  const bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  const by = Math.min(1, LONGEST_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [Math.max(1, Math.round(bitmap.width * by)), Math.max(1, Math.round(bitmap.height * by))];
  const ink = canvas.getContext("2d", { willReadFrequently: true });
  if (!ink) throw new Error("This browser cannot read pictures.");
  ink.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return ink.getImageData(0, 0, canvas.width, canvas.height);
}

/** Takes the piece from one to three photographs: tap it, say how large something beside it is, and its outlines give a body. */
export function PhotoReader() {
  const { id, job, catalogue, edit } = useJob();
  const { fmt, say } = useUnits();
  const { ask, stop, fault } = useWorker<PhotoWorker>(() => new Worker(new URL("../../../../workers/photo.worker.ts", import.meta.url)));
  const [at, setAt] = useState<ViewName>("front");
  const [shots, setShots] = useState<Partial<Record<ViewName, Shot>>>(() =>
    Object.fromEntries((job.master.photographs?.shots ?? []).map((k) => [k.view, asShot(id, k)])),
  );
  const [hand, setHand] = useState<Hand>("tap");
  const solid = useModelWorker();
  const looking = useGoing();
  const asked = useRef(0);
  const { doing, begin, end } = useGoing();
  const [trouble, setTrouble] = useState<string | null>(null);
  const [square, setSquare] = useState<number | null>(null);
  const [planHighMm, setPlanHigh] = useState<number | null>(null);
  const [raising, setRaising] = useState<Required<Omit<Raising, "heightMm">>>({ draftDeg: 0, domeMm: 0, reliefMm: 0, reliefShare: 0.3 });
  const [toldMl, setTold] = useState<number | null>(null);
  const pixels = useRef<Partial<Record<ViewName, ImageData>>>({});
  const urls = useRef<string[]>([]);
  useEffect(() => () => urls.current.forEach((u) => URL.revokeObjectURL(u)), []);
  const shot = shots[at];
  const now = job.master.photographs;
  const density = pick(catalogue.surfaces, job.master.surfaceId)?.densityGMl;
  const weighedMl = job.master.massG !== null && density ? job.master.massG / density.typical : null;

  /** Puts together what is known, and keeps it where it makes a body. */
  const settle = (all: typeof shots, more: { square?: number | null; planHighMm?: number | null; toldMl?: number | null; raising?: typeof raising } = {}) => {
    const views = VIEWS.flatMap(({ value: view }): View[] => {
      const s = all[view];
      const scale = s ? scaleOf(s) : null;
      return s && scale && (s.rings[0]?.length ?? 0) > 2 ? [{ view, outlinePx: s.rings, scale, sizePx: s.sizePx, cameraMm: s.cameraMm }] : [];
    });
    if (views.length === 0) return;
    const heightMm = more.planHighMm === undefined ? planHighMm : more.planHighMm;
    if (views.every((v) => v.view === "top") && heightMm === null) return;
    try {
      const body = silhouetted(views, { squareness: more.square === undefined ? square : more.square, heightMm, raising: more.raising ?? raising });
      setTrouble(null);
      keep(body, more.toldMl === undefined ? toldMl : more.toldMl, all);
    } catch (e) {
      if (!(e instanceof PhotoFault)) throw e;
      setTrouble(e.message);
    }
  };

  const keep = (body: Silhouetted, told: number | null, all: typeof shots) => {
    const named = VIEWS.filter((v) => all[v.value]?.rings.length).map((v) => v.label.toLowerCase());
    const pulled = told === null ? null : agreed(body.volumeMm3, body.errorMm3, told * 1000, 0.02 * told * 1000);
    const by = pulled?.byLength ?? 1;
    const scanned: Scanned = {
      name: `Photographs: ${named.join(", ")}`,
      levels: levelsOf(body, by),
      volumeMl: (pulled?.volumeMm3 ?? body.volumeMm3) / 1000,
      errorMl: (pulled?.errorMm3 ?? body.errorMm3) / 1000,
      areaMm2: null,
      says: [
        ...body.says,
        ...(told !== null && !pulled
          ? [
              `The pictures give ${fmt(body.volumeMm3 / 1000, "volume")} and the other reading ${fmt(told, "volume")}: one of them is wrong. Look at the scale first.`,
            ]
          : []),
      ],
      opens: null,
      layers: null,
      shots: VIEWS.flatMap(({ value }) => (all[value] ? [asKept(value, all[value])] : [])),
    };
    edit((j) => ({ ...j, master: { ...j.master, photographs: scanned } }));
    void lookRound(scanned);
  };

  /** How it leaves a mould and what skins it takes: looked at away from the page, once the outlines have been still for a moment. */
  const lookRound = async (scanned: Scanned) => {
    const mine = ++asked.current;
    solid.stop();
    await new Promise((done) => setTimeout(done, 700));
    if (mine !== asked.current) return;
    const { solidOf } = await import("../../../stage/round/solid");
    const corners = solidOf(bodyOf(formOfScan(scanned), scanned.errorMl));
    const tell = looking.begin("Looking how it leaves");
    const laid = await solid.ask((w) => w.lay(corners, [0, 0, 1], proxy(tell)));
    looking.end();
    if (laid && mine === asked.current)
      edit((j) =>
        j.master.photographs ? { ...j, master: { ...j.master, photographs: { ...j.master.photographs, opens: laid.opens, layers: laid.layers } } } : j,
      );
  };

  // What is put here while an outline is being looked for is not lost when it is found.
  const latest = useRef(shots);
  const put = (view: ViewName, next: Shot): typeof shots => {
    const all = { ...latest.current, [view]: next };
    latest.current = all;
    setShots(all);
    return all;
  };
  const open = async (file: File | undefined) => {
    if (!file) return;
    setTrouble(null);
    try {
      const image = await decoded(file);
      pixels.current[at] = image;
      const url = URL.createObjectURL(file);
      urls.current.push(url);
      const sizePx: [number, number] = [image.width, image.height];
      put(at, {
        url,
        sizePx,
        tap: null,
        add: [],
        remove: [],
        rings: [],
        sure: 0,
        scale: "ruler",
        marks: marksFor("ruler", sizePx),
        distanceMm: null,
        cameraMm: null,
        sheetMm: null,
      });
      setHand("tap");
      const sent = await call("jobs", "addPicture", { params: { id, view: at }, bytes: file });
      if (!sent.ok) setTrouble(`The picture is on this page only: ${sent.message}`);
    } catch (e) {
      setTrouble(`That picture cannot be read (${e instanceof Error ? e.message : String(e)}): choose a JPEG, PNG or WebP.`);
    }
  };
  const find = async (next: Shot) => {
    if (!next.tap) return;
    put(at, next);
    const tell = begin("Looking for the outline");
    let image: ImageData;
    try {
      image = pixels.current[at] ??= await again(next.url);
    } catch (e) {
      end();
      return setTrouble(`The kept picture cannot be read (${e instanceof Error ? e.message : String(e)}): take it again.`);
    }
    const copy = image.data.slice();
    const { tap } = next;
    const found = await ask<{ rings: Point[][]; sure: number }>((w) =>
      w.outline(
        transfer({ width: image.width, height: image.height, rgba: copy }, [copy.buffer]),
        { tapPx: tap, addPx: next.add, removePx: next.remove },
        proxy(tell),
      ),
    );
    end();
    if (found) settle(put(at, { ...(latest.current[at] ?? next), rings: found.rings, sure: found.sure }));
  };
  /** A kept picture, to be worked on again. */
  const again = async (url: string): Promise<ImageData> => decoded(await (await fetch(url)).blob());
  const change = (patch: Partial<Shot>) => {
    const mine = latest.current[at];
    if (mine) settle(put(at, { ...mine, ...patch }));
  };

  const raise = (patch: Partial<typeof raising>) => {
    const next = { ...raising, ...patch };
    setRaising(next);
    settle(shots, { raising: next });
  };

  /** The line as drawn by hand so far: one ring; what was found is left behind with the first point. */
  const drawn = hand === "draw" && shot?.tap === null ? (shot.rings[0] ?? []) : [];
  const draw = (p: Point) => {
    if (!shot) return;
    const next = { ...shot, tap: null, sure: 1, rings: [[...drawn, p]] };
    if (drawn.length < 2) put(at, next);
    else settle(put(at, next));
  };
  /** Points that can be dragged: those drawn, or of the line that was found as few as keep its form. */
  const loose: readonly (readonly Point[])[] =
    hand === "draw" ? (drawn.length <= MOST_DRAGGED ? [drawn] : []) : hand === "move" && shot ? fewPoints(shot.rings) : [];
  return (
    <div className="space-y-3">
      <p className="hint">Stand a ruler or a sheet of paper beside the piece, level with its middle. Step back two metres, lens at mid-height.</p>
      <Choice
        label="Which view"
        hideLabel
        value={at}
        options={VIEWS.map((v) => ({ ...v, label: shots[v.value]?.rings.length ? `${v.label} ✓` : v.label }))}
        onChange={setAt}
      />
      <label className={`btn w-full cursor-pointer justify-center focus-within:outline-2 ${shot ? "" : "btn-main"}`}>
        <Camera size={20} aria-hidden="true" /> {shot ? "Another picture" : `Take the picture: ${VIEWS.find((v) => v.value === at)!.label.toLowerCase()}`}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          onChange={(e) => {
            void open(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
      </label>
      {shot && (
        <>
          <Choice
            label="What a touch does"
            hideLabel
            value={hand}
            options={[
              { value: "tap", label: "Tap the piece" },
              { value: "add", label: "Brush on" },
              { value: "remove", label: "Brush away" },
              { value: "move", label: "Move its points" },
              { value: "draw", label: "Draw by hand" },
            ]}
            onChange={setHand}
          />
          <PictureBoard
            url={shot.url}
            alt={`Picture, ${at}`}
            sizePx={shot.sizePx}
            rings={shot.rings}
            handles={shot.marks.map((m, i): Handle => ({ name: MARK_NAMES[shot.scale === "ruler" ? "ruler" : "sheet"][i] ?? `Mark ${i + 1}`, at: m }))}
            corners={loose.flat().map((at, i): Handle => ({ name: `Point ${i + 1} of the outline`, at }))}
            onCorner={(i, p) => change({ rings: withPoint(loose, i, p) })}
            onPoint={hand === "tap" ? (tap) => void find({ ...shot, tap, add: [], remove: [] }) : hand === "draw" ? draw : null}
            onStroke={
              hand === "tap" || hand === "draw" || hand === "move" || !shot.tap
                ? null
                : (points) => {
                    const radiusPx = Math.max(...shot.sizePx) * 0.015;
                    const brushed = points.map((p): Brush => ({ at: p, radiusPx }));
                    void find({
                      ...shot,
                      add: hand === "add" ? [...shot.add, ...brushed] : shot.add,
                      remove: hand === "remove" ? [...shot.remove, ...brushed] : shot.remove,
                    });
                  }
            }
            onHandle={(i, p) => change({ marks: shot.marks.map((m, k) => (k === i ? p : m)) })}
          />
          {hand === "move" && <p className="hint">Drag a point of the line to where the edge of the piece is.</p>}
          {hand === "draw" && <p className="hint">Tap round the piece, point after point; drag a point to move it.</p>}
          <Running doing={doing} stop={stop} end={end} />
          {shot.rings.length > 0 && shot.sure < 0.85 && <p className="hint">Piece and surroundings look alike here: check the line, and brush on or away.</p>}
          <Choice label="Its size by" value={shot.scale} options={SCALES} onChange={(scale) => change({ scale, marks: marksFor(scale, shot.sizePx) })} />
          <div className="grid grid-cols-2 gap-3">
            {shot.scale === "ruler" && (
              <QuantityField
                label="Between the two marks"
                value={shot.distanceMm}
                dimension="length"
                min={1}
                max={5000}
                draftKey={`${id}:${at}Ruler`}
                onChange={(distanceMm) => change({ distanceMm })}
              />
            )}
            {shot.scale === "own" && <SheetSize sizeMm={shot.sheetMm} draftKey={`${id}:${at}Sheet`} onChange={(sheetMm) => change({ sheetMm })} />}
            <QuantityField
              label="Camera stood away"
              value={shot.cameraMm}
              dimension="length"
              min={50}
              max={50_000}
              optional
              draftKey={`${id}:${at}Camera`}
              onChange={(cameraMm) => change({ cameraMm })}
            />
          </div>
        </>
      )}
      {shots.top && !shots.front && !shots.side && (
        <QuantityField
          label="How high it stands"
          value={planHighMm}
          dimension="length"
          min={0.1}
          max={3000}
          draftKey={`${id}:planHigh`}
          onChange={(v) => {
            setPlanHigh(v);
            settle(shots, { planHighMm: v });
          }}
        />
      )}
      {shots.top && !shots.front && !shots.side && (
        <More
          title="Sides, dome, relief"
          now={
            [
              raising.draftDeg > 0 && "sides lean",
              raising.domeMm > 0 && `dome ${fmt(raising.domeMm, "length")}`,
              raising.reliefMm > 0 && `relief ${fmt(raising.reliefMm, "length")}`,
            ]
              .filter(Boolean)
              .join(", ") || "upright and flat"
          }
        >
          <Drag
            label="Sides lean in"
            shown={`${raising.draftDeg}°`}
            spoken={`${raising.draftDeg} degrees`}
            value={raising.draftDeg}
            min={0}
            max={45}
            step={1}
            onChange={(draftDeg) => raise({ draftDeg })}
          />
          <div className="grid grid-cols-2 gap-3">
            <QuantityField
              label="Top domes up by"
              value={raising.domeMm}
              dimension="length"
              min={0}
              max={1000}
              draftKey={`${id}:dome`}
              onChange={(v) => v !== null && raise({ domeMm: v })}
            />
            <QuantityField
              label="Or relief stands"
              value={raising.reliefMm}
              dimension="length"
              min={0}
              max={1000}
              draftKey={`${id}:relief`}
              onChange={(v) => v !== null && raise({ reliefMm: v })}
            />
          </div>
          {raising.reliefMm > 0 && (
            <Drag
              label="Over so much of it"
              shown={`${Math.round(100 * raising.reliefShare)} %`}
              spoken={`${Math.round(100 * raising.reliefShare)} percent`}
              value={raising.reliefShare}
              min={0.05}
              max={1}
              step={0.05}
              onChange={(reliefShare) => raise({ reliefShare })}
            />
          )}
        </More>
      )}
      {(shots.front?.rings.length ?? 0) > 0 && (
        <>
          <Drag
            label="Cut level, it is"
            shown={square === null ? "oval, not looked at" : square < 0.15 ? "oval" : square > 0.85 ? "square" : "rounded"}
            spoken={square === null ? "oval" : `${Math.round(100 * square)} percent square`}
            value={square ?? 0}
            min={0}
            max={1}
            step={0.05}
            onChange={(v) => {
              setSquare(v);
              settle(shots, { square: v });
            }}
          />
          <QuantityField
            label="Its volume by a jug, if you know it"
            value={toldMl}
            dimension="volume"
            min={0.01}
            max={500_000}
            optional
            draftKey={`${id}:toldMl`}
            onChange={(v) => {
              setTold(v);
              settle(shots, { toldMl: v });
            }}
          />
        </>
      )}
      {weighedMl !== null && weighedMl !== toldMl && now && (
        <button
          type="button"
          className="btn w-full justify-center"
          onClick={() => {
            setTold(weighedMl);
            settle(shots, { toldMl: weighedMl });
          }}
        >
          By its weight it holds {fmt(weighedMl, "volume")}: go by that
        </button>
      )}
      <Fault>{fault ?? trouble}</Fault>
      <Running doing={looking.doing} stop={solid.stop} end={looking.end} />
      <Fault>{solid.fault}</Fault>
      {now && (
        <div className="space-y-1 text-sm" aria-live="polite">
          <p>
            <b>{now.name}</b>: {fmt(now.volumeMl, "volume")} ± {fmt(now.errorMl, "volume")}.
          </p>
          <Leaving opens={now.opens} lay={null} />
          {now.says.map((s) => (
            <p key={s} className="hint">
              {say(s)}
            </p>
          ))}
        </div>
      )}
    </div>
  );
}

/** Both sides of a sheet of one's own. */
function SheetSize({
  sizeMm,
  draftKey,
  onChange,
}: {
  sizeMm: readonly [number, number] | null;
  draftKey: string;
  onChange: (sizeMm: [number, number]) => void;
}) {
  return ([0, 1] as const).map((k) => (
    <QuantityField
      key={k}
      label={k === 0 ? "One side of the sheet" : "Its other side"}
      value={sizeMm?.[k] ?? null}
      dimension="length"
      min={5}
      max={5000}
      draftKey={`${draftKey}${k}`}
      onChange={(v) => {
        if (v === null) return;
        const [w, h] = sizeMm ?? [v, v];
        onChange(k === 0 ? [v, h] : [w, v]);
      }}
    />
  ));
}
