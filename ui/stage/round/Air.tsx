"use client";

import type { Remote } from "comlink";
import { proxy } from "comlink";
import { useEffect, useState } from "react";
import { reasonsOf, type Boxed, type CoatMap, type Posture, type Sequence, type Trapped } from "@/core/air";
import type { Vec } from "@/core/mesh";
import { towardsName, type Filling } from "@/core/mould";
import type { ModelWorker } from "@/workers/model.worker";
import type { useGoing } from "../../data/useGoing";
import { useUnits } from "../../kit/units";
import { Dot } from "./Dot";

type Ask = <R>(question: (w: Remote<ModelWorker>) => Promise<R>) => Promise<R | null>;

/** What is known of the air in a casting, and what a touch or a choice does to it. */
export interface AirState {
  up: Vec;
  postures: readonly Posture[];
  trapped: (Trapped & { touched: Uint8Array }) | null;
  ventsMm: readonly Vec[];
  sprueMm: Vec | null;
  stand: (up: Vec) => void;
  fillAt: (at: Vec | null) => void;
  vent: () => void;
  unvent: () => void;
  /** Tilts to begin in and tip back from; null until somebody asks. */
  sequences: readonly Sequence[] | null;
  tip: () => void;
}

const three = ([x, y, z]: Vec): [number, number, number] => [x, y, z];

/** Asks where air stays whenever the way it stands, its sprue or its vents change, as long as it is looked at. */
export function useAir({
  on,
  corners,
  filling,
  onFilling,
  ask,
  going: { begin, end },
}: {
  on: boolean;
  corners: Float32Array;
  filling: Filling | null;
  onFilling: (f: Filling) => void;
  ask: Ask;
  going: ReturnType<typeof useGoing>;
}): AirState {
  const [known, setKnown] = useState<{ corners: Float32Array; postures: readonly Posture[] } | null>(null);
  const [trapped, setTrapped] = useState<(Trapped & { touched: Uint8Array }) | null>(null);
  const [tips, setTips] = useState<{ filling: Filling | null; list: readonly Sequence[] } | null>(null);
  const up: Vec = filling?.up ?? [0, 0, 1];
  const put = (f: Partial<Filling>) => onFilling({ up: three(up), sprueMm: filling?.sprueMm ?? null, ventsMm: filling?.ventsMm ?? [], ...f });
  useEffect(() => {
    if (!on) return;
    let mine = true;
    void (async () => {
      const told = await ask((w) => w.air(corners, filling?.up ?? [0, 0, 1], filling?.sprueMm ?? null, filling?.ventsMm ?? [], false));
      if (mine && told) setTrapped(told);
    })();
    return () => {
      mine = false;
    };
  }, [on, corners, filling, ask]);
  useEffect(() => {
    if (!on || known?.corners === corners) return;
    let mine = true;
    void (async () => {
      const tell = begin("Standing it every way");
      const postures = await ask((w) => w.postures(corners, proxy(tell)));
      if (!mine) return;
      end();
      setKnown({ corners, postures: postures ?? [] });
    })();
    return () => {
      mine = false;
    };
  }, [on, corners, known, ask, begin, end]);
  return {
    up,
    postures: known?.corners === corners ? known.postures : [],
    trapped,
    ventsMm: filling?.ventsMm ?? [],
    sprueMm: filling?.sprueMm ?? null,
    stand: (to) => put({ up: three(to), sprueMm: null, ventsMm: [] }),
    fillAt: (at) => put({ sprueMm: at && three(at) }),
    vent: () => {
      void (async () => {
        const found = await ask((w) => w.air(corners, up, filling?.sprueMm ?? null, filling?.ventsMm ?? [], true));
        if (found) put({ ventsMm: found.ventsMm.slice(0, 24).map(three) });
      })();
    },
    unvent: () => put({ ventsMm: [] }),
    sequences: tips && tips.filling === filling ? tips.list : null,
    tip: () => {
      void (async () => {
        const tell = begin("Tipping it back");
        const list = await ask((w) => w.sequences(corners, up, filling?.sprueMm ?? null, filling?.ventsMm ?? [], proxy(tell)));
        end();
        if (list) setTips({ filling, list });
      })();
    },
  };
}

const leanOf = (d: Vec, up: Vec): number => (Math.acos(Math.min(1, d[0] * up[0] + d[1] * up[1] + d[2] * up[2])) * 180) / Math.PI;
/** The side of the piece that comes to lie lower. */
function towards(d: Vec, up: Vec): string {
  const lean = d.map((v, k) => v - up[k]!);
  const k = lean.reduce((best, v, i) => (Math.abs(v) > Math.abs(lean[best]!) ? i : best), 0);
  return (
    [
      ["its right", "its left"],
      ["its back", "its front"],
      ["its top", "its foot"],
    ] as const
  )[k]![lean[k]! < 0 ? 0 : 1];
}

/** Which way up, what air stays, and the vents that let it out. */
export function AirTold({ air, hues }: { air: AirState; hues: { caught: string; seam: string } }) {
  const { fmt } = useUnits();
  const ml = (mm3: number) => fmt(mm3 / 1000, "volume");
  const { trapped } = air;
  const share = trapped ? trapped.trappedMm3 / trapped.cavityMm3 : 0;
  return (
    <div className="space-y-1.5 text-sm">
      {trapped && (
        <p>
          <Dot hue={hues.caught} />{" "}
          {share < 1e-4 ? (
            <b>No air stays.</b>
          ) : (
            <>
              <b>{ml(trapped.trappedMm3)} of air stays</b> in {trapped.pockets.length} {trapped.pockets.length === 1 ? "place" : "places"},{" "}
              {(100 * share).toFixed(share < 0.1 ? 1 : 0)} % of the casting.
            </>
          )}{" "}
          <Dot hue={hues.seam} /> {air.sprueMm ? "Filled where you touched." : "Filled at its highest place."}
          {air.ventsMm.length > 0 && ` ${air.ventsMm.length} ${air.ventsMm.length === 1 ? "vent" : "vents"}, to the top of the funnel.`}
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        {trapped && share >= 1e-3 && (
          <button type="button" className="btn !min-h-9 !py-0" onClick={air.vent}>
            Vent what stays
          </button>
        )}
        {trapped && share >= 1e-3 && (
          <button type="button" className="btn !min-h-9 !py-0" onClick={air.tip}>
            Fill it in two steps
          </button>
        )}
        {air.ventsMm.length > 0 && (
          <button type="button" className="btn !min-h-9 !py-0" onClick={air.unvent}>
            No vents
          </button>
        )}
        {air.sprueMm && (
          <button type="button" className="btn !min-h-9 !py-0" onClick={() => air.fillAt(null)}>
            Fill at the highest place
          </button>
        )}
      </div>
      {air.sequences?.length === 0 && <p>No tilt to begin in lets more of it out.</p>}
      {air.sequences?.slice(0, 1).map((s) => (
        <p key={s.share}>
          <b>
            Lean it {Math.round(leanOf(s.tilted, air.up))}°, {towards(s.tilted, air.up)} low, fill it to {Math.round(100 * s.share)} %, then tip it back:
          </b>{" "}
          {s.trappedMm3 < 1 ? "no air stays." : `${ml(s.trappedMm3)} stays.`}
        </p>
      ))}
      {trapped?.pockets.slice(0, 4).map((p, i) => (
        <p key={i}>
          {i + 1}. {ml(p.volumeMm3)}, up to {fmt(p.topMm, "length")} of its height, shut off from {fmt(p.spillMm, "length")} on.
        </p>
      ))}
      {air.postures
        .filter((p) => p.up[0] * air.up[0] + p.up[1] * air.up[1] + p.up[2] * air.up[2] > 0.9999)
        .map((p) => (
          <p key={p.name}>{reasonsOf(p, air.postures).join(" ")}</p>
        ))}
      {air.postures.length > 0 && (
        <ul className="flex flex-wrap gap-1.5" aria-label="Which way up it is filled">
          {air.postures.map((p) => {
            const now = p.up[0] * air.up[0] + p.up[1] * air.up[1] + p.up[2] * air.up[2] > 0.9999;
            return (
              <li key={p.up.join()}>
                <button type="button" aria-pressed={now} className="chip" onClick={() => air.stand(p.up)}>
                  {p.name}: {p.trappedMm3 < 1 ? "no air" : ml(p.trappedMm3)}, {fmt(p.highMm, "length")} high
                </button>
              </li>
            );
          })}
        </ul>
      )}
    </div>
  );
}

/** How a box is held while its rubber rises, in a sentence. */
export const howPoured = ({ onHead, leanDeg, towardsDeg }: Boxed): string =>
  `Seen as it stands for this pour: ${onHead ? "on its head" : "upright"}, ${leanDeg ? `wedged up ${Math.round(leanDeg)}° with its ${towardsName(towardsDeg ?? 0)} low` : "level"}.`;

/** Where the first coat has to be painted in, or the air drawn out. */
export function CoatTold({ coat, hues, how }: { coat: CoatMap; hues: { caught: string }; /** How its box is held. */ how: string | null }) {
  const { fmt } = useUnits();
  return (
    <div className="space-y-1 text-sm">
      <p>
        <Dot hue={hues.caught} />{" "}
        {coat.spots.length === 0 ? (
          <b>Rubber poured round it shuts in no air.</b>
        ) : (
          <>
            <b>
              Rubber poured round it shuts air in at {coat.spots.length} {coat.spots.length === 1 ? "place" : "places"}
            </b>
            , {fmt(coat.trappedMm3 / 1000, "volume")} in all.
          </>
        )}
      </p>
      {coat.spots.slice(0, 5).map((s, i) => (
        <p key={i}>
          {i + 1}. {fmt(s.atMm[2], "length")} up, {fmt(s.deepMm, "length")} deep:{" "}
          {s.by === "paint" ? "paint rubber in first, and look for bubbles." : "too narrow for a brush: draw the air out under vacuum, or fill it and drill."}
        </p>
      ))}
      <p className="hint">{how ?? "Seen as the piece stands on its back, with rubber rising round it."}</p>
    </div>
  );
}
