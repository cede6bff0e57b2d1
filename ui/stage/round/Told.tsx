"use client";

import { neckOf, type Body } from "@/core/body";
import { freeHole, HOLE_WAYS, type Hole, type Plug, type Side } from "@/core/mould";
import { TOUCH, type Caught, type SeamLine, type Vec } from "@/core/mesh";
import type { Left } from "@/workers/model.worker";
import { More } from "../../kit/More";
import { useUnits } from "../../kit/units";
import { Dot } from "./Dot";
import type { Hues } from "./hues";

/** What levels of a body cannot tell: a share of the surface that counts as nothing. */
const NOTHING = 0.004;
/** A pull that catches this share of a piece, or a seam that climbs this share of its height, is worth a saw cut. */
const [CATCHES, TWISTS] = [0.03, 0.5];

/** A pull in words: what leaves with which half, the seam, and each place that is caught with what to do about it. */
export function Told({
  left,
  body,
  hues,
  safeStrain,
  onPlug,
  onInstead,
  onCut,
}: {
  left: Left;
  body: Body;
  hues: Hues;
  safeStrain: number;
  onPlug: (p: Plug) => void;
  onInstead: (d: Vec) => void;
  /** Casts the piece in sections, cut at a height. */
  onCut: (zMm: number) => void;
}) {
  const { fmt } = useUnits();
  const percent = (mm2: number) => `${((100 * mm2) / left.areaMm2).toFixed(mm2 > 0 && mm2 < 0.1 * left.areaMm2 ? 1 : 0)} %`;
  const { seam } = left;
  const spanMm = Math.min(body.lengthMm, body.widthMm);
  const neck = neckOf(body);
  const outer = seam.lines.filter((l) => !l.inner);
  const [low, high] = [Math.min(...outer.map((l) => l.lowMm)), Math.max(...outer.map((l) => l.highMm))];
  const items = [
    { hue: hues.plus, words: `${percent(left.freePlusMm2 - left.freeBothMm2)} leaves with one half` },
    { hue: hues.minus, words: `${percent(left.freeMinusMm2 - left.freeBothMm2)} with the other` },
    ...(left.freeBothMm2 > NOTHING * left.areaMm2 ? [{ hue: hues.both, words: `${percent(left.freeBothMm2)} stands upright, with either` }] : []),
    {
      hue: hues.caught,
      words:
        left.trappedMm2 > NOTHING * left.areaMm2 ? `${percent(left.trappedMm2)} is caught, by up to ${fmt(left.deepestMm, "length")}` : "nothing is caught",
    },
    ...(left.caught.some((c) => ["plug", "pair"].includes(freeHole(holeOf(c), spanMm, safeStrain)[0]?.way ?? ""))
      ? [{ hue: hues.plug, words: "a plug that would free it" }]
      : []),
  ];
  return (
    <div className="space-y-1 text-sm">
      <p className="flex flex-wrap gap-x-4 gap-y-1">
        {items.map((i) => (
          <span key={i.words} className="inline-flex items-center gap-1.5">
            <Dot hue={i.hue} />
            {i.words}
          </span>
        ))}
      </p>
      {outer.length > 0 && (
        <p>
          <b>Seam {fmt(seam.lengthMm, "length")}</b>
          {high - low > 0.02 * body.heightMm
            ? `: no level, the clay climbs ${fmt(high - low, "length")} along it.`
            : `, level${left.direction[2] > 0.99 ? ` ${fmt((low + high) / 2, "length")} up` : ""}.`}
          {seam.crossesMm > TOUCH * seam.lengthMm && ` ${fmt(seam.crossesMm, "length")} of it crosses where you want none.`}
        </p>
      )}
      {left.instead ? (
        <p>
          Turned {Math.round(left.instead.turnedDeg)}° the seam keeps off your marks, {fmt(left.instead.seamMm, "length")} long,{" "}
          {left.instead.trappedShare < NOTHING ? "and nothing is caught" : `${(100 * left.instead.trappedShare).toFixed(1)} % caught`}.{" "}
          <button type="button" className="btn !min-h-9 !py-0" onClick={() => onInstead(left.instead!.direction)}>
            Look at that
          </button>
        </p>
      ) : (
        left.looked > 0 && <p>No pull keeps its seam off your marks without catching much more.</p>
      )}
      {neck && (left.trappedMm2 > CATCHES * left.areaMm2 || high - low > TWISTS * body.heightMm) && (
        <p>
          <b>Or cut it apart:</b> {fmt(neck.zMm, "length")} up it is narrow, {Math.round(100 * neck.share)} % of what lies on either side. A straight saw cut
          there leaves two simpler pieces; draw a line across the cut first, to set them together by.{" "}
          <button type="button" className="btn !min-h-9 !py-0" onClick={() => onCut(Math.round(10 * neck.zMm) / 10)}>
            Cast it in two there
          </button>
        </p>
      )}
      {[...seam.lines.filter((l) => l.inner).map(alongOf), ...left.caught.map((c): Found => ({ hole: holeOf(c), caught: c }))].map((f, i) => (
        <HoleLine key={i} found={f} index={i} spanMm={spanMm} safeStrain={safeStrain} onPlug={onPlug} />
      ))}
    </div>
  );
}

interface Found {
  hole: Hole;
  caught: Caught | null;
}

/** A hole the halves meet in, by its line: as wide as a round one of that area. */
const alongOf = (l: SeamLine): Found => ({
  hole: { acrossMm: 2 * Math.sqrt(l.shadowMm2 / Math.PI), lengthMm: Math.max(0.1, l.highMm - l.lowMm), alongPull: true, by: "plug", giveMm: 0 },
  caught: null,
});
/** A caught place as a hole to be freed. */
export const holeOf = (c: Caught): Hole => ({ acrossMm: c.acrossMm, lengthMm: c.lengthMm, alongPull: false, by: c.by, giveMm: c.deepestMm });

const SIDE_OF = ([x, y, z]: Vec): Side => {
  const [a, b, c] = [Math.abs(x), Math.abs(y), Math.abs(z)];
  return c >= a && c >= b ? "top" : a >= b ? (x > 0 ? "right" : "left") : y > 0 ? "back" : "front";
};
const SIDE_WORDS: Record<Side, string> = { top: "upwards", left: "to the left", right: "to the right", front: "to the front", back: "to the back" };

function HoleLine({
  found: { hole, caught },
  index,
  spanMm,
  safeStrain,
  onPlug,
}: {
  found: Found;
  index: number;
  spanMm: number;
  safeStrain: number;
  onPlug: (p: Plug) => void;
}) {
  const { fmt, say } = useUnits();
  const [best, ...others] = freeHole(hole, spanMm, safeStrain);
  if (!best) return null;
  const where = caught
    ? `${fmt(caught.atMm[2], "length")} up${Math.abs(caught.atMm[0]) > 0.1 * spanMm ? (caught.atMm[0] > 0 ? ", on the right" : ", on the left") : ""}${caught.by === "plug" ? `, free ${caught.out[2] < -0.7 ? "downwards" : SIDE_WORDS[SIDE_OF(caught.out)]}` : ""}`
    : "a hole along the pull";
  return (
    <div className="border-t border-line pt-1">
      <p>
        <b>
          {index + 1}. {HOLE_WAYS[best.way]}
        </b>{" "}
        ({where}): {say(best.why)}
      </p>
      <div className="flex flex-wrap items-center gap-x-3">
        {caught && caught.by !== "bending" && caught.acrossMm >= 0.5 && (
          <button
            type="button"
            className="btn !min-h-9 !py-0"
            onClick={() =>
              onPlug({
                name: `Plug at ${fmt(caught.atMm[2], "length")}`,
                diameterMm: Math.round(10 * Math.min(1000, caught.acrossMm)) / 10,
                lengthMm: Math.round(10 * Math.min(1000, Math.max(0.5, caught.lengthMm / (caught.by === "pair" ? 2 : 1)))) / 10,
                count: caught.by === "pair" ? 2 : 1,
                from: SIDE_OF(caught.out),
              })
            }
          >
            Make it a plug
          </button>
        )}
        {others.length > 0 && (
          <More title="Or">
            {others.map((o) => (
              <p key={o.way}>
                <b>{HOLE_WAYS[o.way]}:</b> {say(o.why)}
              </p>
            ))}
          </More>
        )}
      </div>
    </div>
  );
}
