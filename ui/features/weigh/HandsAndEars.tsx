"use client";

import { Choice } from "../../kit/Choice";
import { Fold } from "../../kit/Fold";
import { Tick } from "../../kit/Tick";
import { LOUD, type Ears, type Loud } from "./useEars";

/** For wet gloves and a face that looks into the cup: all of it optional, and all of it shown in words and shapes as well. */
export function HandsAndEars({ ears, choose }: { ears: Ears; choose: (patch: Partial<Ears>) => void }) {
  return (
    <section aria-label="Hands and ears" className="card space-y-3 p-4">
      <Fold title="Hands full, eyes in the cup">
        <div className="mt-2 space-y-3">
          <Choice<Loud>
            label="Hear the weight"
            value={ears.sound}
            options={(Object.keys(LOUD) as Loud[]).map((value) => ({ value, label: LOUD[value] }))}
            onChange={(sound) => choose({ sound })}
          />
          <p className="hint">The pitch climbs towards the mark, twice a pulse from nine tenths on, three at the mark, low when it is too much.</p>
          <div className="flex flex-wrap gap-2">
            <Tick checked={ears.voice} onChange={(voice) => choose({ voice })}>
              Say the numbers, if this device can
            </Tick>
            <Tick checked={ears.awake} onChange={(awake) => choose({ awake })}>
              Keep the screen awake
            </Tick>
            <Tick checked={ears.large} onChange={(large) => choose({ large })}>
              Large button for an elbow
            </Tick>
          </div>
        </div>
      </Fold>
    </section>
  );
}
